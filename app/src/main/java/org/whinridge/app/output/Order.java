package org.whinridge.app.output;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.said.Said;
import org.whinridge.formats.out.OutColumns;

/**
 * What is to be taken out, and how.
 *
 * @param filter a filter of the rules language; "" for all; only for a single layer
 * @param only ids of the features selected; empty for all
 * @param wkt whether tables have the place as WKT instead of two columns
 */
record Order(
    List<Layer> layers,
    Format format,
    String filter,
    Set<UUID> only,
    OutColumns.Codes codes,
    CoordinateSystem system,
    boolean wkt) {
  /** The formats, in the order in which they are offered. */
  enum Format {
    GPKG("gpkg", "application/geopackage+sqlite3", true),
    SHP("zip", "application/zip", false),
    GEOJSON("geojson", "application/geo+json", false),
    KML("kml", "application/vnd.google-earth.kml+xml", true),
    CSV("csv", "text/csv;charset=UTF-8", false),
    XLSX("xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", true);

    private final String ending;
    private final String type;
    private final boolean holdsSeveral;

    Format(String ending, String type, boolean holdsSeveral) {
      this.ending = ending;
      this.type = type;
      this.holdsSeveral = holdsSeveral;
    }

    public Said said() {
      return Said.of("format." + name());
    }

    public String id() {
      return name().toLowerCase(Locale.ROOT);
    }

    String ending() {
      return ending;
    }

    String type() {
      return type;
    }

    boolean holdsSeveral() {
      return holdsSeveral;
    }

    static Format of(String id) {
      for (Format f : values()) if (f.id().equals(id)) return f;
      throw Refusal.notFound("thing.outputFormat");
    }
  }

  Order {
    if (layers.isEmpty()) throw Refusal.refused("refused.chooseLayerToTakeOut");
    if (layers.size() > 1 && !(filter.isBlank() && only.isEmpty()))
      throw Refusal.refused("refused.filterOneLayerChoose");
    if (!system.code().startsWith("EPSG:"))
      throw Refusal.refused("refused.chooseCoordinateSystemEpsg");
  }

  /** Whether the file is a zip archive: a Shapefile, or several layers in a format for one. */
  boolean zipped() {
    return format == Format.SHP || layers.size() > 1 && !format.holdsSeveral();
  }

  /** The system of the file: KML is always WGS 84. */
  CoordinateSystem written() {
    return format == Format.KML ? CoordinateSystem.wgs84() : system;
  }

  /** The chosen system, or WGS 84. */
  static CoordinateSystem system(String code) {
    if (code.isBlank()) return CoordinateSystem.wgs84();
    Optional<CoordinateSystem> s =
        org.whinridge.formats.crs.CoordinateSystems.code(code.replaceAll(" .*", ""));
    return s.orElseThrow(() -> Refusal.refused("refused.unknownSystem", "system", code));
  }
}
