package org.whinridge.app.daybook;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonValue;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.data.domain.Limit;
import org.springframework.data.domain.PageRequest;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Projects;
import org.whinridge.app.round.VisitsForRounds;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.said.Said;
import org.whinridge.core.visit.VisitState;

/** Visits that were handed in, for the review desk and for outputs. */
@Service
@Transactional(readOnly = true)
public class Visits implements VisitsForRounds {
  /** The states in which a visit waits for somebody. */
  public static final Set<VisitState> OPEN = EnumSet.of(VisitState.WAITING);

  /** The states in which somebody has decided. */
  public static final Set<VisitState> DECIDED =
      EnumSet.of(VisitState.ACCEPTED, VisitState.SENT_BACK);

  private static final int MOST_TOLD = 500;
  private final VisitRepository repository;
  private final Projects projects;
  private final Locks locks;

  Visits(VisitRepository repository, Projects projects, Locks locks) {
    this.projects = projects;
    this.locks = locks;
    this.repository = repository;
  }

  private static Visit of(VisitEntity v) {
    List<Said> findings = new ArrayList<>();
    for (JsonValue f : Json.parse(v.findings).asArray()) findings.add(Said.read(f));
    return new Visit(
        v.id,
        Optional.ofNullable(v.roundId),
        v.formId,
        v.edition,
        v.layerId,
        v.featureId,
        v.person,
        v.device,
        v.startedAt,
        v.endedAt,
        v.receivedAt,
        SentVisit.read(Json.parse(v.document).asObject(), v.document),
        findings,
        v.state,
        v.clash,
        v.reason,
        Optional.ofNullable(v.decidedAt),
        Optional.ofNullable(v.decidedBy));
  }

  /** A page of the visits of some layers in some states, the newest first. */
  public List<VisitLine> page(
      Collection<UUID> layers, Collection<VisitState> states, int page, int size) {
    return layers.isEmpty()
        ? List.of()
        : repository.lines(layers, states, PageRequest.of(page, size));
  }

  /** The visits above and below one in such a list. */
  public record Neighbours(Optional<UUID> above, Optional<UUID> below) {}

  /** The neighbours of a visit among those in some states, whether or not it is itself in one. */
  public Neighbours neighbours(Visit v, Collection<UUID> layers, Collection<VisitState> states) {
    Limit one = Limit.of(1);
    return new Neighbours(
        repository.above(layers, states, v.receivedAt(), v.id(), one).stream().findFirst(),
        repository.below(layers, states, v.receivedAt(), v.id(), one).stream().findFirst());
  }

  /** How many there are. */
  public long count(Collection<UUID> layers, Collection<VisitState> states) {
    return layers.isEmpty() ? 0 : repository.countByLayerIdInAndStateIn(layers, states);
  }

  /** A visit that was understood. */
  public Visit get(UUID id) {
    return repository
        .findById(id)
        .filter(v -> v.layerId != null)
        .map(Visits::of)
        .orElseThrow(() -> Refusal.notFound("thing.visit"));
  }

  /** The feature of each accepted visit of a layer, the oldest visit first. */
  public Map<UUID, UUID> featuresOfAccepted(UUID layer) {
    Map<UUID, UUID> out = new LinkedHashMap<>();
    for (Object[] row : repository.acceptedOf(layer)) out.put((UUID) row[0], (UUID) row[1]);
    return out;
  }

  /** The newest accepted visits of a feature, at most so many. */
  public List<Visit> ofFeature(UUID layer, UUID feature, int most) {
    return repository.ofFeature(layer, feature, Limit.of(most)).stream().map(Visits::of).toList();
  }

  /** For each feature its last accepted visit with a form, or that came in a file. */
  public Map<UUID, Visit> last(UUID form, UUID layer, Collection<UUID> features) {
    Map<UUID, Visit> out = new LinkedHashMap<>();
    if (!features.isEmpty())
      repository
          .last(form, layer, features, Layers.now())
          .forEach(v -> out.put(v.featureId, of(v)));
    return out;
  }

  @Override
  public Set<UUID> visitedSince(Layer layer, LocalDate day) {
    return repository.visitedSince(
        layer.id(), day.atStartOfDay(projects.byId(layer.projectId()).zone()).toInstant());
  }

  @Override
  public List<Made> visitsOf(UUID round) {
    return repository.ofRound(round);
  }

  /** A person's newest visits, without documents. */
  List<VisitHead> newest(String person) {
    return repository.heads(person, Limit.of(MOST_TOLD));
  }

  /** Some of a person's visits by id, without documents. */
  List<VisitHead> some(String person, Collection<UUID> ids) {
    return ids.isEmpty() ? List.of() : repository.heads(person, ids);
  }

  /** Locks a visit for deciding; it must still be in one of these states. */
  @Transactional
  public Visit lock(UUID id, Collection<VisitState> states) {
    VisitEntity v =
        locks
            .lock(VisitEntity.class, id)
            .filter(x -> x.layerId != null)
            .orElseThrow(() -> Refusal.notFound("thing.visit"));
    if (!states.contains(v.state))
      throw Refusal.conflict(
          v.decidedBy == null ? "refused.visitIsAlready" : "refused.visitIsAlreadyBy",
          "state",
          Said.ofState(v.state.id()),
          "person",
          String.valueOf(v.decidedBy));
    return of(v);
  }

  /**
   * Puts a visit into a state.
   *
   * @param person who decided; null when it came by itself
   */
  @Transactional
  public void decide(UUID id, VisitState state, String reason, String person) {
    VisitEntity v =
        locks.lock(VisitEntity.class, id).orElseThrow(() -> Refusal.notFound("thing.visit"));
    v.state = state;
    v.clash = false;
    v.reason = Said.text(reason.substring(0, Math.min(1000, reason.length())));
    v.decidedAt = Layers.now();
    v.decidedBy = person;
  }
}
