package org.whinridge.core.place;

import org.locationtech.jts.geom.Coordinate;

/**
 * The straight edge between two corners of a shape: straight in degrees, and the short way round
 * where it crosses the date line.
 */
final class Edge {
  /** On a plane of metres an edge is straight over so many metres, to some centimetres. */
  private static final double PIECE_M = 1000;

  private static final int MOST_PIECES = 1000;

  private final Coordinate from;
  private final Coordinate to;
  private final double dx;
  private final double dy;

  Edge(Coordinate from, Coordinate to) {
    this.from = from;
    this.to = to;
    dx = shortWay(to.x - from.x);
    dy = to.y - from.y;
  }

  private static double shortWay(double d) {
    return d > 180 ? d - 360 : d < -180 ? d + 360 : d;
  }

  /** More than 0 for a position on its left, less on its right, 0 in its line. */
  double turnTo(Coordinate c) {
    return dx * (c.y - from.y) - dy * shortWay(c.x - from.x);
  }

  /** The position so far along it, 0 to 1, in degrees. */
  Coordinate at(double t) {
    return t <= 0 ? from.copy() : t >= 1 ? to.copy() : beyond(t);
  }

  /** The same, but going on in its direction beyond its ends. */
  Coordinate beyond(double t) {
    double x = from.x + t * dx;
    return new Coordinate(x > 180 ? x - 360 : x < -180 ? x + 360 : x, from.y + t * dy);
  }

  /** In how many pieces it is to be laid on a plane, so that each is straight there. */
  int pieces() {
    double lat = Math.toRadians(from.y);
    double metres = Math.hypot(dx * Math.cos(lat), dy) * 111_000;
    // along a meridian it is straight however long
    return dx == 0 ? 1 : (int) Math.max(1, Math.min(MOST_PIECES, Math.ceil(metres / PIECE_M)));
  }
}
