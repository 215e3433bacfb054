package org.whinridge.formats.crs;

import java.util.Optional;
import java.util.OptionalDouble;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.CoordinateSystem;

/**
 * A system whose projection the geodetic library lacks (Krovak, the New Zealand Map Grid): the
 * projection by proj4j on its ellipsoid, the shift of the datum by the library.
 *
 * @param plane the projection, without a shift
 * @param base the geographic system that it stands on, in degrees from Greenwich
 * @param southAndWest whether its coordinates count to the south and then to the west, as those of
 *     the older Krovak do
 */
record ByParts(
    String code,
    String name,
    String parameters,
    CoordinateSystem plane,
    CoordinateSystem base,
    boolean southAndWest)
    implements CoordinateSystem {
  /** By a code; empty when proj4j does not have its projection, or its base is not known. */
  static Optional<CoordinateSystem> of(int code, String name, String parameters) {
    Optional<Integer> base = ProjectedCodes.base(code);
    boolean greenwich = !parameters.matches(".*\\+pm=(?!greenwich).*");
    if (base.isEmpty() || !greenwich || parameters.contains("+axis=")) return Optional.empty();
    Optional<CoordinateSystem> plane =
        CoordinateSystem.of("", "", parameters.replaceAll("\\+(towgs84|nadgrids)=\\S+", ""));
    Optional<CoordinateSystem> geographic = CoordinateSystems.epsg(base.get());
    if (plane.isEmpty() || geographic.isEmpty() || parameters.contains("+datum="))
      return Optional.empty();
    return Optional.of(
        new ByParts(
            "EPSG:" + code,
            name,
            parameters,
            plane.get(),
            geographic.get(),
            parameters.contains("+proj=krovak") && !name.contains("East North")));
  }

  @Override
  public boolean isInDegrees() {
    return false;
  }

  @Override
  public boolean isWgs84() {
    return false;
  }

  @Override
  public OptionalDouble accuracyM() {
    return base.accuracyM();
  }

  @Override
  public Optional<Coordinate> project(Coordinate world) {
    return base.project(world).flatMap(plane::project).map(this::turned);
  }

  @Override
  public Optional<Coordinate> unproject(Coordinate own) {
    return plane.unproject(turned(own)).flatMap(base::unproject);
  }

  private Coordinate turned(Coordinate c) {
    return southAndWest ? new Coordinate(-c.y, -c.x) : c;
  }
}
