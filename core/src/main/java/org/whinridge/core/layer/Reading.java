package org.whinridge.core.layer;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Blanks;
import org.whinridge.core.text.Fold;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * How the texts of one column are to be read: which mark parts the decimals, which number of a date
 * is the day. One column has one reading; it is found from all its values by {@link
 * org.whinridge.core.profile.TypeGuess}.
 */
public enum Reading {
  /** Decimal point; dates of ISO 8601, or with the year first, or with the month's English name. */
  PLAIN,
  /** Decimal comma: 57,9. */
  DECIMAL_COMMA,
  /** 4.5.2026, 04/05/2026: the day stands first. */
  DAY_FIRST,
  /** 05/04/2026: the month stands first. */
  MONTH_FIRST,
  /** 20260504. */
  COMPACT_DATE;
  private static final List<String> MONTHS =
      List.of("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec");
  private static final Pattern PARTS = Pattern.compile("[./-]");
  private static final Pattern NAMED =
      Pattern.compile(
          "(?:(\\d{1,2})(?:st|nd|rd|th)?[ .-]+([a-z]{3,9})[ .,-]+|([a-z]{3,9})[ .]+(\\d{1,2})(?:st|nd|rd|th)?[ ,]+)(\\d{4})");

  /** Years of two digits up to this one are of this century. Common practice, no source. */
  private static final int THIS_CENTURY = 49;

  private static final double EXACT = 9007199254740992.0; // 2^53

  /** How the evidence names it; nothing for the plain one. */
  public Said said() {
    return this == PLAIN ? Said.NONE : Said.of("reading." + name());
  }

  /** The reading with that name; the plain one for any other text. */
  public static Reading of(String name) {
    for (Reading r : values()) if (r.name().equals(name)) return r;
    return PLAIN;
  }

  /**
   * A raw value as a field of type {@code type} takes it. Text that can't be read so stays text,
   * that none is lost.
   */
  public Value read(Value raw, FieldType type) {
    if (!(raw instanceof Value.Text t)) return fromOther(raw, type);
    String s = Blanks.strip(t.value());
    if (s.isEmpty()) return type == FieldType.TEXT ? raw : Value.EMPTY;
    switch (type) {
      case WHOLE:
      case DECIMAL:
        OptionalDouble d = number(s);
        return d.isPresent() ? Value.of(d.getAsDouble()) : raw;
      case YES_NO:
        return truth(s, raw);
      case DATE:
        LocalDate day = date(s);
        return day == null ? raw : new Value.Day(day);
      case DATE_TIME:
        Instant at = moment(s);
        return at == null ? raw : new Value.Moment(at);
      case TIME:
        LocalTime time = time(s);
        return time == null ? raw : Value.text(time.toString());
      case CODES:
        return Value.many(
            java.util.Arrays.stream(s.split("[;,|]"))
                .map(String::strip)
                .filter(x -> !x.isEmpty())
                .map(Value::text)
                .toList());
      case CODE:
        return Value.text(Blanks.strip(t.value()));
      default:
        return raw;
    }
  }

  /**
   * The moment that a single cell tells, in whichever of the usual styles it is written; a day
   * stands for its noon in UTC.
   *
   * @param order {@link #DAY_FIRST} or {@link #MONTH_FIRST}, where both could be
   * @return empty when it is none
   */
  public static Optional<Instant> anyMoment(Value v, Reading order) {
    if (v instanceof Value.Moment m) return Optional.of(m.value());
    if (v instanceof Value.Day d) return Optional.of(noon(d.value()));
    if (!(v instanceof Value.Text) && !(v instanceof Value.Num)) return Optional.empty();
    String s = Blanks.strip(v.plain());
    Reading other = order == MONTH_FIRST ? DAY_FIRST : MONTH_FIRST;
    for (Reading r : List.of(PLAIN, order, other, COMPACT_DATE)) {
      LocalDate day = r.date(s);
      if (day != null) return Optional.of(noon(day));
      Instant at = r.moment(s);
      if (at != null) return Optional.of(at);
    }
    return Optional.empty();
  }

  private static Instant noon(LocalDate d) {
    return d.atTime(12, 0).toInstant(ZoneOffset.UTC);
  }

  private static Value fromOther(Value raw, FieldType type) {
    if (raw.isEmpty() || raw.type() == type.valueType()) return raw;
    if (type == FieldType.DATE && raw instanceof Value.Moment m)
      return new Value.Day(m.value().atOffset(ZoneOffset.UTC).toLocalDate());
    if (type == FieldType.DATE_TIME && raw instanceof Value.Day d)
      return new Value.Moment(d.value().atStartOfDay().toInstant(ZoneOffset.UTC));
    if (type == FieldType.YES_NO
        && raw instanceof Value.Num n
        && (n.value() == 0 || n.value() == 1)) return Value.of(n.value() == 1);
    if (type == FieldType.CODES) return Value.many(List.of(Value.text(raw.plain())));
    return type.valueType() == ValueType.TEXT ? Value.text(raw.plain()) : raw;
  }

  private static Value truth(String s, Value raw) {
    switch (Fold.lower(s)) {
      case "true", "yes", "y", "t", "1":
        return Value.YES;
      case "false", "no", "n", "f", "0":
        return Value.NO;
      default:
        return raw;
    }
  }

  /** The number that the text is in this reading. */
  public OptionalDouble number(String s) {
    if (this != DECIMAL_COMMA) return exact(s);
    return s.indexOf('.') >= 0 || s.indexOf(',') != s.lastIndexOf(',')
        ? OptionalDouble.empty()
        : exact(s.replace(',', '.'));
  }

