package org.whinridge.formats.shapefile;

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
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.value.Value;
import org.whinridge.formats.crs.CoordinateSystems;
import org.whinridge.formats.file.Encodings;
import org.whinridge.formats.file.FileNames;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.file.Limits;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Source;
import org.whinridge.formats.source.ZAndM;

/** A Shapefile of its parts: .shp and .dbf, with .prj and .cpg when they are there. */
public final class ShapefileSource implements Source {
  private static final int LONGEST_RECORD = 1 << 28;

  private final String name;
  private final Path shp;
  private final Path dbf;
  private final Optional<Charset> named;
  private final SourceLayer layer;
  private final Optional<ShapefileCompanions> companions;

  /**
   * The parts by their ending: "shp", "dbf", "prj", "cpg". Without a .dbf there are no attributes,
   * without a .shp it is a table.
   */
  public ShapefileSource(
      String name, Map<String, Path> parts, Optional<ShapefileCompanions> companions)
      throws FileProblem, IOException {
    this.name = name;
    this.shp = parts.get("shp");
    this.dbf = parts.get("dbf");
    this.companions = companions;
    this.named =
        parts.containsKey("cpg")
            ? Encodings.named(text(parts.get("cpg")))
            : dbf == null ? Optional.empty() : sniffed();
    Optional<CoordinateSystem> system = Optional.empty();
    Said said = shp == null ? Said.NONE : Said.of("file.noPrj");
    if (parts.containsKey("prj")) {
      String wkt = text(parts.get("prj"));
      system = CoordinateSystems.wkt(wkt);
      said = Said.text(system.map(CoordinateSystem::name).orElse(Limits.cut(wkt.strip(), 100)));
    }
    List<Said> notes = new ArrayList<>();
    if (shp != null && type() > 10) notes.add(ZAndM.NOTE);
    if (dbf == null) notes.add(Said.of("file.dbfBelongsMissingSo"));
    if (shp == null) notes.add(Said.of("file.noShpReadAs"));
    SourceLayer plain =
        new SourceLayer(
            FileNames.stem(name), system, said, encoding(parts), rows(), shp == null, notes);
    layer =
        plain
            .withAside(ZAndM.COLUMNS)
            .as(companions.map(ShapefileCompanions::described))
            .noted(companions.map(ShapefileCompanions::notes).orElse(List.of()));
  }

  private long rows() throws FileProblem, IOException {
    if (dbf == null) return -1;
    try (Dbf d = new Dbf(dbf, named)) {
      Limits.columns(d.columns().size(), Said.of("file.where.dbf"));
      return d.rows();
    }
  }

  private Said encoding(Map<String, Path> parts) throws FileProblem, IOException {
    if (dbf == null) return Said.NONE;
    try (Dbf d = new Dbf(dbf, named)) {
      String how =
          parts.containsKey("cpg") && named.isPresent()
              ? "file.encoding.cpg"
              : named.isPresent()
                  ? "file.encoding.reads"
                  : d.driverSays() ? "file.encoding.dbf" : "file.encoding.nothing";
      return Said.of("file.encoding.found", "encoding", d.charset().name(), "how", Said.of(how));
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
      if (head.length < 100) throw new FileProblem("file.shpCutOffWithin");
      ByteBuffer b = ByteBuffer.wrap(head);
      if (b.getInt(0) != 9994) throw new FileProblem("file.shpDoesNotBegin");
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
    if (dbf == null) return shapesAlone(sink);
    if (shp == null) return rowsAlone(sink);
    int n = 0;
    try (DataInputStream in = shapes();
        Dbf d = new Dbf(dbf, named);
        WholeTexts whole = WholeTexts.of(companions)) {
      for (Optional<Map<String, Value>> row = d.next(); row.isPresent(); row = d.next()) {
        Optional<byte[]> content = record(in, ++n, d.rows());
        if (content.isEmpty()) throw new FileProblem("file.shpCutOffAt", "n", n, "rows", d.rows());
        if (!row.get().isEmpty()) sink.take(feature(n, content.get(), whole.in(n, row.get())));
      }
      if (in.read() >= 0) throw new FileProblem("file.shpMoreShapesThan", "rows", d.rows());
      return n;
    }
  }

  private DataInputStream shapes() throws IOException {
    DataInputStream in =
        new DataInputStream(new BufferedInputStream(Files.newInputStream(shp), 1 << 16));
    in.skipNBytes(100);
    return in;
  }

  private RawFeature feature(int n, byte[] content, Map<String, Value> values) {
    Map<String, Value> all =
        new LinkedHashMap<>(companions.map(c -> c.renamed(values)).orElse(values));
    Optional<Geometry> g = Optional.empty();
    Said problem = Said.NONE;
    try {
      g = ShapeRecords.read(content);
      ShapeRecords.zAndM(content, all);
    } catch (IllegalArgumentException e) {
      problem = Said.of("file.row", "n", n, "why", Unfit.said(e));
    }
    return new RawFeature(n, g, all, problem, List.of());
  }

  private int shapesAlone(Sink sink) throws FileProblem, IOException {
    int n = 0;
    try (DataInputStream in = shapes()) {
      for (Optional<byte[]> c = record(in, 1, -1); c.isPresent(); c = record(in, n + 1, -1)) {
        Limits.features(++n);
        sink.take(feature(n, c.get(), Map.of()));
      }
    }
    return n;
  }

  private int rowsAlone(Sink sink) throws FileProblem, IOException {
    int n = 0;
    try (Dbf d = new Dbf(dbf, named);
        WholeTexts whole = WholeTexts.of(companions)) {
      for (Optional<Map<String, Value>> row = d.next(); row.isPresent(); row = d.next()) {
        n++;
        if (row.get().isEmpty()) continue;
        Map<String, Value> values = whole.in(n, row.get());
        sink.take(
            new RawFeature(
                n, Optional.empty(), companions.map(c -> c.renamed(values)).orElse(values)));
      }
    }
    return n;
  }

  /** The next record; empty at the end of the file. */
  private static Optional<byte[]> record(DataInputStream in, int number, long rows)
      throws IOException, FileProblem {
    int first = in.read();
    if (first < 0) return Optional.empty();
    try {
      in.skipNBytes(3);
      long length = 2L * in.readInt();
      if (length < 4 || length > LONGEST_RECORD)
        throw new FileProblem("file.shpDamaged", "shape", number, "bytes", length);
      byte[] content = in.readNBytes((int) length);
      if (content.length < length) throw new EOFException();
      return Optional.of(content);
    } catch (EOFException e) {
      throw new FileProblem(
              rows < 0 ? "file.shpCutOff" : "file.shpCutOffAt", "n", number, "rows", rows)
          .because(e);
    }
  }
}
