package org.whinridge.core.rules;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * Tokens to tree by recursive descent, CQL2's precedence: OR, AND, NOT, comparison, + -, * / % div,
 * ^, minus.
 */
final class Parser {
  static final Set<String> WKT =
      Set.of(
          "POINT",
          "LINESTRING",
          "POLYGON",
          "MULTIPOINT",
          "MULTILINESTRING",
          "MULTIPOLYGON",
          "GEOMETRYCOLLECTION");
  private static final Set<String> COMPARISONS = Set.of("=", "<>", "<", ">", "<=", ">=");
  private static final Set<String> RESERVED =
      Set.of("AND", "OR", "NOT", "LIKE", "BETWEEN", "IN", "IS", "NULL", "DIV");
  private final List<Token> tokens;
  private int i;
  private int depth;

  Parser(List<Token> tokens) {
    this.tokens = tokens;
  }

  Node all() {
    Node n = or();
    if (now().kind() != Token.Kind.END) throw expected(Said.of("rule.want.end"));
    return n;
  }

  private Token now() {
    return tokens.get(i);
  }

  private Token take() {
    return tokens.get(i++);
  }

  private RuleSyntax expected(Said what) {
    Token t = now();
    boolean twice = t.sign("=") && i > 0 && tokens.get(i - 1).sign("=");
    return new RuleSyntax(
        twice
            ? new RuleProblem(
                RuleProblem.Kind.EXPECTED_OTHER,
                tokens.get(i - 1).at().to(t.at()),
                Said.of("rule.oneEqual"),
                "=")
            : new RuleProblem(
                RuleProblem.Kind.EXPECTED_OTHER,
                t.at(),
                Said.of("rule.expected", "wanted", what, "found", t.said()),
                ""));
  }

  private Span need(String sign) {
    if (!now().sign(sign)) throw expected(Said.text("‘" + sign + "’"));
    return take().at();
  }

  private Node or() {
    Node n = and();
    while (now().is("OR")) {
      take();
      Node r = and();
      n = deep(new Node.Logic(false, n, r, n.at().to(r.at())));
    }
    return n;
  }

  private Node and() {
    Node n = not();
    while (now().is("AND")) {
      take();
      Node r = not();
      n = deep(new Node.Logic(true, n, r, n.at().to(r.at())));
    }
    return n;
  }

  /** A chain a OR b OR … leans to the left; it counts as depth, since it is walked by recursion. */
  private Node deep(Node n) {
    if (chain(n) > 1000) throw tooDeep(n.at());
    return n;
  }

  private static int chain(Node n) {
    int count = 0;
    while (n instanceof Node.Logic l) {
      count++;
      n = l.left();
    }
    return count;
  }

  private RuleSyntax tooDeep(Span at) {
    return new RuleSyntax(
        new RuleProblem(
            RuleProblem.Kind.TOO_DEEP, at, Said.of("rule.tooDeep", "most", Rules.MAX_DEPTH), ""));
  }

  private void down() {
    if (++depth > Rules.MAX_DEPTH) throw tooDeep(now().at());
  }

  private Node not() {
    if (!now().is("NOT")) return comparison();
    down();
    Span at = take().at();
    Node n = not();
    depth--;
    return new Node.Not(n, at.to(n.at()));
  }

  private Node comparison() {
    Node l = sum();
    Token t = now();
    if (t.kind() == Token.Kind.SIGN && COMPARISONS.contains(t.text())) {
      take();
      Node r = sum();
      return new Node.Compare(t.text(), l, r, l.at().to(r.at()));
    }
    if (t.is("IS")) {
      take();
      boolean not = takeIf("NOT");
      if (!now().is("NULL")) throw expected(Said.text("NULL"));
      return new Node.IsNull(l, not, l.at().to(take().at()));
    }
    boolean not = t.is("NOT");
    if (not) take();
    if (takeIf("LIKE")) {
      Node p = sum();
      return new Node.Like(l, p, not, l.at().to(p.at()));
    }
    if (takeIf("BETWEEN")) {
      Node low = sum();
      if (!takeIf("AND")) throw expected(Said.of("rule.want.and"));
      Node high = sum();
      return new Node.Between(l, low, high, not, l.at().to(high.at()));
    }
    if (takeIf("IN")) {
      need("(");
      List<Node> items = arguments();
      Span end = need(")");
      return new Node.In(l, items, not, l.at().to(end));
    }
    if (not) throw expected(Said.of("rule.want.afterNot"));
    return l;
  }

  private boolean takeIf(String keyword) {
    if (!now().is(keyword)) return false;
    take();
    return true;
  }

