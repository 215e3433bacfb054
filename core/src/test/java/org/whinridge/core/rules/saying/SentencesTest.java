package org.whinridge.core.rules.saying;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.rules.TestNames;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/** Sentences: well said, and never the same for two rules that mean different things. */
class SentencesTest {
  private final Random random = new Random(2028);
  private final TestNames names =
      new TestNames().known("wet", Value.YES).known("lengths", Value.many(List.of(Value.of(1))));

  private Rule rule(String text) {
    Rules.Outcome o = Rules.formula(text, names, ValueType.EMPTY);
    return o.rule().orElseThrow(() -> new AssertionError(text + ": " + o.problems()));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "NOT (silt > 5 AND ok) | it is not so that (silt depth is over 5 mm and works is yes)",
        "NOT silt > 5 AND ok | it is not so that silt depth is over 5 mm and works is yes",
        "sum(lengths) / 2 > 5 | (the total of lengths) / 2 is over 5",
        "coalesce(width, silt, 3) > 5 | (the first answered of width, silt depth and 3) is over 5",
        "(silt > 5) IS NULL | it is not known whether silt depth is over 5 mm",
        "silt + width IS NULL | silt depth + width gives no value",
        "built > add_days(today(), -30) | built is after 30 days before today",
        "built > add_days(today(), 1) | built is after 1 day after today",
        "round(width, 2) = 1.5 | width rounded to 2 decimals is 1.5",
        "round(silt) > 5 | silt depth rounded to a whole number is over 5 mm",
        "round(silt, -1) = 50 | silt depth rounded to tens is 50 mm",
        "5 < silt | 5 mm is under silt depth",
        "silt + 5 > 20 | silt depth + 5 mm is over 20 mm",
        "max(silt, 3) > 5 | (the largest of silt depth and 3) is over 5 mm",
        "trim(note) = 'x' | note without blanks at its ends is “x”",
        "kind = note | kind is the same as note",
        "kind IN ('flap', note) | kind is tide flap or what note is",
        "if(ok, silt, 3) > 5 | (silt depth if works is yes, else 3) is over 5",
        "A_EQUALS(defects, ()) | defects is exactly an empty list",
        "substr(note, 1, 2) = 'OS' | 2 letters of note from letter 1 on is “OS”"
      })
  void rulesAreSaidWell(String text, String sentence) {
    assertThat(English.of(Sentence.of(rule(text), names))).isEqualTo(sentence);
  }

  /** Labels that two questions share, and words that a sentence needs itself. */
  @Test
  void labelsThatCouldBeMistakenAreToldApart() {
    Scope scope =
        new Scope() {
          private final Map<String, Known> all = new LinkedHashMap<>();

          {
            put("a", "Depth", List.of());
            put("b", "Depth", List.of());
            put("c", "Silt and weed", List.of());
            put(
                "k",
                "Kind",
                List.of(
                    new CodeLabel("1", "Weir"),
                    new CodeLabel("2", "Weir"),
                    new CodeLabel("3", "a, b")));
          }

          private void put(String name, String label, List<CodeLabel> codes) {
            all.put(name, new Known(name, ValueType.TEXT, label, codes));
          }

          @Override
          public java.util.Optional<Known> find(String name) {
            return java.util.Optional.ofNullable(all.get(name));
          }

          @Override
          public java.util.Collection<String> names() {
            return all.keySet();
          }
        };
    for (String[] x :
        new String[][] {
          {"a = 'x'", "depth (a) is “x”"},
          {"b = 'x'", "depth (b) is “x”"},
          {"c = 'x'", "‘silt and weed’ is “x”"},
          {"k = '2'", "kind is weir (2)"},
          {"k IN ('1', '3')", "kind is weir (1) or “a, b”"}
        })
      assertThat(English.of(Sentence.of(Rules.condition(x[0], scope).rule().orElseThrow(), scope)))
          .isEqualTo(x[1]);
  }

  private String pick(String... from) {
    return from[random.nextInt(from.length)];
  }

  private String number(int depth) {
    if (depth <= 0) return pick("silt", "width", "3", "-2", "0.5");
    switch (random.nextInt(8)) {
      case 0:
        return "-(" + number(depth - 1) + ")";
      case 1:
        return "("
            + number(depth - 1)
            + ") "
            + pick("+", "-", "*", "/", "%", "div", "^")
            + " ("
            + number(depth - 1)
            + ")";
      case 2:
        return pick("abs", "floor", "ceil", "round", "sqrt") + "(" + number(depth - 1) + ")";
      case 3:
        return "if("
            + condition(depth - 1)
            + ", "
            + number(depth - 1)
            + ", "
            + number(depth - 1)
            + ")";
      case 4:
        return pick("coalesce", "min", "max") + "(" + number(depth - 1) + ", " + number(0) + ")";
      case 5:
        return pick("min", "max", "coalesce")
            + "("
            + number(0)
            + ", "
            + number(0)
            + ", "
            + number(0)
            + ")";
      case 6:
        return "round(" + number(depth - 1) + ", " + pick("0", "1", "2", "-1", "silt") + ")";
      default:
        return pick(
            "count(defects)",
            "sum(lengths)",
            "length(note)",
            "year(built)",
            "days_between(built, today())");
    }
  }

  private String condition(int depth) {
    if (depth <= 0)
      return pick(
          "ok",
          "wet",
          "kind = 'flap'",
          "silt > 3",
          "width IS NULL",
          "note LIKE 'a%'",
          "NOT ok",
          "silt BETWEEN 1 AND 2",
          "kind IN ('flap', 'weir')");
    switch (random.nextInt(11)) {
      case 0:
        return "(" + condition(depth - 1) + ") AND (" + condition(depth - 1) + ")";
      case 1:
        return "(" + condition(depth - 1) + ") OR (" + condition(depth - 1) + ")";
      case 2:
        return "NOT (" + condition(depth - 1) + ")";
      case 3:
        return "("
            + number(depth - 1)
            + ") "
            + pick("=", "<>", "<", ">", "<=", ">=")
            + " ("
            + number(depth - 1)
            + ")";
      case 4:
        return "("
            + number(depth - 1)
            + ")"
            + pick("", " NOT")
            + " BETWEEN ("
            + number(depth - 1)
            + ") AND ("
            + number(0)
            + ")";
      case 5:
        return "("
            + number(depth - 1)
            + ")"
            + pick("", " NOT")
            + " IN ("
            + number(depth - 1)
            + ", "
            + number(0)
            + ")";
      case 6:
        return "("
            + condition(depth - 1)
            + ")"
            + pick(" = TRUE", " = FALSE", " IS NULL", " IS NOT NULL");
      case 7:
        return "(" + number(depth - 1) + ") IS" + pick("", " NOT") + " NULL";
      case 8:
        return pick("A_CONTAINS", "A_OVERLAPS", "A_EQUALS", "A_CONTAINEDBY")
            + "(defects, "
            + pick("('leak', 'crack')", "('leak')", "()")
            + ")";
      case 9:
        return "built "
            + pick("<", ">")
            + " add_days("
            + pick("today()", "built")
            + ", "
            + pick("1", "-30", "silt")
            + ")";
      default:
        return pick(
            "kind = 'flap'",
            "kind = 'weir'",
            "kind <> note",
            "note = kind",
            "CASEI(note) = 'x'",
            "trim(note) = 'x'",
            "note = 'x'",
            "label(kind) = 'x'");
    }
  }

  /**
   * What means the same and may read the same: ok, ok = TRUE; a list of one; brackets of chains.
   */
  private static String meaning(Node n) {
    if (n instanceof Node.Not x && x.operand() instanceof Node.Name name)
      return name.name() + "=no";
    if (n instanceof Node.Name name) return name.name() + "=yes";
    if (n instanceof Node.Compare c
        && c.right() instanceof Node.Literal l
        && l.value() instanceof Value.Bool b)
      return c.left() instanceof Node.Name name
          ? name.name() + (b.value() == c.op().equals("=") ? "=yes" : "=no")
          : "(" + meaning(c.left()) + ")" + (b.value() == c.op().equals("="));
    if (n instanceof Node.Logic l) {
      List<String> parts = new ArrayList<>();
      Node at = l;
      while (at instanceof Node.Logic x && x.and() == l.and()) {
        parts.add(0, meaning(x.right()));
        at = x.left();
      }
      parts.add(0, meaning(at));
      return (l.and() ? "all" : "any") + parts;
    }
    StringBuilder b = new StringBuilder(n.getClass().getSimpleName());
    if (n instanceof Node.Compare c) b.append(c.op());
    if (n instanceof Node.Arithmetic a) b.append(a.op());
    if (n instanceof Node.Call c)
      b.append(
          c.function().equals("round")
                  && c.arguments().size() == 2
                  && c.arguments().get(1) instanceof Node.Literal l
                  && l.value().equals(Value.of(0))
              ? "round whole"
              : c.function());
    if (n instanceof Node.Literal l) b.append(l.value());
    if (n instanceof Node.Between x) b.append(x.not());
    if (n instanceof Node.In x) b.append(x.not());
    if (n instanceof Node.Like x) b.append(x.not());
    if (n instanceof Node.IsNull x) b.append(x.not());
    boolean whole =
        b.toString().endsWith("round whole")
            || (n instanceof Node.Call c
                && c.function().equals("round")
                && c.arguments().size() == 1);
    b.append('[');
    for (Node p : whole ? n.parts().subList(0, 1) : n.parts())
      b.append(p instanceof Node.Name name ? name.name() : meaning(p)).append(' ');
    return (whole ? b.toString().replace("Callround whole", "Callround") : b.toString()) + "]";
  }

  /** Printed: rules that read the same, of 100,000. */
  @Test
  void twoRulesNeverReadTheSame() {
    Map<String, String> told = new LinkedHashMap<>();
    Map<String, String> texts = new LinkedHashMap<>();
    int same = 0;
    StringBuilder first = new StringBuilder();
    for (int i = 0; i < 100_000; i++) {
      String text = condition(1 + i % 3);
      Rule r = Rules.condition(text, names).rule().orElse(null);
      if (r == null) continue;
      String sentence = English.of(Sentence.of(r, names));
      String meaning = meaning(r.tree());
      String before = told.putIfAbsent(sentence, meaning);
      String was = texts.putIfAbsent(sentence, r.canonical());
      if (before == null || before.equals(meaning)) continue;
      if (same++ < 6)
        first
            .append(sentence)
            .append("\n   ")
            .append(was)
            .append("\n   ")
            .append(r.canonical())
            .append('\n');
    }
    System.out.println("rules that read the same: " + same + " of " + told.size() + " sentences");
    assertThat(same).as(first.toString()).isZero();
    assertThat(told.size()).isGreaterThan(40_000);
  }

  /** The chains of a sentence parted again give the chains of its rule. */
  @Test
  void sentencesArePartedAgainAsTheyWereMeant() {
    Map<String, String> atoms = new LinkedHashMap<>();
    for (int i = 0; i < 5_000; i++) {
      atoms.clear();
      Rule r = rule(chain(3));
      String meant = skeleton(r.tree(), atoms);
      String sentence = English.of(Sentence.of(r, names));
      List<String> longest = new ArrayList<>(atoms.keySet());
      longest.sort((a, b) -> b.length() - a.length());
      for (String a : longest) sentence = sentence.replace(a, atoms.get(a));
      assertThat(new Parted(sentence).all()).as(r.canonical() + "\n" + sentence).isEqualTo(meant);
    }
  }

  private String chain(int depth) {
    if (depth == 0) return condition(0);
    switch (random.nextInt(4)) {
      case 0:
        return "NOT (" + chain(depth - 1) + ")";
      case 1:
        return "(" + chain(depth - 1) + ") OR (" + chain(depth - 1) + ")";
      default:
        return "(" + chain(depth - 1) + ") AND (" + chain(depth - 1) + ")";
    }
  }

  private String skeleton(Node n, Map<String, String> atoms) {
    if (n instanceof Node.Not x && !(x.operand() instanceof Node.Name))
      return "not(" + skeleton(x.operand(), atoms) + ")";
    if (n instanceof Node.Logic l) {
      List<String> parts = new ArrayList<>();
      Node at = l;
      while (at instanceof Node.Logic x && x.and() == l.and()) {
        parts.add(0, skeleton(x.right(), atoms));
        at = x.left();
      }
      parts.add(0, skeleton(at, atoms));
      return (l.and() ? "all" : "any") + "(" + String.join(" ", parts) + ")";
    }
    String said = English.of(new Sentence(names).say(n));
    return atoms.computeIfAbsent(said, k -> "#" + (char) ('A' + atoms.size()));
  }

  /** A sentence whose atoms are marks, read by its brackets and joining words. */
  private static final class Parted {
    private final String s;
    private int i;

    Parted(String s) {
      this.s = s;
    }

    String all() {
      List<String> parts = new ArrayList<>(List.of(one()));
      String join = "";
      while (i < s.length() && s.charAt(i) != ')') {
        for (String j : new String[] {", and ", " and ", ", or ", " or "})
          if (s.startsWith(j, i)) {
            assertThat(join).as(s).isIn("", j);
            join = j;
          }
        assertThat(join).as(s.substring(i)).isNotEmpty();
        i += join.length();
        parts.add(one());
      }
      return join.isEmpty()
          ? parts.get(0)
          : (join.contains("and") ? "all" : "any") + "(" + String.join(" ", parts) + ")";
    }

    private String one() {
      String not = "it is not so that ";
      if (s.startsWith(not, i)) {
        i += not.length();
        return "not(" + one() + ")";
      }
      if (s.charAt(i) == '(') {
        i++;
        String inner = all();
        i++;
        return inner;
      }
      i += 2;
      return s.substring(i - 2, i);
    }
  }
}
