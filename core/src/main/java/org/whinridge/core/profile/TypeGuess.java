package org.whinridge.core.profile;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.TreeMap;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Blanks;
import org.whinridge.core.text.Fold;
import org.whinridge.core.value.Value;

/**
 * Guesses the type of one column from a stream of raw values. Memory is bounded: at most 60
 * distinct values are kept.
 */
public final class TypeGuess {
  private static final int MOST_DISTINCT = 60;
  private int filled;
  private int empty;
  private int whole;
  private int decimal;
  private int truth;
  private int yes;
  private int no;
  private int letters;
  private int lists;
  private int times;
  private int numberKeptAsText;
  private int commaNumbers;
  private int longest;
  private int blankEnds;
  private int dayAbove12;
  private int secondAbove12;
  private int eitherOrder;
  private boolean tooManyDistinct;
  private double least = Double.POSITIVE_INFINITY;
  private double greatest = Double.NEGATIVE_INFINITY;
  private double commaLeast = Double.POSITIVE_INFINITY;
  private double commaGreatest = Double.NEGATIVE_INFINITY;
  private final Map<Reading, Integer> dates = new EnumMap<>(Reading.class);
  private final Map<Reading, Integer> moments = new EnumMap<>(Reading.class);
  private final Map<String, Integer> distinct = new TreeMap<>();

  /**
   * What was found: the type, how its texts are read, and the evidence in words ("240 of 240 whole
   * numbers, 1 to 5").
   *
   * @param dayOrder what its dates say of the order of day and month
   * @param mayBeCode whether few values that come again and again speak for a code list
   */
  public record Guess(
      FieldType type,
      Reading reading,
      Said evidence,
      List<Code> codes,
      int filled,
      int empty,
      int longest,
      DayOrder dayOrder,
      boolean mayBeCode) {}

  /** Takes one raw value: text, a number, yes/no, a date, a moment, a list or empty. */
  public void see(Value v) {
    see(v, v.isEmpty() ? "" : v.plain());
  }

  /** As {@link #see(Value)}, for whoever has the value as text already. */
  void see(Value v, String s) {
    if (v.isEmpty()) {
      empty++;
      return;
    }
    filled++;
    longest = Math.max(longest, s.length());
    String stripped = Blanks.strip(s);
    if (stripped.length() < s.length() && !stripped.isEmpty()) blankEnds++;
    if (!tooManyDistinct) {
      distinct.merge(stripped.isEmpty() ? s : stripped, 1, Integer::sum);
      tooManyDistinct = distinct.size() > MOST_DISTINCT;
    }
    if (v instanceof Value.Bool) truth++;
    else if (v instanceof Value.Num n) number(n.value());
    else if (v instanceof Value.Day) dates.merge(Reading.PLAIN, 1, Integer::sum);
    else if (v instanceof Value.Moment) moments.merge(Reading.PLAIN, 1, Integer::sum);
    else if (v instanceof Value.Many) lists++;
    else if (v instanceof Value.Text) text(stripped);
  }

  private void text(String s) {
    if (s.isEmpty() || s.length() > 40) return;
    yesOrNo(s);
    char c = s.charAt(0);
    if (c != '-' && c != '+' && c != '.' && (c < '0' || c > '9')) {
      if (Character.isLetter(c) && Character.isDigit(s.charAt(s.length() - 1))) date(s);
      return;
    }
    if (isNoNumber(s)) return;
    OptionalDouble d = Reading.PLAIN.number(s);
    boolean leadingZero =
        s.length() > 1 && c == '0' && Character.isDigit(s.charAt(1)); // 007 is a name, not a number
    if (d.isPresent() && !leadingZero) {
      number(d.getAsDouble());
      comma(d.getAsDouble());
      numberKeptAsText++;
      if (s.length() == 8 && plausible(Reading.COMPACT_DATE.date(s)))
        dates.merge(Reading.COMPACT_DATE, 1, Integer::sum);
      return;
    }
    if (leadingZero && (s.length() == 2 || s.charAt(2) != ':') && !mayBeDate(s)) return;
    OptionalDouble byComma = Reading.DECIMAL_COMMA.number(s);
    if (byComma.isPresent()) comma(byComma.getAsDouble());
    else if (Reading.isTime(s)) times++;
    else date(s);
  }

