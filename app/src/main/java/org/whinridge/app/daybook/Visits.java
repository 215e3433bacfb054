package org.whinridge.app.daybook;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.shell.Refusal;

/** Visits that were handed in, for the review desk and for outputs. */
@Service
@Transactional(readOnly = true)
public class Visits {
  /** The states in which a visit waits for somebody. */
  public static final List<String> OPEN = List.of("waiting", "clash");

  private static final int MOST_LISTED = 500;
  private final VisitRepository repository;

  Visits(VisitRepository repository) {
    this.repository = repository;
  }

  private static Visit of(VisitEntity v) {
    List<String> findings = new ArrayList<>();
    for (JsonValue f : Json.parse(v.findings).asArray()) findings.add(f.asString());
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
        Json.parse(v.document).asObject(),
        findings,
        v.state,
        v.reason,
        Optional.ofNullable(v.decidedAt),
        Optional.ofNullable(v.decidedBy));
  }

  /** Visits of some layers in some states, the newest first, at most 500. */
  public List<Visit> list(Collection<UUID> layers, Collection<String> states) {
    return layers.isEmpty()
        ? List.of()
        : repository
            .findByLayerIdInAndStateInOrderByReceivedAtDesc(layers, states, Limit.of(MOST_LISTED))
            .stream()
            .map(Visits::of)
            .toList();
  }

  /** How many there are. */
  public long count(Collection<UUID> layers, Collection<String> states) {
    return layers.isEmpty() ? 0 : repository.countByLayerIdInAndStateIn(layers, states);
  }

  /** What could not be read as a visit: id, person, reason and its raw text. */
  public record SetAside(
      UUID id, String person, java.time.Instant receivedAt, String reason, String raw) {}

  /** Everything that was set aside, the newest first, at most 100. */
  public List<SetAside> setAside() {
    return repository.findByStateOrderByReceivedAtDesc("set aside", Limit.of(100)).stream()
        .map(v -> new SetAside(v.id, v.person, v.receivedAt, v.reason, v.document))
        .toList();
  }

  /** A visit that was understood. */
  public Visit get(UUID id) {
    return repository
        .findById(id)
        .filter(v -> v.layerId != null)
        .map(Visits::of)
        .orElseThrow(() -> Refusal.notFound("visit"));
  }

  /** The accepted visits of a layer, the oldest first. */
  public List<Visit> accepted(UUID layer) {
    return repository.findByLayerIdAndStateOrderByEndedAt(layer, "accepted").stream()
        .map(Visits::of)
        .toList();
  }

  /** For each feature its last accepted visit with a form. */
  public Map<UUID, Visit> last(UUID form, Collection<UUID> features) {
    Map<UUID, Visit> out = new LinkedHashMap<>();
    if (!features.isEmpty())
      repository
          .findByFormIdAndStateAndFeatureIdInOrderByEndedAt(form, "accepted", features)
          .forEach(v -> out.put(v.featureId, of(v)));
    return out;
  }

  /** The states of a person's newest visits: [{id, state, reason}]. */
  List<JsonObject> states(String person) {
    return repository.findByPersonOrderByReceivedAtDesc(person, Limit.of(MOST_LISTED)).stream()
        .map(
            v ->
                new JsonObject()
                    .add("id", v.id.toString())
                    .add("state", v.state)
                    .add("reason", v.reason))
        .toList();
  }

  /** Locks a visit for deciding; it must still be in one of these states. */
  @Transactional
  public Visit lock(UUID id, Collection<String> states) {
    VisitEntity v =
        repository
            .lock(id)
            .filter(x -> x.layerId != null)
            .orElseThrow(() -> Refusal.notFound("visit"));
    if (!states.contains(v.state))
      throw Refusal.conflict(
          "This visit is “"
              + v.state
              + "” already"
              + (v.decidedBy == null ? "" : ", by " + v.decidedBy)
              + ". Nothing was changed.");
    return of(v);
  }

  /** Puts a visit into a state. */
  @Transactional
  public void decide(UUID id, String state, String reason, String person) {
    VisitEntity v = repository.lock(id).orElseThrow(() -> Refusal.notFound("visit"));
    v.state = state;
    v.reason = reason.substring(0, Math.min(1000, reason.length()));
    v.decidedAt = Layers.now();
    v.decidedBy = person;
    repository.save(v);
  }
}
