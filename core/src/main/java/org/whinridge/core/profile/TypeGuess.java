package org.whinridge.core.profile;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.value.Numbers;
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
  private int date;
  private int moment;
  private int numberKeptAsText;
  private int longest;
  private boolean tooManyDistinct;
  private double least = Double.POSITIVE_INFINITY;
  private double greatest = Double.NEGATIVE_INFINITY;
  private final Map<String, Integer> distinct = new TreeMap<>();

  /** What was found: the type, and the evidence in words ("240 of 240 whole numbers, 1 to 5"). */
  public record Guess(
      FieldType type, String evidence, List<Code> codes, int filled, int empty, int longest) {}

  /** Takes one raw value: text, a number, yes/no or empty. */
  public void see(Value v) {
    if (v.isEmpty()) {
      empty++;
      return;
    }
    filled++;
    String s = v.plain();
    longest = Math.max(longest, s.length());
    if (!tooManyDistinct) {
      distinct.merge(s, 1, Integer::sum);
      tooManyDistinct = distinct.size() > MOST_DISTINCT;
    }
    if (v instanceof Value.Bool) truth++;
    else if (v instanceof Value.Num n) number(n.value());
    else if (v instanceof Value.Text t) text(t.value());
  }

  private void text(String s) {
    var d = Numbers.read(s);
    boolean leadingZero =
        s.length() > 1
            && s.charAt(0) == '0'
            && Character.isDigit(s.charAt(1)); // 007 is a name, not a number
    if (d.isPresent() && !leadingZero) {
      number(d.getAsDouble());
      numberKeptAsText++;
    } else if (s.length() == 10 && isDate(s)) date++;
    else if (s.length() > 10 && s.charAt(s.length() - 1) == 'Z' && isMoment(s)) moment++;
  }

  private void number(double d) {
    if (d == Math.floor(d)) whole++;
    else decimal++;
    least = Math.min(least, d);
    greatest = Math.max(greatest, d);
  }

  private static boolean isDate(String s) {
    try {
      LocalDate.parse(s);
      return true;
    } catch (DateTimeException e) {
      return false;
    }
  }

  private static boolean isMoment(String s) {
    try {
      Instant.parse(s);
      return true;
    } catch (DateTimeException e) {
      return false;
    }
  }

  /**
   * The guess over all values seen. A type needs every filled value, save dates and moments, which
   * need 95 %: a single bad date in an old column must not turn the others into text. A text column
   * is a code list when it has 2 to 12 values and each stands for five features on average.
   */
  public Guess guess() {
    if (filled == 0) return said(FieldType.TEXT, "no value in " + empty + " features");
    if (truth == filled) return said(FieldType.YES_NO, all(truth, "yes / no"));
    if (whole == filled) return said(FieldType.WHOLE, all(whole, "whole numbers") + range());
    if (whole + decimal == filled)
      return said(FieldType.DECIMAL, all(whole + decimal, "numbers") + range());
    if (date >= 0.95 * filled) return said(FieldType.DATE, all(date, "dates"));
    if (moment >= 0.95 * filled) return said(FieldType.DATE_TIME, all(moment, "moments"));
    if (!tooManyDistinct
        && distinct.size() >= 2
        && distinct.size() <= 12
        && filled >= 5 * distinct.size()
        && longest <= 40) {
      List<Code> codes = new ArrayList<>();
      for (String s : distinct.keySet()) codes.add(Code.of(s, s));
      return new Guess(
          FieldType.CODE,
          distinct.size() + " different values in " + filled + " features",
          codes,
          filled,
          empty,
          longest);
    }
    String numbers = whole + decimal > 0 ? "; " + (whole + decimal) + " of them numbers" : "";
    return said(FieldType.TEXT, "text, up to " + longest + " characters" + numbers);
  }

  private String all(int n, String what) {
    return n
        + " of "
        + filled
        + " "
        + what
        + (numberKeptAsText > 0 && n > 0 && whole + decimal == filled ? " kept as text" : "");
  }

  private String range() {
    return ", " + Numbers.plain(least) + " to " + Numbers.plain(greatest);
  }

  private Guess said(FieldType t, String evidence) {
    return new Guess(t, evidence, List.of(), filled, empty, longest);
  }
}
