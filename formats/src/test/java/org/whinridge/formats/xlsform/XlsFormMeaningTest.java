package org.whinridge.formats.xlsform;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.rules.Situation;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * What conditions mean, here and in a workbook, over all combinations of answers with empty ones
 * among them. The other side is an evaluator of its own, after XPath 1.0 (W3C Recommendation 16
 * November 1999, sections 3.4 and 4, from memory): an answer is a text, an empty one the empty
 * text.
 */
class XlsFormMeaningTest {
  private static final Map<String, List<String>> ANSWERS = new LinkedHashMap<>();
  private static final Map<String, QuestionType> TYPES = new LinkedHashMap<>();

  static {
    ANSWERS.put("a", List.of("", "x", "xy", "abcd"));
    ANSWERS.put("n", List.of("", "0", "3", "5.5"));
    ANSWERS.put("k", List.of("", "1", "2", "10"));
    ANSWERS.put("m", List.of("", "p", "q", "p q"));
    ANSWERS.put("ok", List.of("", "yes", "no"));
    TYPES.put("a", QuestionType.TEXT);
    TYPES.put("n", QuestionType.DECIMAL);
    TYPES.put("k", QuestionType.CHOICE);
    TYPES.put("m", QuestionType.CHOICES);
    TYPES.put("ok", QuestionType.YES_NO);
  }

  /** The answers of one visit, on both sides. */
  private static final class Visit implements Scope, Situation {
    private final Map<String, String> said = new LinkedHashMap<>();

    @Override
    public Value value(String name) {
      String s = said.get(name);
      if (s.isEmpty()) return Value.EMPTY;
      switch (TYPES.get(name)) {
        case DECIMAL:
          return Value.of(Double.parseDouble(s));
        case YES_NO:
          return Value.of(s.equals("yes"));
        case CHOICES:
          return Value.many(Arrays.stream(s.split(" ")).map(Value::text).toList());
        default:
          return Value.text(s);
      }
    }

    @Override
    public LocalDate today() {
      return LocalDate.of(2026, 5, 4);
    }

    @Override
    public Instant now() {
      return Instant.EPOCH;
    }

    @Override
    public String label(String name, Value code) {
      return code.plain();
    }

    @Override
    public Optional<Coordinate> project(Coordinate c) {
      return Optional.empty();
    }

    @Override
    public Optional<Known> find(String name) {
      return Optional.ofNullable(TYPES.get(name))
          .map(t -> new Known(name, t.valueType(), name, List.of()));
    }

    @Override
    public Collection<String> names() {
      return TYPES.keySet();
    }
  }

  private final Random random = new Random(7007);
  private final Visit visit = new Visit();
  private final Names names = new Names();

  XlsFormMeaningTest() {
    int row = 2;
    for (Map.Entry<String, QuestionType> t : TYPES.entrySet())
      names.add(
          t.getKey(),
          t.getValue(),
          "",
          t.getValue().hasCodes() ? List.of("1", "2", "10") : List.of(),
          row++,
          List.of());
  }

  // the workbook's side

  private Object xpath(XPath x, String self) {
    if (x instanceof XPath.Text t) return t.value();
    if (x instanceof XPath.Num n) return Double.parseDouble(n.digits());
    if (x instanceof XPath.Self) return visit.said.get(self);
    if (x instanceof XPath.Question q) return visit.said.get(q.name());
    if (x instanceof XPath.Minus m) return -number(xpath(m.of(), self));
    if (x instanceof XPath.Binary b) {
      Object l = xpath(b.left(), self);
      Object r = xpath(b.right(), self);
      switch (b.op()) {
        case "and":
          return truth(l) && truth(r);
        case "or":
          return truth(l) || truth(r);
        case "=":
          return equal(l, r);
        case "!=":
          return !equal(l, r);
        case "<":
          return number(l) < number(r);
        case ">":
          return number(l) > number(r);
        case "<=":
          return number(l) <= number(r);
        case ">=":
          return number(l) >= number(r);
        case "+":
          return number(l) + number(r);
        case "-":
          return number(l) - number(r);
        default:
          return number(l) * number(r);
      }
    }
    XPath.Call c = (XPath.Call) x;
    List<Object> a = c.arguments().stream().map(y -> xpath(y, self)).toList();
    switch (c.function()) {
      case "not":
        return !truth(a.get(0));
      case "true":
        return true;
      case "false":
        return false;
      case "selected":
        return List.of(text(a.get(0)).split(" ")).contains(text(a.get(1)));
      case "string-length":
        return (double) text(a.get(0)).length();
      case "count-selected":
        return text(a.get(0)).isEmpty() ? 0.0 : text(a.get(0)).split(" ").length;
      case "contains":
        return text(a.get(0)).contains(text(a.get(1)));
      case "starts-with":
        return text(a.get(0)).startsWith(text(a.get(1)));
      case "ends-with":
        return text(a.get(0)).endsWith(text(a.get(1)));
      case "regex":
        return text(a.get(0)).matches(text(a.get(1)));
      default:
        throw new AssertionError(c.function());
    }
  }

