package org.whinridge.core.visit;

import com.eclipsesource.json.Json;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.compile.Compiled;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.prefill.LookupResult;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Situation;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.value.ValueType;

/** Walks a question's prefill chain: the first source that gives a value wins. */
final class Prefill {
  /** A first value with its origin, and what a look-up came to when it gave none. */
  record First(Value value, Provenance provenance, Said note) {}

  private final VisitStart start;
  private final Situation situation;
  private final LookUps lookUps;

  Prefill(VisitStart start, Situation situation, LookUps lookUps) {
    this.start = start;
    this.situation = situation;
    this.lookUps = lookUps;
  }

  /** The first value of a question. */
  First of(Compiled c) {
    Said note = Said.NONE;
    for (int k = 0; k < c.question().prefill().size(); k++) {
      Source s = c.question().prefill().get(k);
      First f = s instanceof Source.Place p ? placed(c, p) : simple(c, s, c.starts().get(k));
      if (!f.value.isEmpty()) return f;
      if (!f.note.isEmpty()) note = f.note;
    }
    return new First(Value.EMPTY, Provenance.NONE, note);
  }

  /** What each source of a question's chain would give by itself. */
  List<First> each(Compiled c) {
    List<First> out = new ArrayList<>();
    for (int k = 0; k < c.question().prefill().size(); k++) {
      Source s = c.question().prefill().get(k);
      out.add(s instanceof Source.Place p ? placed(c, p) : simple(c, s, c.starts().get(k)));
    }
    return out;
  }

  LookUp lookUp(Source.Place p) {
    return lookUps.named(p);
  }

  /** What a look-up found; nothing when it found none. */
  List<LookupResult.Hit> found(Source.Place p) {
    return lookUps.lookUp(lookUps.named(p)) instanceof LookupResult.Found f ? f.hits() : List.of();
  }

  static boolean looksUp(Question q) {
    for (Source s : q.prefill()) if (s instanceof Source.Place) return true;
    return false;
  }

  private First placed(Compiled c, Source.Place p) {
    LookUp lookUp = lookUps.named(p);
    LookupResult r = lookUps.lookUp(lookUp);
    if (!(r instanceof LookupResult.Found f))
      return new First(Value.EMPTY, Provenance.NONE, said(r, lookUp));
    Value v = c.question().given(fit(p.take().from(f), c.type()));
    if (v.isEmpty()) return new First(v, Provenance.NONE, said(r, lookUp));
    LookupResult.Hit hit = f.hits().get(0);
    Provenance.Found found =
        f.all() && f.hits().size() > 1
            ? Provenance.Found.NONE
            : new Provenance.Found(
                lookUp.layerId(),
                hit.feature().id(),
                hit.feature().version(),
                start.startedAt().toString(),
                OptionalDouble.of(hit.distanceM()));
    return new First(
        v,
        new Provenance(
            Provenance.Kind.PLACE,
            lookUp.layerName(),
            found,
            f.all() ? f.hits().size() : 1,
            !f.all() && f.several(),
            false),
        Said.NONE);
  }

  private First simple(Compiled c, Source s, Optional<Rule> formula) {
    Question q = c.question();
    if (s instanceof Source.Asset)
      return first(
          start.feature().map(f -> f.value(q.writesTo())).orElse(Value.EMPTY),
          Provenance.Kind.ASSET,
          "");
    if (s instanceof Source.LastVisit v) {
      boolean fresh =
          v.mostDays() == 0
              || start
                  .last()
                  .day()
                  .map(d -> ChronoUnit.DAYS.between(d, start.today()) <= v.mostDays())
                  .orElse(false);
      return first(
          fresh ? start.last().answers().getOrDefault(q.name(), Value.EMPTY) : Value.EMPTY,
          Provenance.Kind.LAST_VISIT,
          start.last().day().map(Object::toString).orElse(""));
    }
    if (s instanceof Source.Fixed f)
      return first(ValueJson.read(Json.parse(f.json()), c.type()), Provenance.Kind.FIXED, "");
    if (s instanceof Source.WorkedOut)
      return first(
          formula.map(r -> q.given(r.evaluate(situation))).orElse(Value.EMPTY),
          Provenance.Kind.STARTED,
          "");
    return s instanceof Source.Device d
        ? first(q.given(fit(device(d.item()), c.type())), Provenance.Kind.DEVICE, "")
        : new First(Value.EMPTY, Provenance.NONE, Said.NONE);
  }

  private static First first(Value v, Provenance.Kind kind, String detail) {
    return new First(v, Provenance.of(kind, detail), Said.NONE);
  }

  private Value device(String item) {
    Optional<Coordinate> position = start.fix().position();
    switch (item) {
      case "person":
        return Value.text(start.person());
      case "device":
        return Value.text(start.device());
      case "date":
        return new Value.Day(start.today());
      case "time":
        return Value.text(start.timeOfDay());
      case "moment":
        return new Value.Moment(start.startedAt());
      case "position":
        return position
            .<Value>map(p -> new Value.Place(GeometryJson.WGS84.createPoint(p)))
            .orElse(Value.EMPTY);
      case "accuracy":
        return VisitSituation.known(start.fix().accuracyM());
      case "height":
        return VisitSituation.known(start.fix().heightM());
      case "bearing":
        return VisitSituation.known(start.fix().bearingDeg());
      default:
        return start
            .system()
            .flatMap(s -> position.flatMap(s::project))
            .map(x -> Value.of(item.equals("easting") ? x.x : x.y))
            .orElse(Value.EMPTY);
    }
  }

  /** What was found as the question keeps it: a number as text, a list as one text. */
  private static Value fit(Value v, ValueType type) {
    if (v.isEmpty() || v.type() == type) return v;
    if (type == ValueType.TEXT) return Value.text(v.plain());
    if (type == ValueType.LIST) return Value.many(List.of(v));
    return v instanceof Value.Text t ? ValueJson.readText(t.value(), type) : v;
  }

  private static Said said(LookupResult r, LookUp lookUp) {
    String layer = lookUp.layerName();
    if (r instanceof LookupResult.LayerMissing)
      return Said.of("prefill.layerMissing", "layer", layer);
    if (r instanceof LookupResult.NotAtHand) return Said.of("prefill.notAtHand", "layer", layer);
    if (r instanceof LookupResult.NoPosition) return Said.of("prefill.noPosition", "layer", layer);
    if (r instanceof LookupResult.FilterBroken b)
      return Said.of("prefill.broken", "layer", layer, "why", b.message());
    if (r instanceof LookupResult.Found) return Said.of("prefill.noValue", "layer", layer);
    Said within = Said.number(lookUp.withinM());
    switch (lookUp.how()) {
      case CONTAINING:
        return Said.of("prefill.noneHolds", "layer", layer);
      case ALONG:
        return Said.of("prefill.noLine", "layer", layer, "m", within);
      default:
        return lookUp.withinM() > 0
            ? Said.of("prefill.noneWithin", "layer", layer, "m", within)
            : Said.of("prefill.noneTouches", "layer", layer);
    }
  }
}
