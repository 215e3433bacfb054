package org.whinridge.core.place;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Fold;
import org.whinridge.core.text.Numbers;

/**
 * A position as people type or paste it. Understood are
 *
 * <ul>
 *   <li>degrees, latitude first as ISO 6709 has it unless letters or words say otherwise: "57.9012,
 *       -10.2034", "57,9012 N 10,2034 W", "57°54'04.3\" N 10°12'12\" W", "N 57 54.07 W 10 12.2",
 *       "lat 57.9 lon -10.2"
 *   <li>easting and northing in the project's system: "428654.2 6418120.5", "428 654,2 6 418
 *       120,5", "E 428654 N 6418120"
 *   <li>"geo:57.9012,-10.2034" (RFC 5870), "POINT (-10.2034 57.9012)" (OGC Simple Features)
 *   <li>"29VMD2865418120" and "29V 428654 6418120" (see {@link GridReference})
 * </ul>
 *
 * A third number is a height and left out. Every sign must be understood: what is not is refused
 * with what was understood so far, so that nothing lands at a place that nobody meant.
 */
public final class TypedPlace {
  private static final int LONGEST = 200;
  private static final Pattern GEO =
      Pattern.compile(
          "(?i)geo:(-?[0-9]+(?:\\.[0-9]+)?),(-?[0-9]+(?:\\.[0-9]+)?)(,-?[0-9.]+)?(?:;(.*))?");
  private static final Pattern POINT =
      Pattern.compile(
          "(?i)(?:SRID=([0-9]+);)? ?POINT ?(?:Z|M|ZM)? ?\\( ?(-?[0-9.]+(?:e[-+]?[0-9]+)?) +(-?[0-9.]+(?:e[-+]?[0-9]+)?)((?: +-?[0-9.]+(?:e[-+]?[0-9]+)?){0,2}) ?\\)");

  /** How numbers are written, in the order in which it is tried. */
  private static final List<Pattern> NUMBERS =
      List.of(
          Pattern.compile("[0-9]+(\\.[0-9]+)?"),
          Pattern.compile("[0-9]+(,[0-9]+)?"),
          Pattern.compile("[0-9]{1,3}([ '][0-9]{3})+([.,][0-9]+)?"),
          Pattern.compile("[0-9]{1,3}(,[0-9]{3})+(\\.[0-9]+)?"),
          Pattern.compile("[0-9]{1,3}(\\.[0-9]{3})+(,[0-9]+)?"));

  /**
   * What was understood.
   *
   * @param at degrees of WGS 84; empty when it could not be understood
   * @param message what was understood or why not
   */
  public record Read(Optional<Coordinate> at, Said message) {}

  private TypedPlace() {}

  /**
   * Reads a position.
   *
   * @param system the project's coordinate system, if it has one
   */
  public static Read read(String typed, Optional<CoordinateSystem> system) {
    Read r = understood(typed, system);
    // a hundredth of a millimetre: what a projection leaves of digits beyond is no news
    return new Read(
        r.at().map(c -> new Coordinate(Numbers.round(c.x, 10), Numbers.round(c.y, 10))),
        r.message());
  }

  private static Read understood(String typed, Optional<CoordinateSystem> system) {
    String s = plain(typed);
    if (s.isEmpty()) return no("typed.nothing");
    if (s.length() > LONGEST) return no("typed.tooLong");
    Matcher geo = GEO.matcher(s);
    if (geo.matches()) return geo(geo);
    Matcher point = POINT.matcher(s);
    if (point.matches()) return point(point, system);
    Optional<Read> grid = GridReference.read(s);
    if (grid.isPresent()) return grid.get();
    Read first = null;
    for (Pattern number : NUMBERS) {
      Read r = PlaceWords.read(s, number, system);
      if (r.at().isPresent()) return r;
      if (first == null) first = r;
    }
    return first;
  }

