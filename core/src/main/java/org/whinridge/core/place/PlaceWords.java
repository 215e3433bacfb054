package org.whinridge.core.place;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;

/**
 * A typed position word by word: numbers with their signs of degrees, minutes and seconds, letters
 * and words for the directions before or after them, in one way of writing numbers.
 */
final class PlaceWords {
  private enum Sort {
    NUMBER,
    DEGREE,
    MINUTE,
    SECOND,
    COLON,
    DIRECTION,
    AXIS,
    METRE,
    GAP
  }

  /** Which of the two a number is. */
  private enum Axis {
    LATITUDE,
    LONGITUDE,
    EASTING,
    NORTHING
  }

  private record Token(Sort sort, String text, double number, boolean signed) {}

  /** One of the two, or the height. */
  private static final class Part {
    Axis axis;
    char direction;
    double value;
    boolean signed;
    boolean metres;
    boolean angle;
  }

  private static final Map<String, Character> DIRECTIONS =
      Map.of(
          "n", 'N', "s", 'S', "e", 'E', "w", 'W', "north", 'N', "south", 'S', "east", 'E', "west",
          'W');
  private static final Map<String, Axis> AXES =
      Map.of(
          "lat", Axis.LATITUDE,
          "latitude", Axis.LATITUDE,
          "lon", Axis.LONGITUDE,
          "long", Axis.LONGITUDE,
          "lng", Axis.LONGITUDE,
          "longitude", Axis.LONGITUDE,
          "easting", Axis.EASTING,
          "x", Axis.EASTING,
          "northing", Axis.NORTHING,
          "y", Axis.NORTHING);
  private static final Pattern WORD = Pattern.compile("[A-Za-z]+");

  private final List<Token> tokens;
  private final boolean angles;
  private int at;

  private PlaceWords(List<Token> tokens) {
    this.tokens = tokens;
    angles =
        tokens.stream()
            .anyMatch(
                t ->
                    t.sort == Sort.DEGREE
                        || t.sort == Sort.MINUTE
                        || t.sort == Sort.COLON
                        || t.sort == Sort.DIRECTION);
  }

  /** Something that is not understood, in words. */
  private static final class NotUnderstood extends Exception {
    private static final long serialVersionUID = 1;

    private final transient Said said;

    NotUnderstood(String key, Object... args) {
      super(key);
      said = Said.of(key, args);
    }
  }

  static TypedPlace.Read read(String s, Pattern number, Optional<CoordinateSystem> system) {
    try {
      PlaceWords w = new PlaceWords(tokens(s, number));
      List<Part> parts = new ArrayList<>();
      while (w.more()) parts.add(w.part(parts.size()));
      return place(parts, system);
    } catch (NotUnderstood e) {
      return new TypedPlace.Read(Optional.empty(), e.said);
    }
  }

  private static List<Token> tokens(String s, Pattern number) throws NotUnderstood {
    List<Token> out = new ArrayList<>();
    Matcher m = number.matcher(s);
    Matcher w = WORD.matcher(s);
    int i = 0;
    while (i < s.length()) {
      char c = s.charAt(i);
      boolean sign = (c == '-' || c == '+') && i + 1 < s.length() && isDigit(s.charAt(i + 1));
      if (sign || isDigit(c)) {
        int from = sign ? i + 1 : i;
        if (!m.find(from) || m.start() != from) throw unknown(s, i);
        double d = number(m.group());
        out.add(new Token(Sort.NUMBER, s.substring(i, m.end()), c == '-' ? -d : d, sign));
        i = m.end();
        continue;
      }
      if (Character.isLetter(c)) {
        if (!w.find(i) || w.start() != i) throw unknown(s, i);
        out.add(word(w.group(), s, i));
        i = w.end();
        continue;
      }
      Sort sort =
          switch (c) {
            case '°' -> Sort.DEGREE;
            case '\'' -> Sort.MINUTE;
            case '"' -> Sort.SECOND;
            case ':', '=' -> Sort.COLON;
            case ',', ';', '/' -> Sort.GAP;
            case ' ' -> null;
            default -> throw unknown(s, i);
          };
      if (sort != null) out.add(new Token(sort, String.valueOf(c), 0, false));
      i++;
    }
    return out;
  }

  private static boolean isDigit(char c) {
    return c >= '0' && c <= '9';
  }

