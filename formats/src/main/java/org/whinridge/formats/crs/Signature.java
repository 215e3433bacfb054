package org.whinridge.formats.crs;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javax.measure.IncommensurableException;
import javax.measure.Unit;
import org.apache.sis.measure.Units;
import org.apache.sis.referencing.datum.DatumOrEnsemble;
import org.opengis.parameter.GeneralParameterValue;
import org.opengis.parameter.ParameterValue;
import org.opengis.referencing.crs.CoordinateReferenceSystem;
import org.opengis.referencing.crs.GeodeticCRS;
import org.opengis.referencing.crs.ProjectedCRS;
import org.opengis.referencing.datum.Ellipsoid;
import org.opengis.referencing.datum.PrimeMeridian;

/**
 * What a coordinate system comes to in numbers, whatever it is called: family of projection, its
 * parameters in degrees, metres and ratios, ellipsoid, prime meridian, unit. Two texts that mean
 * one system have one signature, though publishers call its parts differently.
 *
 * @param family of projections, "" for degrees
 * @param numbers the parameters that are neither 0 nor 1, each once
 * @param a the ellipsoid's longer half axis in metres
 * @param rf its inverse flattening, 0 for a sphere
 * @param unit metres, or degrees, of one unit of the coordinates
 * @param prime longitude of the prime meridian in degrees
 */
