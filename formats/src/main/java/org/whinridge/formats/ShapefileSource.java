package org.whinridge.formats;

import java.io.BufferedInputStream;
import java.io.DataInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.value.Value;
import org.whinridge.formats.crs.CoordinateSystems;

/** A Shapefile of its parts: .shp and .dbf, with .prj and .cpg when they are there. */
final class ShapefileSource implements Source {
  private static final int LONGEST_RECORD = 1 << 28;

  private final String name;
  private final Path shp;
  private final Path dbf;
  private final Optional<Charset> named;
  private final SourceLayer layer;

  /** The parts by their ending: "shp", "dbf", "prj", "cpg". */
  ShapefileSource(String name, Map<String, Path> parts) throws FileProblem, IOException {
    this.name = name;
    this.shp = parts.get("shp");
    this.dbf = parts.get("dbf");
    if (dbf == null)
      throw new FileProblem(
          "The .dbf that belongs to it is missing: without it there are no attributes. Bring in all parts of the Shapefile together.");
    this.named = parts.containsKey("cpg") ? Encodings.named(text(parts.get("cpg"))) : sniffed();
    Optional<CoordinateSystem> system = Optional.empty();
    String said = "no .prj";
    if (parts.containsKey("prj")) {
      String wkt = text(parts.get("prj"));
      system = CoordinateSystems.wkt(wkt);
      said = system.map(CoordinateSystem::name).orElse(Limits.cut(wkt.strip(), 100));
    }
    List<String> notes = new ArrayList<>();
    int type = type();
    if (type > 10)
      notes.add("Heights or measures (Z, M) are left out; positions are read as x and y.");
    try (Dbf d = new Dbf(dbf, named)) {
      Limits.columns(d.columns().size(), "The .dbf");
      String how =
          parts.containsKey("cpg") && named.isPresent()
              ? "by the .cpg"
              : named.isPresent()
                  ? "since all of it reads so"
                  : d.driverSays() ? "by the .dbf" : "since nothing says otherwise";
      layer =
          new SourceLayer(
              FileNames.stem(name),
              system,
              said,
              d.charset().name() + ", " + how,
              d.rows(),
              false,
              notes);
    }
  }

  /** Without a .cpg and a language driver: UTF-8 when all of the table is sound UTF-8. */
  private Optional<Charset> sniffed() throws IOException, FileProblem {
    try (Dbf d = new Dbf(dbf, Optional.empty())) {
      if (d.driverSays()) return Optional.empty();
      try (var in = new BufferedInputStream(Files.newInputStream(dbf))) {
        in.skipNBytes(Math.min(Files.size(dbf), 33 + 32L * d.columns().size()));
        return Encodings.isUtf8(in) ? Optional.of(StandardCharsets.UTF_8) : Optional.empty();
      }
    }
  }

  private static String text(Path p) throws IOException {
    try (var in = Files.newInputStream(p)) {
      return new String(in.readNBytes(20_000), StandardCharsets.UTF_8);
    }
  }

  private int type() throws IOException, FileProblem {
    try (var in = Files.newInputStream(shp)) {
      byte[] head = in.readNBytes(100);
      if (head.length < 100) throw new FileProblem("The .shp is cut off within its header.");
      ByteBuffer b = ByteBuffer.wrap(head);
      if (b.getInt(0) != 9994)
        throw new FileProblem("The .shp does not begin as one: this is another kind of file.");
      return b.order(ByteOrder.LITTLE_ENDIAN).getInt(32);
    }
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public String format() {
    return "Shapefile";
  }

  @Override
  public List<SourceLayer> layers() {
    return List.of(layer);
  }

  @Override
  public int each(SourceLayer l, Sink sink) throws FileProblem, IOException {
    int n = 0;
    try (DataInputStream in =
            new DataInputStream(new BufferedInputStream(Files.newInputStream(shp), 1 << 16));
        Dbf d = new Dbf(dbf, named)) {
      in.skipNBytes(100);
      for (Optional<Map<String, Value>> row = d.next(); row.isPresent(); row = d.next()) {
        byte[] content = record(in, ++n, d.rows());
        if (row.get().isEmpty()) continue;
        Optional<Geometry> g = Optional.empty();
        String problem = "";
        try {
          g = ShapeRecords.read(content);
        } catch (IllegalArgumentException e) {
          problem = "Row " + n + ": " + e.getMessage() + ".";
        }
        sink.take(new RawFeature(n, g, row.get(), problem, List.of()));
      }
      if (in.read() >= 0)
        throw new FileProblem(
            "The .shp has more shapes than the .dbf has rows ("
                + d.rows()
                + "); they do not belong together, or the count in the .dbf is wrong.");
      return n;
    }
  }

  private static byte[] record(DataInputStream in, int number, int rows)
      throws IOException, FileProblem {
    try {
      in.readInt();
      long length = 2L * in.readInt();
      if (length < 4 || length > LONGEST_RECORD)
        throw new FileProblem(
            "The .shp is damaged at shape "
                + number
                + ": its length is given as "
                + length
                + " bytes.");
      byte[] content = in.readNBytes((int) length);
      if (content.length < length) throw new EOFException();
      return content;
    } catch (EOFException e) {
      throw new FileProblem(
          "The .shp is cut off at shape " + number + "; the .dbf has " + rows + " rows.", e);
    }
  }
}
