package org.whinridge.core.form;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.Instant;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.prefill.LookupResult;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.value.Value;

/**
 * All that a visit begins with; the same inputs give the same visit anywhere.
 *
 * @param feature the feature visited; empty for a new one
 * @param last the last accepted visit's answers by question; empty for none
 * @param lastDay the day of that visit
 * @param person who fills it
 * @param device the device's name
 * @param startedAt when it began, UTC
 * @param offsetMinutes the device's offset from UTC in minutes
 * @param edition the edition's number, 0 for a draft
 * @param position where the device is
 * @param accuracyM the position's horizontal accuracy in metres
 * @param lookups layers for place look-ups, by layer id
 * @param system the project's coordinate system
 */
public record VisitStart(
    Optional<Feature> feature,
    Map<String, Value> last,
    Optional<LocalDate> lastDay,
    String person,
    String device,
    Instant startedAt,
    int offsetMinutes,
    int edition,
    Optional<Coordinate> position,
    OptionalDouble accuracyM,
    Map<String, PlaceIndex> lookups,
    Optional<CoordinateSystem> system) {
  /** The day at the device when the visit began. */
  public LocalDate today() {
    return startedAt
        .plusSeconds(offsetMinutes * 60L)
        .atOffset(java.time.ZoneOffset.UTC)
        .toLocalDate();
  }

  /** Looks a field up at a place. */
  LookupResult lookUp(String layerId, String field, Optional<Coordinate> at) {
    PlaceIndex index = lookups.get(layerId);
    if (index == null) return new LookupResult.LayerMissing();
    return at.isEmpty() ? new LookupResult.NoPosition() : index.containing(at.get(), field);
  }

  /**
   * A start from its JSON form: person, device, startedAt (ISO 8601), offset (minutes), edition,
   * position {lon, lat, accuracy}, last {question: value}, lastDay. Feature, look-up layers and
   * coordinate system are given beside it, since they live longer than one visit.
   */
  public static VisitStart read(
      JsonObject o,
      Optional<Feature> feature,
      Map<String, PlaceIndex> lookups,
      Optional<CoordinateSystem> system,
      ExecutableForm form) {
    JsonValue p = o.get("position");
    Optional<Coordinate> position =
        p == null || !p.isObject()
            ? Optional.empty()
            : Optional.of(
                new Coordinate(p.asObject().getDouble("lon", 0), p.asObject().getDouble("lat", 0)));
    JsonValue accuracy = p == null || !p.isObject() ? null : p.asObject().get("accuracy");
    Map<String, Value> last = new LinkedHashMap<>();
    if (o.get("last") != null && o.get("last").isObject())
      for (JsonObject.Member m : o.get("last").asObject())
        form.form()
            .question(m.getName())
            .ifPresent(
                q ->
                    last.put(
                        m.getName(),
                        org.whinridge.core.value.ValueJson.read(
                            m.getValue(), q.valueType(form.schema()))));
    String lastDay = o.getString("lastDay", "");
    return new VisitStart(
        feature,
        last,
        lastDay.isEmpty() ? Optional.empty() : Optional.of(LocalDate.parse(lastDay)),
        o.getString("person", ""),
        o.getString("device", ""),
        Instant.parse(o.getString("startedAt", "1970-01-01T00:00:00Z")),
        o.getInt("offset", 0),
        o.getInt("edition", 0),
        position,
        accuracy == null || !accuracy.isNumber()
            ? OptionalDouble.empty()
            : OptionalDouble.of(accuracy.asDouble()),
        lookups,
        system);
  }
}
