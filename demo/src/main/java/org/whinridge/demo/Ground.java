package org.whinridge.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.whinridge.core.place.GeometryJson;

/**
 * The island's shape in kilometres east and north of its middle: coast, marsh, ridge, drains,
 * roads, hamlets.
 */
final class Ground {
  /** The middle of the island, degrees. */
  static final double LON = -10.2;

  static final double LAT = 57.9;
  private static final double KM_PER_LON = 59.32; // at 57.9° N
  private static final double KM_PER_LAT = 111.37;
  final Polygon land;
  final Geometry marsh;
  final List<Geometry> ridge = new ArrayList<>();
  final LineString mainDrain;
  final List<LineString> sideDrains = new ArrayList<>();
  final List<LineString> roads = new ArrayList<>();
  final List<Hamlet> hamlets = new ArrayList<>();

  record Hamlet(String name, Coordinate at, List<Polygon> buildings) {}

  Ground(long seed) {
    Random random = new Random(seed);
    land = coast(random);
    marsh = blob(random, -5.3, -2.1, 2.1, 1.25, 60).intersection(land);
    for (int i = 0; i < 4; i++)
      ridge.add(
          blob(new Random(seed + 7), 2.1 + i * 0.12, 2.3, 3.6 - i * 0.85, 1.5 - i * 0.36, 70)
              .intersection(land.buffer(-0.15)));
    mainDrain =
        line(
            6.9, 0.1, 5.4, 0.35, 3.9, 0.1, 2.6, -0.35, 1.1, -0.5, -0.6, -0.85, -2.2, -1.0, -3.6,
            -1.5, -4.9, -1.9, -6.9, -2.7);
    double[] heads = {5.2, 4.1, 3.0, 1.9, 0.8, -0.3, -1.4, -2.5, -3.6};
    for (int i = 0; i < heads.length; i++) {
      Coordinate at = on(mainDrain, heads[i]);
      double lean = 0.25 + random.nextDouble() * 0.3;
      side(at, heads[i] + lean, at.y + 1.2 + random.nextDouble() * 0.7, random);
      side(at, heads[i] - lean, at.y - 1.3 - random.nextDouble() * 1.1, random);
    }
    roads.add(
        (LineString)
            clipped(
                line(
                    -6.3, 0.6, -4.6, 0.9, -3.0, 0.75, -1.2, 1.15, 0.6, 0.95, 2.4, 0.75, 4.3, 1.2,
                    6.2, 1.0)));
    roads.add(
        (LineString)
            clipped(
                line(
                    -4.6, 0.9, -4.1, -0.6, -3.1, -2.3, -1.2, -2.9, 1.2, -2.6, 3.1, -2.2, 4.6, -1.2,
                    4.3, 1.2)));
    roads.add((LineString) clipped(line(-1.2, 1.15, -0.9, -0.4, -1.2, -2.9)));
    roads.add((LineString) clipped(line(2.4, 0.75, 2.9, 1.9, 2.2, 3.3)));
    hamlet("Fennick", -4.6, 0.95, random);
    hamlet("Middle Ostrey", -1.15, 1.1, random);
    hamlet("Marrowby", 4.3, 1.15, random);
    hamlet("Sluice End", -3.1, -2.3, random);
    hamlet("Southlode", 1.2, -2.6, random);
  }

  private Geometry clipped(Geometry g) {
    Geometry c = g.intersection(land.buffer(-0.12));
    return c.getNumGeometries() == 1 ? c : c.getGeometryN(0);
  }

  private static Polygon coast(Random random) {
    double[] phase = new double[9];
    for (int i = 0; i < phase.length; i++) phase[i] = random.nextDouble() * 2 * Math.PI;
    List<Coordinate> cs = new ArrayList<>();
    for (int i = 0; i < 300; i++) {
      double a = 2 * Math.PI * i / 300;
      double n = 0;
      for (int k = 0; k < phase.length; k++)
        n += Math.sin((k + 2) * a + phase[k]) * 0.055 / (1 + k * 0.35);
      double bay =
          0.22 * Math.exp(-Math.pow((a - 3.62) / 0.16, 2)); // the bay behind the salt marsh
      double r = 1 + n - bay;
      cs.add(new Coordinate(7.0 * Math.cos(a) * r, 4.4 * Math.sin(a) * r));
    }
    cs.add(cs.get(0).copy());
    return GeometryJson.WGS84.createPolygon(cs.toArray(new Coordinate[0]));
  }

