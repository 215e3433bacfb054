package org.whinridge.core.rules.saying;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.whinridge.core.rules.Functions;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Fold;
import org.whinridge.core.value.Value;

/**
 * A tree as a sentence, with labels in place of names and codes, and numbers with their unit; its
 * words are texts of the catalogue. Two rules that mean different things never read the same: what
 * is made of parts stands in brackets wherever another part could be taken into it.
 */
public final class Sentence {
  private static final Set<String> CLOCK = Set.of("today", "now", "add_days");

  /** What gives a value in the unit of what it is asked of. */
  private static final Set<String> KEEPS_UNIT =
      Set.of("abs", "round", "floor", "ceil", "min", "max", "sum", "mean", "coalesce");

  private final Scope scope;

  Sentence(Scope scope) {
    this.scope = scope;
  }

  /** The rule as a part of a sentence: "kind is tide flap". */
  public static Said of(Rule rule, Scope scope) {
    return new Sentence(scope).say(rule.tree());
  }

  /** A condition as a clause: "silt depth is over 100 mm". */
  Said say(Node n) {
    if (n instanceof Node.Logic l) return logic(l);
    if (n instanceof Node.Not not) {
      if (not.operand() instanceof Node.Name name) return Said.of("phrase.isNo", "a", name(name));
      return Said.of("phrase.not", "a", clause(not.operand()));
    }
    if (n instanceof Node.Compare c) return compare(c);
    if (n instanceof Node.Between b)
      return Said.of(
          b.not() ? "phrase.notBetween" : "phrase.between",
          "a",
          side(b.value()),
          "b",
          inside(b.low()),
          "c",
          beside(b.value(), b.high()));
    if (n instanceof Node.In in)
      return pair(
          !in.not() ? "phrase.is" : in.items().size() == 1 ? "phrase.isNot" : "phrase.isNeither",
          side(in.value()),
          either(in.value(), in.items(), in.not() ? "list.nor" : "list.or"));
    if (n instanceof Node.IsNull i) return nothing(i);
    if (n instanceof Node.Like l)
      return pair(l.not() ? "phrase.notLike" : "phrase.like", side(l.left()), inside(l.pattern()));
    if (n instanceof Node.Name name) return Said.of("phrase.isYes", "a", name(name));
    return side(n);
  }

  private static Said pair(String key, Said a, Said b) {
    return Said.of(key, "a", a, "b", b);
  }

  private static Said brackets(Said a) {
    return Said.of("phrase.brackets", "a", a);
  }

  private Said logic(Node.Logic l) {
    List<Node> parts = new ArrayList<>();
    Node n = l;
    while (n instanceof Node.Logic x && x.and() == l.and()) {
      parts.add(0, x.right());
      n = x.left();
    }
    parts.add(0, n);
    List<Said> said = new ArrayList<>();
    boolean comma = false;
    for (Node part : parts) {
      Said s = clause(part);
      comma |= !(part instanceof Node.Logic) && Phrases.isJoined(s);
      said.add(s);
    }
    String key = (l.and() ? "phrase.and" : "phrase.or") + (comma ? "Comma" : "");
    return Said.row(said, key, key);
  }

  private Said nothing(Node.IsNull i) {
    if (i.value() instanceof Node.Name name)
      return Said.of(i.not() ? "phrase.answered" : "phrase.notAnswered", "a", name(name));
    if (isCondition(i.value()))
      return Said.of(i.not() ? "phrase.known" : "phrase.notKnown", "a", clause(i.value()));
    return Said.of(i.not() ? "phrase.givesValue" : "phrase.givesNone", "a", side(i.value()));
  }

  private Said compare(Node.Compare c) {
    if (truth(c.right()) != null) return yesNo(c.left(), truth(c.right()) == c.op().equals("="));
    if (truth(c.left()) != null) return yesNo(c.right(), truth(c.left()) == c.op().equals("="));
    boolean time =
        c.right() instanceof Node.Literal l
            ? l.value() instanceof Value.Day || l.value() instanceof Value.Moment
            : c.right() instanceof Node.Call call && CLOCK.contains(call.function());
    Said left =
        c.left() instanceof Node.Literal l ? literal(l.value(), unit(c.right())) : side(c.left());
    boolean equal = c.op().equals("=") || c.op().equals("<>");
    Said right =
        equal && c.right() instanceof Node.Name name
            ? Said.of("phrase.same", "a", name(name))
            : c.right() instanceof Node.Literal ? beside(c.left(), c.right()) : side(c.right());
    return pair(verb(c.op(), time), left, right);
  }

