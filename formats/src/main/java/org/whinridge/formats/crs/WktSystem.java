package org.whinridge.formats.crs;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.apache.sis.referencing.CRS;
import org.apache.sis.referencing.crs.DefaultGeographicCRS;
import org.apache.sis.referencing.crs.DefaultProjectedCRS;
import org.apache.sis.referencing.datum.DatumOrEnsemble;
import org.apache.sis.referencing.operation.DefaultConversion;
import org.opengis.referencing.crs.CoordinateReferenceSystem;
import org.opengis.referencing.crs.GeographicCRS;
import org.opengis.referencing.crs.ProjectedCRS;
import org.opengis.referencing.crs.SingleCRS;
import org.opengis.referencing.operation.OperationMethod;
import org.opengis.util.FactoryException;
import org.whinridge.core.place.CoordinateSystem;

/**
 * The system that a well-known text means. A code or a name is only believed when what stands
 * behind it has the numbers of the text; without either, the numbers and the name of the datum find
 * it; else it is built as written, on the datum that its name means, and, where that is not known
 * either, with an accuracy that is not known.
 */
final class WktSystem {
  private static final List<String> COMPOUND = List.of("COMPD_CS", "COMPOUNDCRS", "BOUNDCRS");
  private final Wkt root;
  private final Optional<Signature> own;

  private WktSystem(Wkt root) {
    this.root = root;
    this.own = Signature.of(root);
  }

  static Optional<CoordinateSystem> of(String text) {
    return Wkt.parse(text).map(WktSystem::horizontal).flatMap(w -> new WktSystem(w).find(text));
  }

  private static Wkt horizontal(Wkt w) {
    return COMPOUND.contains(w.keyword())
        ? w.child("PROJCS", "GEOGCS", "PROJCRS", "GEOGCRS", "GEODCRS", "SOURCECRS").orElse(w)
        : w;
  }

  private Optional<CoordinateSystem> find(String text) {
    List<Integer> codes = new ArrayList<>();
    root.epsg().ifPresent(codes::add);
    codes.addAll(Epsg.named(root.name()));
    for (int code : codes)
      if (agrees(code)) {
        Optional<CoordinateSystem> s = CoordinateSystems.epsg(code);
        if (s.isPresent()) return s;
      }
    List<Integer> bases = bases();
    boolean geographic = root.keyword().equals("GEOGCS");
    for (int base : bases) {
      if (geographic && agrees(base)) return CoordinateSystems.epsg(base);
      if (!geographic)
        for (int code : ProjectedCodes.on(base, own))
          if (agrees(code)) return CoordinateSystems.epsg(code);
    }
    return built(text, bases);
  }

  private boolean agrees(int code) {
    Optional<Signature> known =
        Epsg.system(code)
            .flatMap(Signature::of)
            // those that the library lacks stand in the older list as texts
            .or(() -> CoordinateSystems.text(code).flatMap(Wkt::parse).flatMap(Signature::of));
    // a text without numbers that can be compared (WKT 2) is taken at its code or whole name
    return own.isEmpty() || known.isPresent() && own.get().agrees(known.get());
  }

  /** The geographic systems that the text may stand on: by code, by name, by datum. */
  private List<Integer> bases() {
    Optional<Wkt> geographic =
        root.keyword().startsWith("GEO")
            ? Optional.of(root)
            : root.child("GEOGCS", "BASEGEOGCRS", "BASEGEODCRS");
    List<Integer> out = new ArrayList<>();
    if (geographic.isEmpty()) return out;
    geographic.get().epsg().ifPresent(out::add);
    out.addAll(Epsg.named(geographic.get().name()));
    geographic
        .get()
        .child("DATUM", "TRF", "GEODETICDATUM")
        .ifPresent(d -> out.addAll(DatumNames.systems(d.name())));
    out.removeIf(code -> !standsOn(code));
    return out.stream().distinct().toList();
  }

  /** Whether a geographic system has the ellipsoid and prime meridian of the text. */
  private boolean standsOn(int code) {
    Optional<Signature> base =
        Epsg.system(code).filter(GeographicCRS.class::isInstance).flatMap(Signature::of);
    return base.isPresent()
        && (own.isEmpty()
            || Math.abs(base.get().a() - own.get().a()) < 0.5
                && Math.abs(base.get().rf() - own.get().rf()) < 1e-3
                && Math.abs(base.get().prime() - own.get().prime()) < 1e-6);
  }

  /**
   * The text as the library reads it: Lambert's projection with one parallel and a scale is called
   * by its full name, and the parallel, which is the origin's, is left out.
   */
  private String written(String text) {
    String s = text.replace("\uFEFF", "").strip();
    OptionalDouble first = parameter("standard_parallel_1");
    OptionalDouble origin = parameter("latitude_of_origin");
    boolean one =
        own.filter(x -> x.family().equals("lambert")).isPresent()
            && parameter("standard_parallel_2").isEmpty()
            && first.isPresent()
            && first.equals(origin);
    return one
        ? s.replaceFirst(
                "(?i)PROJECTION\\[\"[^\"]*\"", "PROJECTION[\"Lambert_Conformal_Conic_1SP\"")
            .replaceFirst("(?i)PARAMETER\\[\"standard_parallel_1\"[^\\]]*\\],", "")
        : s;
  }

  private OptionalDouble parameter(String name) {
    return root.children().stream()
        .filter(p -> p.keyword().equals("PARAMETER") && p.name().equalsIgnoreCase(name))
        .mapToDouble(p -> p.number(0, 0))
        .findFirst();
  }

  private Optional<CoordinateSystem> built(String text, List<Integer> bases) {
    String said = root.name().replace('_', ' ');
    try {
      SingleCRS s = CRS.getHorizontalComponent(CRS.fromWKT(written(text)));
      if (s == null) return Optional.empty();
      CoordinateReferenceSystem system = s;
      if (!bases.isEmpty()) {
        GeographicCRS base = (GeographicCRS) Epsg.system(bases.get(0)).orElseThrow();
        if (s instanceof ProjectedCRS p)
          system =
              new DefaultProjectedCRS(
                  Map.of("name", said),
                  base,
                  new DefaultConversion(
                      Map.of("name", said),
                      (OperationMethod) p.getConversionFromBase().getMethod(),
                      null,
                      p.getConversionFromBase().getParameterValues()),
                  p.getCoordinateSystem());
        else if (s instanceof GeographicCRS g)
          system =
              new DefaultGeographicCRS(
                  Map.of("name", said), DatumOrEnsemble.asDatum(base), g.getCoordinateSystem());
      }
      // a reader that leaves a parameter out would put everything somewhere else
      boolean same =
          own.isEmpty() || Signature.of(system).filter(x -> own.get().agrees(x)).isPresent();
      return same ? GeodeticSystem.of("", said, "", system) : Optional.empty();
    } catch (FactoryException | RuntimeException e) {

      return Optional.empty(); // told as a system that is not known here, by its name
    }
  }
}
