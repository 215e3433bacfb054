package org.whinridge.core.rules;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/** A handful of names with types and values for the tests of rules. */
public class TestNames implements Scope, Situation {
  private final Map<String, Known> known = new LinkedHashMap<>();
  private final Map<String, Value> values = new LinkedHashMap<>();

  public TestNames() {
    name(
        "kind",
        ValueType.TEXT,
        "Kind",
        Value.text("flap"),
        new CodeLabel("flap", "Tide flap"),
        new CodeLabel("sluice", "Sluice"),
        new CodeLabel("weir", "Weir"));
    name("silt", ValueType.NUMBER, "Silt depth", Value.of(120));
    known.put("silt", new Known("silt", ValueType.NUMBER, "Silt depth", List.of(), "mm"));
    name("width", ValueType.NUMBER, "Width", Value.EMPTY);
    name("ok", ValueType.YES_NO, "Works", Value.YES);
    name("unknown", ValueType.YES_NO, "Unknown", Value.EMPTY);
    name("note", ValueType.TEXT, "Note", Value.text("It's Łódź"));
    name("built", ValueType.DATE, "Built", new Value.Day(LocalDate.of(1987, 5, 4)));
    name(
        "defects",
        ValueType.LIST,
        "Defects",
        Value.many(List.of(Value.text("crack"), Value.text("leak"))));
  }

  private void name(String n, ValueType t, String label, Value v, CodeLabel... codes) {
    known.put(n, new Known(n, t, label, List.of(codes)));
    values.put(n, v);
  }

  /** The names of {@link RuleGenerator}. */
  public TestNames generated() {
    name("none", ValueType.NUMBER, "None", Value.EMPTY);
    name(
        "seen",
        ValueType.DATE_TIME,
        "Seen",
        new Value.Moment(Instant.parse("2026-05-04T09:30:00Z")));
    name("lengths", ValueType.LIST, "Lengths", Value.many(List.of(Value.of(1.5), Value.of(4))));
    name(
        "place",
        ValueType.GEOMETRY,
        "Place",
        new Value.Place(GeometryJson.WGS84.createPoint(new Coordinate(-10.2, 57.9))));
    return this;
  }

  public TestNames known(String n, Value v) {
    name(n, v.type(), n, v);
    return this;
  }

  public TestNames with(String n, Value v) {
    values.put(n, v);
    return this;
  }

  public Value eval(String rule) {
    Rules.Outcome o = Rules.formula(rule, this, ValueType.EMPTY);
    return o.rule()
        .orElseThrow(() -> new AssertionError(rule + ": " + o.problems()))
        .evaluate(this);
  }

  public RuleProblem problem(String rule) {
    Rules.Outcome o = Rules.formula(rule, this, ValueType.EMPTY);
    if (o.problems().isEmpty()) throw new AssertionError("no problem in " + rule);
    return o.problems().get(0);
  }

  @Override
  public Optional<Known> find(String name) {
    return Optional.ofNullable(known.get(name));
  }

  @Override
  public Collection<String> names() {
    return known.keySet();
  }

  @Override
  public Value value(String name) {
    return values.getOrDefault(name, Value.EMPTY);
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
    return find(name).stream()
        .flatMap(k -> k.codes().stream())
        .filter(c -> c.code().equals(code.plain()))
        .map(CodeLabel::label)
        .findFirst()
        .orElse(code.plain());
  }

  @Override
  public Optional<Coordinate> project(Coordinate c) {
    return CoordinateSystem.utmNorth(29).project(c);
  }
}
