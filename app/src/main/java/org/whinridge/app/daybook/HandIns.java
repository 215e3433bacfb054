package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import org.whinridge.app.form.Edition;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.project.Projects;
import org.whinridge.app.round.Round;
import org.whinridge.app.round.Rounds;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Sha256;
import org.whinridge.core.layer.Feature;

/**
 * Takes hand-ins. Each visit is kept in a transaction of its own and never holds up the others; the
 * same visit sent again changes nothing. Before the answer goes out everything is synced to disk.
 */
@Service
class HandIns {
  private static final Logger LOG = LoggerFactory.getLogger(HandIns.class);
  private static final int MOST_VISITS = 500;
  private static final int MOST_PHOTOS = 50;
  private final HandInRepository handIns;
  private final VisitRepository visits;
  private final Rounds rounds;
  private final Forms forms;
  private final Layers layers;
  private final Projects projects;
  private final Photos photos;
  private final VisitCheck check;
  private final TransactionTemplate transaction;
  private final JdbcTemplate jdbc;

  HandIns(
      HandInRepository handIns,
      VisitRepository visits,
      Rounds rounds,
      Forms forms,
      Layers layers,
      Projects projects,
      Photos photos,
      VisitCheck check,
      PlatformTransactionManager manager,
      JdbcTemplate jdbc) {
    this.handIns = handIns;
    this.visits = visits;
    this.rounds = rounds;
    this.forms = forms;
    this.layers = layers;
    this.projects = projects;
    this.photos = photos;
    this.check = check;
    this.transaction = new TransactionTemplate(manager);
    this.jdbc = jdbc;
  }

  /** Takes a hand-in; answers with one line per visit: {id, state, reason, clashes}. */
  JsonObject receive(JsonObject handIn, String person) {
    UUID id =
        uuid(handIn, "id")
            .orElseThrow(
                () ->
                    Refusal.refused(
                        "This hand-in has no id. Nothing was taken; the visits stay on the device."));
    JsonValue list = handIn.get("visits");
    if (list == null || !list.isArray())
      throw Refusal.refused(
          "This hand-in has no visits. Nothing was taken; the visits stay on the device.");
    if (list.asArray().size() > MOST_VISITS)
      throw Refusal.refused(
          "A hand-in has at most "
              + MOST_VISITS
              + " visits. Nothing was taken; send them in parts.");
    String device = cut(text(handIn, "device"), 80);
    transaction.executeWithoutResult(t -> begin(id, person, device, list.asArray().size()));
    JsonArray answers = new JsonArray();
    for (JsonValue v : list.asArray()) answers.add(one(id, v, person, device));
    jdbc.execute("CHECKPOINT SYNC");
    LOG.info("hand-in {} by {} with {} visits", id, person, list.asArray().size());
    return new JsonObject().add("handIn", id.toString()).add("visits", answers);
  }

  private void begin(UUID id, String person, String device, int n) {
    Optional<HandInEntity> there = handIns.findById(id);
    if (there.isPresent()) {
      if (!there.get().person.equals(person))
        throw Refusal.conflict("This hand-in belongs to somebody else. Nothing was taken.");
      return;
    }
    HandInEntity h = new HandInEntity();
    h.id = id;
    h.person = person;
    h.device = device;
    h.receivedAt = Layers.now();
    h.visits = n;
    handIns.save(h);
  }

  private JsonObject one(UUID handIn, JsonValue raw, String person, String device) {
    UUID id = raw.isObject() ? uuid(raw.asObject(), "id").orElse(null) : null;
    try {
      if (id == null) throw new IllegalArgumentException("it has no id");
      return transaction.execute(t -> keep(handIn, id, raw.asObject(), person, device));
    } catch (Refusal
        | IllegalArgumentException
        | UnsupportedOperationException
        | DateTimeException e) {
      LOG.warn("visit {} of {} set aside: {}", id, person, e.toString());
      return transaction.execute(
          t ->
              setAside(
                  handIn,
                  id,
                  raw,
                  person,
                  device,
                  e.getMessage() == null ? "a part of it has the wrong kind" : e.getMessage()));
    }
  }

