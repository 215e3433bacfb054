package org.whinridge.formats.shapefile;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.RandomAccessFile;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.formats.crs.CoordinateSystems;
import org.whinridge.formats.csv.CsvWriter;
import org.whinridge.formats.file.CantWrite;
import org.whinridge.formats.out.LayerWriter;
import org.whinridge.formats.out.OutColumns;
import org.whinridge.formats.out.OutLayer;

/**
 * Writes a layer as a Shapefile: .shp, .shx, .dbf, .prj, .cpg (UTF-8), and a table of the old and
 * new names of its columns, which have at most 10 characters; texts over 254 bytes, where a .dbf
 * column ends, and values that its column can't hold, also stand whole in a table beside it. Source
 * of the layout: the published Shapefile Technical Description (July 1998), from memory.
 */
public final class ShapefileWriter implements LayerWriter {
  private static final int TEXT = 254;
  private static final int NUMBER = 24;
  private static final long MOST_BYTES = Integer.MAX_VALUE - 1000L;

  private record Out(String name, char type, int length, int decimals, OutColumns.Column from) {}

  private final OutLayer layer;
  private final Path base;
  private final int type;
  private final List<Out> columns = new ArrayList<>();
  private final OutputStream shp;
  private final OutputStream shx;
  private final OutputStream dbf;
  private final int rowLength;
  private final Envelope extent = new Envelope();
  private final LocalDate day;
  private long shpBytes = 100;
  private int rows;
  private CSVPrinter whole;

  /**
   * Begins the files {@code folder/name.shp} and so on.
   *
   * @param day the day that the .dbf says it was changed
   */
  public ShapefileWriter(Path folder, String name, OutLayer layer, LocalDate day)
      throws IOException {
    this.layer = layer;
    this.base = folder.resolve(name);
    this.day = day;
    this.type =
        layer.schema().kind() == GeometryKind.LINE
            ? ShapeRecords.LINE
            : layer.schema().kind() == GeometryKind.POLYGON
                ? ShapeRecords.POLYGON
                : layer.schema().kind() == GeometryKind.TABLE
                    ? ShapeRecords.NULL
                    : layer.multi() ? ShapeRecords.MULTIPOINT : ShapeRecords.POINT;
    Map<String, String> names = shortNames(layer.columns());
    for (OutColumns.Column c : layer.columns())
      columns.add(out(names.get(c.name()), c, layer.mixed().contains(c.field().name())));
    if (columns.isEmpty()) columns.add(new Out("ID", 'C', 36, 0, null));
    rowLength = 1 + columns.stream().mapToInt(Out::length).sum();
    shp = open(".shp");
    shx = open(".shx");
    dbf = open(".dbf");
    shp.write(new byte[100]);
    shx.write(new byte[100]);
    dbf.write(dbfHead());
    Files.writeString(part(".cpg"), "UTF-8");
    Optional<String> prj = CoordinateSystems.text(layer.system());
    if (prj.isPresent()) Files.writeString(part(".prj"), prj.get());
    StringBuilder table =
        new StringBuilder(String.join(",", ShapefileCompanions.NAMES_HEAD) + "\r\n");
    for (OutColumns.Column c : layer.columns())
      table
          .append(names.get(c.name()))
          .append(',')
          .append(c.name())
          .append(",\"")
          .append(c.field().label().replace("\"", "\"\""))
          .append("\"\r\n");
    Files.writeString(part(ShapefileCompanions.NAMES), table);
  }

  private Path part(String ending) {
    return base.resolveSibling(base.getFileName() + ending);
  }

  private OutputStream open(String ending) throws IOException {
    return new BufferedOutputStream(Files.newOutputStream(part(ending)), 1 << 16);
  }

  private static Out out(String name, OutColumns.Column c, boolean mixed) {
    if (mixed) return new Out(name, 'C', TEXT, 0, c);
    switch (c.type()) {
      case WHOLE:
        return new Out(name, 'N', 18, 0, c);
      case DECIMAL:
        return new Out(name, 'N', NUMBER, 15, c);
      case YES_NO:
        return new Out(name, 'L', 1, 0, c);
      case DATE:
        return new Out(name, 'D', 8, 0, c);
      default:
        return new Out(name, 'C', TEXT, 0, c);
    }
  }

  /** Names of at most 10 letters, digits and underscores, none twice whatever their case. */
  public static Map<String, String> shortNames(List<OutColumns.Column> columns) {
    Map<String, String> out = new LinkedHashMap<>();
    List<String> taken = new ArrayList<>();
    for (OutColumns.Column c : columns) {
      String s = c.name().substring(0, Math.min(10, c.name().length()));
      for (int i = 1; taken.contains(s.toUpperCase(Locale.ROOT)); i++) {
        String end = "_" + i;
        s = c.name().substring(0, Math.min(10 - end.length(), c.name().length())) + end;
      }
      taken.add(s.toUpperCase(Locale.ROOT));
      out.put(c.name(), s);
    }
    return out;
  }

