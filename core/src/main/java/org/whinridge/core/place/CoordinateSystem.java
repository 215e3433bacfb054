package org.whinridge.core.place;

import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.PrecisionModel;
import org.locationtech.jts.geom.util.GeometryEditor;
import org.locationtech.proj4j.CRSFactory;
import org.locationtech.proj4j.CoordinateReferenceSystem;
import org.locationtech.proj4j.CoordinateTransform;
import org.locationtech.proj4j.CoordinateTransformFactory;
import org.locationtech.proj4j.Proj4jException;
import org.locationtech.proj4j.ProjCoordinate;

/**
 * A coordinate system: the project's, for typing and showing coordinates, or that of a file.
 * Features themselves stay in WGS 84. Order is always x, y: easting and northing, or longitude and
 * latitude.
 */
public final class CoordinateSystem {
  private final String code;
  private final String name;
  private final String parameters;
  private final boolean degrees;
  private final boolean wgs84;
  private final CoordinateTransform fromWgs84;
  private final CoordinateTransform toWgs84;

  private CoordinateSystem(
      String code, String name, String parameters, CoordinateReferenceSystem own) {
    CoordinateReferenceSystem world =
        new CRSFactory().createFromParameters("WGS84", "+proj=longlat +datum=WGS84 +no_defs");
    this.code = code;
    this.name = name;
    this.parameters = parameters;
    this.degrees = parameters.contains("+proj=longlat") || parameters.contains("+proj=latlong");
    this.wgs84 = degrees && parameters.contains("+datum=WGS84");
    this.fromWgs84 = new CoordinateTransformFactory().createTransform(world, own);
    this.toWgs84 = new CoordinateTransformFactory().createTransform(own, world);
  }

  /**
   * A system from its code (such as EPSG:32629, for people) and its definition as proj parameters;
   * empty when the parameters can't be understood.
   */
  public static Optional<CoordinateSystem> of(String code, String parameters) {
    return of(code, code, parameters);
  }

  /** As {@link #of(String, String)}, with the system's name for people. */
  public static Optional<CoordinateSystem> of(String code, String name, String parameters) {
    try {
      return Optional.of(
          new CoordinateSystem(
              code, name, parameters, new CRSFactory().createFromParameters(code, parameters)));
    } catch (RuntimeException e) {
      return Optional.empty(); // proj4j throws many kinds for parameters that it does not know
    }
  }

  /** WGS 84 in degrees, longitude first. */
  public static CoordinateSystem wgs84() {
    return of("EPSG:4326", "WGS 84", "+proj=longlat +datum=WGS84 +no_defs").orElseThrow();
  }

  /** UTM on WGS 84, zone 1 to 60, northern half; its code is EPSG:326nn. */
  public static CoordinateSystem utmNorth(int zone) {
    return of(
            "EPSG:" + (32600 + zone),
            "WGS 84 / UTM zone " + zone + "N",
            "+proj=utm +zone=" + zone + " +datum=WGS84 +units=m +no_defs")
        .orElseThrow();
  }

  /** UTM on WGS 84, zone 1 to 60, southern half; its code is EPSG:327nn. */
  public static CoordinateSystem utmSouth(int zone) {
    return of(
            "EPSG:" + (32700 + zone),
            "WGS 84 / UTM zone " + zone + "S",
            "+proj=utm +zone=" + zone + " +south +datum=WGS84 +units=m +no_defs")
        .orElseThrow();
  }

  /** The code, such as EPSG:32629; "" for a system that has none. */
  public String code() {
    return code;
  }

  /** The name for people. */
  public String name() {
    return name;
  }

  /** The definition as proj parameters. */
  public String parameters() {
    return parameters;
  }

  /** Whether its coordinates are degrees of longitude and latitude. */
  public boolean isInDegrees() {
    return degrees;
  }

  /** Whether it is WGS 84 in degrees, so that nothing is to be computed. */
  public boolean isWgs84() {
    return wgs84;
  }

  /**
   * Easting (x) and northing (y) in the system's unit; empty where the projection is not defined.
   */
  public Optional<Coordinate> project(Coordinate wgs84) {
    return through(fromWgs84, wgs84);
  }

  /** Longitude and latitude of a coordinate of this system; empty where that is not defined. */
  public Optional<Coordinate> unproject(Coordinate own) {
    return through(toWgs84, own).filter(c -> GeometryJson.inRange(c.x, c.y));
  }

  private static Optional<Coordinate> through(CoordinateTransform t, Coordinate c) {
    ProjCoordinate out = new ProjCoordinate();
    try {
      t.transform(new ProjCoordinate(c.x, c.y), out);
    } catch (Proj4jException | IllegalStateException e) {
      return Optional.empty(); // outside the projection's reach
    }
    return Double.isNaN(out.x) || Double.isInfinite(out.x) || Double.isNaN(out.y)
        ? Optional.empty()
        : Optional.of(new Coordinate(out.x, out.y));
  }

  /**
   * A geometry of this system in WGS 84, heights dropped.
   *
   * @throws IllegalArgumentException with a sentence part for people when a position is not on the
   *     earth or out of the system's reach
   */
  public Geometry toWgs84(Geometry own) {
    return edited(
        own,
        GeometryJson.WGS84,
        c -> {
          if (wgs84) {
            if (!GeometryJson.inRange(c.x, c.y)) throw outside(c);
            return new Coordinate(c.x, c.y);
          }
          return unproject(c).orElseThrow(() -> outside(c));
        });
  }

  private IllegalArgumentException outside(Coordinate c) {
    String at = text(c.x) + ", " + text(c.y);
    if (!wgs84)
      return new IllegalArgumentException("the position " + at + " is out of reach of " + name);
    return new IllegalArgumentException(
        c.x >= -180 && c.x <= 180
            ? "latitude " + text(c.y) + " is out of range (-90 to 90 degrees)"
            : "longitude " + text(c.x) + " is out of range (-180 to 180 degrees)");
  }

  private static String text(double d) {
    return Double.isNaN(d) || Double.isInfinite(d)
        ? "that is no number"
        : org.whinridge.core.value.Numbers.plain(d);
  }

  /**
   * A geometry of WGS 84 in this system.
   *
   * @throws IllegalArgumentException with a sentence part for people when the projection is not
   *     defined at a position
   */
  public Geometry fromWgs84(Geometry world) {
    if (wgs84) return world;
    GeometryFactory own = new GeometryFactory(new PrecisionModel(), 0);
    return edited(world, own, c -> project(c).orElseThrow(() -> outside(c)));
  }

  private interface Step {
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