  private static Polygon blob(Random random, double x, double y, double rx, double ry, int n) {
    double p = random.nextDouble() * 6;
    Coordinate[] cs = new Coordinate[n + 1];
    for (int i = 0; i < n; i++) {
      double a = 2 * Math.PI * i / n;
      double r = 1 + 0.14 * Math.sin(3 * a + p) + 0.07 * Math.sin(5 * a - p);
      cs[i] = new Coordinate(x + rx * r * Math.cos(a), y + ry * r * Math.sin(a));
    }
    cs[n] = cs[0].copy();
    return GeometryJson.WGS84.createPolygon(cs);
  }

  private void side(Coordinate from, double x, double y, Random random) {
    double bend = (random.nextDouble() - 0.5) * 0.5;
    LineString l = line(from.x, from.y, (from.x + x) / 2 + bend, (from.y + y) / 2, x, y);
    Geometry c = l.intersection(land.buffer(-0.25));
    if (c instanceof LineString s && s.getLength() > 0.6) sideDrains.add(s);
  }

  private void hamlet(String name, double x, double y, Random random) {
    List<Polygon> buildings = new ArrayList<>();
    for (int i = 0; i < 14; i++) {
      double bx = x + (random.nextDouble() - 0.5) * 0.55;
      double by = y + (random.nextDouble() - 0.5) * 0.4;
      double w = 0.025 + random.nextDouble() * 0.03;
      double h = 0.018 + random.nextDouble() * 0.02;
      Polygon box =
          GeometryJson.WGS84.createPolygon(
              new Coordinate[] {
                new Coordinate(-w, -h),
                new Coordinate(w, -h),
                new Coordinate(w, h),
                new Coordinate(-w, h),
                new Coordinate(-w, -h)
              });
      buildings.add(
          (Polygon)
              AffineTransformation.rotationInstance(random.nextDouble() * Math.PI)
                  .compose(AffineTransformation.translationInstance(bx, by))
                  .transform(box));
    }
    hamlets.add(new Hamlet(name, new Coordinate(x, y), buildings));
  }

  static LineString line(double... xy) {
    Coordinate[] cs = new Coordinate[xy.length / 2];
    for (int i = 0; i < cs.length; i++) cs[i] = new Coordinate(xy[2 * i], xy[2 * i + 1]);
    return GeometryJson.WGS84.createLineString(cs);
  }

  /** The position on a line that runs east to west, at an easting. */
  static Coordinate on(LineString l, double x) {
    for (int i = 1; i < l.getNumPoints(); i++) {
      Coordinate a = l.getCoordinateN(i - 1);
      Coordinate b = l.getCoordinateN(i);
      if ((a.x - x) * (b.x - x) <= 0)
        return new Coordinate(x, a.y + (b.y - a.y) * (x - a.x) / (b.x - a.x));
    }
    return l.getCoordinateN(0);
  }

  static double lon(double kmEast) {
    return LON + kmEast / KM_PER_LON;
  }

  static double lat(double kmNorth) {
    return LAT + kmNorth / KM_PER_LAT;
  }

  static double kmEast(double lon) {
    return (lon - LON) * KM_PER_LON;
  }

  static double kmNorth(double lat) {
    return (lat - LAT) * KM_PER_LAT;
  }

  /** A geometry in kilometres as one in degrees, rounded to 1e-7 degrees (about a centimetre). */
  static Geometry degrees(Geometry km) {
    Geometry g = km.copy();
    g.apply(
        (org.locationtech.jts.geom.CoordinateFilter)
            c -> {
              c.x = Math.round((LON + c.x / KM_PER_LON) * 1e7) / 1e7;
              c.y = Math.round((LAT + c.y / KM_PER_LAT) * 1e7) / 1e7;
            });
    g.geometryChanged();
    return g;
  }
}
