package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;

/**
 * A visit as a device sent it, read once. What is missing is empty: whoever needs it says so. Parts
 * that are core's own (answers, inputs, values by the layer's fields) stay JSON, since core reads
 * them by form and schema.
 *
 * @param form with which it was filled; devices that took a round out when each had one form don't
 *     say
 * @param ofFile whether its form was opened from a file and is not known to be the project's
 * @param start with what the visit was begun, for core's {@code VisitStart}
 * @param state the answers, for core's {@code Filling}
 * @param base what the feature was when the visit took it out
 * @param set the values for the layer, by field
 * @param geometry the new place of the feature
 * @param kept answers that stay on the visit, by question or list
 * @param provenance where values came from, by question
 * @param ranked the fields whose lists are rankings
 * @param open what was open when it was handed in, as core tells it
 * @param text the whole visit as it was sent
 */
public record SentVisit(
    Optional<UUID> id,
    Optional<UUID> round,
    Optional<UUID> form,
    boolean ofFile,
    Optional<UUID> feature,
    int edition,
    Optional<Instant> startedAt,
    Optional<Instant> endedAt,
    JsonObject start,
    JsonObject state,
    Base base,
    JsonObject set,
    Optional<Geometry> geometry,
    JsonObject kept,
    Map<String, From> provenance,
    Set<String> ranked,
    List<SentPhoto> photos,
    JsonArray open,
    String text) {
  /** What the feature was when the visit took it out; version 0 when it was new. */
  public record Base(long version, JsonObject values, Optional<Geometry> geometry) {
    /** Whether there was no feature yet. */
    public boolean isNew() {
      return version == 0;
    }
  }

  /** Where a value came from, in words, and more of it; "" for nothing. */
  public record From(String from, String detail) {}

  /** A photo that the visit announces; bytes are 0 when it does not say how many. */
  public record SentPhoto(
      Optional<UUID> id, String question, String sha256, long bytes, String geotag) {}

  /**
   * Reads a visit.
   *
   * @param text the same as it is stored, so that it is not written anew for each that is listed
   * @throws IllegalArgumentException with the member that can't be read, in words
   */
  public static SentVisit read(JsonObject o, String text) {
    JsonObject base = Sent.object(o, "base");
    return new SentVisit(
        Sent.uuid(o, "id"),
        Sent.uuid(o, "round"),
        Sent.uuid(o, "form"),
        !Sent.text(o, "formFile").isEmpty() && Sent.uuid(o, "form").isEmpty(),
        Sent.uuid(o, "feature"),
        (int) Sent.whole(o, "edition", Said.text("edition")),
        moment(o, "startedAt"),
        moment(o, "endedAt"),
        Sent.object(o, "start"),
        Sent.object(o, "state"),
        new Base(
            base.get("version") != null && base.get("version").isNumber()
                ? (long) base.get("version").asDouble()
                : 0,
            Sent.object(base, "values"),
            geometry(base)),
        Sent.object(o, "set"),
        geometry(o),
        Sent.object(o, "kept"),
        provenance(Sent.object(o, "provenance")),
        ranked(o.get("ranked")),
        photos(o.get("photos")),
        o.get("open") != null && o.get("open").isArray()
            ? o.get("open").asArray()
            : new JsonArray(),
        text);
  }

  private static Optional<Geometry> geometry(JsonObject o) {
    JsonValue v = o.get("geometry");
    return v == null || !v.isObject() ? Optional.empty() : GeometryJson.read(v.asObject());
  }

  private static Optional<Instant> moment(JsonObject o, String member) {
    String text = Sent.text(o, member);
    if (text.isEmpty()) return Optional.empty();
    try {
      return Optional.of(Instant.parse(text));
    } catch (DateTimeException e) {
      throw new Unfit("refused.noMoment", "member", member, "text", text).because(e);
    }
  }

  private static Map<String, From> provenance(JsonObject o) {
    Map<String, From> out = new LinkedHashMap<>();
    for (JsonObject.Member m : o)
      if (m.getValue().isObject()) {
        JsonObject from = m.getValue().asObject();
        out.put(m.getName(), new From(Sent.text(from, "from"), Sent.text(from, "detail")));
      }
    return out;
  }

  private static Set<String> ranked(JsonValue list) {
    Set<String> out = new LinkedHashSet<>();
    if (list != null && list.isArray())
      for (JsonValue v : list.asArray()) if (v.isString()) out.add(v.asString());
    return out;
  }

  private static List<SentPhoto> photos(JsonValue list) {
    if (list == null) return List.of();
    if (!list.isArray()) throw new Unfit("refused.photosNoList");
    JsonArray a = list.asArray();
    List<SentPhoto> out = new ArrayList<>();
    for (int i = 0; i < a.size(); i++) {
      if (!a.get(i).isObject()) throw new Unfit("refused.photoNoObject", "i", i + 1);
      JsonObject p = a.get(i).asObject();
      out.add(
          new SentPhoto(
              Sent.uuid(p, "id"),
              Sent.text(p, "question"),
              Sent.text(p, "sha256"),
              Sent.whole(p, "bytes", Said.of("refused.bytesOfPhoto", "n", i + 1)),
              Sent.object(p, "geotag").toString()));
    }
    return out;
  }

  /** Whether it makes its feature: the values that were chosen stand at its start. */
  public boolean makes() {
    return base.isNew() && start.get("new") != null && start.get("new").isObject();
  }

  /** Where the person stood when the visit was begun. */
  public Optional<Coordinate> position() {
    JsonObject p = Sent.object(start, "position");
    JsonValue lon = p.get("lon");
    JsonValue lat = p.get("lat");
    return lon == null || lat == null || !lon.isNumber() || !lat.isNumber()
        ? Optional.empty()
        : Optional.of(new Coordinate(lon.asDouble(), lat.asDouble()));
  }

  /** The answers as the device kept them, by question. */
  public JsonObject answers() {
    return Sent.object(state, "answers");
  }
}
