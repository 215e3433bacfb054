package org.whinridge.core.place;

import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import org.locationtech.jts.geom.Envelope;

/** Boxes of degrees that hold everything within some metres of something. */
public final class Reach {
  /** The shortest degree of latitude on WGS 84 is 110,574 m, at the equator. */
  private static final double LATITUDE_M = 110_500;

  /** A degree of longitude at the equator is 111,320 m; less than that, to be safe. */
  private static final double LONGITUDE_M = 111_000;

  private Reach() {}

  /**
   * One or two boxes: wider towards the poles, all round where they take in a pole, and turned over
   * the date line. They hold at least what lies within {@code metres}.
   *
   * @param around in degrees; one that is null (empty) has no boxes
   * @param metres 0 or more
   */
  public static List<Envelope> boxes(Envelope around, double metres) {
    if (around.isNull()) return List.of();
    double up = metres / LATITUDE_M;
    double south = Math.max(-90, around.getMinY() - up);
    double north = Math.min(90, around.getMaxY() + up);
    double highest = Math.max(Math.abs(south), Math.abs(north));
    double cos = Math.cos(Math.toRadians(highest));
    double aside = highest >= 89.9 && metres > 0 ? 360 : metres / (LONGITUDE_M * cos);
    double west = around.getMinX() - aside;
    double east = around.getMaxX() + aside;
    if (east - west >= 360) return List.of(new Envelope(-180, 180, south, north));
    // at 180 degrees itself the other side of the line is as near
    if (west <= -180)
      return List.of(
          new Envelope(-180, Math.min(180, east), south, north),
          new Envelope(west + 360, 180, south, north));
    if (east >= 180)
      return List.of(
          new Envelope(west, 180, south, north), new Envelope(-180, east - 360, south, north));
    return List.of(new Envelope(west, east, south, north));
  }

  /**
   * The narrowest box that holds some, which may go over the date line: its east is beyond 180
   * then. {@link #boxes} takes it as it is. The gap that it leaves out is the widest between them.
   *
   * @param all in degrees, each from west to east within -180 to 180; empty ones count for nothing
   */
  public static Envelope narrowest(Collection<Envelope> all) {
    List<Envelope> sorted =
        all.stream()
            .filter(e -> !e.isNull())
            .sorted(Comparator.comparingDouble(Envelope::getMinX))
            .toList();
    Envelope out = new Envelope();
    sorted.forEach(out::expandToInclude);
    if (sorted.isEmpty()) return out;
    // beyond the last of them the first comes again
    double widest = out.getMinX() + 360 - out.getMaxX();
    double from = out.getMinX();
    double reached = sorted.get(0).getMaxX();
    for (Envelope e : sorted) {
      if (e.getMinX() - reached > widest) {
        widest = e.getMinX() - reached;
        from = e.getMinX();
      }
      reached = Math.max(reached, e.getMaxX());
    }
    return new Envelope(from, from + 360 - widest, out.getMinY(), out.getMaxY());
  }

  /**
   * What two boxes of degrees lie apart at least, in metres: for passing over what is too far to be
   * nearest. 0 where that can't be told cheaply.
   */
  public static double atLeastM(Envelope a, Envelope b) {
    double up =
        Math.max(0, Math.max(a.getMinY() - b.getMaxY(), b.getMinY() - a.getMaxY())) * LATITUDE_M;
    double highest =
        Math.max(
            Math.max(Math.abs(a.getMinY()), Math.abs(a.getMaxY())),
            Math.max(Math.abs(b.getMinY()), Math.abs(b.getMaxY())));
    double aside = Math.max(a.getMinX() - b.getMaxX(), b.getMinX() - a.getMaxX());
    double round = 360 - (Math.max(a.getMaxX(), b.getMaxX()) - Math.min(a.getMinX(), b.getMinX()));
    double degrees = Math.min(aside, round);
    // a chord is shorter than its parallel: by less than a hundredth up to 20 degrees
    if (degrees <= 0 || degrees > 20 || highest > 80) return up;
    return Math.max(up, degrees * LONGITUDE_M * Math.cos(Math.toRadians(highest)) * 0.95);
  }
}
