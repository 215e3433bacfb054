package org.whinridge.formats.crs;

import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.whinridge.core.place.CoordinateSystem;

/** A system out of the parameters of WKT 1, for texts that name no authority. */
final class WktParameters {
  private static final String SPHERE =
      "+proj=merc +a=6378137 +b=6378137 +lat_ts=0 +lon_0=%s +x_0=%s +y_0=%s +k=1 +units=m +nadgrids=@null +no_defs";

  /** What EPSG:3857 comes to in these parameters. */
  static final String WEB_MERCATOR = String.format(Locale.ROOT, SPHERE, 0.0, 0.0, 0.0);

  private final Map<String, Double> parameters = new TreeMap<>();
  private final double unit;

  private WktParameters(Wkt root) {
    for (Wkt p : root.children())
      if (p.keyword().equals("PARAMETER"))
        parameters.put(p.name().toLowerCase(Locale.ROOT).replace(' ', '_'), p.number(0, 0));
    unit = root.child("UNIT").map(u -> u.number(0, 1)).orElse(1.0);
  }

  static Optional<CoordinateSystem> of(Wkt root) {
    boolean geographic = root.keyword().equals("GEOGCS");
    Optional<Wkt> geog = geographic ? Optional.of(root) : root.child("GEOGCS");
    Optional<Wkt> datum = geog.flatMap(g -> g.child("DATUM"));
    Optional<Wkt> spheroid = datum.flatMap(d -> d.child("SPHEROID"));
    if (spheroid.isEmpty()) return Optional.empty();
    String proj;
    if (geographic) proj = "+proj=longlat";
    else {
      Optional<String> p = new WktParameters(root).projection(root);
      if (p.isEmpty()) return Optional.empty();
      proj = p.get();
    }
    if (proj.contains("@null")) return CoordinateSystem.of("", said(root), proj);
    return CoordinateSystem.of(
        "",
        said(root),
        proj + " " + datum(datum.get(), spheroid.get()) + prime(geog.get()) + " +no_defs");
  }

  private static String said(Wkt root) {
    return root.name().replace('_', ' ');
  }

  private static String prime(Wkt geog) {
    double p = geog.child("PRIMEM").map(m -> m.number(0, 0)).orElse(0.0);
    return p == 0 ? "" : " +pm=" + p;
  }

  private static String datum(Wkt datum, Wkt spheroid) {
    Optional<Wkt> shift = datum.child("TOWGS84");
    if (shift.isEmpty()) {
      Optional<String> known = CoordinateSystems.datum(datum.name());
      if (known.isPresent()) return known.get();
    }
    double a = spheroid.number(0, 6378137);
    double rf = spheroid.number(1, 298.257223563);
    String towgs84 =
        shift
            .map(s -> s.numbers().stream().map(String::valueOf).collect(Collectors.joining(",")))
            .orElse("0,0,0,0,0,0,0");
    return "+a=" + a + " +b=" + (rf == 0 ? a : a * (1 - 1 / rf)) + " +towgs84=" + towgs84;
  }

  private double first(double or, String... names) {
    for (String n : names) if (parameters.containsKey(n)) return parameters.get(n);
    return or;
  }

  private Optional<String> projection(Wkt root) {
    String method =
        root.child("PROJECTION")
            .map(p -> p.name().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", ""))
            .orElse("");
    double lon =
        first(
            0,
            "central_meridian",
            "longitude_of_center",
            "longitude_of_origin",
            "longitude_of_centre");
    double lat =
        first(
            0,
            "latitude_of_origin",
            "latitude_of_center",
            "latitude_of_centre",
            "latitude_of_natural_origin");
    double k = first(1, "scale_factor");
    double east = first(0, "false_easting") * unit;
    double north = first(0, "false_northing") * unit;
    String centre = " +lat_0=" + lat + " +lon_0=" + lon + " +x_0=" + east + " +y_0=" + north;
    double s1 = first(lat, "standard_parallel_1");
    double s2 = first(s1, "standard_parallel_2");
    String m = unit == 1 ? " +units=m" : " +to_meter=" + unit;
    switch (method) {
      case "transversemercator", "gausskruger":
        return Optional.of("+proj=tmerc" + centre + " +k=" + k + m);
      case "lambertconformalconic", "lambertconformalconic1sp", "lambertconformalconic2sp":
        return Optional.of(
            "+proj=lcc +lat_1=" + s1 + " +lat_2=" + s2 + centre + (k == 1 ? "" : " +k_0=" + k) + m);
      case "albers", "albersconicequalarea":
        return Optional.of("+proj=aea +lat_1=" + s1 + " +lat_2=" + s2 + centre + m);
      case "lambertazimuthalequalarea":
        return Optional.of("+proj=laea" + centre + m);
      case "mercatorauxiliarysphere", "popularvisualisationpseudomercator":
        return Optional.of(String.format(Locale.ROOT, SPHERE, lon, east, north));
      case "mercator", "mercator1sp", "mercator2sp":
        return Optional.of(
            "+proj=merc +lat_ts=" + first(0, "standard_parallel_1") + centre + " +k=" + k + m);
      case "doublestereographic", "obliquestereographic":
        return Optional.of("+proj=sterea" + centre + " +k=" + k + m);
      case "stereographic",
      "polarstereographic",
      "stereographicnorthpole",
      "stereographicsouthpole":
        return Optional.of(
            "+proj=stere"
                + centre
                + " +lat_ts="
                + first(90, "standard_parallel_1")
                + " +k="
                + k
                + m);
      case "hotineobliquemercatorazimuthcenter", "hotineobliquemercator":
        return Math.abs(first(90, "azimuth") - 90) < 1e-9
            ? Optional.of("+proj=somerc" + centre + " +k_0=" + k + m)
            : Optional.empty();
      default:
        return Optional.empty();
    }
  }
}