  private static Boolean truth(Node n) {
    return n instanceof Node.Literal l && l.value() instanceof Value.Bool b ? b.value() : null;
  }

  private Said yesNo(Node n, boolean yes) {
    Said what = n instanceof Node.Name name ? name(name) : brackets(clause(n));
    return Said.of(yes ? "phrase.isYes" : "phrase.isNo", "a", what);
  }

  private static String verb(String op, boolean time) {
    switch (op) {
      case "=":
        return "phrase.is";
      case "<>":
        return "phrase.isNot";
      case "<":
        return time ? "phrase.before" : "phrase.under";
      case ">":
        return time ? "phrase.after" : "phrase.over";
      case "<=":
        return time ? "phrase.atLatest" : "phrase.atMost";
      default:
        return time ? "phrase.atEarliest" : "phrase.atLeast";
    }
  }

  private Said either(Node question, List<Node> nodes, String last) {
    return Said.row(nodes.stream().map(i -> member(question, i)).toList(), last);
  }

  /** Something in a list beside a question: another question is told from a code of that label. */
  private Said member(Node question, Node n) {
    return n instanceof Node.Name name
        ? Said.of("phrase.whatIs", "a", name(name))
        : beside(question, n);
  }

  /** A value beside a question: a code by its label, a number with the question's unit. */
  private Said beside(Node question, Node n) {
    if (!(n instanceof Node.Literal l)) return inside(n);
    List<Scope.CodeLabel> codes =
        question instanceof Node.Name q
            ? scope.find(q.name()).map(Scope.Known::codes).orElse(List.of())
            : List.of();
    for (Scope.CodeLabel c : codes) if (c.code().equals(l.value().plain())) return code(c, codes);
    return literal(l.value(), unit(question));
  }

  private static Said code(Scope.CodeLabel c, List<Scope.CodeLabel> codes) {
    String said = Fold.lower(c.label());
    long alike = codes.stream().filter(x -> Fold.lower(x.label()).equals(said)).count();
    String one = isPlain(said) ? said : "“" + said + "”";
    return Said.text(alike > 1 ? one + " (" + c.code() + ")" : one);
  }

  /** Whether words can stand in a sentence without being taken for its own. */
  private static boolean isPlain(String words) {
    String s = " " + words + " ";
    for (String taken : new String[] {",", "(", ")", "“", "”", " is ", " and ", " or ", " nor "})
      if (s.contains(taken)) return false;
    return !words.isBlank();
  }

  private Said name(Node.Name n) {
    Scope.Known known = scope.find(n.name()).orElse(null);
    if (known == null) return Said.text(n.name());
    Said label = known.label();
    Said said = label.isText() ? Said.text(lowerFirst(label.toString())) : label;
    Said one = isPlain(said) ? said : Said.of("phrase.quoted", "a", said);
    return scope.isShared(label) ? Said.of("phrase.named", "a", one, "name", n.name()) : one;
  }

  private static boolean isPlain(Said said) {
    for (Object v : said.args().values()) if (v instanceof String s && !isPlain(s)) return false;
    return true;
  }

  /** A value as one side of a comparison; what has parts of its own in a row stands in brackets. */
  private Said side(Node n) {
    Said said = word(n);
    return n instanceof Node.Call c && Phrases.isRow(c.function(), c.arguments().size())
        ? brackets(said)
        : isComparison(n) ? brackets(said) : said;
  }

  /** A value inside of another phrase: in brackets, unless it can only be taken as it is meant. */
  private Said inside(Node n) {
    boolean closed =
        n instanceof Node.Name
            || n instanceof Node.Literal
            || (n instanceof Node.Call c && isClosed(c));
    return closed ? word(n) : brackets(word(n));
  }

  private static boolean isClosed(Node.Call c) {
    if (c.arguments().isEmpty() || Phrases.isPrefix(c.function())) return true;
    return c.function().equals("INTERVAL")
        && c.arguments().stream()
            .allMatch(a -> a instanceof Node.Literal || a instanceof Node.Name);
  }

  private static boolean isComparison(Node n) {
    return n instanceof Node.Compare
        || n instanceof Node.Like
        || n instanceof Node.Between
        || n instanceof Node.In
        || n instanceof Node.IsNull
        || n instanceof Node.Logic
        || n instanceof Node.Not;
  }

  private boolean isCondition(Node n) {
    return isComparison(n)
        || (n instanceof Node.Call c
            && Functions.find(c.function())
                .filter(f -> f.result() == org.whinridge.core.value.ValueType.YES_NO)
                .isPresent());
  }

  /** A condition inside of a phrase; a chain of them in brackets. */
  private Said clause(Node n) {
    return n instanceof Node.Logic ? brackets(say(n)) : say(n);
  }