  private void yesOrNo(String s) {
    switch (Fold.lower(s)) {
      case "yes", "true" -> yes++;
      case "no", "false" -> no++;
      case "y" -> {
        yes++;
        letters++;
      }
      case "n" -> {
        no++;
        letters++;
      }
      default -> {}
    }
  }

  /** What reads like a number and is a name: a lot 2E2, a telephone +4930123456. */
  private static boolean isNoNumber(String s) {
    boolean plus = s.charAt(0) == '+';
    int exponent = -1;
    for (int i = plus ? 1 : 0; i < s.length(); i++) {
      char c = s.charAt(i);
      if (!plus && exponent < 0 && i > 0 && (c == 'e' || c == 'E')) exponent = i;
      else if (c < '0' || c > '9') return false;
    }
    return plus ? s.length() > 7 : exponent > 0 && exponent < s.length() - 1;
  }

  private static boolean mayBeDate(String s) {
    return s.indexOf('/') > 0 || s.indexOf('.') > 0 || s.indexOf('-') > 0 || s.indexOf(' ') > 0;
  }

  private static boolean plausible(LocalDate d) {
    return d != null && d.getYear() >= 1800 && d.getYear() <= 2200;
  }

  private void date(String s) {
    if (either(Reading.PLAIN, s) != null) return;
    Object day = either(Reading.DAY_FIRST, s);
    Object month = either(Reading.MONTH_FIRST, s);
    if (day != null && month == null) dayAbove12++;
    if (month != null && day == null) secondAbove12++;
    if (day != null && month != null && !day.equals(month)) eitherOrder++;
  }

  /** The date or moment that a text is in some reading, counted; null for none. */
  private Object either(Reading r, String s) {
    LocalDate d = r.date(s);
    if (d != null) dates.merge(r, 1, Integer::sum);
    if (d != null) return d;
    Instant at = r.moment(s);
    if (at != null) moments.merge(r, 1, Integer::sum);
    return at;
  }

  private DayOrder order() {
    if (eitherOrder > 0 && dayAbove12 > 0 == secondAbove12 > 0) return DayOrder.UNSURE;
    return dayAbove12 > 0
        ? DayOrder.DAY_FIRST
        : secondAbove12 > 0 ? DayOrder.MONTH_FIRST : DayOrder.NONE;
  }

  private void comma(double d) {
    commaNumbers++;
    commaLeast = Math.min(commaLeast, d);
    commaGreatest = Math.max(commaGreatest, d);
  }

  private void number(double d) {
    if (d == Math.floor(d)) whole++;
    else decimal++;
    least = Math.min(least, d);
    greatest = Math.max(greatest, d);
  }

  /**
   * The guess over all values seen. A type needs every filled value, save dates and moments, which
   * need 95 %: a single bad date in an old column must not turn the others into text. A text column
   * is a code list when it has 2 to 12 values and each stands for five features on average.
   */
  public Guess guess() {
    return guess("");
  }

  /**
   * As {@link #guess()}; a column of nothing but 0 and 1 is yes / no when its name asks a question
   * ("is_open", "hasLid", "Locked?"). Common practice, no source.
   *
   * @param name the column's own
   */
  public Guess guess(String name) {
    if (filled == 0) return said(FieldType.TEXT, Reading.PLAIN, Said.of("guess.empty", "n", empty));
    if (truth == filled) return said(FieldType.YES_NO, Reading.PLAIN, all(truth, "guess.yesNo"));
    // of Y and N both must be there: an N alone may be the north
    if (yes + no == filled && (letters == 0 || yes > 0 && no > 0))
      return said(FieldType.YES_NO, Reading.PLAIN, all(filled, "guess.yesNoWords"));
    if (whole == filled && least >= 0 && greatest <= 1 && asks(name))
      return said(FieldType.YES_NO, Reading.PLAIN, all(filled, "guess.zeroOne"));
    if (lists == filled) return said(FieldType.CODES, Reading.PLAIN, all(lists, "guess.lists"));
    if (count(dates, Reading.COMPACT_DATE) == filled && numberKeptAsText == filled)
      return said(FieldType.DATE, Reading.COMPACT_DATE, all(filled, "guess.dates"));
    if (whole == filled)
      return said(
          FieldType.WHOLE, Reading.PLAIN, range(all(whole, "guess.whole"), least, greatest));
    if (whole + decimal == filled)
      return said(
          FieldType.DECIMAL,
          Reading.PLAIN,
          range(all(whole + decimal, "guess.numbers"), least, greatest));
    if (commaNumbers == filled && decimal == 0)
      return said(
          FieldType.DECIMAL,
          Reading.DECIMAL_COMMA,
          range(all(commaNumbers, "guess.numbers"), commaLeast, commaGreatest));
    for (Reading r : datesInOrder())
      if (enough(count(dates, r)))
        return said(FieldType.DATE, r, all(count(dates, r), "guess.dates"));
    for (Reading r : datesInOrder())
      if (enough(count(moments, r)))
        return said(FieldType.DATE_TIME, r, all(count(moments, r), "guess.moments"));
    if (times == filled) return said(FieldType.TIME, Reading.PLAIN, all(times, "guess.times"));
    if (codeLike() && longest <= 40 && !written()) return codes();
    List<Said> text = new ArrayList<>();
    text.add(Said.of("guess.text", "n", longest));
    if (whole + decimal > 0) text.add(Said.of("guess.ofThemNumbers", "n", whole + decimal));
    if (blankEnds > 0) text.add(Said.of("guess.blanksKept", "n", blankEnds));
    return said(FieldType.TEXT, Reading.PLAIN, also(text));
  }

