package org.whinridge.core.place;

import java.util.Optional;
import java.util.OptionalDouble;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.PrecisionModel;
import org.locationtech.jts.geom.util.GeometryEditor;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;

/**
 * A coordinate system: the project's, for typing and showing coordinates, or that of a file.
 * Features themselves stay in WGS 84. Order is always x, y: easting and northing, or longitude and
 * latitude. The project's own is computed here ({@link #of}), so that the device can do it too;
 * those of files come from the formats, which have a full geodetic library.
 */
public interface CoordinateSystem {
  /**
   * A system from its code (such as EPSG:32629, for people) and its definition as proj parameters;
   * empty when the parameters can't be understood.
   */
  static Optional<CoordinateSystem> of(String code, String parameters) {
    return of(code, code, parameters);
  }

  /** As {@link #of(String, String)}, with the system's name for people. */
  static Optional<CoordinateSystem> of(String code, String name, String parameters) {
    return ProjSystem.of(code, name, parameters);
  }

  /** WGS 84 in degrees, longitude first. */
  static CoordinateSystem wgs84() {
    return of("EPSG:4326", "WGS 84", "+proj=longlat +datum=WGS84 +no_defs").orElseThrow();
  }

  /** UTM on WGS 84, zone 1 to 60, northern half; its code is EPSG:326nn. */
  static CoordinateSystem utmNorth(int zone) {
    return of(
            "EPSG:" + (32600 + zone),
            "WGS 84 / UTM zone " + zone + "N",
            "+proj=utm +zone=" + zone + " +datum=WGS84 +units=m +no_defs")
        .orElseThrow();
  }

  /** UTM on WGS 84, zone 1 to 60, southern half; its code is EPSG:327nn. */
  static CoordinateSystem utmSouth(int zone) {
    return of(
            "EPSG:" + (32700 + zone),
            "WGS 84 / UTM zone " + zone + "S",
            "+proj=utm +zone=" + zone + " +south +datum=WGS84 +units=m +no_defs")
        .orElseThrow();
  }

  /** The code, such as EPSG:32629; "" for a system that has none. */
  String code();

  /** The name for people. */
  String name();

  /** The definition as proj parameters, with which core computes; "" for none. */
  String parameters();

  /** Whether its coordinates are degrees of longitude and latitude. */
  boolean isInDegrees();

  /** Whether it is WGS 84 in degrees, so that nothing is to be computed. */
  boolean isWgs84();

  /**
   * How far positions may be off once they are in WGS 84, in metres, as the publisher of the shift
   * states it; empty when that is not known.
   */
  OptionalDouble accuracyM();

  /**
   * Easting (x) and northing (y) in the system's unit; empty where the projection is not defined.
   */
  Optional<Coordinate> project(Coordinate wgs84);

  /** Longitude and latitude of a coordinate of this system; empty where that is not defined. */
  Optional<Coordinate> unproject(Coordinate own);

  /**
   * A geometry of this system in WGS 84, heights dropped.
   *
   * @throws IllegalArgumentException with a sentence part for people when a position is not on the
   *     earth or out of the system's reach
   */
  default Geometry toWgs84(Geometry own) {
    return edited(
        own,
        GeometryJson.WGS84,
        c -> {
          if (isWgs84()) {
            if (!GeometryJson.inRange(c.x, c.y)) throw outside(c);
            return new Coordinate(c.x, c.y);
          }
          return unproject(c).orElseThrow(() -> outside(c));
        });
  }

  /**
   * A geometry of WGS 84 in this system.
   *
   * @throws IllegalArgumentException with a sentence part for people when the projection is not
   *     defined at a position
   */
  default Geometry fromWgs84(Geometry world) {
    if (isWgs84()) return world;
    GeometryFactory own = new GeometryFactory(new PrecisionModel(), 0);
    return edited(world, own, c -> project(c).orElseThrow(() -> outside(c)));
  }

  private IllegalArgumentException outside(Coordinate c) {
    if (!isWgs84())
      return new Unfit("geometry.outOfReach", "x", text(c.x), "y", text(c.y), "system", name());
    return c.x >= -180 && c.x <= 180
        ? new Unfit("geometry.latitude", "n", text(c.y))
        : new Unfit("geometry.longitude", "n", text(c.x));
  }

  private static Said text(double d) {
    return Double.isNaN(d) || Double.isInfinite(d)
        ? Said.of("geometry.notANumber")
        : Said.number(d);
  }

  /** What becomes of one position. */
  interface Step {
    /** The position, or an exception in words. */
    Coordinate of(Coordinate c);
  }

  private static Geometry edited(Geometry g, GeometryFactory factory, Step step) {
    if (g instanceof org.locationtech.jts.geom.Point p && !p.isEmpty())
      return factory.createPoint(step.of(p.getCoordinate()));
    return new GeometryEditor(factory)
        .edit(
            g,
            new GeometryEditor.CoordinateSequenceOperation() {
              @Override
              public CoordinateSequence edit(CoordinateSequence s, Geometry part) {
                Coordinate[] out = new Coordinate[s.size()];
                for (int i = 0; i < out.length; i++) out[i] = step.of(s.getCoordinate(i));
                return factory.getCoordinateSequenceFactory().create(out);
              }
            });
  }
}
