package org.whinridge.engine;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.layer.OneFeature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.merge.Merge;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.prefill.LookUpValue;
import org.whinridge.core.prefill.LookupResult;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.rules.Completion;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.RuleWords;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.rules.Situation;
import org.whinridge.core.rules.saying.CqlJson;
import org.whinridge.core.rules.saying.Operand;
import org.whinridge.core.rules.saying.Sentence;
import org.whinridge.core.rules.saying.SentenceParts;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.value.ValueType;

/**
 * The golden vectors' interpreter: one line is a kind, an input and a result. The JVM and the
 * browser run the same lines, so that core and its compiled form are held together.
 */
public final class Golden {
  private Golden() {}

  /** Runs one vector; the result is text, for geometry kinds one number. */
  public static String run(String kind, String input) {
    switch (kind) {
      case "rule":
        return rule(input);
      case "print":
        return read(input, ValueType.EMPTY).rule().map(Rule::canonical).orElse("problem");
      case "problem":
        {
          var p = read(input, ValueType.EMPTY).problems();
          return p.isEmpty()
              ? "none"
              : p.get(0).kind()
                  + " "
                  + p.get(0).at().from()
                  + "-"
                  + p.get(0).at().to()
                  + " "
                  + p.get(0).fix();
        }
      case "sentence":
        return read(input, ValueType.YES_NO)
            .rule()
            .map(r -> Sentence.of(r, SCOPE).toString())
            .orElse("problem");
      case "line":
        return GoldenLines.line(input);
      case "edit":
        return GoldenLines.edit(object(input));
      case "undo":
        return GoldenLines.undo(object(input));
      case "workshop":
        return GoldenLines.workshop(object(input));
      case "number":
        return Numbers.plain(Double.parseDouble(input));
      case "fixed":
        return Numbers.fixed(
            Double.parseDouble(input.substring(0, input.indexOf(' '))),
            Integer.parseInt(input.substring(input.indexOf(' ') + 1)));
      case "length":
        return Numbers.plain(Geodesy.lengthM(geometry(input)));
      case "area":
        return Numbers.plain(Geodesy.areaM2(geometry(input)));
      case "distance":
        return Numbers.plain(
            Geodesy.distanceM(
                geometry(input).getCoordinates()[0], geometry(input).getCoordinates()[1]));
      case "bearing":
        return Numbers.plain(
            Geodesy.bearingDeg(
                geometry(input).getCoordinates()[0], geometry(input).getCoordinates()[1]));
      case "easting":
        return projected(input).map(c -> Numbers.plain(c.x)).orElse("none");
      case "northing":
        return projected(input).map(c -> Numbers.plain(c.y)).orElse("none");
      case "lookup":
        return lookup(object(input));
      case "merge":
        return merge(object(input));
      case "standing":
        return GoldenMerges.standing(Json.parse(input).asObject());
      case "claims":
        return GoldenMerges.claims(Json.parse(input).asObject());
      case "outdoors":
        return GoldenMerges.outdoors(Json.parse(input).asObject());
      case "fill":
        return GoldenForms.fill(object(input));
      case "form":
        return GoldenForms.form(object(input));
      case "dry":
        return GoldenForms.dry(object(input));
      case "look":
        return look(object(input));
      case "json":
        return read(input, ValueType.EMPTY).rule().map(CqlJson::write).orElse("problem");
      case "unjson":
        {
          Rules.Outcome o = CqlJson.read(input, SCOPE, ValueType.EMPTY);
          return o.rule()
              .map(Rule::canonical)
              .orElseGet(() -> o.problems().get(0).message().toString());
        }
      case "parts":
        return read(input, ValueType.YES_NO)
            .rule()
            .flatMap(SentenceParts::of)
            .map(p -> p.json() + " " + p.text())
            .orElse("text only");
      case "operand":
        return read(input, ValueType.EMPTY)
            .rule()
            .flatMap(r -> Operand.of(r.tree()))
            .map(o -> o.json() + " " + Operand.read(o.json()).text())
            .orElse("text only");
      case "words":
        return RuleWords.of(input).stream()
            .map(w -> w.kind().id() + " " + w.at().from() + "-" + w.at().to())
            .collect(Collectors.joining(", "));
      case "complete":
        return complete(input);
      case "shape":
        return ShapeBorder.run(object(input)).toString();
      case "fields":
        return FieldBorder.run(object(input)).toString();
      case "draw":
        return GoldenLooks.draw(object(input));
      case "rename":
        return rename(input);
      case "random":
        return RandomRules.run(
            Long.parseLong(input.substring(0, input.indexOf(' '))),
            Integer.parseInt(input.substring(input.indexOf(' ') + 1)),
            SCOPE,
            SITUATION);
      default:
        return "no such kind: " + kind;
    }
  }