  private static boolean truth(Object o) {
    if (o instanceof Boolean b) return b;
    if (o instanceof Double d) return d != 0 && !d.isNaN();
    return !o.toString().isEmpty();
  }

  private static double number(Object o) {
    if (o instanceof Boolean b) return b ? 1 : 0;
    return o instanceof Number d ? d.doubleValue() : Numbers.read(o.toString()).orElse(Double.NaN);
  }

  private static String text(Object o) {
    return o instanceof Double d ? Numbers.plain(d) : o.toString();
  }

  private static boolean equal(Object l, Object r) {
    if (l instanceof Boolean || r instanceof Boolean) return truth(l) == truth(r);
    if (l instanceof Number || r instanceof Number) return number(l) == number(r);
    return l.equals(r);
  }

  /** All combinations of the answers that are read. */
  private void each(Collection<String> read, Runnable what) {
    each(new ArrayList<>(TYPES.keySet()), 0, read, what);
  }

  private void each(List<String> all, int at, Collection<String> read, Runnable what) {
    if (at == all.size()) {
      what.run();
      return;
    }
    String name = all.get(at);
    for (String s : read.contains(name) ? ANSWERS.get(name) : List.of("")) {
      visit.said.put(name, s);
      each(all, at + 1, read, what);
    }
  }

  private String pick(String... from) {
    return from[random.nextInt(from.length)];
  }

  private String xcondition(int depth) {
    if (depth > 0)
      switch (random.nextInt(3)) {
        case 0:
          return "not(" + xcondition(depth - 1) + ")";
        case 1:
          return "(" + xcondition(depth - 1) + " and " + xcondition(depth - 1) + ")";
        default:
          return "(" + xcondition(depth - 1) + " or " + xcondition(depth - 1) + ")";
      }
    String order = pick("=", "!=", "<", ">", "<=", ">=");
    switch (random.nextInt(13)) {
      case 0:
        return "${a} " + pick("=", "!=") + " " + pick("'x'", "''", "${k}", "'abcd'");
      case 1:
        return "${n} " + order + " " + pick("3", "0", "-1", "5.5");
      case 2:
        return pick("3", "'3'", "0") + " " + order + " ${n}";
      case 3:
        return "${k} " + order + " " + pick("1", "2", "5");
      case 4:
        return "${k} " + pick("=", "!=") + " " + pick("'1'", "'10'", "''");
      case 5:
        return "selected(${m}, " + pick("'p'", "'q'") + ")";
      case 6:
        return "selected(${k}, " + pick("'1'", "2") + ")";
      case 7:
        return "string-length(${a}) " + order + " " + pick("0", "1", "2", "4");
      case 8:
        return "count-selected(${m}) " + order + " " + pick("0", "1", "2");
      case 9:
        return pick("contains", "starts-with", "ends-with") + "(${a}, " + pick("'x'", "'xy'") + ")";
      case 10:
        return "regex(${a}, " + pick("'x.*'", "'[a-d]+'") + ")";
      case 11:
        return "${ok} " + pick("=", "!=") + " " + pick("'yes'", "'no'", "''");
      default:
        return "${n} + 1 " + order + " " + pick("4", "${n} * 2");
    }
  }