  @Override
  public void add(Feature f) throws IOException {
    Optional<Geometry> g = layer.geometry(f);
    g.ifPresent(x -> extent.expandToInclude(x.getEnvelopeInternal()));
    byte[] content = ShapeRecords.write(g, type);
    rows++;
    if (shpBytes + content.length + 8 > MOST_BYTES) throw new CantWrite("file.write.shapefile");
    shp.write(ByteBuffer.allocate(8).putInt(rows).putInt(content.length / 2).array());
    shp.write(content);
    shx.write(
        ByteBuffer.allocate(8).putInt((int) (shpBytes / 2)).putInt(content.length / 2).array());
    shpBytes += 8 + content.length;
    byte[] row = new byte[rowLength];
    Arrays.fill(row, (byte) ' ');
    int at = 1;
    for (Out c : columns) {
      put(row, at, c, c.from == null ? Value.text(f.id()) : c.from.of(f), f);
      at += c.length;
    }
    dbf.write(row);
  }

  private void put(byte[] row, int at, Out c, Value v, Feature f) throws IOException {
    if (v.isEmpty()) {
      if (c.type == 'L') row[at] = '?';
      return;
    }
    if (c.type == 'L' && v instanceof Value.Bool b) row[at] = (byte) (b.value() ? 'T' : 'F');
    else if (c.type == 'D'
        && v instanceof Value.Day d
        && d.value().getYear() > 0
        && d.value().getYear() < 10_000) ascii(row, at, d.value().toString().replace("-", ""));
    else if (c.type == 'N' && v instanceof Value.Num n) {
      String s = number(n.value(), c);
      // too wide as digits: with an exponent, as every reader of numbers takes it
      if (s.length() > c.length) s = Double.toString(n.value());
      ascii(row, at + c.length - s.length(), s);
    } else if (c.type == 'C') text(row, at, c, OutColumns.text(v), f);
    else keepWhole(c, OutColumns.text(v), f); // the cell stays empty; nothing is lost
  }

  /** The shortest exact text when it fits the width, else as many decimals as there is room for. */
  private static String number(double d, Out c) {
    String s = Numbers.plain(d);
    int whole = s.indexOf('.') < 0 ? s.length() : s.indexOf('.');
    return s.length() <= c.length || whole + 2 > c.length
        ? s
        : new BigDecimal(s).setScale(c.length - whole - 1, RoundingMode.HALF_UP).toPlainString();
  }

  private static void ascii(byte[] row, int at, String s) {
    byte[] b = s.getBytes(StandardCharsets.US_ASCII);
    System.arraycopy(b, 0, row, at, b.length);
  }

  private void text(byte[] row, int at, Out c, String s, Feature f) throws IOException {
    byte[] b = s.getBytes(StandardCharsets.UTF_8);
    int n = b.length;
    if (n > c.length) {
      keepWhole(c, s, f);
      n = c.length;
      while (n > 0 && (b[n] & 0xC0) == 0x80) n--;
    }
    System.arraycopy(b, 0, row, at, n);
  }

  /** A .dbf column ends at 254 bytes; the whole text goes to a table beside it, so none is lost. */
  private void keepWhole(Out c, String s, Feature f) throws IOException {
    if (whole == null) {
      whole =
          new CSVPrinter(
              Files.newBufferedWriter(part(ShapefileCompanions.WHOLE)), CSVFormat.RFC4180);
      whole.printRecord(ShapefileCompanions.WHOLE_HEAD);
    }
    whole.printRecord(rows, f.id(), c.name, CsvWriter.harmless(s));
  }

  private byte[] dbfHead() {
    ByteBuffer b = ShapeRecords.little(33 + 32 * columns.size());
    b.put((byte) 3)
        .put((byte) (day.getYear() - 1900))
        .put((byte) day.getMonthValue())
        .put((byte) day.getDayOfMonth());
    b.putInt(rows).putShort((short) (33 + 32 * columns.size())).putShort((short) rowLength);
    for (int i = 0; i < columns.size(); i++) {
      Out c = columns.get(i);
      b.position(32 + 32 * i).put(c.name.getBytes(StandardCharsets.US_ASCII));
      b.position(32 + 32 * i + 11)
          .put((byte) c.type)
          .putInt(0)
          .put((byte) c.length)
          .put((byte) c.decimals);
    }
    b.position(32 + 32 * columns.size()).put((byte) 13);
    return b.array();
  }

  private byte[] head(long bytes) {
    ByteBuffer b = ByteBuffer.allocate(100).putInt(9994);
    b.position(24)
        .putInt((int) (bytes / 2))
        .order(java.nio.ByteOrder.LITTLE_ENDIAN)
        .putInt(1000)
        .putInt(type);
    if (!extent.isNull())
      b.putDouble(extent.getMinX())
          .putDouble(extent.getMinY())
          .putDouble(extent.getMaxX())
          .putDouble(extent.getMaxY());
    return b.array();
  }

  @Override
  public void close() throws IOException {
    try (shp;
        shx;
        dbf) {
      dbf.write(0x1A);
    } finally {
      if (whole != null) whole.close(true);
    }
    patch(".shp", head(shpBytes));
    patch(".shx", head(100 + 8L * rows));
    patch(".dbf", dbfHead());
    if (type == ShapeRecords.NULL) {
      Files.delete(part(".shp"));
      Files.delete(part(".shx"));
      Files.deleteIfExists(part(".prj"));
    }
  }

  private void patch(String ending, byte[] head) throws IOException {
    try (RandomAccessFile r = new RandomAccessFile(part(ending).toFile(), "rw")) {
      r.write(head);
    }
  }
}