  private static JsonObject object(String s) {
    return Json.parse(s).asObject();
  }

  private static Geometry geometry(String s) {
    return GeometryJson.parse(s).orElseThrow();
  }

  private static Optional<Coordinate> projected(String s) {
    return CoordinateSystem.utmNorth(29).project(geometry(s).getCoordinate());
  }

  private static Rules.Outcome read(String text, ValueType type) {
    return Rules.formula(text, SCOPE, type);
  }

  private static String rule(String text) {
    Rules.Outcome o = read(text, ValueType.EMPTY);
    return o.rule().map(r -> ValueJson.write(r.evaluate(SITUATION)).toString()).orElse("problem");
  }

  /** The cursor is where | stands; what is offered, with what it would replace. */
  private static String complete(String input) {
    int at = input.indexOf('|');
    Completion.Offer o = Completion.of(input.substring(0, at) + input.substring(at + 1), at, SCOPE);
    return o.options().stream()
        .map(x -> x.kind().id() + " " + x.text())
        .collect(Collectors.joining("; ", o.from() + "-" + o.to() + " ", ""));
  }

  private static String lookup(JsonObject o) {
    Schema schema = Schema.read(o.get("schema").asObject());
    List<Feature> features = new java.util.ArrayList<>();
    for (JsonValue v : o.get("features").asArray())
      features.add(Feature.read(v.asObject(), schema));
    JsonArray at = o.get("at").asArray();
    return outcome(
        new PlaceIndex(features)
            .containing(new Coordinate(at.get(0).asDouble(), at.get(1).asDouble())),
        LookUpValue.of(o.getString("field", "")));
  }

  /** from>to|text: the text with one name replaced, alone or as a prefix. */
  private static String rename(String input) {
    String from = input.substring(0, input.indexOf('>'));
    String to = input.substring(input.indexOf('>') + 1, input.indexOf('|'));
    return Rules.rename(
        input.substring(input.indexOf('|') + 1),
        n -> n.equals(from) ? to : n.startsWith(from + ".") ? to + n.substring(from.length()) : n);
  }

  /** {of, lookUp, at, take}: one look-up of any kind. */
  private static String look(JsonObject o) {
    JsonObject of = o.get("of").asObject();
    LookUp lookUp = LookUp.read(o.get("lookUp").asObject());
    Schema schema = Schema.read(of.get("schema").asObject());
    Rules.Outcome filter =
        Rules.condition(
            lookUp.filter().isEmpty() ? "TRUE" : lookUp.filter(), new LayerScope(schema));
    if (filter.rule().isEmpty()) return "filter broken: " + filter.problems().get(0).message();
    JsonObject take = o.get("take").asObject();
    Source.Place source =
        (Source.Place)
            Source.read(
                    new JsonArray()
                        .add(
                            new JsonObject()
                                .add("from", "place")
                                .add("field", take.getString("field", ""))
                                .add("take", take.getString("measure", "value"))))
                .get(0);
    LookupResult r =
        GoldenForms.index(of, o.get("complete"))
            .lookUp(
                lookUp,
                geometry(o.get("at").toString()),
                f ->
                    filter
                        .rule()
                        .get()
                        .holds(new OneFeature(f, schema, SITUATION.today(), SITUATION.now())));
    return outcome(r, source.take());
  }

  /** What a look-up came to, as one line: the value taken, the features found, or the outcome. */
  private static String outcome(LookupResult r, LookUpValue take) {
    if (!(r instanceof LookupResult.Found f))
      return r instanceof LookupResult.NoMatch
          ? "no match"
          : r instanceof LookupResult.NoPosition
              ? "no position"
              : r instanceof LookupResult.LayerMissing
                  ? "layer missing"
                  : r instanceof LookupResult.NotAtHand ? "not at hand" : "filter broken";
    StringBuilder b = new StringBuilder(rounded(take.from(f))).append(" from");
    for (LookupResult.Hit h : f.hits())
      b.append(' ').append(h.feature().id()).append('@').append(Numbers.fixed(h.distanceM(), 3));
    return b.append(f.several() ? " of several" : "").toString();
  }