  private Node sum() {
    Node n = product();
    while (now().sign("+") || now().sign("-")) n = arithmetic(n, take().text(), product());
    return n;
  }

  private Node product() {
    Node n = power();
    while (now().sign("*") || now().sign("/") || now().sign("%") || now().is("DIV")) {
      String op = Character.isLetter(now().text().charAt(0)) ? "div" : now().text();
      take();
      n = arithmetic(n, op, power());
    }
    return n;
  }

  private Node power() {
    Node n = unary();
    if (!now().sign("^")) return n;
    down();
    take();
    Node r = power();
    depth--;
    return arithmetic(n, "^", r);
  }

  private static Node arithmetic(Node l, String op, Node r) {
    return new Node.Arithmetic(op, l, r, l.at().to(r.at()));
  }

  private Node unary() {
    if (now().sign("+") && i + 1 < tokens.size() && tokens.get(i + 1).kind() == Token.Kind.NUMBER)
      take(); // a sign of a number, as the standard's grammar has it
    if (!now().sign("-")) return primary();
    down();
    Span at = take().at();
    Node n = unary();
    depth--;
    if (n instanceof Node.Literal l && l.value() instanceof Value.Num v)
      return new Node.Literal(new Value.Num(-v.value()), at.to(l.at()));
    return new Node.Negate(n, at.to(n.at()));
  }

  private Node primary() {
    down();
    try {
      Token t = now();
      switch (t.kind()) {
        case NUMBER:
          {
            take();
            double d;
            try {
              d = Double.parseDouble(t.text());
            } catch (NumberFormatException e) {
              d = Double.NaN;
            }
            if (Double.isNaN(d) || Double.isInfinite(d))
              throw new RuleSyntax(
                  new RuleProblem(
                      RuleProblem.Kind.BAD_LITERAL,
                      t.at(),
                      Said.of("rule.noNumber", "found", t.said()),
                      ""));
            return new Node.Literal(new Value.Num(d), t.at());
          }
        case TEXT:
          take();
          return new Node.Literal(
              t.text().isEmpty() ? Value.EMPTY : new Value.Text(t.text()), t.at());
        case QUOTED_NAME:
          take();
          return new Node.Name(t.text(), t.at());
        case NAME:
          return named(take());
        default:
          if (t.sign("(")) return bracket();
          throw expected(Said.of("rule.want.value"));
      }
    } finally {
      depth--;
    }
  }

  private Node bracket() {
    Span from = need("(");
    if (now().sign(")")) return new Node.ListOf(List.of(), from.to(take().at()));
    Node first = or();
    if (!now().sign(",")) {
      need(")");
      return first;
    }
    List<Node> items = new ArrayList<>(List.of(first));
    while (now().sign(",")) {
      take();
      items.add(or());
    }
    return new Node.ListOf(items, from.to(need(")")));
  }

  private Node named(Token t) {
    String upper = t.text().toUpperCase(java.util.Locale.ROOT);
    if (RESERVED.contains(upper)) {
      i--;
      throw expected(Said.of("rule.want.value"));
    }
    if (upper.equals("TRUE") || upper.equals("FALSE"))
      return new Node.Literal(Value.of(upper.equals("TRUE")), t.at());
    if (WKT.contains(upper) && now().is("EMPTY"))
      throw new RuleSyntax(
          new RuleProblem(
              RuleProblem.Kind.BAD_LITERAL,
              t.at().to(now().at()),
              Said.of("rule.emptyGeometry"),
              ""));
    boolean z = WKT.contains(upper) && now().is("Z") && tokens.get(i + 1).sign("(");
    if (z) take(); // heights are read over: places here are two-dimensional
    if (!now().sign("(")) return new Node.Name(t.text(), t.at());
    if (WKT.contains(upper) || upper.equals("BBOX"))
      return new GeometryText(tokens, i, upper, t.at()).read(next -> i = next);
    Span open = take().at();
    List<Node> arguments = now().sign(")") ? List.of() : arguments();
    Span at = t.at().to(open).to(need(")"));
    boolean operator =
        upper.startsWith("S_")
            || upper.startsWith("A_")
            || upper.startsWith("T_")
            || upper.equals("CASEI")
            || upper.equals("ACCENTI");
    if (upper.equals("DATE") || upper.equals("TIMESTAMP"))
      return Literals.moment(upper, arguments, at);
    if (upper.equals("INTERVAL")) return Literals.interval(arguments, at);
    return new Node.Call(
        operator ? upper : t.text().toLowerCase(java.util.Locale.ROOT), arguments, at);
  }

  private List<Node> arguments() {
    List<Node> list = new ArrayList<>(List.of(or()));
    while (now().sign(",")) {
      take();
      list.add(or());
    }
    return list;
  }
}