  private JsonObject keep(UUID handIn, UUID id, JsonObject doc, String person, String device) {
    String text = doc.toString();
    String hash = Sha256.of(text);
    Optional<VisitEntity> there = visits.lock(id);
    if (there.isPresent() && !there.get().person.equals(person))
      throw new IllegalArgumentException("a visit with this id belongs to somebody else");
    if (there.isPresent()
        && (there.get().documentHash.equals(hash) || there.get().state.equals("accepted")))
      return answer(there.get());
    UUID roundId = need(doc, "round");
    Round round = rounds.forPerson(roundId, person);
    UUID featureId = need(doc, "feature");
    if (round.stops().stream().noneMatch(s -> s.featureId().equals(featureId)))
      throw new IllegalArgumentException("the feature is no stop of this round");
    Layer layer = layers.byId(round.layerId());
    int number = doc.getInt("edition", 0);
    Edition edition =
        forms
            .edition(round.formId(), number)
            .orElseThrow(
                () ->
                    new IllegalArgumentException(
                        "edition " + number + " of its form is not known here"));
    VisitEntity v = there.orElseGet(VisitEntity::new);
    v.id = id;
    v.handInId = handIn;
    v.roundId = roundId;
    v.formId = round.formId();
    v.edition = number;
    v.layerId = layer.id();
    v.featureId = featureId;
    v.person = person;
    v.device = device;
    v.startedAt = Instant.parse(doc.getString("startedAt", ""));
    v.endedAt = Instant.parse(doc.getString("endedAt", ""));
    v.receivedAt = Layers.now();
    v.document = text;
    v.documentHash = hash;
    JsonArray findings = new JsonArray();
    check.findings(doc, edition, projects.byId(layer.projectId()), layer).forEach(findings::add);
    v.findings = findings.toString();
    v.state = clashes(doc, layer, featureId) ? "clash" : "waiting";
    v.reason = "";
    visits.save(v);
    announcePhotos(id, doc);
    rounds.mark(roundId, featureId, "done", "");
    return answer(v);
  }

  /**
   * Whether accepting it now would need a decision: a field that both changed, or a feature that is
   * gone.
   */
  private boolean clashes(JsonObject doc, Layer layer, UUID featureId) {
    Optional<Feature> now = layers.feature(layer, featureId);
    return now.isEmpty() || !VisitMerge.of(doc, layer, now.get()).clashes().isEmpty();
  }

  private void announcePhotos(UUID visit, JsonObject doc) {
    JsonValue list = doc.get("photos");
    if (list == null) return;
    if (list.asArray().size() > MOST_PHOTOS)
      throw new IllegalArgumentException("a visit has at most " + MOST_PHOTOS + " photos");
    int place = 0;
    for (JsonValue p : list.asArray()) {
      JsonObject o = p.asObject();
      long bytes = o.getLong("bytes", 0);
      if (!o.getString("sha256", "").matches("[0-9a-f]{64}") || bytes < 1 || bytes > photos.limit())
        throw new IllegalArgumentException(
            "a photo has no sound hash, or is larger than " + photos.limit() + " bytes");
      photos.announce(
          need(o, "id"),
          visit,
          cut(o.getString("question", ""), 63),
          o.getString("sha256", ""),
          bytes,
          VisitCheck.object(o, "geotag").toString(),
          place++);
    }
  }

  private JsonObject setAside(
      UUID handIn, UUID id, JsonValue raw, String person, String device, String reason) {
    Optional<VisitEntity> there = id == null ? Optional.empty() : visits.findById(id);
    boolean taken = there.isPresent() && !there.get().state.equals("set aside");
    // what was kept under this id before stays as it was; the new text is kept beside it
    UUID beside = UUID.nameUUIDFromBytes((person + raw).getBytes(StandardCharsets.UTF_8));
    VisitEntity v = taken ? new VisitEntity() : there.orElseGet(VisitEntity::new);
    v.id = id == null || taken ? beside : id;
    v.handInId = handIn;
    v.person = person;
    v.device = device;
    v.receivedAt = Layers.now();
    v.document = raw.toString();
    v.documentHash = Sha256.of(raw.toString());
    v.findings = "[]";
    v.state = "set aside";
    v.reason = cut(reason, 1000);
    visits.save(v);
    return new JsonObject()
        .add("id", id == null ? "" : id.toString())
        .add("state", "set aside")
        .add(
            "reason",
            "The office has kept it, but could not read it as a visit: "
                + v.reason
                + ". A coordinator sees it.");
  }

  private static JsonObject answer(VisitEntity v) {
    return new JsonObject()
        .add("id", v.id.toString())
        .add("state", v.state)
        .add("reason", v.reason);
  }

  private static String text(JsonObject o, String member) {
    return o.get(member) != null && o.get(member).isString() ? o.get(member).asString() : "";
  }

  private static Optional<UUID> uuid(JsonObject o, String member) {
    String s = text(o, member);
    return s.matches("[0-9a-fA-F]{8}(-[0-9a-fA-F]{4}){3}-[0-9a-fA-F]{12}")
        ? Optional.of(UUID.fromString(s))
        : Optional.empty();
  }

  private static UUID need(JsonObject o, String member) {
    return uuid(o, member)
        .orElseThrow(() -> new IllegalArgumentException("its " + member + " is not an id"));
  }

  private static String cut(String s, int most) {
    return s.substring(0, Math.min(most, s.length()));
  }
}
