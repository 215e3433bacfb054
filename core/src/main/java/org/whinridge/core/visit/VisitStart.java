package org.whinridge.core.visit;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.value.IsoTime;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;

/**
 * All that a visit begins with; the same inputs give the same visit anywhere.
 *
 * @param feature the feature visited; empty for a new one
 * @param last the last accepted visit
 * @param person who fills it
 * @param device the device's name
 * @param startedAt when it began, UTC
 * @param offsetMinutes the device's offset from UTC in minutes
 * @param edition the edition's number, 0 for a draft
 * @param fix where the device is
 * @param lookups layers for place look-ups, by layer id
 * @param system the project's coordinate system
 * @param taken whether another feature has a value already
 * @param turn outdoors, or the second turn at the desk that answers the office part
 * @param made the values that were chosen, by field, of the feature that this visit makes; empty
 *     when it makes none
 */
public record VisitStart(
    Optional<Feature> feature,
    Last last,
    String person,
    String device,
    Instant startedAt,
    int offsetMinutes,
    int edition,
    Fix fix,
    Map<String, PlaceIndex> lookups,
    Optional<CoordinateSystem> system,
    Taken taken,
    Turn turn,
    Optional<Map<String, Value>> made) {
  /** A visit that makes no feature. */
  public VisitStart(
      Optional<Feature> feature,
      Last last,
      String person,
      String device,
      Instant startedAt,
      int offsetMinutes,
      int edition,
      Fix fix,
      Map<String, PlaceIndex> lookups,
      Optional<CoordinateSystem> system,
      Taken taken,
      Turn turn) {
    this(
        feature,
        last,
        person,
        device,
        startedAt,
        offsetMinutes,
        edition,
        fix,
        lookups,
        system,
        taken,
        turn,
        Optional.empty());
  }

  /** Who fills the visit in: the device outdoors, or the office at the desk. */
  public enum Turn {
    OUTDOORS,
    DESK
  }

  /**
   * What the last accepted visit of the same feature answered.
   *
   * @param answers by question
   * @param day the day of that visit
   * @param rows the rows of its list sections that were there, by section
   */
  public record Last(
      Map<String, Value> answers, Optional<LocalDate> day, Map<String, List<LastRow>> rows) {
    /** No last visit. */
    public static final Last NONE = new Last(Map.of(), Optional.empty(), Map.of());

    /**
     * It from its JSON form: the members {@code last} and {@code lastDay} of a start, see {@link
     * VisitStart#read}; what can't be read is missing.
     */
    public static Last read(JsonObject start, ExecutableForm form) {
      return last(start, form);
    }
  }

  /** A row of the last visit. */
  public record LastRow(String id, Map<String, Value> answers) {}

  /**
   * A position with its quality.
   *
   * @param heightM above the ellipsoid, as receivers tell it
   * @param bearingDeg the way that the device points to, by its compass, from 0 (north) to 360
   */
  public record Fix(
      Optional<Coordinate> position,
      OptionalDouble accuracyM,
      OptionalInt satellites,
      OptionalDouble heightM,
      OptionalDouble bearingDeg) {
    /** No position. */
    public static final Fix NONE =
        new Fix(Optional.empty(), OptionalDouble.empty(), OptionalInt.empty());

    /** A position of a device that knows neither its height nor where it points to. */
    public Fix(Optional<Coordinate> position, OptionalDouble accuracyM, OptionalInt satellites) {
      this(position, accuracyM, satellites, OptionalDouble.empty(), OptionalDouble.empty());
    }
  }

  /** Knows the values that other features have, of the pack or of the whole layer. */
  public interface Taken {
    /** Whether another feature than {@code self} ("" for a new one) has the value in the field. */
    boolean by(String field, Value value, String self);
  }

  /** Knows of no other feature. */
  public static final Taken NOTHING_TAKEN = (field, value, self) -> false;

  /** The day at the device when the visit began. */
  public LocalDate today() {
    return local().toLocalDate();
  }

  /** The time of day at the device when the visit began, as HH:MM. */
  String timeOfDay() {
    String s = local().toLocalTime().toString();
    return s.substring(0, 5);
  }

  private java.time.OffsetDateTime local() {
    return startedAt.plusSeconds(offsetMinutes * 60L).atOffset(java.time.ZoneOffset.UTC);
  }

  /** The same visit in its second turn, at the desk. */
  public VisitStart atTheDesk() {
    return copy(feature, last, lookups, taken, Turn.DESK);
  }

  /** The same visit to another feature, with its own last visit. */
  VisitStart on(Feature other, Last itsLast) {
    return copy(Optional.of(other), itsLast, lookups, taken, turn);
  }

  /** The same visit with other look-up layers. */
  public VisitStart with(Map<String, PlaceIndex> others) {
    return copy(feature, last, others, taken, turn);
  }

  /** The same visit knowing the values that others have. */
  public VisitStart with(Taken others) {
    return copy(feature, last, lookups, others, turn);
  }

  private VisitStart copy(
      Optional<Feature> newFeature,
      Last newLast,
      Map<String, PlaceIndex> newLookups,
      Taken newTaken,
      Turn newTurn) {
    return new VisitStart(
        newFeature,
        newLast,
        person,
        device,
        startedAt,
        offsetMinutes,
        edition,
        fix,
        newLookups,
        system,
        newTaken,
        newTurn,
        made);
  }

  /**
   * A start from its JSON form: person, device, startedAt (ISO 8601), offset (minutes), edition,
   * position {lon, lat, accuracy, satellites, height, bearing}, last {question: value, list
   * section: [{id, answers}]}, lastDay, turn, new {field: value} when it makes a feature. Feature,
   * look-up layers and coordinate system are given beside it, since they live longer than one
   * visit.
   */
  public static VisitStart read(
      JsonObject o,
      Optional<Feature> feature,
      Map<String, PlaceIndex> lookups,
      Optional<CoordinateSystem> system,
      ExecutableForm form) {
    return new VisitStart(
        feature,
        last(o, form),
        text(o, "person"),
        text(o, "device"),
        moment(text(o, "startedAt")),
        whole(o, "offset"),
        whole(o, "edition"),
        fix(o.get("position")),
        lookups,
        system,
        NOTHING_TAKEN,
        text(o, "turn").equals("desk") ? Turn.DESK : Turn.OUTDOORS,
        feature.isEmpty() && o.get("new") != null && o.get("new").isObject()
            ? Optional.of(form.schema().readValues(o.get("new").asObject()))
            : Optional.empty());
  }

  private static Fix fix(JsonValue v) {
    if (v == null || !v.isObject()) return Fix.NONE;
    JsonObject p = v.asObject();
    OptionalDouble lon = number(p, "lon");
    OptionalDouble lat = number(p, "lat");
    if (lon.isEmpty() || lat.isEmpty()) return Fix.NONE;
    OptionalDouble satellites = number(p, "satellites");
    return new Fix(
        Optional.of(new Coordinate(lon.getAsDouble(), lat.getAsDouble())),
        number(p, "accuracy"),
        satellites.isEmpty() ? OptionalInt.empty() : OptionalInt.of((int) satellites.getAsDouble()),
        number(p, "height"),
        number(p, "bearing"));
  }

  // A start comes from a device with its visit: what can't be read there counts as missing, so that
  // no answer is lost over it.

  private static String text(JsonObject o, String member) {
    JsonValue v = o.get(member);
    return v != null && v.isString() ? v.asString() : "";
  }

  private static OptionalDouble number(JsonObject o, String member) {
    JsonValue v = o.get(member);
    return v != null && v.isNumber() && !Double.isInfinite(v.asDouble())
        ? OptionalDouble.of(v.asDouble())
        : OptionalDouble.empty();
  }

  private static int whole(JsonObject o, String member) {
    double d = number(o, member).orElse(0);
    return Math.abs(d) < 1e9 ? (int) d : 0;
  }

  private static Instant moment(String s) {
    return IsoTime.moment(s).orElse(Instant.EPOCH);
  }

  private static Last last(JsonObject o, ExecutableForm form) {
    Map<String, Value> answers = new LinkedHashMap<>();
    Map<String, List<LastRow>> rows = new LinkedHashMap<>();
    if (o.get("last") != null && o.get("last").isObject())
      for (JsonObject.Member m : o.get("last").asObject()) {
        if (form.listOf(m.getName()) < 0) answer(m, form, answers);
        else if (m.getValue().isArray()) rows.put(m.getName(), rows(m.getValue().asArray(), form));
      }
    return new Last(answers, IsoTime.date(text(o, "lastDay")), rows);
  }

  private static void answer(JsonObject.Member m, ExecutableForm form, Map<String, Value> into) {
    int i = form.indexOf(m.getName());
    if (i >= 0) into.put(m.getName(), ValueJson.read(m.getValue(), form.at(i).type()));
  }

  private static List<LastRow> rows(JsonArray a, ExecutableForm form) {
    List<LastRow> out = new ArrayList<>();
    for (JsonValue v : a) {
      if (!v.isObject()) continue;
      RowState state = RowState.of(text(v.asObject(), "state"));
      JsonValue stored = v.asObject().get("answers");
      if (!state.isThere() || stored == null || !stored.isObject()) continue;
      Map<String, Value> answers = new LinkedHashMap<>();
      for (JsonObject.Member m : stored.asObject()) answer(m, form, answers);
      String id = text(v.asObject(), "id");
      out.add(new LastRow(id.isEmpty() ? "row" + out.size() : id, answers));
    }
    return out;
  }
}
