package org.whinridge.formats.crs;

import java.util.Optional;
import java.util.OptionalDouble;
import org.apache.sis.metadata.iso.extent.DefaultGeographicBoundingBox;
import org.apache.sis.referencing.CRS;
import org.apache.sis.referencing.CommonCRS;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.opengis.referencing.crs.CoordinateReferenceSystem;
import org.opengis.referencing.crs.GeographicCRS;
import org.opengis.referencing.cs.AxisDirection;
import org.opengis.referencing.operation.CoordinateOperation;
import org.opengis.referencing.operation.MathTransform;
import org.opengis.referencing.operation.TransformException;
import org.opengis.util.FactoryException;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.GeometryJson;

/**
 * A coordinate system of a file, computed by Apache SIS with the operations of the EPSG dataset.
 * Coordinates are taken as files have them: easting before northing and longitude before latitude,
 * even where the system's own definition says otherwise; axes that point west or south stay so.
 */
final class GeodeticSystem implements CoordinateSystem {
  /** From this on an accuracy says that nothing is known of the datum's shift. */
  private static final double UNKNOWN_FROM = 500;

  private final String code;
  private final String name;
  private final String parameters;
  private final CoordinateReferenceSystem system;
  private final boolean swap;
  private final MathTransform toWgs84;
  private final MathTransform fromWgs84;
  private final OptionalDouble accuracy;

  private GeodeticSystem(
      String code,
      String name,
      String parameters,
      CoordinateReferenceSystem system,
      CoordinateOperation operation)
      throws TransformException {
    this.code = code;
    this.name = name;
    this.parameters = parameters;
    this.system = system;
    this.swap = isNorthFirst(system);
    this.toWgs84 = operation.getMathTransform();
    this.fromWgs84 = toWgs84.inverse();
    double m = CRS.getLinearAccuracy(operation);
    this.accuracy =
        Double.isNaN(m) || m >= UNKNOWN_FROM ? OptionalDouble.empty() : OptionalDouble.of(m);
  }

  /**
   * The system as it serves any place within its reach; empty when no operation to WGS 84 can be
   * computed.
   *
   * @param parameters as proj parameters, "" for none
   */
  static Optional<CoordinateSystem> of(
      String code, String name, String parameters, CoordinateReferenceSystem system) {
    return of(code, name, parameters, system, null);
  }

  private static Optional<CoordinateSystem> of(
      String code,
      String name,
      String parameters,
      CoordinateReferenceSystem system,
      DefaultGeographicBoundingBox where) {
    try {
      return Optional.of(
          new GeodeticSystem(
              code,
              name,
              parameters,
              system,
              CRS.findOperation(system, CommonCRS.WGS84.normalizedGeographic(), where)));
    } catch (FactoryException | TransformException | RuntimeException e) {
      return Optional.empty(); // a method that the library does not have: told as not known
    }
  }

  /**
   * The same system with the operation that is the best for where the data are: one datum is
   * shifted differently in different countries.
   */
  CoordinateSystem over(Envelope own) {
    if (own.isNull()) return this;
    Envelope world = new Envelope();
    for (int i = 0; i <= 4; i++)
      for (int k = 0; k <= 4; k++)
        unproject(
                new Coordinate(
                    own.getMinX() + own.getWidth() * i / 4,
                    own.getMinY() + own.getHeight() * k / 4))
            .ifPresent(world::expandToInclude);
    if (world.isNull()) return this;
    return of(
            code,
            name,
            parameters,
            system,
            new DefaultGeographicBoundingBox(
                world.getMinX(), world.getMaxX(), world.getMinY(), world.getMaxY()))
        .orElse(this);
  }

  private static boolean isNorthFirst(CoordinateReferenceSystem s) {
    return s.getCoordinateSystem().getAxis(0).getDirection().equals(AxisDirection.NORTH)
        && s.getCoordinateSystem().getAxis(1).getDirection().equals(AxisDirection.EAST);
  }

  CoordinateReferenceSystem definition() {
    return system;
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
    return system instanceof GeographicCRS;
  }

  @Override
  public boolean isWgs84() {
    return false; // that one is core's
  }

  @Override
  public OptionalDouble accuracyM() {
    return accuracy;
  }

  @Override
  public Optional<Coordinate> project(Coordinate world) {
    double[] c = {world.x, world.y};
    if (!through(fromWgs84, c)) return Optional.empty();
    return Optional.of(swap ? new Coordinate(c[1], c[0]) : new Coordinate(c[0], c[1]));
  }

  @Override
  public Optional<Coordinate> unproject(Coordinate own) {
    double[] c = swap ? new double[] {own.y, own.x} : new double[] {own.x, own.y};
    if (!through(toWgs84, c)) return Optional.empty();
    double lon = c[0] > 180 ? c[0] - 360 : c[0] < -180 ? c[0] + 360 : c[0];
    return GeometryJson.inRange(lon, c[1])
        ? Optional.of(new Coordinate(lon, c[1]))
        : Optional.empty();
  }

  private static boolean through(MathTransform t, double[] c) {
    try {
      t.transform(c, 0, c, 0, 1);
    } catch (TransformException e) {
      return false; // outside the projection's reach
    }
    return Double.isFinite(c[0]) && Double.isFinite(c[1]);
  }
}
