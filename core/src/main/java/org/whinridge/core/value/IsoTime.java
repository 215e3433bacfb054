package org.whinridge.core.value;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Optional;

/**
 * Dates and moments as text, read alike on every engine: ISO 8601 as RFC 3339 profiles it, years
 * 0001 to 9999.
 */
public final class IsoTime {
  private static final LocalDate FIRST = LocalDate.of(1, 1, 1);
  private static final LocalDate LAST = LocalDate.of(9999, 12, 31);

  private IsoTime() {}

  /** Whether a date can be kept: years 0001 to 9999. */
  public static boolean isKept(LocalDate d) {
    return !d.isBefore(FIRST) && !d.isAfter(LAST);
  }

  /** The date that many days after 1970-01-01; empty when it can't be kept. */
  public static Optional<LocalDate> ofEpochDay(long day) {
    return day < FIRST.toEpochDay() || day > LAST.toEpochDay()
        ? Optional.empty()
        : Optional.of(LocalDate.ofEpochDay(day));
  }

  /** Reads a date, 2026-05-04; empty for anything else, and for a day that no calendar has. */
  public static Optional<LocalDate> date(String s) {
    if (s.length() != 10 || s.charAt(4) != '-' || s.charAt(7) != '-') return Optional.empty();
    return day(number(s, 0, 4), number(s, 5, 7), number(s, 8, 10));
  }

  private static Optional<LocalDate> day(int year, int month, int day) {
    if (year < 1 || month < 1 || month > 12 || day < 1 || day > 31) return Optional.empty();
    try {
      return Optional.of(LocalDate.of(year, month, day));
    } catch (DateTimeException e) {
      return Optional.empty(); // such as 30 February
    }
  }

  /**
   * Reads a moment: 2026-05-04T09:30:00Z, with or without seconds, up to nine digits of them, in
   * UTC or with an offset (+01:00, +0100, +01). 24:00:00 is the end of its day. Empty for anything
   * else: a moment without Z or offset is not known.
   */
  public static Optional<Instant> moment(String s) {
    int t = s.length() < 17 ? -1 : 10;
    if (t < 0 || (s.charAt(t) != 'T' && s.charAt(t) != 't')) return Optional.empty();
    LocalDate d = date(s.substring(0, t)).orElse(null);
    int zone = zoneAt(s);
    if (d == null || zone < 0) return Optional.empty();
    int offset = offset(s.substring(zone));
    int hour = number(s, 11, 13);
    int minute = number(s, 14, 16);
    if (s.charAt(13) != ':' || hour < 0 || minute < 0 || offset == Integer.MIN_VALUE)
      return Optional.empty();
    int second = 0;
    int nanos = 0;
    if (zone > 16) {
      second = zone < 19 || s.charAt(16) != ':' ? -1 : number(s, 17, 19);
      nanos = zone == 19 ? 0 : fraction(s, 19, zone);
    }
    boolean end = hour == 24 && minute == 0 && second == 0 && nanos == 0;
    if (second < 0 || nanos < 0 || second > 59 || minute > 59 || (hour > 23 && !end))
      return Optional.empty();
    LocalDateTime at =
        LocalDateTime.of(
            d.getYear(), d.getMonthValue(), d.getDayOfMonth(), end ? 0 : hour, minute, second);
    Instant i =
        at.toInstant(ZoneOffset.UTC)
            .plusNanos(nanos)
            .plusSeconds((end ? 86_400L : 0L) - offset * 60L);
    return isKept(i.atOffset(ZoneOffset.UTC).toLocalDate()) ? Optional.of(i) : Optional.empty();
  }

  private static int zoneAt(String s) {
    for (int i = 16; i < s.length(); i++) {
      char c = s.charAt(i);
      if (c == 'Z' || c == 'z' || c == '+' || c == '-') return i;
    }
    return -1;
  }

  /** Minutes east of UTC; the least int when it is none. */
  private static int offset(String s) {
    if (s.equals("Z") || s.equals("z")) return 0;
    int hours = s.length() < 3 ? -1 : number(s, 1, 3);
    int minutes =
        switch (s.length()) {
          case 3 -> 0;
          case 5 -> number(s, 3, 5);
          case 6 -> s.charAt(3) == ':' ? number(s, 4, 6) : -1;
          default -> -1;
        };
    if (hours < 0 || hours > 18 || minutes < 0 || minutes > 59) return Integer.MIN_VALUE;
    int total = hours * 60 + minutes;
    return s.charAt(0) == '-' ? -total : total;
  }

  /** The digits as a number; -1 when a character is none. */
  private static int number(String s, int from, int to) {
    if (to > s.length()) return -1;
    int n = 0;
    for (int i = from; i < to; i++) {
      int digit = s.charAt(i) - '0';
      if (digit < 0 || digit > 9) return -1;
      n = n * 10 + digit;
    }
    return n;
  }

  /** Nanoseconds of a fraction such as .25; -1 when it is none. */
  private static int fraction(String s, int from, int to) {
    int digits = to - from - 1;
    if (s.charAt(from) != '.' || digits < 1 || digits > 9) return -1;
    int n = number(s, from + 1, to);
    for (int i = digits; n >= 0 && i < 9; i++) n *= 10;
    return n;
  }
}
