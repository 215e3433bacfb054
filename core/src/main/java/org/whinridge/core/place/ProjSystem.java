package org.whinridge.core.place;

import java.util.Optional;
import java.util.OptionalDouble;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.proj4j.CRSFactory;
import org.locationtech.proj4j.CoordinateReferenceSystem;
import org.locationtech.proj4j.CoordinateTransform;
import org.locationtech.proj4j.CoordinateTransformFactory;
import org.locationtech.proj4j.Proj4jException;
import org.locationtech.proj4j.ProjCoordinate;

/** A coordinate system out of proj parameters, which runs on the device as well. */
final class ProjSystem implements CoordinateSystem {
  private final String code;
  private final String name;
  private final String parameters;
  private final boolean degrees;
  private final boolean wgs84;
  private final CoordinateTransform fromWgs84;
  private final CoordinateTransform toWgs84;

  private ProjSystem(String code, String name, String parameters, CoordinateReferenceSystem own) {
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

  static Optional<CoordinateSystem> of(String code, String name, String parameters) {
    try {
      return Optional.of(
          new ProjSystem(
              code, name, parameters, new CRSFactory().createFromParameters(code, parameters)));
    } catch (RuntimeException e) {
      return Optional.empty(); // proj4j throws many kinds for parameters that it does not know
    }
  }

  @Override
  public String code() {
    return code;
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public String parameters() {
    return parameters;
  }

  @Override
  public boolean isInDegrees() {
    return degrees;
  }

  @Override
  public boolean isWgs84() {
    return wgs84;
  }

  @Override
  public OptionalDouble accuracyM() {
    return parameters.contains("+datum=WGS84") ? OptionalDouble.of(0) : OptionalDouble.empty();
  }

  @Override
  public Optional<Coordinate> project(Coordinate world) {
    return through(fromWgs84, world);
  }

  @Override
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
}