  /** Signs of many shapes as their plain ones: minus, degrees, minutes, seconds, gaps. */
  private static String plain(String typed) {
    StringBuilder b = new StringBuilder();
    for (int i = 0; i < typed.length(); i++) {
      char c = typed.charAt(i);
      if ("\u2212\u2010\u2011\u2012\u2013\u2014\uFE63\uFF0D".indexOf(c) >= 0) b.append('-');
      else if ("\u00BA\u02DA".indexOf(c) >= 0) b.append('°');
      else if ("\u2032\u2019\u2018\u00B4\u02B9\u0060".indexOf(c) >= 0) b.append('\'');
      else if ("\u2033\u201D\u201C\u02BA".indexOf(c) >= 0) b.append('"');
      else if (c <= ' ' || "\u00A0\u2007\u2009\u202F\u200A\u3000".indexOf(c) >= 0) b.append(' ');
      else if (c != '\u200E' && c != '\u200F' && c != '\u200B' && c != '\uFEFF') b.append(c);
    }
    return b.toString().replace("''", "\"").strip().replaceAll(" +", " ");
  }

  static Read no(String key, Object... args) {
    return new Read(Optional.empty(), Said.of(key, args));
  }

  private static Read geo(Matcher m) {
    String more = m.group(4) == null ? "" : m.group(4);
    for (String p : more.split(";"))
      if (Fold.lower(p).startsWith("crs=") && !Fold.lower(p).equals("crs=wgs84"))
        return no("typed.geoCrs", "crs", p);
    return height(
        degrees(Double.parseDouble(m.group(1)), Double.parseDouble(m.group(2))),
        m.group(3) != null);
  }

  private static Read point(Matcher m, Optional<CoordinateSystem> system) {
    double x = Numbers.read(m.group(2)).orElse(Double.NaN);
    double y = Numbers.read(m.group(3)).orElse(Double.NaN);
    if (Double.isNaN(x) || Double.isNaN(y)) return no("typed.wktNumbers");
    boolean world = m.group(1) == null || m.group(1).equals("4326");
    if (!world && system.filter(s -> s.code().equals("EPSG:" + m.group(1))).isEmpty())
      return no("typed.wktSystem", "code", m.group(1));
    boolean degrees = world && Math.abs(x) <= 180 && Math.abs(y) <= 90;
    return height(
        degrees || m.group(1) != null && world ? degrees(y, x) : projected(x, y, system),
        !m.group(4).isBlank());
  }

  /** The same, saying that a height was left out, if there was one. */
  static Read height(Read r, boolean there) {
    return there && r.at().isPresent()
        ? new Read(r.at(), Said.of("typed.noHeight", "read", r.message()))
        : r;
  }

  static Read projected(double east, double north, Optional<CoordinateSystem> system) {
    if (system.isEmpty() || system.get().isInDegrees()) return no("typed.noDegrees");
    Optional<Coordinate> at =
        system
            .get()
            .unproject(new Coordinate(east, north))
            .filter(c -> GeometryJson.inRange(c.x, c.y));
    return at.isEmpty()
        ? no("typed.noSuchPlace", "system", system.get().code())
        : new Read(at, metres(east, north, Said.text(system.get().code())));
  }

  static Read degrees(double lat, double lon) {
    if (Math.abs(lat) > 90 || Math.abs(lon) > 180) return no("typed.range");
    return new Read(
        Optional.of(new Coordinate(lon, lat)),
        Said.of(
            "typed.degrees",
            "lat",
            Numbers.fixed(Math.abs(lat), 6),
            "northSouth",
            Said.of(lat < 0 ? "compass.south" : "compass.north"),
            "lon",
            Numbers.fixed(Math.abs(lon), 6),
            "eastWest",
            Said.of(lon < 0 ? "compass.west" : "compass.east")));
  }

  static Said metres(double east, double north, Said system) {
    return Said.of(
        "typed.metres",
        "east",
        Numbers.fixed(east, 2),
        "north",
        Numbers.fixed(north, 2),
        "system",
        system);
  }
}