record Signature(
    String family, List<Double> numbers, double a, double rf, double unit, double prime) {
  private static final double DEGREE = Math.toDegrees(1);

  /** Whether both put positions at the same place, but for the shift of the datum. */
  boolean agrees(Signature o) {
    return family.equals(o.family)
        && Math.abs(a - o.a) < 0.5
        && Math.abs(rf - o.rf) < 1e-3
        && Math.abs(unit / o.unit - 1) < 1e-7
        && Math.abs(prime - o.prime) < 1e-6
        && has(o.numbers)
        && o.has(numbers);
  }

  private boolean has(List<Double> others) {
    for (double d : others) {
      boolean found = false;
      for (double n : numbers)
        found |= Math.abs(d - n) <= 1e-8 + 1e-9 * Math.max(Math.abs(d), Math.abs(n));
      if (!found) return false;
    }
    return true;
  }

  /** Of WKT 1; empty for WKT 2 and for what lacks an ellipsoid. */
  static Optional<Signature> of(Wkt root) {
    boolean projected = root.keyword().equals("PROJCS");
    Optional<Wkt> geographic =
        projected
            ? root.child("GEOGCS")
            : root.keyword().equals("GEOGCS") ? Optional.of(root) : Optional.empty();
    Optional<Wkt> spheroid =
        geographic.flatMap(g -> g.child("DATUM")).flatMap(d -> d.child("SPHEROID"));
    if (spheroid.isEmpty()) return Optional.empty();
    double degrees = geographic.get().child("UNIT").map(u -> u.number(0, 1)).orElse(1.0) * DEGREE;
    double metres = root.child("UNIT").map(u -> u.number(0, 1)).orElse(1.0);
    List<Double> numbers = new ArrayList<>();
    String method = root.child("PROJECTION").map(Wkt::name).orElse("");
    String family = family(method);
    for (Wkt p : root.children())
      if (p.keyword().equals("PARAMETER")) {
        String n = p.name().toLowerCase(Locale.ROOT);
        double v = p.number(0, 0);
        boolean plain = n.contains("scale") || n.contains("sphere_type") || n.contains("option");
        // .prj files write axes to the west and south as a scale below nought
        if (n.equals("scale_factor") && v < 0) family = "transverse, south";
        add(numbers, plain ? v : n.startsWith("false_") ? v * metres : v * degrees, n);
      }
    return Optional.of(
        new Signature(
            family,
            numbers,
            spheroid.get().number(0, 0),
            spheroid.get().number(1, 0),
            projected ? metres : degrees,
            prime(geographic.get(), degrees)));
  }

  /** The standard wants the geographic unit, but grads of Paris are often written as degrees. */
  private static double prime(Wkt geographic, double degrees) {
    double p = geographic.child("PRIMEM").map(m -> m.number(0, 0)).orElse(0.0);
    boolean paris = Math.abs(p - PARIS_DEGREES) < 1e-4;
    return paris ? p : p * degrees;
  }

  private static final double PARIS_DEGREES = 2.33722917;

  /** Of a system of the library. */
  static Optional<Signature> of(CoordinateReferenceSystem s) {
    if (!(s instanceof GeodeticCRS) && !(s instanceof ProjectedCRS)) return Optional.empty();
    Optional<Ellipsoid> ellipsoid = DatumOrEnsemble.getEllipsoid(s);
    Optional<PrimeMeridian> prime = DatumOrEnsemble.getPrimeMeridian(s);
    if (ellipsoid.isEmpty() || prime.isEmpty()) return Optional.empty();
    Ellipsoid e = ellipsoid.get();
    List<Double> numbers = new ArrayList<>();
    String family = "";
    Unit<?> unit = s.getCoordinateSystem().getAxis(0).getUnit();
    try {
      if (s instanceof ProjectedCRS p) {
        family = family(p.getConversionFromBase().getMethod().getName().getCode());
        for (GeneralParameterValue g : p.getConversionFromBase().getParameterValues().values())
          if (g instanceof ParameterValue<?> v && v.getValue() instanceof Number) {
            Unit<?> u = v.getUnit();
            add(
                numbers,
                u == null || Units.UNITY.equals(u)
                    ? v.doubleValue()
                    : Units.isAngular(u) ? v.doubleValue(Units.DEGREE) : v.doubleValue(Units.METRE),
                v.getDescriptor().getName().getCode().toLowerCase(Locale.ROOT));
          }
      }
      return Optional.of(
          new Signature(
              family,
              numbers,
              e.getAxisUnit().getConverterTo(Units.METRE).convert(e.getSemiMajorAxis()),
              e.isSphere() ? 0 : e.getInverseFlattening(),
              unit.getConverterToAny(s instanceof ProjectedCRS ? Units.METRE : Units.DEGREE)
                  .convert(1.0),
              prime
                  .get()
                  .getAngularUnit()
                  .getConverterTo(Units.DEGREE)
                  .convert(prime.get().getGreenwichLongitude())));
    } catch (IncommensurableException | IllegalStateException x) {
      return Optional.empty(); // units that can't be compared: told by code or name alone
    }
  }

  /** What a parameter adds: what says nothing (0, 1) and how the plane is turned are left out. */
  private static void add(List<Double> numbers, double v, String name) {
    boolean turned = name.contains("plane_rotation") || name.contains("rectified");
    if (name.startsWith("semi_")) return; // the ellipsoid is compared by itself
    boolean same = v == 0 || Math.abs(Math.abs(v) - 1) < 1e-12;
    if (!same && !turned && !numbers.contains(v)) numbers.add(v);
  }

  /** The family of a projection by any of the names that WKT has for it. */
  static String family(String method) {
    String m = method.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", "");
    if (m.contains("transversemercator") || m.contains("gausskruger"))
      return m.contains("south") ? "transverse, south" : "transverse";
    if (m.contains("pseudomercator") || m.contains("auxiliarysphere")) return "web";
    if (m.contains("hotine") || m.contains("rectifiedskew"))
      return m.contains("center") || m.contains("variantb")
          ? "oblique, centre"
          : "oblique, natural";
    if (m.contains("krovak")) return m.contains("north") ? "krovak, north" : "krovak";
    if (m.contains("lambertconformal") || m.contains("lambertconicconformal")) return "lambert";
    if (m.contains("albers")) return "albers";
    if (m.contains("azimuthalequalarea")) return "equal area";
    if (m.contains("cassini")) return "cassini";
    if (m.contains("stereographic"))
      return m.contains("polar") || m.contains("pole") ? "polar" : "stereographic";
    return m.startsWith("mercator") ? "mercator" : m;
  }
}
