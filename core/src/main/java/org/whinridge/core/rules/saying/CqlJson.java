package org.whinridge.core.rules.saying;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.eclipsesource.json.ParseException;
import java.util.Locale;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Printer;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.RuleProblem;
import org.whinridge.core.rules.RuleSyntax;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.rules.Span;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.value.ValueType;

/**
 * Rules as CQL2 JSON. Source: OGC 21-065, clause 8 and its JSON schema: {@code {"op": …, "args":
 * […]}}, {@code {"property": …}}, {@code {"date": …}}, {@code {"timestamp": …}}, {@code
 * {"interval": […]}}; geometries as in RFC 7946.
 */
public final class CqlJson {
  private CqlJson() {}

  /** The rule as CQL2 JSON. */
  public static String write(Rule rule) {
    return write(rule.tree()).toString();
  }

  /**
   * Reads CQL2 JSON (OGC 21-065, clause 8): it is turned into CQL2 Text and read as that, so that
   * the rule and its problems are the same however it came.
   *
   * @param type the kind of value wanted, {@link ValueType#EMPTY} for any
   */
  public static Rules.Outcome read(String json, Scope scope, ValueType type) {
    if (json.length() > 10 * Rules.MAX_LENGTH)
      return Rules.Outcome.failed(
          new RuleProblem(
              RuleProblem.Kind.TOO_LONG, new Span(0, 0), Said.of("rule.jsonTooLong"), ""));
    try {
      String text = Printer.print(CqlJsonReader.read(Json.parse(json)));
      return Rules.formula(
          text.length() > Rules.MAX_LENGTH ? Printer.tight(text) : text, scope, type);
    } catch (RuleSyntax e) {
      return Rules.Outcome.failed(e.problem);
    } catch (ParseException e) {
      return Rules.Outcome.failed(
          new RuleProblem(
              RuleProblem.Kind.EXPECTED_OTHER,
              new Span(e.getLocation().offset, e.getLocation().offset),
              Said.of("rule.notJson", "why", e.getMessage()),
              ""));
    }
  }

  private static JsonValue write(Node n) {
    if (n instanceof Node.Literal l) return literal(l.value());
    if (n instanceof Node.Name m) return new JsonObject().add("property", m.name());
    if (n instanceof Node.Compare c) return op(c.op(), c.left(), c.right());
    if (n instanceof Node.Like l) return not(l.not(), op("like", l.left(), l.pattern()));
    if (n instanceof Node.Between b)
      return not(b.not(), op("between", b.value(), b.low(), b.high()));
    if (n instanceof Node.In in) {
      JsonArray items = new JsonArray();
      for (Node item : in.items()) items.add(write(item));
      return not(in.not(), op("in", new JsonArray().add(write(in.value())).add(items)));
    }
    if (n instanceof Node.IsNull i) return not(i.not(), op("isNull", i.value()));
    if (n instanceof Node.Logic l) return logic(l);
    if (n instanceof Node.Not not) return op("not", not.operand());
    if (n instanceof Node.Arithmetic a) return op(a.op(), a.left(), a.right());
    if (n instanceof Node.Negate m)
      // the schema has no minus before a name: minus one times it means the same to everybody
      return op("*", new JsonArray().add(Json.value(-1)).add(write(m.operand())));
    if (n instanceof Node.ListOf l) {
      JsonArray items = new JsonArray();
      for (Node item : l.items()) items.add(write(item));
      return items;
    }
    Node.Call c = (Node.Call) n;
    if (c.function().equals("INTERVAL"))
      return new JsonObject()
          .add(
              "interval",
              new JsonArray().add(end(c.arguments().get(0))).add(end(c.arguments().get(1))));
    return op(c.function().toLowerCase(Locale.ROOT), c.arguments().toArray(new Node[0]));
  }

  /** A chain of one operator is one list of arguments, as in the standard's examples. */
  private static JsonObject logic(Node.Logic l) {
    JsonArray args = new JsonArray();
    java.util.ArrayDeque<Node> parts = new java.util.ArrayDeque<>();
    Node n = l;
    while (n instanceof Node.Logic x && x.and() == l.and()) {
      parts.push(x.right());
      n = x.left();
    }
    parts.push(n);
    for (Node part : parts) args.add(write(part));
    return op(l.and() ? "and" : "or", args);
  }

  private static JsonValue not(boolean not, JsonObject of) {
    return not ? op("not", new JsonArray().add(of)) : of;
  }

  private static JsonObject op(String op, Node... args) {
    JsonArray a = new JsonArray();
    for (Node n : args) a.add(write(n));
    return op(op, a);
  }

  private static JsonObject op(String op, JsonArray args) {
    return new JsonObject().add("op", op).add("args", args);
  }

  private static JsonValue end(Node n) {
    return n instanceof Node.Literal l ? Json.value(l.value().plain()) : write(n);
  }

  private static JsonValue literal(Value v) {
    if (v instanceof Value.Day d) return new JsonObject().add("date", d.plain());
    if (v instanceof Value.Moment m) return new JsonObject().add("timestamp", m.plain());
    return v.isEmpty() ? Json.value("") : ValueJson.write(v);
  }
}
