package org.whinridge.formats.look;

import java.util.Map;
import org.whinridge.core.rules.Node;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * Conditions of the rules language in OGC Filter Encoding 1.1 (OGC 04-095), as far as that can say
 * them: comparisons of a field with a value or a field, BETWEEN, LIKE, IN, IS NULL, AND, OR, NOT.
 */
final class OgcFilter {
  /** The rule says more than Filter Encoding 1.1 can. */
  static final class CannotSay extends Exception {
    private static final long serialVersionUID = 1;

    private final transient Said said;

    CannotSay(String key) {
      super(key);
      said = Said.of(key);
    }

    /** What can't be said. */
    Said said() {
      return said;
    }
  }

  private static final Map<String, String> COMPARISONS =
      Map.of(
          "=", "PropertyIsEqualTo",
          "<>", "PropertyIsNotEqualTo",
          "<", "PropertyIsLessThan",
          ">", "PropertyIsGreaterThan",
          "<=", "PropertyIsLessThanOrEqualTo",
          ">=", "PropertyIsGreaterThanOrEqualTo");

  private OgcFilter() {}

  /** The condition inside an ogc:Filter. */
  static String of(Node n) throws CannotSay {
    if (n instanceof Node.Logic l) return in(l.and() ? "And" : "Or", of(l.left()) + of(l.right()));
    if (n instanceof Node.Not not) return in("Not", of(not.operand()));
    if (n instanceof Node.Compare c)
      return in(COMPARISONS.get(c.op()), value(c.left()) + value(c.right()));
    if (n instanceof Node.Between b)
      return not(
          b.not(),
          in(
              "PropertyIsBetween",
              value(b.value())
                  + in("LowerBoundary", value(b.low()))
                  + in("UpperBoundary", value(b.high()))));
    if (n instanceof Node.IsNull i) return not(i.not(), in("PropertyIsNull", name(i.value())));
    if (n instanceof Node.Like l && l.pattern() instanceof Node.Literal p)
      return not(
          l.not(),
          "<ogc:PropertyIsLike wildCard=\"%\" singleChar=\"_\" escapeChar=\"\\\">"
              + name(l.left())
              + value(p)
              + "</ogc:PropertyIsLike>");
    if (n instanceof Node.In i) {
      StringBuilder any = new StringBuilder();
      for (Node item : i.items())
        any.append(in("PropertyIsEqualTo", value(i.value()) + value(item)));
      return not(i.not(), i.items().size() == 1 ? any.toString() : in("Or", any.toString()));
    }
    throw new CannotSay("file.usesWhatFilterEncoding");
  }

  private static String not(boolean not, String xml) {
    return not ? in("Not", xml) : xml;
  }

  static String in(String name, String inside) {
    return "<ogc:" + name + ">" + inside + "</ogc:" + name + ">";
  }

  private static String name(Node n) throws CannotSay {
    if (n instanceof Node.Name x) return property(x.name());
    throw new CannotSay("file.asksMoreThanFields");
  }

  private static String value(Node n) throws CannotSay {
    if (n instanceof Node.Name) return name(n);
    if (n instanceof Node.Literal l
        && (l.value() instanceof Value.Num
            || l.value() instanceof Value.Text
            || l.value() instanceof Value.Day
            || l.value() instanceof Value.Moment)) return literal(l.value().plain());
    if (n instanceof Node.Literal l && l.value() instanceof Value.Bool b)
      return literal(Boolean.toString(b.value()));
    if (n instanceof Node.Arithmetic a
        && Map.of("+", 1, "-", 1, "*", 1, "/", 1).containsKey(a.op()))
      return in(
          switch (a.op()) {
            case "+" -> "Add";
            case "-" -> "Sub";
            case "*" -> "Mul";
            default -> "Div";
          },
          value(a.left()) + value(a.right()));
    throw new CannotSay("file.comparesSomethingElseThan");
  }

  static String property(String name) {
    return in("PropertyName", name); // names of fields hold letters, digits and underscores
  }

  static String literal(String s) {
    return in("Literal", Xml.escaped(s));
  }
}
