package org.whinridge.core.place;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.value.Numbers;

/**
 * A position as people type it: "57.9012, -10.2034", "57.9012 N 10.2034 W", "57°54'04.3\" N
 * 10°12'12\" W" (latitude first, as ISO 6709 has it, unless letters say otherwise), or easting and
 * northing in the project's system: "428654.2 6418120.5". Two plain numbers are degrees when the
 * first is at most 90 and the second at most 180 either way; else they are easting and northing.
 */
public final class TypedPlace {
  private static final Pattern NUMBER = Pattern.compile("[-+]?[0-9]+(\\.[0-9]+)?");
  private static final Pattern LETTER = Pattern.compile("[NSEWnsew]");

  /**
   * What was understood.
   *
   * @param at degrees of WGS 84; empty when it could not be understood
   * @param message what was understood or why not, in words
   */
  public record Read(Optional<Coordinate> at, String message) {}

  private TypedPlace() {}

  /**
   * Reads a position.
   *
   * @param system the project's coordinate system, if it has one
   */
  public static Read read(String typed, Optional<CoordinateSystem> system) {
    String s = typed.strip();
    if (s.isEmpty() || s.length() > 100)
      return no("Type latitude and longitude in degrees, or easting and northing.");
    List<Double> numbers = new ArrayList<>();
    Matcher m = NUMBER.matcher(s.replace(";", " "));
    while (m.find()) {
      OptionalDouble d = Numbers.read(m.group());
      if (d.isPresent()) numbers.add(d.getAsDouble());
    }
    List<Character> letters = new ArrayList<>();
    Matcher l = LETTER.matcher(s);
    while (l.find()) letters.add(Character.toUpperCase(l.group().charAt(0)));
    if (numbers.size() == 2 && letters.isEmpty())
      return plain(numbers.get(0), numbers.get(1), system);
    if (letters.size() == 2 && numbers.size() % 2 == 0 && numbers.size() <= 6 && !numbers.isEmpty())
      return lettered(s, numbers, letters, system);
    return no("Two numbers were expected, such as 57.9012, -10.2034 or 57°54'04\" N 10°12'12\" W.");
  }

  private static Read no(String message) {
    return new Read(Optional.empty(), message);
  }

  private static Read plain(double a, double b, Optional<CoordinateSystem> system) {
    if (Math.abs(a) <= 90 && Math.abs(b) <= 180) return degrees(a, b);
    return projected(a, b, system);
  }

  private static Read projected(double east, double north, Optional<CoordinateSystem> system) {
    if (system.isEmpty() || system.get().isInDegrees())
      return no("These are no degrees, and the project has no system of eastings and northings.");
    Optional<Coordinate> at =
        system
            .get()
            .unproject(new Coordinate(east, north))
            .filter(c -> GeometryJson.inRange(c.x, c.y));
    return at.isEmpty()
        ? no("There is no such place in " + system.get().code() + ".")
        : new Read(
            at,
            "E "
                + Numbers.fixed(east, 2)
                + " m, N "
                + Numbers.fixed(north, 2)
                + " m in "
                + system.get().code());
  }

  private static Read degrees(double lat, double lon) {
    if (Math.abs(lat) > 90 || Math.abs(lon) > 180)
      return no("Latitudes run to 90 degrees, longitudes to 180.");
    return new Read(
        Optional.of(new Coordinate(lon, lat)),
        Numbers.fixed(Math.abs(lat), 6)
            + "° "
            + (lat < 0 ? "S" : "N")
            + ", "
            + Numbers.fixed(Math.abs(lon), 6)
            + "° "
            + (lon < 0 ? "W" : "E"));
  }

  private static Read lettered(
      String s, List<Double> n, List<Character> letters, Optional<CoordinateSystem> system) {
    int half = n.size() / 2;
    double a = sum(n.subList(0, half));
    double b = sum(n.subList(half, n.size()));
    char first = letters.get(0);
    char second = letters.get(1);
    boolean northFirst = first == 'N' || first == 'S';
    if (northFirst == (second == 'N' || second == 'S'))
      return no("One of the two must be north or south, the other east or west.");
    if (half == 1 && first != 'S' && second != 'W' && (Math.abs(a) > 180 || Math.abs(b) > 180))
      return northFirst ? projected(b, a, system) : projected(a, b, system);
    for (int i = 1; i < half; i++)
      if (n.get(i) < 0 || n.get(i) >= 60 || n.get(half + i) < 0 || n.get(half + i) >= 60)
        return no("Minutes and seconds run from 0 to 60.");
    if (a < 0 || b < 0) return no("With letters, degrees are without a sign.");
    double lat = northFirst ? a * (first == 'S' ? -1 : 1) : b * (second == 'S' ? -1 : 1);
    double lon = northFirst ? b * (second == 'W' ? -1 : 1) : a * (first == 'W' ? -1 : 1);
    // a thirtieth of a millimetre: what minutes and seconds leave of digits is no news
    return degrees(Numbers.round(lat, 10), Numbers.round(lon, 10));
  }

  private static double sum(List<Double> parts) {
    double out = 0;
    double unit = 1;
    for (double p : parts) {
      out += p / unit;
      unit *= 60;
    }
    return out;
  }
}