  /** Printed: conditions of workbooks that mean something else here. */
  @Test
  void conditionsOfWorkbooksMeanTheSameHere() throws Exception {
    int[] other = new int[1];
    List<String> first = new ArrayList<>();
    for (int i = 0; i < 6_000; i++) {
      String text = xcondition(i % 3);
      XPath x = XPath.read(text);
      boolean check = i % 2 == 0;
      String self = pick("a", "n", "k", "m", "ok");
      XPathToCql to = new XPathToCql(names, List.of(), names.find(self, List.of()), "", Map.of());
      String cql = check ? to.check(text) : to.ask(text);
      Rule rule =
          Rules.condition(cql, visit)
              .rule()
              .orElseThrow(
                  () ->
                      new AssertionError(
                          text + " | " + cql + Rules.condition(cql, visit).problems()));
      List<String> read = new ArrayList<>(rule.names());
      read.addAll(to.reads(x));
      if (check) read.add(self);
      each(
          read,
          () -> {
            if (check && visit.said.get(self).isEmpty()) return; // an empty answer is not checked
            boolean there = truth(xpath(x, self));
            boolean here = check ? rule.isNotBroken(visit) : rule.holds(visit);
            if (there == here) return;
            other[0]++;
            if (first.size() < 5) first.add(text + " | " + cql + " | " + visit.said);
          });
    }
    System.out.println("conditions of workbooks that mean something else: " + other[0]);
    assertThat(other[0]).as(String.join("\n", first)).isZero();
  }

  private String condition(int depth) {
    if (depth > 0)
      switch (random.nextInt(3)) {
        case 0:
          return "NOT (" + condition(depth - 1) + ")";
        case 1:
          return "(" + condition(depth - 1) + " AND " + condition(depth - 1) + ")";
        default:
          return "(" + condition(depth - 1) + " OR " + condition(depth - 1) + ")";
      }
    String order = pick("=", "<>", "<", ">", "<=", ">=");
    String not = pick("", " NOT");
    switch (random.nextInt(13)) {
      case 0:
        return "a " + pick("=", "<>") + " " + pick("'x'", "'abcd'", "k");
      case 1:
        return "n " + order + " " + pick("3", "0", "-1");
      case 2:
        return pick("3", "0") + " " + order + " n";
      case 3:
        return "k" + not + " IN ('1', '10')";
      case 4:
        return pick("a", "n", "k", "m", "ok") + " IS" + not + " NULL";
      case 5:
        return "A_CONTAINS(m, " + pick("('p')", "('p', 'q')") + ")";
      case 6:
        return "A_OVERLAPS(m, ('p', 'q'))";
      case 7:
        return "length(a) " + order + " " + pick("0", "2", "4");
      case 8:
        return "count(m) " + order + " " + pick("0", "1", "2");
      case 9:
        return "a" + not + " LIKE " + pick("'%x%'", "'x%'", "'%d'", "'xy'");
      case 10:
        return "n" + not + " BETWEEN 0 AND 3";
      case 11:
        return pick("ok", "NOT ok", "ok = TRUE", "ok <> TRUE", "TRUE");
      default:
        return pick("n + 1 > 4", "matches(a, 'x.*')", "n * 2 <> 6", "NOT matches(a, '[a-d]+')");
    }
  }

  /** Printed: conditions of ours that mean something else in a workbook. */
  @Test
  void conditionsOfOursMeanTheSameInAWorkbook() throws Exception {
    CqlToXPath to = new CqlToXPath(TYPES::containsKey, "m"::equals, n -> "yes");
    int[] other = new int[1];
    List<String> first = new ArrayList<>();
    for (int i = 0; i < 6_000; i++) {
      String text = condition(i % 3);
      Rule rule = Rules.formula(text, visit, ValueType.YES_NO).rule().orElseThrow();
      boolean check = i % 2 == 0;
      String self = pick("a", "n", "k", "m", "ok");
      String there = check ? to.check(rule.tree(), self) : to.ask(rule.tree());
      XPath x = XPath.read(there);
      List<String> read = new ArrayList<>(rule.names());
      if (check) read.add(self);
      each(
          read,
          () -> {
            if (check && visit.said.get(self).isEmpty()) return;
            boolean here = check ? rule.isNotBroken(visit) : rule.holds(visit);
            if (truth(xpath(x, self)) == here) return;
            other[0]++;
            if (first.size() < 5) first.add(text + " | " + there + " | " + visit.said);
          });
    }
    System.out.println("conditions of ours that mean something else there: " + other[0]);
    assertThat(other[0]).as(String.join("\n", first)).isZero();
  }
}
