package org.whinridge.core.place;

import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.proj4j.CRSFactory;
import org.locationtech.proj4j.CoordinateReferenceSystem;
import org.locationtech.proj4j.CoordinateTransform;
import org.locationtech.proj4j.CoordinateTransformFactory;
import org.locationtech.proj4j.Proj4jException;
import org.locationtech.proj4j.ProjCoordinate;

/**
 * The coordinate system in which a project types and shows coordinates; features themselves stay in
 * WGS 84.
 */
public final class ProjectSystem {
  private final String code;
  private final CoordinateTransform fromWgs84;

  private ProjectSystem(String code, CoordinateTransform fromWgs84) {
    this.code = code;
    this.fromWgs84 = fromWgs84;
  }

  /**
   * A system from its code (such as EPSG:32629, for people) and its definition as proj parameters;
   * empty when the parameters can't be understood.
   */
  public static Optional<ProjectSystem> of(String code, String parameters) {
    try {
      CRSFactory crs = new CRSFactory();
      CoordinateReferenceSystem wgs84 =
          crs.createFromParameters("WGS84", "+proj=longlat +datum=WGS84 +no_defs");
      CoordinateReferenceSystem own = crs.createFromParameters(code, parameters);
      return Optional.of(
          new ProjectSystem(code, new CoordinateTransformFactory().createTransform(wgs84, own)));
    } catch (Proj4jException | IllegalStateException e) {
      return Optional.empty();
    }
  }

  /** UTM on WGS 84, zone 1 to 60, northern half; its code is EPSG:326nn. */
  public static ProjectSystem utmNorth(int zone) {
    return of(
            "EPSG:" + (32600 + zone), "+proj=utm +zone=" + zone + " +datum=WGS84 +units=m +no_defs")
        .orElseThrow();
  }

  /** The code, such as EPSG:32629. */
  public String code() {
    return code;
  }

  /**
   * Easting (x) and northing (y) in the system's unit; empty where the projection is not defined.
   */
  public Optional<Coordinate> project(Coordinate wgs84) {
    ProjCoordinate out = new ProjCoordinate();
    try {
      fromWgs84.transform(new ProjCoordinate(wgs84.x, wgs84.y), out);
    } catch (Proj4jException e) {
      return Optional.empty(); // outside the projection's reach
    }
    return Double.isNaN(out.x) || Double.isInfinite(out.x)
        ? Optional.empty()
        : Optional.of(new Coordinate(out.x, out.y));
  }
}
