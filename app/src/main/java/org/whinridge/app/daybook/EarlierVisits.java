package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.shell.Ids;
import org.whinridge.app.shell.Sha256;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.Said;
import org.whinridge.core.visit.VisitState;

/**
 * Keeps visits that were filled with a form before the project began here: as accepted ones, whole,
 * as a device would have sent them. The layer is what came of them already, and stays as it is.
 */
@Service
public class EarlierVisits {
  /** So long after its end a visit came in, and so long after that it was accepted. */
  private static final Duration LATER = Duration.ofHours(5);

  private static final Duration NEXT_DAY = Duration.ofHours(13);

  private final VisitRepository visits;
  private final HandInRepository handIns;

  EarlierVisits(VisitRepository visits, HandInRepository handIns) {
    this.visits = visits;
    this.handIns = handIns;
  }

  /** Which edition they were filled with, over which layer, and who accepted them. */
  public record With(UUID form, int edition, UUID layer, String acceptedBy) {}

  /**
   * A visit.
   *
   * @param start with what it was begun, for core's {@code VisitStart}
   * @param saved what was done, for core's {@code Filling}
   * @param result what came of it, of the same
   */
  public record Filled(
      Feature feature,
      String person,
      Instant startedAt,
      Instant endedAt,
      JsonObject start,
      JsonObject saved,
      JsonObject result) {}

  /** Keeps them, all or none. */
  @Transactional
  public void keep(With with, List<Filled> all) {
    Map<String, HandInEntity> of = new LinkedHashMap<>();
    List<VisitEntity> kept = new ArrayList<>();
    for (Filled f : all) {
      HandInEntity h =
          of.computeIfAbsent(f.person, p -> handIn(p, f.start.getString("device", "")));
      h.visits++;
      h.receivedAt = f.endedAt.plus(LATER);
      kept.add(visit(with, f, h));
    }
    handIns.saveAllAndFlush(of.values());
    visits.saveAllAndFlush(kept);
  }

  private static HandInEntity handIn(String person, String device) {
    HandInEntity h = new HandInEntity();
    h.id = UUID.randomUUID();
    h.person = person;
    h.device = device;
    return h;
  }

  private static VisitEntity visit(With with, Filled f, HandInEntity h) {
    VisitEntity v = new VisitEntity();
    v.id = Ids.next();
    v.handInId = h.id;
    v.formId = with.form;
    v.edition = with.edition;
    v.layerId = with.layer;
    v.featureId = UUID.fromString(f.feature.id());
    v.person = f.person;
    v.device = h.device;
    v.startedAt = f.startedAt;
    v.endedAt = f.endedAt;
    v.receivedAt = h.receivedAt;
    v.document = document(v, f).toString();
    v.documentHash = Sha256.of(v.document);
    v.findings = "[]";
    v.state = VisitState.ACCEPTED;
    v.reason = Said.NONE;
    v.decidedAt = h.receivedAt.plus(NEXT_DAY);
    v.decidedBy = with.acceptedBy;
    return v;
  }

  private static JsonObject document(VisitEntity v, Filled f) {
    JsonObject o =
        new JsonObject()
            .add("id", v.id.toString())
            .add("edition", v.edition)
            .add("feature", f.feature.id())
            .add("startedAt", f.startedAt.toString())
            .add("endedAt", f.endedAt.toString())
            .add("start", f.start)
            .add("state", f.saved)
            .add("photos", new JsonArray());
    for (JsonObject.Member m : f.result) {
      JsonValue value = m.getValue();
      if (m.getName().equals("base") && f.feature.geometry().isPresent())
        value =
            new JsonObject(value.asObject())
                .add("geometry", GeometryJson.write(f.feature.geometry().get()));
      o.add(m.getName(), value);
    }
    return o;
  }
}
