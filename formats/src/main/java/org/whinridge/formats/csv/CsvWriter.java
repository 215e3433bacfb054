package org.whinridge.formats.csv;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.WKTWriter;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.formats.out.LayerWriter;
import org.whinridge.formats.out.OutColumns;
import org.whinridge.formats.out.OutLayer;

/**
 * Writes a layer as CSV (RFC 4180) in UTF-8 with a mark, so that spreadsheets read it right. The
 * place stands in two columns x and y, or as WKT.
 */
public final class CsvWriter implements LayerWriter {
  /** Also behind blanks and breaks, and full width: spreadsheets differ in what they overlook. */
  private static final Pattern FORMULA =
      Pattern.compile("^'*(?:[\t\r\n]|[\\p{Z}\\p{Cc}\\p{Cf}]*[=+\\-@\uff1d\uff0b\uff0d\uff20])");

  private final CSVPrinter csv;
  private final OutLayer layer;
  private final List<OutColumns.Column> columns;
  private final boolean wkt;

  /** Begins the file; lines and polygons are always WKT. */
  public CsvWriter(OutputStream out, OutLayer layer, boolean wkt) throws IOException {
    this.layer = layer;
    this.columns = layer.columns();
    this.wkt = wkt || layer.schema().kind() != GeometryKind.POINT;
    Writer w = new BufferedWriter(new OutputStreamWriter(out, StandardCharsets.UTF_8), 1 << 16);
    w.write('\uFEFF');
    csv = new CSVPrinter(w, CSVFormat.RFC4180);
    List<String> head = new ArrayList<>();
    head.add("feature_id");
    columns.forEach(c -> head.add(c.name()));
    head.addAll(PlaceCells.names(layer, this.wkt));
    csv.printRecord(head);
  }

  @Override
  public void add(Feature f) throws IOException {
    List<Object> row = new ArrayList<>();
    row.add(f.id());
    for (OutColumns.Column c : columns) {
      Value v = c.of(f);
      row.add(v instanceof Value.Num ? v.plain() : harmless(OutColumns.text(v)));
    }
    row.addAll(PlaceCells.texts(layer, f, wkt));
    csv.printRecord(row);
  }

  /**
   * A text that a spreadsheet would take for a formula gets an apostrophe before it, and so does
   * one that has such apostrophes already, so that reading takes exactly one away again.
   */
  public static String harmless(String s) {
    return FORMULA.matcher(s).find() && Numbers.read(s).isEmpty() ? "'" + s : s;
  }

  /** Takes away what {@link #harmless} put before a text. */
  public static String original(String s) {
    return s.startsWith("'") && FORMULA.matcher(s).find() ? s.substring(1) : s;
  }

  @Override
  public void close() throws IOException {
    csv.close(true);
  }

  /** The columns of the place in plain tables. */
  public static final class PlaceCells {
    private PlaceCells() {}

    /** The names of the columns that hold the place. */
    public static List<String> names(OutLayer layer, boolean wkt) {
      if (layer.schema().kind() == GeometryKind.TABLE) return List.of();
      if (wkt) return List.of(free(layer, "wkt"));
      return layer.system().isInDegrees()
          ? List.of(free(layer, "longitude"), free(layer, "latitude"))
          : List.of(free(layer, "easting"), free(layer, "northing"));
    }

    private static String free(OutLayer layer, String name) {
      return layer.schema().field(name).isEmpty() ? name : name + "_";
    }

    /** The texts of the columns that hold the place. */
    public static List<String> texts(OutLayer layer, Feature f, boolean wkt) throws IOException {
      if (layer.schema().kind() == GeometryKind.TABLE) return List.of();
      Optional<Geometry> g = layer.geometry(f);
      if (wkt) return List.of(g.map(x -> new WKTWriter().write(x)).orElse(""));
      if (g.isEmpty()) return List.of("", "");
      Coordinate c = g.get().getCoordinate();
      return List.of(Numbers.plain(c.x), Numbers.plain(c.y));
    }
  }
}