  /** Long whole numbers are ids: as numbers they would lose digits, so they are none. */
  private static OptionalDouble exact(String s) {
    OptionalDouble d = Numbers.read(s);
    boolean id = d.isPresent() && Math.abs(d.getAsDouble()) >= EXACT && digits(s, s.length());
    return id ? OptionalDouble.empty() : d;
  }

  /** The date that the text is in this reading; null for none. */
  public LocalDate date(String s) {
    try {
      if (this == COMPACT_DATE)
        return s.length() == 8 && digits(s)
            ? LocalDate.of(part(s, 0, 4), part(s, 4, 6), part(s, 6, 8))
            : null;
      if (this != DAY_FIRST && this != MONTH_FIRST) return yearFirst(s);
      // 31.12.2026 is the longest; most texts that are none are told apart without parting them
      if (s.length() < 6 || s.length() > 10 || !isDigit(s.charAt(0))) return null;
      String[] p = PARTS.split(s, -1);
      if (p.length != 3 || !digits(p[0]) || !digits(p[1]) || !digits(p[2])) return null;
      if (p[0].length() > 2 || p[1].length() > 2 || p[2].length() != 4 && p[2].length() != 2)
        return null;
      int day = Integer.parseInt(this == DAY_FIRST ? p[0] : p[1]);
      int month = Integer.parseInt(this == DAY_FIRST ? p[1] : p[0]);
      return LocalDate.of(year(p[2]), month, day);
    } catch (DateTimeException | NumberFormatException e) {
      return null; // not a day of the calendar
    }
  }

  private static int year(String s) {
    int y = Integer.parseInt(s);
    return s.length() == 4 ? y : y <= THIS_CENTURY ? 2000 + y : 1900 + y;
  }

  /** 2024-01-02, 2024/1/2, 2024.01.02, 2 January 2024, Jan 2, 2024. */
  private static LocalDate yearFirst(String s) {
    if (s.length() < 8 || s.length() > 20) return null;
    if (!isDigit(s.charAt(3)))
      return digits(s.substring(s.length() - 4)) ? named(Fold.lower(s)) : null;
    if (s.length() > 10 || isDigit(s.charAt(4))) return null;
    String[] p = PARTS.split(s, -1);
    return p.length == 3 && p[0].length() == 4 && digits(p[0]) && digits(p[1], 2) && digits(p[2], 2)
        ? LocalDate.of(part(p[0], 0, 4), Integer.parseInt(p[1]), Integer.parseInt(p[2]))
        : null;
  }

  private static boolean isDigit(char c) {
    return c >= '0' && c <= '9';
  }

  private static LocalDate named(String s) {
    Matcher m = NAMED.matcher(s);
    if (!m.matches()) return null;
    String name = m.group(2) == null ? m.group(3) : m.group(2);
    int month = MONTHS.indexOf(name.substring(0, 3)) + 1;
    String day = m.group(1) == null ? m.group(4) : m.group(1);
    return month == 0
        ? null
        : LocalDate.of(Integer.parseInt(m.group(5)), month, Integer.parseInt(day));
  }

  /**
   * The moment that the text is: with an offset as it says, without one as UTC; date and time
   * parted by T or a space, the time with AM or PM too. Null for none.
   */
  public Instant moment(String s) {
    int gap = gap(s);
    if (gap < 6 || s.length() > 40) return null;
    try {
      LocalDate day = date(s.substring(0, gap));
      if (day == null) return null;
      String rest = s.substring(gap + 1).strip().replace(" ", "");
      int zone = Math.max(rest.indexOf('Z'), Math.max(rest.indexOf('+'), rest.indexOf('-')));
      LocalTime time = time(zone < 0 ? rest : rest.substring(0, zone));
      if (time == null) return null;
      LocalDateTime at = day.atTime(time);
      if (zone < 0) return at.toInstant(ZoneOffset.UTC);
      String offset = rest.substring(zone);
      if (offset.matches("[+-][0-9]{2}")) offset += ":00";
      return OffsetDateTime.of(at, ZoneOffset.of(offset)).toInstant();
    } catch (DateTimeException e) {
      return null; // not a moment of the calendar
    }
  }

  /** Where the date ends: at the T or the space before the hour. */
  private static int gap(String s) {
    int colon = s.indexOf(':');
    if (colon < 0) return -1;
    int space = s.lastIndexOf(' ', colon);
    return Math.max(space, s.lastIndexOf('T', colon));
  }

  private static LocalTime time(String s) {
    if (s.length() < 4 || s.length() > 18 || s.indexOf(':') < 1) return null;
    try {
      String small = Fold.lower(s);
      boolean half = small.endsWith("am") || small.endsWith("pm");
      String clock = half ? s.substring(0, s.length() - 2).strip() : s;
      LocalTime t = LocalTime.parse(clock.indexOf(':') == 1 ? "0" + clock : clock);
      if (!half) return t;
      if (t.getHour() < 1 || t.getHour() > 12) return null;
      return t.withHour(t.getHour() % 12 + (small.endsWith("pm") ? 12 : 0));
    } catch (DateTimeException e) {
      return null; // not a time of day
    }
  }

  /** Whether the text is a time of day. */
  public static boolean isTime(String s) {
    return time(s) != null;
  }

  private static boolean digits(String s) {
    return digits(s, 8);
  }

  private static boolean digits(String s, int most) {
    if (s.isEmpty() || s.length() > most) return false;
    for (int i = 0; i < s.length(); i++) if (s.charAt(i) < '0' || s.charAt(i) > '9') return false;
    return true;
  }

  private static int part(String s, int from, int to) {
    return Integer.parseInt(s.substring(from, to));
  }
}
