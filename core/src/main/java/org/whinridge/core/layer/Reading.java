package org.whinridge.core.layer;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.OptionalDouble;
import org.whinridge.core.value.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * How the texts of one column are to be read: which mark parts the decimals, which number of a date
 * is the day. One column has one reading; it is found from all its values by {@link
 * org.whinridge.core.profile.TypeGuess}.
 */
public enum Reading {
  /** Decimal point, ISO 8601 dates. */
  PLAIN(""),
  /** Decimal comma: 57,9. */
  DECIMAL_COMMA("decimal comma"),
  /** 4.5.2026, 04/05/2026: the day stands first. */
  DAY_FIRST("day first"),
  /** 05/04/2026: the month stands first. */
  MONTH_FIRST("month first"),
  /** 20260504. */
  COMPACT_DATE("written as 20260504");
  private static final double EXACT = 9007199254740992.0; // 2^53
  private final String said;

  Reading(String said) {
    this.said = said;
  }

  /** How the evidence names it; "" for the plain one. */
  public String said() {
    return said;
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
    String s = t.value().strip();
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
      default:
        return raw;
    }
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
    if (type == FieldType.CODES) return Value.many(java.util.List.of(Value.text(raw.plain())));
    return type.valueType() == ValueType.TEXT ? Value.text(raw.plain()) : raw;
  }

  private static Value truth(String s, Value raw) {
    switch (org.whinridge.core.value.Fold.lower(s)) {
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
      if (this != DAY_FIRST && this != MONTH_FIRST)
        return s.length() == 10 ? LocalDate.parse(s) : null;
      String[] p = s.split("[./-]", -1);
      if (p.length != 3 || !digits(p[0]) || !digits(p[1]) || !digits(p[2]) || p[2].length() != 4)
        return null;
      int day = Integer.parseInt(this == DAY_FIRST ? p[0] : p[1]);
      int month = Integer.parseInt(this == DAY_FIRST ? p[1] : p[0]);
      return LocalDate.of(Integer.parseInt(p[2]), month, day);
    } catch (DateTimeException | NumberFormatException e) {
      return null; // not a day of the calendar
    }
  }

  /**
   * The moment that the text is: with an offset as it says, without one as UTC; date and time
   * parted by T or a space. Null for none.
   */
  public Instant moment(String s) {
    int gap = Math.max(s.indexOf('T'), s.indexOf(' '));
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

  private static LocalTime time(String s) {
    if (s.length() < 4 || s.length() > 18 || s.indexOf(':') < 1) return null;
    try {
      return LocalTime.parse(s.indexOf(':') == 1 ? "0" + s : s);
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
