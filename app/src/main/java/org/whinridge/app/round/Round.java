package org.whinridge.app.round;

import java.time.Instant;
import java.time.LocalDate;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.round.Note;
import org.whinridge.core.round.RoundAllows;
import org.whinridge.core.round.StopState;
import org.whinridge.core.round.Travel;

/**
 * A planned piece of field work with its stops; one that allows more than its stops may have none.
 *
 * @param when from when and until when, and how many visits are expected
 * @param forms what is filled in it, in the order in which they are offered
 * @param people who goes; nobody for anyone who goes out in the project
 * @param area where assets may be visited that are no stops; empty for anywhere
 * @param closedAt since when it is over and on no device
 */
public record Round(
    UUID id,
    UUID projectId,
    String name,
    Note note,
    When when,
    List<UUID> forms,
    List<String> people,
    RoundAllows allows,
    Optional<Geometry> area,
    Travel travel,
    boolean tellsPosition,
    Instant madeAt,
    String madeBy,
    Optional<Instant> closedAt,
    List<Stop> stops) {
  /**
   * When it is walked.
   *
   * @param expected how many visits are expected; 0 when nobody said
   */
  public record When(Optional<LocalDate> starts, Optional<LocalDate> due, int expected) {}

  /**
   * One feature to be visited.
   *
   * @param reason why it is in its state; "" for none
   * @param person who is to go there; empty for whoever of the round comes first
   */
  public record Stop(
      UUID layerId,
      UUID featureId,
      StopState state,
      String reason,
      Note note,
      Optional<String> person) {}

  /** How many stops are done. */
  public long done() {
    return stops.stream().filter(s -> s.state() == StopState.DONE).count();
  }

  /** Whether a feature is one of its stops. */
  public boolean hasStop(UUID feature) {
    return stops.stream().anyMatch(s -> s.featureId().equals(feature));
  }

  /** The pictures of its notes, each once. */
  public Set<String> pictures() {
    Set<String> out = new LinkedHashSet<>(note.pictures());
    for (Stop s : stops) out.addAll(s.note.pictures());
    return out;
  }

  /** Whether anyone of the project may go. */
  public boolean isForAnyone() {
    return people.isEmpty();
  }

  public Optional<LocalDate> due() {
    return when.due;
  }
}
