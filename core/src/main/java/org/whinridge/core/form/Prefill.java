package org.whinridge.core.form;

import com.eclipsesource.json.Json;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.prefill.LookupResult;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.value.ValueType;

/** Walks a question's prefill chain: the first source that gives a value wins. */
final class Prefill {
  /** A first value with its origin, and in words what a look-up came to when it gave none. */
  record First(Value value, Provenance provenance, String note) {}

  private Prefill() {}

  static First of(Question q, ValueType type, VisitStart start, Optional<Coordinate> place) {
    String note = "";
    for (Source s : q.prefill()) {
      if (s instanceof Source.Place p) {
        LookupResult r = start.lookUp(p.layerId(), p.field(), place);
        if (r instanceof LookupResult.Found f && !f.value().isEmpty())
          return new First(
              fit(f.value(), type),
              new Provenance(
                  Provenance.Kind.PLACE,
                  p.layerName() + (f.several() ? " (the smallest of several)" : ""),
                  f.featureId(),
                  false),
              "");
        note = said(r, p.layerName());
        continue;
      }
      First f = simple(q, s, type, start);
      if (!f.value().isEmpty()) return f;
    }
    return new First(Value.EMPTY, Provenance.NONE, note);
  }

  static boolean looksUp(Question q) {
    return q.prefill().stream().anyMatch(Source.Place.class::isInstance);
  }

  private static First simple(Question q, Source s, ValueType type, VisitStart start) {
    if (s instanceof Source.Asset)
      return first(
          start.feature().map(f -> f.value(q.writesTo())).orElse(Value.EMPTY),
          Provenance.Kind.ASSET,
          "");
    if (s instanceof Source.LastVisit v) {
      boolean fresh =
          v.mostDays() == 0
              || start
                  .lastDay()
                  .map(d -> ChronoUnit.DAYS.between(d, start.today()) <= v.mostDays())
                  .orElse(false);
      return first(
          fresh ? start.last().getOrDefault(q.name(), Value.EMPTY) : Value.EMPTY,
          Provenance.Kind.LAST_VISIT,
          start.lastDay().map(Object::toString).orElse(""));
    }
    if (s instanceof Source.Fixed f)
      return first(ValueJson.read(Json.parse(f.json()), type), Provenance.Kind.FIXED, "");
    return s instanceof Source.Device d
        ? first(device(d.item(), start), Provenance.Kind.DEVICE, "")
        : new First(Value.EMPTY, Provenance.NONE, "");
  }

  private static First first(Value v, Provenance.Kind kind, String detail) {
    return new First(v, Provenance.of(kind, detail), "");
  }

  private static Value device(String item, VisitStart start) {
    switch (item) {
      case "person":
        return Value.text(start.person());
      case "device":
        return Value.text(start.device());
      case "date":
        return new Value.Day(start.today());
      case "moment":
        return new Value.Moment(start.startedAt());
      case "accuracy":
        return start.accuracyM().isPresent()
            ? Value.of(start.accuracyM().getAsDouble())
            : Value.EMPTY;
      default:
        {
          Optional<Coordinate> c =
              start.system().flatMap(s -> start.position().flatMap(s::project));
          return c.map(x -> Value.of(item.equals("easting") ? x.x : x.y)).orElse(Value.EMPTY);
        }
    }
  }

  /** A number looked up for a text question is written as text. */
  private static Value fit(Value v, ValueType type) {
    return type == ValueType.TEXT && !(v instanceof Value.Text) ? Value.text(v.plain()) : v;
  }

  private static String said(LookupResult r, String layer) {
    if (r instanceof LookupResult.LayerMissing)
      return layer + " did not travel with this pack; answer by hand";
    if (r instanceof LookupResult.NoPosition)
      return "looked up in " + layer + " as soon as the visit has a position";
    return r instanceof LookupResult.Found
        ? "the feature of " + layer + " at this place has no value"
        : "no feature of " + layer + " holds this place";
  }
}
