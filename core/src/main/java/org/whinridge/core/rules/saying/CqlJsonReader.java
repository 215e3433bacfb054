package org.whinridge.core.rules.saying;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.rules.Literals;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.RuleProblem;
import org.whinridge.core.rules.RuleSyntax;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.Span;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * CQL2 JSON to a tree. The tree has no places in a text of its own: it is printed and read again by
 * {@link Rules}, so that problems point into the text that people see.
 */
final class CqlJsonReader {
  private static final Span NOWHERE = new Span(0, 0);
  private static final Set<String> COMPARISONS = Set.of("=", "<>", "<", ">", "<=", ">=");
  private static final Set<String> ARITHMETIC = Set.of("+", "-", "*", "/", "%", "div", "^");
  private int depth;

  private CqlJsonReader() {}

  /**
   * The tree.
   *
   * @throws RuleSyntax when this is not CQL2 JSON
   */
  static Node read(JsonValue json) {
    return new CqlJsonReader().node(json);
  }

  private Node node(JsonValue v) {
    if (++depth > Rules.MAX_DEPTH)
      throw bad(RuleProblem.Kind.TOO_DEEP, Said.of("rule.tooDeep", "most", Rules.MAX_DEPTH));
    try {
      if (v == null || v.isNull()) throw bad(Said.of("rule.json.null"));
      if (v.isString()) return literal(Value.text(v.asString()));
      if (v.isBoolean()) return literal(Value.of(v.asBoolean()));
      if (v.isNumber()) return number(v.asDouble());
      if (v.isArray()) return new Node.ListOf(nodes(v.asArray()), NOWHERE);
      return object(v.asObject());
    } finally {
      depth--;
    }
  }

  private Node object(JsonObject o) {
    if (o.get("property") != null) return new Node.Name(text(o, "property"), NOWHERE);
    if (o.get("date") != null) return Literals.moment("DATE", List.of(string(o, "date")), NOWHERE);
    if (o.get("timestamp") != null)
      return Literals.moment("TIMESTAMP", List.of(string(o, "timestamp")), NOWHERE);
    if (o.get("interval") != null)
      return Literals.interval(nodes(array(o.get("interval"), "interval")), NOWHERE);
    if (o.get("bbox") != null) return box(array(o.get("bbox"), "bbox"));
    if (o.get("op") != null) return operation(text(o, "op"), array(o.get("args"), "args"));
    return literal(new Value.Place(geometry(o)));
  }

  private static Geometry geometry(JsonObject o) {
    if (o.get("geometries") != null && o.getString("type", "").equals("GeometryCollection")) {
      List<Geometry> parts = new ArrayList<>();
      for (JsonValue part : array(o.get("geometries"), "geometries")) {
        if (!part.isObject()) throw bad(Said.of("rule.json.geometries"));
        if (part.asObject().get("geometries") != null) throw bad(Said.of("rule.collectionInside"));
        parts.add(geometry(part.asObject()));
      }
      if (parts.isEmpty()) throw bad(Said.of("rule.json.emptyGeometry"));
      return GeometryJson.WGS84.createGeometryCollection(parts.toArray(new Geometry[0]));
    }
    return GeometryJson.read(o)
        .filter(g -> !g.isEmpty())
        .orElseThrow(() -> bad(Said.of("rule.json.unknown")));
  }

  private Node operation(String op, JsonArray json) {
    String lower = op.toLowerCase(Locale.ROOT);
    if (lower.equals("in")) {
      need(json, 2, op);
      return new Node.In(node(json.get(0)), some(array(json.get(1), "in")), false, NOWHERE);
    }
    List<Node> a = nodes(json);
    switch (lower) {
      case "and":
      case "or":
        {
          if (a.size() < 2) throw bad(Said.of("rule.json.two", "op", op));
          Node n = a.get(0);
          for (Node next : a.subList(1, a.size()))
            n = new Node.Logic(lower.equals("and"), n, next, NOWHERE);
          return n;
        }
      case "not":
        need(json, 1, op);
        return not(a.get(0));
      case "like":
        need(json, 2, op);
        return new Node.Like(a.get(0), a.get(1), false, NOWHERE);
      case "between":
        need(json, 3, op);
        return new Node.Between(a.get(0), a.get(1), a.get(2), false, NOWHERE);
      case "isnull":
        need(json, 1, op);
        return new Node.IsNull(a.get(0), false, NOWHERE);
      default:
    }
    if (COMPARISONS.contains(op)) {
      need(json, 2, op);
      return new Node.Compare(op, a.get(0), a.get(1), NOWHERE);
    }
    if (ARITHMETIC.contains(lower)) {
      need(json, 2, op);
      boolean minus =
          lower.equals("*")
              && a.get(0) instanceof Node.Literal l
              && l.value().equals(Value.of(-1))
              && !(a.get(1) instanceof Node.Literal);
      return minus
          ? new Node.Negate(a.get(1), NOWHERE) // as a minus before a name is written
          : new Node.Arithmetic(lower, a.get(0), a.get(1), NOWHERE);
    }
    boolean operator = lower.matches("[sat]_[a-z]+|casei|accenti");
    return new Node.Call(operator ? op.toUpperCase(Locale.ROOT) : lower, a, NOWHERE);
  }

  private static Node not(Node n) {
    if (n instanceof Node.Like l && !l.not())
      return new Node.Like(l.left(), l.pattern(), true, NOWHERE);
    if (n instanceof Node.Between b && !b.not())
      return new Node.Between(b.value(), b.low(), b.high(), true, NOWHERE);
    if (n instanceof Node.In in && !in.not())
      return new Node.In(in.value(), in.items(), true, NOWHERE);
    if (n instanceof Node.IsNull i && !i.not()) return new Node.IsNull(i.value(), true, NOWHERE);
    return new Node.Not(n, NOWHERE);
  }

  private static Node box(JsonArray a) {
    StringBuilder b = new StringBuilder("BBOX(");
    for (JsonValue v : a) b.append(b.length() == 5 ? "" : ",").append(v);
    return Rules.tree(b.append(')').toString());
  }

  private List<Node> some(JsonArray a) {
    if (a.isEmpty()) throw bad(Said.of("rule.json.emptyList"));
    return nodes(a);
  }

  private List<Node> nodes(JsonArray a) {
    List<Node> out = new ArrayList<>();
    for (JsonValue v : a) out.add(node(v));
    return out;
  }

  private static Node number(double d) {
    if (Double.isInfinite(d) || Double.isNaN(d)) throw bad(Said.of("rule.json.number"));
    return literal(new Value.Num(d));
  }

  private static Node literal(Value v) {
    return new Node.Literal(v, NOWHERE);
  }

  private static Node string(JsonObject o, String member) {
    return literal(Value.text(text(o, member)));
  }

  private static String text(JsonObject o, String member) {
    JsonValue v = o.get(member);
    if (!v.isString()) throw bad(Said.of("rule.json.text", "member", member));
    return v.asString();
  }

  private static JsonArray array(JsonValue v, String what) {
    if (v == null || !v.isArray()) throw bad(Said.of("rule.json.array", "member", what));
    return v.asArray();
  }

  private static void need(JsonArray a, int n, String op) {
    if (a.size() != n) throw bad(Said.of("rule.json.takes", "op", op, "n", n));
  }

  private static RuleSyntax bad(Said message) {
    return bad(RuleProblem.Kind.EXPECTED_OTHER, message);
  }

  private static RuleSyntax bad(RuleProblem.Kind kind, Said message) {
    return new RuleSyntax(new RuleProblem(kind, NOWHERE, message, ""));
  }
}
