package org.whinridge.core.profile;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.regex.Pattern;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKTReader;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.text.Fold;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;

/**
 * Which columns of a table say where its rows are: two of coordinates, or one of WKT (OGC
 * 06-103r4).
 *
 * @param x the column of longitude or easting; "" when there is a WKT column
 * @param y the column of latitude or northing
 * @param wkt the column of WKT; "" when there are two of coordinates
 * @param degrees whether the coordinates are longitude and latitude by name and range
 */
public record PlaceColumns(String x, String y, String wkt, boolean degrees) {
  private static final List<String> LONGITUDES =
      List.of("longitude", "lon", "lng", "long", "x_wgs84", "lon_wgs84", "longitude_deg");
  private static final List<String> LATITUDES =
      List.of("latitude", "lat", "lat", "lat", "y_wgs84", "lat_wgs84", "latitude_deg");
  private static final List<String> EASTINGS =
      List.of(
          "easting",
          "east",
          "x",
          "x_coord",
          "xcoord",
          "coord_x",
          "e",
          "rechtswert",
          "point_x",
          "eastings",
          "x_m");
  private static final List<String> NORTHINGS =
      List.of(
          "northing",
          "north",
          "y",
          "y_coord",
          "ycoord",
          "coord_y",
          "n",
          "hochwert",
          "point_y",
          "northings",
          "y_m");
  private static final List<String> WKTS =
      List.of("wkt", "geom", "geometry", "the_geom", "shape", "wkt_geom", "geom_wkt");

  /** What the values of a column are like, a few that are mistyped left aside. */
  public interface Ranges {
    /** Whether they are numbers. */
    boolean areNumbers(String column);

    /** Whether its numbers can be longitudes: within 360 degrees either way. */
    boolean areLongitudes(String column);

    /** Whether its numbers can be latitudes: within 90 degrees either way. */
    boolean areLatitudes(String column);

    /** Whether its WKT can be degrees. */
    boolean isWktInDegrees(String column);

    /** A value of the column, for telling WKT from other text. */
    String sample(String column);
  }

  /**
   * Finds the columns by name, and by range where the names say x and y only. Longitude and
   * latitude must lie on the earth: 0 to 360 and 0 to 90 degrees either way.
   */
  public static Optional<PlaceColumns> find(List<String> columns, Ranges ranges) {
    for (String c : columns)
      if (WKTS.contains(simple(c)) && looksLikeWkt(ranges.sample(c)))
        return Optional.of(new PlaceColumns("", "", c, ranges.isWktInDegrees(c)));
    Optional<PlaceColumns> degrees = pair(columns, LONGITUDES, LATITUDES, ranges, true);
    return degrees.isPresent() ? degrees : pair(columns, EASTINGS, NORTHINGS, ranges, false);
  }

  private static Optional<PlaceColumns> pair(
      List<String> columns, List<String> xs, List<String> ys, Ranges ranges, boolean named) {
    for (int i = 0; i < xs.size(); i++) {
      String x = named(columns, xs.get(i));
      String y = named(columns, ys.get(i));
      if (x.isEmpty() || y.isEmpty()) continue;
      if (!ranges.areNumbers(x) || !ranges.areNumbers(y)) continue;
      boolean onEarth = ranges.areLongitudes(x) && ranges.areLatitudes(y);
      if (named && !onEarth) continue;
      return Optional.of(new PlaceColumns(x, y, "", named || onEarth));
    }
    return Optional.empty();
  }

  private static String named(List<String> columns, String wanted) {
    for (String c : columns) if (simple(c).equals(wanted)) return c;
    return "";
  }

  private static String simple(String column) {
    return Fold.lower(column.strip()).replaceAll("[ .(\\[-].*$", "");
  }

  private static final Pattern WKT =
      Pattern.compile(
          "(SRID=[0-9]+;)?(MULTI)?(POINT|LINESTRING|POLYGON)( ?(Z|M|ZM))? ?(\\(|EMPTY)[^;]*",
          Pattern.CASE_INSENSITIVE);

  /** Whether a text begins like WKT. */
  public static boolean looksLikeWkt(String s) {
    String t = s.strip();
    return !t.isEmpty() && "SMPLsmpl".indexOf(t.charAt(0)) >= 0 && WKT.matcher(t).matches();
  }

  /**
   * Whether the positions of a text of WKT lie within degrees; false for one that can't be read.
   */
  static boolean isInDegrees(String s) {
    try {
      Optional<Geometry> g = fromWkt(s.strip());
      if (g.isEmpty()) return false;
      Envelope e = g.get().getEnvelopeInternal();
      return e.getMinX() >= -360 && e.getMaxX() <= 360 && e.getMinY() >= -90 && e.getMaxY() <= 90;
    } catch (IllegalArgumentException x) {
      return false; // told when the row is read
    }
  }

  /**
   * The geometry of a row, in the table's own coordinates; empty when the row has none.
   *
   * @throws IllegalArgumentException with a sentence part for people when what is there is no place
   */
  public Optional<Geometry> place(Map<String, Value> row) {
    if (!wkt.isEmpty()) return fromWkt(row.getOrDefault(wkt, Value.EMPTY).plain().strip());
    Value vx = row.getOrDefault(x, Value.EMPTY);
    Value vy = row.getOrDefault(y, Value.EMPTY);
    if (vx.isEmpty() && vy.isEmpty()) return Optional.empty();
    return Optional.of(
        GeometryJson.WGS84.createPoint(new Coordinate(number(vx, x), number(vy, y))));
  }

  private static double number(Value v, String column) {
    if (v instanceof Value.Num n) return n.value();
    String s = v.plain().strip();
    OptionalDouble d = Numbers.read(s);
    if (d.isEmpty()) d = Reading.DECIMAL_COMMA.number(s);
    if (d.isEmpty())
      throw new Unfit(
          s.isEmpty() ? "geometry.columnEmpty" : "geometry.columnNoNumber",
          "column",
          column,
          "value",
          s);
    return d.getAsDouble();
  }

  private static Optional<Geometry> fromWkt(String s) {
    if (s.isEmpty()) return Optional.empty();
    String text = s.replaceFirst("(?i)^SRID=[0-9]+;", "");
    try {
      Geometry g = new WKTReader(GeometryJson.WGS84).read(text);
      return g.isEmpty() ? Optional.empty() : Optional.of(g);
    } catch (ParseException | IllegalArgumentException e) {
      throw new Unfit("geometry.notWkt", "text", text.substring(0, Math.min(40, text.length())))
          .because(e);
    }
  }
}