  private static boolean asks(String name) {
    return name.strip().endsWith("?")
        || name.matches("([Ii]s|[Hh]as|IS|HAS)[_ ].+|([Ii]s|[Hh]as)[A-Z].*");
  }

  /** Day first unless only month first explains a value. */
  private List<Reading> datesInOrder() {
    return secondAbove12 > dayAbove12
        ? List.of(Reading.PLAIN, Reading.MONTH_FIRST, Reading.DAY_FIRST)
        : List.of(Reading.PLAIN, Reading.DAY_FIRST, Reading.MONTH_FIRST);
  }

  private static int count(Map<Reading, Integer> of, Reading r) {
    return of.getOrDefault(r, 0);
  }

  private boolean enough(int n) {
    return n > 0 && n >= 0.95 * filled;
  }

  private boolean codeLike() {
    return !tooManyDistinct
        && distinct.size() >= 2
        && distinct.size() <= 12
        && filled >= 5 * distinct.size();
  }

  /**
   * Whether the values look written rather than chosen: more than a third have four words or more,
   * or end as a sentence does. Common practice, no source.
   */
  private boolean written() {
    int n = 0;
    for (String s : distinct.keySet())
      if (s.split("\\s+").length >= 4 || s.matches(".*\\s.*[.!?]")) n++;
    return 3 * n > distinct.size();
  }

  private Guess codes() {
    List<Code> codes = new ArrayList<>();
    for (String s : distinct.keySet()) codes.add(Code.of(s, s));
    List<Said> evidence = new ArrayList<>();
    evidence.add(Said.of("guess.codes", "n", distinct.size(), "features", filled));
    if (blankEnds > 0) evidence.add(Said.of("guess.blanksLeftOut", "n", blankEnds));
    return new Guess(
        FieldType.CODE,
        Reading.PLAIN,
        also(evidence),
        codes,
        filled,
        empty,
        longest,
        order(),
        true);
  }

  private Said all(int n, String what) {
    Said of = Said.of("guess.of", "n", n, "all", filled, "what", Said.of(what));
    boolean asText = numberKeptAsText > 0 && n > 0 && whole + decimal == filled;
    return asText ? Said.of("guess.keptAsText", "of", of) : of;
  }

  private static Said range(Said of, double least, double greatest) {
    return Said.of(
        "guess.range", "of", of, "least", Said.number(least), "greatest", Said.number(greatest));
  }

  private static Said also(List<Said> parts) {
    return Said.row(parts, "list.also", "list.also");
  }

  private Guess said(FieldType t, Reading r, Said found) {
    List<Said> evidence = new ArrayList<>(List.of(found));
    if (!r.said().isEmpty()) evidence.add(r.said());
    boolean code = t == FieldType.WHOLE && codeLike() && greatest - least <= 60;
    if (code) evidence.add(Said.of("guess.perhapsCode"));
    return new Guess(
        t, r, Said.inARow(evidence, "list.then"), List.of(), filled, empty, longest, order(), code);
  }

  /** The distinct values with their counts while there are at most 60; empty beyond. */
  public Map<String, Integer> distinct() {
    return tooManyDistinct ? Map.of() : new TreeMap<>(distinct);
  }
}