  /** Several marks that are the same part thousands; one alone parts the decimals. */
  private static double number(String s) throws NotUnderstood {
    String t = s.replace(" ", "").replace("'", "");
    int last = Math.max(t.lastIndexOf('.'), t.lastIndexOf(','));
    if (last >= 0) {
      char mark = t.charAt(last);
      boolean thousands = t.indexOf(mark) != last;
      String whole = t.substring(0, last).replace(".", "").replace(",", "");
      t = whole + (thousands ? "" : ".") + t.substring(last + 1);
    }
    OptionalDouble d = Numbers.read(t);
    if (d.isEmpty()) throw new NotUnderstood("typed.noNumber", "found", s);
    return d.getAsDouble();
  }

  private static Token word(String word, String s, int i) throws NotUnderstood {
    String lower = org.whinridge.core.text.Fold.lower(word);
    if (DIRECTIONS.containsKey(lower))
      return new Token(Sort.DIRECTION, DIRECTIONS.get(lower).toString(), 0, false);
    if (AXES.containsKey(lower)) return new Token(Sort.AXIS, lower, 0, false);
    if (lower.equals("m") || lower.equals("metres") || lower.equals("meters"))
      return new Token(Sort.METRE, lower, 0, false);
    if (lower.equals("deg") || lower.equals("degrees") || lower.equals("d"))
      return new Token(Sort.DEGREE, lower, 0, false);
    if (lower.equals("min") || lower.equals("minutes"))
      return new Token(Sort.MINUTE, lower, 0, false);
    if (lower.equals("sec") || lower.equals("seconds"))
      return new Token(Sort.SECOND, lower, 0, false);
    if (lower.equals("o")) throw new NotUnderstood("typed.eastOrWest", "found", word);
    throw unknown(s, i);
  }

  private static NotUnderstood unknown(String s, int i) {
    String before = s.substring(0, i).strip();
    int end = i + 1;
    while (end < s.length() && Character.isLetter(s.charAt(i)) && Character.isLetter(s.charAt(end)))
      end++;
    return new NotUnderstood(
        before.isEmpty() ? "typed.unknown" : "typed.unknownAfter",
        "found",
        s.substring(i, end),
        "before",
        before);
  }

  private boolean more() {
    while (at < tokens.size() && tokens.get(at).sort == Sort.GAP) at++;
    return at < tokens.size();
  }

  private Sort next() {
    return at < tokens.size() ? tokens.get(at).sort : null;
  }

  private Sort after(int k) {
    return at + k < tokens.size() ? tokens.get(at + k).sort : null;
  }

  private boolean take(Sort sort) {
    if (next() != sort) return false;
    at++;
    return true;
  }

  private Part part(int n) throws NotUnderstood {
    Part p = new Part();
    if (next() == Sort.AXIS) {
      p.axis = AXES.get(tokens.get(at++).text);
      take(Sort.COLON);
    }
    if (next() == Sort.DIRECTION) p.direction = tokens.get(at++).text.charAt(0);
    if (next() != Sort.NUMBER)
      throw new NotUnderstood(
          n == 0
              ? "typed.numberFirst"
              : at < tokens.size() ? "typed.misplaced" : "typed.numberMissing",
          "found",
          at < tokens.size() ? tokens.get(at).text : "");
    Token first = tokens.get(at++);
    p.signed = first.signed;
    p.value = first.number;
    take(Sort.DEGREE);
    double minutes = minor(p, Sort.MINUTE);
    double seconds = minutes < 0 ? -1 : minor(p, Sort.SECOND);
    if (minutes >= 0) {
      if (first.number != Math.rint(first.number) || seconds >= 0 && minutes != Math.rint(minutes))
        throw new NotUnderstood("typed.decimals", "degrees", first.text);
      if (minutes >= 60 || seconds >= 60) throw new NotUnderstood("typed.sixty");
      double more = minutes / 60 + Math.max(0, seconds) / 3600;
      boolean negative = first.text.startsWith("-");
      // a thirtieth of a millimetre: what minutes and seconds leave of digits is no news
      p.value = Numbers.round(negative ? first.number - more : first.number + more, 10);
      p.angle = true;
    }
    if (take(Sort.METRE)) p.metres = true;
    if (p.direction == 0 && next() == Sort.DIRECTION) p.direction = tokens.get(at++).text.charAt(0);
    return p;
  }

