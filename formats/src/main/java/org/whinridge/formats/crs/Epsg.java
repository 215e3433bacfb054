package org.whinridge.formats.crs;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.logging.Level;
import java.util.logging.Logger;
import org.apache.sis.referencing.CRS;
import org.opengis.referencing.crs.CRSAuthorityFactory;
import org.opengis.referencing.crs.CoordinateReferenceSystem;
import org.opengis.referencing.crs.GeographicCRS;
import org.opengis.referencing.crs.ProjectedCRS;
import org.opengis.referencing.crs.SingleCRS;
import org.opengis.util.FactoryException;

/**
 * The EPSG dataset (IOGP) as Apache SIS ships it, opened at the first question: systems by code and
 * by name. Horizontal systems only: geographic of two axes, and projected ones.
 */
final class Epsg {
  private static final Logger QUIET = Logger.getLogger("org.apache.sis");
  private static final Map<Integer, Optional<CoordinateReferenceSystem>> READ =
      new ConcurrentHashMap<>();

  private Epsg() {}

  static {
    QUIET.setLevel(Level.OFF); // what it warns of is told by results here
    System.setProperty("derby.stream.error.method", CoordinateSystems.class.getName() + ".unread");
  }

  /** The name of each system by its code. */
  static Map<Integer, String> names() {
    return Names.ALL;
  }

  /** Codes of the systems with a name, as far as it matters ({@link #simple}). */
  static List<Integer> named(String name) {
    return Names.BY_NAME.getOrDefault(simple(name), List.of());
  }

  /** The system with a code; empty when there is none that can be computed with. */
  static Optional<CoordinateReferenceSystem> system(int code) {
    return READ.computeIfAbsent(code, Epsg::read);
  }

  private static Optional<CoordinateReferenceSystem> read(int code) {
    try {
      SingleCRS s = CRS.getHorizontalComponent(CRS.forCode("EPSG:" + code));
      return Optional.ofNullable(s);
    } catch (FactoryException | RuntimeException e) {
      return Optional.empty(); // a code that is not there, or of a method that is not known
    }
  }

  /** A name as far as it matters: small letters and digits, years cut to two. */
  static String simple(String name) {
    return name.toLowerCase(Locale.ROOT)
        .replaceFirst("^(gcs|d)_", "")
        .replaceAll("(?<!\\d)19(\\d\\d)(?!\\d)", "$1")
        .replaceAll("[^a-z0-9]", "");
  }

  /** Loaded at first use: two to six seconds, for all names at once. */
  private static final class Names {
    static final Map<Integer, String> ALL = new TreeMap<>();
    static final Map<String, List<Integer>> BY_NAME = new LinkedHashMap<>();

    static {
      try {
        CRSAuthorityFactory f = CRS.getAuthorityFactory("EPSG");
        for (Class<? extends CoordinateReferenceSystem> kind :
            List.<Class<? extends CoordinateReferenceSystem>>of(
                GeographicCRS.class, ProjectedCRS.class))
          for (String code : f.getAuthorityCodes(kind))
            ALL.put(Integer.valueOf(code), String.valueOf(f.getDescriptionText(code)));
      } catch (FactoryException e) {
        throw new IllegalStateException("the EPSG dataset can't be read", e);
      }
      ALL.forEach(
          (code, name) ->
              BY_NAME.merge(
                  simple(name),
                  List.of(code),
                  (a, b) -> java.util.stream.Stream.concat(a.stream(), b.stream()).toList()));
    }
  }
}
