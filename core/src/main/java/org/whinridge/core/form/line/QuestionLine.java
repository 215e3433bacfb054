package org.whinridge.core.form.line;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.whinridge.core.form.FormNames;
import org.whinridge.core.form.Limits;
import org.whinridge.core.form.Question.Need;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.layer.Code;
import org.whinridge.core.said.Unfit;

/**
 * What one line says of a question: {@code Silt depth (mm) {silt} 0..500 * // at the middle}.
 *
 * @param name "" when the line gives none
 * @param unit "" for none
 * @param decimals -1 for as given
 * @param least fewest characters, codes or photos; 0 for any, as with {@code most}
 * @param codes without rules and other languages, which a line can't say
 */
record QuestionLine(
    String label,
    String name,
    QuestionType type,
    String unit,
    int decimals,
    OptionalDouble from,
    OptionalDouble to,
    double step,
    int least,
    int most,
    Need need,
    String hint,
    List<Code> codes) {
  static final String NEEDED = "*";
  static final String WANTED = "(*)";
  static final String HINT = "//";

  /** At the end of a line that does not say all of its question. */
  static final String MORE = "\u2026";

  private static final Pattern NAME = Pattern.compile("^(.*?)\\{([^{}]*)}(.*)$");
  private static final Pattern TIMES =
      Pattern.compile("^(.*\\S)\\s+x(\\d{0,6})(?:(\\.\\.)(\\d{0,6}))?$");
  private static final Pattern ENDS_IN_RANGE =
      Pattern.compile(
          "^(.*?\\S)\\s+((?:"
              + Range.NUMBER
              + "\\s*)?(?:\\.\\.|\u2026)(?:\\s*"
              + Range.NUMBER
              + ")?(?:\\s+by\\s+"
              + Range.NUMBER
              + ")?)$");
  private static final Pattern PLACES = Pattern.compile("^\\.(0{0,12})(?:\\s+(.*))?$");

  private static final Pattern WITHIN = Pattern.compile("[^()]{1,12}");
  private static final Pattern PHOTO = Pattern.compile("photos?( .*)?");

  /** Units that a number may have in brackets behind its label. Common practice, no source. */
  private static final Set<String> UNITS =
      Set.of(
          "mm",
          "cm",
          "dm",
          "m",
          "km",
          "in",
          "ft",
          "yd",
          "mi",
          "mm\u00b2",
          "cm\u00b2",
          "m\u00b2",
          "m2",
          "ha",
          "km\u00b2",
          "ft\u00b2",
          "m\u00b3",
          "m3",
          "l",
          "l/s",
          "m\u00b3/s",
          "m3/s",
          "kg",
          "g",
          "mg",
          "mg/l",
          "t",
          "n",
          "kn",
          "mn",
          "pa",
          "kpa",
          "mpa",
          "bar",
          "mbar",
          "%",
          "\u2030",
          "\u00b0",
          "\u00b0c",
          "\u00b0f",
          "s",
          "min",
          "h",
          "d",
          "days",
          "weeks",
          "months",
          "years",
          "m/s",
          "km/h",
          "v",
          "kv",
          "a",
          "ma",
          "w",
          "kw",
          "kwh",
          "hz",
          "db",
          "lux",
          "ph",
          "ntu",
          "ppm",
          "pcs");

  private static final int MOST_LABEL = 300;

  QuestionLine {
    codes = List.copyOf(codes);
  }

  /**
   * Reads a line.
   *
   * @throws IllegalArgumentException with a sentence for people when it can't be read
   */
  static QuestionLine read(String line) {
    return new Reader().read(line);
  }

  /** What is read of a line, from both of its ends. */
  private static final class Reader {
    private String name = "";
    private QuestionType type;
    private String unit = "";
    private int decimals = -1;
    private Range range;
    private int least;
    private int most;
    private Need need = Need.FREE;
    private String hint = "";
    private List<Code> codes = List.of();

    QuestionLine read(String line) {
      String head = line.strip();
      if (!head.isEmpty() && Signs.last(head, MORE) == head.length() - 1)
        head = head.substring(0, head.length() - 1).stripTrailing();
      head = hint(head);
      if (head.startsWith(">")) {
        type = QuestionType.READ;
        head = head.substring(1).strip();
      }
      int colon = type == null ? colon(head) : -1;
      String said = colon < 0 ? "" : need(head.substring(colon + 1).strip());
      head = name(colon < 0 ? need(head) : head.substring(0, colon));
      if (type == null && colon < 0) head = withoutColon(head);
      else if (colon >= 0) {
        head = unit(head, mayHaveUnit(said));
        kind(said);
      }
      String label = Signs.meant(head);
      if (label.isEmpty()) throw new Unfit("line.noLabel");
      if (label.length() > MOST_LABEL) throw new Unfit("line.longLabel", "most", MOST_LABEL);
      if (range != null && !range.isSound()) throw new Unfit("line.backwards");
      if (most > 0 && most < least) throw new Unfit("line.backwards");
      return new QuestionLine(
          label,
          name,
          type == null ? QuestionType.TEXT : type,
          unit,
          decimals,
          range == null ? OptionalDouble.empty() : range.from(),
          range == null ? OptionalDouble.empty() : range.to(),
          range == null ? 0 : range.step(),
          least,
          most,
          need,
          hint,
          codes);
    }

    /** A colon before a blank or at the end; one within a word or a time of day means nothing. */
    private static int colon(String s) {
      for (int at = Signs.find(s, ":", 0); at >= 0; at = Signs.find(s, ":", at + 1))
        if (at == s.length() - 1 || s.charAt(at + 1) == ' ') return at;
      return -1;
    }

    private String hint(String line) {
      int at = Signs.find(line, " " + HINT + " ", 0);
      if (at < 0) return line;
      hint = Signs.meant(line.substring(at + 3));
      return line.substring(0, at).stripTrailing();
    }

    private String need(String s) {
      String out = s;
      if (out.endsWith(" " + WANTED) || out.equals(WANTED)) need = Need.WANTED;
      else if (Signs.last(out, NEEDED) == out.length() - 1 && !out.isEmpty()) need = Need.NEEDED;
      if (need == Need.FREE) return out;
      int length = need == Need.WANTED ? WANTED.length() : NEEDED.length();
      out = out.substring(0, out.length() - length).stripTrailing();
      return out;
    }

    private String name(String head) {
      int open = Signs.find(head, "{", 0);
      if (open < 0) return head.strip();
      Matcher m = NAME.matcher(head.substring(open));
      if (!m.matches()) throw new Unfit("line.openName");
      name = m.group(2).strip();
      FormNames.problem(name)
          .ifPresent(
              p -> {
                throw new Unfit(p);
              });
      return (head.substring(0, open).stripTrailing() + " " + m.group(3).strip()).strip();
    }

    private static boolean mayHaveUnit(String said) {
      return LineKind.at(said)
          .filter(k -> k == LineKind.WHOLE || k == LineKind.DECIMAL || k == LineKind.COUNTER)
          .isPresent();
    }

    /** Takes a unit off the end of a label; one that is not known only where it must be one. */
    private String unit(String head, boolean sure) {
      int open = Signs.last(head, "(");
      if (open < 1 || !head.endsWith(")")) return head;
      String within = head.substring(open + 1, head.length() - 1);
      boolean may = WITHIN.matcher(within).matches() && !head.substring(0, open).isBlank();
      if (!may || !sure && !UNITS.contains(within.toLowerCase(Locale.ROOT))) return head;
      unit = Signs.meant(within);
      return head.substring(0, open).stripTrailing();
    }

    private String withoutColon(String head) {
      Matcher times = TIMES.matcher(head);
      if (times.matches() && !(times.group(2).isEmpty() && times.group(3) == null)) {
        type = QuestionType.PHOTO;
        times(times.group(2), times.group(3) != null, times.group(4));
        return times.group(1);
      }
      Matcher ranged = ENDS_IN_RANGE.matcher(head);
      if (ranged.matches() && Range.read(ranged.group(2)).isPresent()) {
        range = Range.read(ranged.group(2)).get();
        decimals = range.decimals() > 0 ? range.decimals() : -1;
        type = range.decimals() > 0 ? QuestionType.DECIMAL : QuestionType.WHOLE;
        return unit(ranged.group(1), true);
      }
      String rest = unit(head, false);
      if (!unit.isEmpty()) type = QuestionType.DECIMAL;
      else if (PHOTO.matcher(head.toLowerCase(Locale.ROOT)).matches()) type = QuestionType.PHOTO;
      return rest;
    }

    private void times(String first, boolean isRange, String last) {
      least = first.isEmpty() ? 0 : Integer.parseInt(first);
      if (!isRange) most = least;
      else most = last == null || last.isEmpty() ? 0 : Integer.parseInt(last);
      if (Math.max(least, most) > Limits.LARGEST)
        throw new Unfit("form.leastMost", "most", 100_000);
    }

    private void kind(String said) {
      if (said.isEmpty()) throw new Unfit("line.nothingAfterColon");
      if (said.startsWith("+")) {
        type = QuestionType.CHOICES;
        codes = codes(said.substring(1), "|");
        return;
      }
      LineKind kind = LineKind.at(said).orElse(null);
      if (kind != null && (kind.type().hasCodes() || Signs.find(said, "|", 0) < 0)) {
        type = kind.type();
        rest(said.substring(kind.word().length()).strip());
        return;
      }
      if (Signs.find(said, "|", 0) >= 0) {
        type = QuestionType.CHOICE;
        codes = codes(said, "|");
      } else if (Signs.find(said, " < ", 0) >= 0) {
        type = QuestionType.GRADE;
        codes = codes(said, " < ");
      } else if (Range.read(said).isPresent()) {
        type = QuestionType.DECIMAL;
        range = Range.read(said).get();
      } else throw new Unfit("line.noKind", "text", Signs.meant(said));
    }

    private void rest(String rest) {
      if (type.hasCodes()) {
        codes =
            rest.isEmpty() ? List.of() : codes(rest, Signs.find(rest, " < ", 0) >= 0 ? " < " : "|");
        return;
      }
      if (rest.isEmpty()) return;
      String left = rest;
      Matcher places = PLACES.matcher(left);
      if (type == QuestionType.DECIMAL && places.matches()) {
        decimals = places.group(1).length();
        left = places.group(2) == null ? "" : places.group(2);
        if (left.isEmpty()) return;
      }
      Matcher times = TIMES.matcher("n " + left);
      Range r = Range.read(left).orElse(null);
      if (type.isMedia() && times.matches())
        times(times.group(2), times.group(3) != null, times.group(4));
      else if ((type == QuestionType.TEXT || type == QuestionType.LONG_TEXT) && r != null) {
        if (r.step() > 0 || r.decimals() > 0) throw new Unfit("line.notUnderstood", "text", left);
        least = (int) r.from().orElse(0);
        most = (int) r.to().orElse(0);
        if (least < 0 || Math.max(least, most) > Limits.LARGEST)
          throw new Unfit("form.leastMost", "most", 100_000);
      } else if (r != null && isNumber(type)) range = r;
      else throw new Unfit("line.notUnderstood", "text", Signs.meant(left));
    }

    private static List<Code> codes(String text, String between) {
      List<Code> out = new ArrayList<>();
      Set<String> there = new TreeSet<>();
      for (String part : Signs.cut(text, between)) {
        List<String> sides = Signs.cut(part, "=");
        String code = Signs.meant(sides.get(0));
        String label =
            sides.size() == 1
                ? code
                : Signs.meant(String.join("=", sides.subList(1, sides.size())));
        if (code.isEmpty()) throw new Unfit("line.emptyCode");
        if (!there.add(code)) throw new Unfit("line.codeTwice", "code", code);
        out.add(Code.of(code, label.isEmpty() ? code : label));
      }
      return out;
    }
  }

  private static boolean isNumber(QuestionType t) {
    return t == QuestionType.WHOLE
        || t == QuestionType.DECIMAL
        || t == QuestionType.COUNTER
        || t == QuestionType.DURATION;
  }

  /** The line that says this. */
  String write() {
    StringBuilder b = new StringBuilder();
    if (type == QuestionType.READ) b.append("> ");
    b.append(labelWritten());
    if (!unit.isEmpty()) b.append(" (").append(Signs.written(unit)).append(')');
    if (!name.isEmpty()) b.append(" {").append(name).append('}');
    b.append(said().stripTrailing());
    if (need != Need.FREE) b.append(' ').append(need == Need.NEEDED ? NEEDED : WANTED);
    if (!hint.isEmpty()) b.append(' ').append(HINT).append(' ').append(Signs.atEnd(hint));
    return b.toString();
  }

  /** The label as a line has it; what stands in brackets at its end is then no unit. */
  private String labelWritten() {
    String s = Signs.written(label);
    return s.endsWith(")") ? s.replace("(", "\\(") : s;
  }

  private String said() {
    String shortly = shortly();
    if (!shortly.isEmpty() && says(shortly)) return shortly;
    StringBuilder b =
        new StringBuilder(type == QuestionType.READ ? "" : ": " + LineKind.of(type).word());
    if (!codes.isEmpty())
      b.append(' ').append(codesWritten(type == QuestionType.GRADE ? " < " : " | "));
    if (type == QuestionType.DECIMAL && decimals >= 0) b.append(" .").append("0".repeat(decimals));
    String ends = Range.write(from, to, step, -1);
    if (isNumber(type) && !ends.isEmpty()) b.append(' ').append(ends);
    if (least > 0 || most > 0) b.append(' ').append(type.isMedia() ? "x" : "").append(counts());
    return b.toString();
  }

  private String counts() {
    return (least > 0 ? String.valueOf(least) : "") + ".." + (most > 0 ? String.valueOf(most) : "");
  }

  /** The short way, which may not say the same; "" for none. */
  private String shortly() {
    switch (type) {
      case TEXT:
        return least == 0 && most == 0 ? " " : "";
      case WHOLE:
        return " " + Range.write(from, to, step, 0);
      case DECIMAL:
        return decimals > 0 ? " " + Range.write(from, to, step, decimals) : " ";
      case CHOICE:
        return ": " + codesWritten(" | ");
      case CHOICES:
        return ": + " + codesWritten(" | ");
      case GRADE:
        return ": " + codesWritten(" < ");
      case PHOTO:
        return least > 0 || most > 0 ? " x" + counts() : " ";
      default:
        return "";
    }
  }

  private boolean says(String shortly) {
    QuestionLine plain =
        new QuestionLine(
            label, name, type, unit, decimals, from, to, step, least, most, Need.FREE, "", codes);
    String line =
        labelWritten()
            + (unit.isEmpty() ? "" : " (" + Signs.written(unit) + ")")
            + (name.isEmpty() ? "" : " {" + name + "}")
            + (shortly.isBlank() ? "" : shortly);
    try {
      return read(line).equals(plain);
    } catch (IllegalArgumentException e) {
      return false;
    }
  }

  private String codesWritten(String between) {
    List<String> out = new ArrayList<>();
    for (Code c : codes)
      out.add(
          c.label().equals(c.code())
              ? Signs.written(c.code())
              : Signs.written(c.code()) + " = " + Signs.written(c.label()));
    return String.join(between, out);
  }
}