  private Said word(Node n) {
    if (n instanceof Node.Name m) return name(m);
    if (n instanceof Node.Literal l) return literal(l.value(), "");
    if (n instanceof Node.Arithmetic a) {
      boolean sum = a.op().equals("+") || a.op().equals("-");
      return Said.of(
          "phrase.arithmetic",
          "a",
          operand(a.left(), sum ? unit(a.right()) : ""),
          "op",
          a.op().equals("*") ? "×" : a.op().equals("-") ? "−" : a.op(),
          "b",
          operand(a.right(), sum ? unit(a.left()) : ""));
    }
    if (n instanceof Node.Negate m) return Said.of("phrase.minus", "a", operand(m.operand(), ""));
    if (n instanceof Node.ListOf l)
      return l.items().isEmpty() ? Said.of("phrase.emptyList") : either(l, l.items(), "list.and");
    return n instanceof Node.Call c ? call(c) : say(n);
  }

  private Said operand(Node n, String unit) {
    if (n instanceof Node.Literal l) return literal(l.value(), unit);
    boolean plain = n instanceof Node.Name || (n instanceof Node.Call c && c.arguments().isEmpty());
    return plain ? word(n) : brackets(word(n));
  }

  private Said call(Node.Call c) {
    List<Node> a = c.arguments();
    if (c.function().equals("add_days") && number(a.get(1)) != null) return days(a);
    if (c.function().equals("round") && a.size() == 2 && number(a.get(1)) != null)
      return Phrases.rounded(inside(a.get(0)), number(a.get(1)));
    List<Said> args = new ArrayList<>();
    for (int i = 0; i < a.size(); i++) args.add(argument(c, i));
    return Phrases.say(c.function(), args);
  }

  private Said argument(Node.Call c, int i) {
    Node n = c.arguments().get(i);
    if (c.function().equals("INTERVAL")
        && n instanceof Node.Literal l
        && l.value().equals(Value.text(".."))) return Said.of("phrase.anyTime");
    if (c.function().startsWith("A_") && i > 0) {
      Node first = c.arguments().get(0);
      if (n instanceof Node.ListOf l && l.items().isEmpty()) return word(n);
      return n instanceof Node.ListOf l
          ? either(first, l.items(), c.function().equals("A_OVERLAPS") ? "list.or" : "list.and")
          : member(first, n);
    }
    boolean condition = isComparison(n) || (c.function().equals("if") && i == 0);
    return condition ? clause(n) : inside(n);
  }

  private Said days(List<Node> a) {
    double d = number(a.get(1));
    return Said.of(
        d < 0 ? "phrase.daysBefore" : "phrase.daysAfter",
        "n",
        Math.abs(d),
        "count",
        Said.number(Math.abs(d)),
        "a",
        inside(a.get(0)));
  }

  private static Double number(Node n) {
    return n instanceof Node.Literal l && l.value() instanceof Value.Num d ? d.value() : null;
  }

  /** The unit that a value comes in; "" when it has none, or more than one. */
  private String unit(Node n) {
    if (n instanceof Node.Name q) return scope.find(q.name()).map(Scope.Known::unit).orElse("");
    if (n instanceof Node.Negate m) return unit(m.operand());
    if (n instanceof Node.Arithmetic a && (a.op().equals("+") || a.op().equals("-"))) {
      String left = unit(a.left());
      String right = unit(a.right());
      if (a.left() instanceof Node.Literal) return right;
      return a.right() instanceof Node.Literal || left.equals(right) ? left : "";
    }
    return n instanceof Node.Call c && KEEPS_UNIT.contains(c.function()) && !c.arguments().isEmpty()
        ? unit(c.arguments().get(0))
        : "";
  }

  private static Said literal(Value v, String unit) {
    if (v instanceof Value.Text t) return Said.text("“" + t.value().replace("”", "””") + "”");
    if (v instanceof Value.Place p) return Phrases.shape(p.geometry());
    if (v instanceof Value.Bool b) return Said.of(b.value() ? "phrase.true" : "phrase.false");
    if (v instanceof Value.Num n)
      return unit.isEmpty()
          ? Said.number(n.value())
          : Said.of("phrase.withUnit", "n", Said.number(n.value()), "unit", unit);
    return v.isEmpty() ? Said.of("phrase.nothing") : v.said();
  }

  private static String lowerFirst(String s) {
    boolean acronym = s.length() > 1 && Character.isUpperCase(s.charAt(1));
    return s.isEmpty() || acronym ? s : Fold.lower(s.substring(0, 1)) + s.substring(1);
  }
}