  private static String merge(JsonObject o) {
    Merge.Result r =
        Merge.threeWay(
            values(o.get("base")),
            values(o.get("layer")),
            values(o.get("set")),
            f -> GoldenMerges.same(o, f));
    StringBuilder b = new StringBuilder();
    for (Merge.FieldMerge f : r.fields())
      b.append(b.length() == 0 ? "" : "; ")
          .append(f.field())
          .append(' ')
          .append(f.outcome())
          .append(' ')
          .append(f.result().plain());
    return b.toString();
  }

  private static Map<String, Value> values(JsonValue v) {
    Map<String, Value> out = new LinkedHashMap<>();
    for (JsonObject.Member m : v.asObject())
      out.put(m.getName(), ValueJson.read(m.getValue(), ValueType.EMPTY));
    return out;
  }

  /** The names of the rule vectors. */
  private static final Scope SCOPE =
      new Scope() {
        private final Map<String, Known> known = new LinkedHashMap<>();

        {
          put(
              "kind",
              ValueType.TEXT,
              "Kind",
              List.of(
                  new CodeLabel("flap", "Tide flap"),
                  new CodeLabel("sluice", "Sluice"),
                  new CodeLabel("weir", "Weir")));
          put("silt", ValueType.NUMBER, "Silt depth", List.of());
          put("width", ValueType.NUMBER, "Width", List.of());
          put("ok", ValueType.YES_NO, "Works", List.of());
          put("none", ValueType.NUMBER, "Nothing", List.of());
          put("nobody", ValueType.TEXT, "Nobody", List.of());
          put("note", ValueType.TEXT, "Note", List.of());
          put("built", ValueType.DATE, "Built", List.of());
          put("seen", ValueType.DATE_TIME, "Seen", List.of());
          put("defects", ValueType.LIST, "Defects", List.of());
          put("lengths", ValueType.LIST, "Lengths", List.of());
          put("place", ValueType.GEOMETRY, "Place", List.of());
        }

        private void put(String name, ValueType t, String label, List<CodeLabel> codes) {
          known.put(name, new Known(name, t, label, codes));
        }

        @Override
        public Optional<Known> find(String name) {
          return Optional.ofNullable(known.get(name));
        }

        @Override
        public Collection<String> names() {
          return known.keySet();
        }
      };

  /** The values of the rule vectors. */
  private static final Situation SITUATION =
      new Situation() {
        @Override
        public Value value(String name) {
          switch (name) {
            case "kind":
              return Value.text("flap");
            case "silt":
              return Value.of(120);
            case "width":
              return Value.of(0.3);
            case "ok":
              return Value.YES;
            case "note":
              return Value.text("Łeak at the Hinge");
            case "built":
              return new Value.Day(LocalDate.of(1987, 5, 4));
            case "seen":
              return new Value.Moment(Instant.parse("2026-05-04T09:30:00Z"));
            case "defects":
              return Value.many(List.of(Value.text("crack"), Value.text("leak")));
            case "lengths":
              return Value.many(List.of(Value.of(1.5), Value.of(2), Value.of(4)));
            case "place":
              return new Value.Place(GeometryJson.WGS84.createPoint(new Coordinate(-10.2, 57.9)));
            default:
              return Value.EMPTY;
          }
        }

        @Override
        public LocalDate today() {
          return LocalDate.of(2026, 5, 4);
        }

        @Override
        public Instant now() {
          return Instant.parse("2026-05-04T08:00:00Z");
        }

        @Override
        public String label(String name, Value code) {
          return SCOPE.find(name).stream()
              .flatMap(k -> k.codes().stream())
              .filter(c -> c.code().equals(code.plain()))
              .map(Scope.CodeLabel::label)
              .findFirst()
              .orElse(code.plain());
        }

        @Override
        public Optional<Coordinate> project(Coordinate c) {
          return CoordinateSystem.utmNorth(29).project(c);
        }
      };

  /** A measure in metres to the millimetre: the last digits may differ between engines. */
  private static String rounded(Value v) {
    return v instanceof Value.Num n
        ? Numbers.plain(Numbers.round(n.value(), 3))
        : ValueJson.write(v).toString();
  }
}