  /** Minutes or seconds that follow; -1 for none. */
  private double minor(Part p, Sort sign) {
    boolean colon = next() == Sort.COLON && after(1) == Sort.NUMBER;
    int skip = colon ? 1 : 0;
    if (!angles || after(skip) != Sort.NUMBER || tokens.get(at + skip).signed) return -1;
    Sort behind = after(skip + 1);
    boolean own = behind == sign || colon;
    // a number that is degrees itself begins the other half; one without any sign belongs here
    // when letters tell the halves apart
    boolean plain = behind != Sort.DEGREE && behind != Sort.MINUTE && behind != Sort.SECOND;
    if (!own && !(plain && lettered(p))) return -1;
    at += skip;
    double d = tokens.get(at++).number;
    take(sign);
    return d;
  }

  /** Whether this part has its letter already, or one comes before the other half begins. */
  private boolean lettered(Part p) {
    if (p.direction != 0) return true;
    for (int k = at; k < tokens.size(); k++) {
      Sort s = tokens.get(k).sort;
      if (s == Sort.DIRECTION) return true;
      if (s == Sort.GAP || s == Sort.DEGREE || s == Sort.AXIS) return false;
    }
    return false;
  }

  private static TypedPlace.Read place(List<Part> all, Optional<CoordinateSystem> system)
      throws NotUnderstood {
    if (all.size() < 2)
      throw new NotUnderstood(
          all.isEmpty() ? "typed.twoNumbers" : "typed.secondMissing",
          "first",
          all.isEmpty() ? "" : said(all.get(0)));
    boolean height = all.size() == 3 && all.get(2).direction == 0 && !all.get(2).angle;
    if (all.size() > 2 && !height)
      throw new NotUnderstood(
          "typed.tooMuch",
          "first",
          said(all.get(0)),
          "second",
          said(all.get(1)),
          "rest",
          said(all.get(2)));
    return TypedPlace.height(two(all.get(0), all.get(1), system), height);
  }

  private static String said(Part p) {
    return Numbers.plain(p.value) + (p.direction == 0 ? "" : " " + p.direction);
  }

  private static TypedPlace.Read two(Part a, Part b, Optional<CoordinateSystem> system)
      throws NotUnderstood {
    for (Part p : List.of(a, b)) {
      if (p.direction != 0 && p.signed) throw new NotUnderstood("typed.noSign");
      if (p.axis == null && p.direction != 0)
        p.axis = p.direction == 'N' || p.direction == 'S' ? Axis.LATITUDE : Axis.LONGITUDE;
    }
    boolean none = a.axis == null && b.axis == null;
    if (!none && (a.axis == null || b.axis == null))
      throw new NotUnderstood("typed.onlyOne", "first", said(a), "second", said(b));
    boolean northFirst = none ? !isMetric(a, b) : isNorth(a);
    if (!none && isNorth(a) == isNorth(b)) throw new NotUnderstood("typed.sameAxis");
    Part north = northFirst ? a : b;
    Part east = northFirst ? b : a;
    if (isMetric(a, b)) return TypedPlace.projected(east.value, north.value, system);
    if (none && (Math.abs(a.value) > 90 || Math.abs(b.value) > 180))
      throw new NotUnderstood("typed.outOfRange", "first", said(a), "second", said(b));
    return TypedPlace.degrees(
        north.direction == 'S' ? -north.value : north.value,
        east.direction == 'W' ? -east.value : east.value);
  }

  private static boolean isNorth(Part p) {
    return p.axis == Axis.LATITUDE || p.axis == Axis.NORTHING;
  }

  /**
   * Metres when it is said, or when both, or one of two with letters, are too large for degrees.
   */
  private static boolean isMetric(Part a, Part b) {
    if (a.angle || b.angle || a.direction == 'S' || b.direction == 'S') return false;
    if (a.direction == 'W' || b.direction == 'W') return false;
    if (a.metres || b.metres) return true;
    if (a.axis == Axis.EASTING && b.axis == Axis.NORTHING) return !inDegrees(a, b);
    if (a.axis == Axis.NORTHING && b.axis == Axis.EASTING) return !inDegrees(b, a);
    boolean largeA = Math.abs(a.value) > 180;
    boolean largeB = Math.abs(b.value) > 180;
    return a.direction != 0 && b.direction != 0 ? largeA || largeB : largeA && largeB;
  }

  private static boolean inDegrees(Part x, Part y) {
    return Math.abs(x.value) <= 180 && Math.abs(y.value) <= 90;
  }
}
