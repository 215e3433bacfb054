package org.whinridge.formats.geojson;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.said.Said;
import org.whinridge.formats.crs.CoordinateSystems;
import org.whinridge.formats.file.FileNames;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.source.Source;
import org.whinridge.formats.source.ZAndM;

/** A GeoJSON file, newline-delimited or not. */
public final class GeoJsonSource implements Source {
  private final String name;
  private final Path file;
  private final SourceLayer layer;

  /** Reads what the file says of itself. */
  public GeoJsonSource(String name, Path file) throws FileProblem, IOException {
    this.name = name;
    this.file = file;
    String said;
    try (InputStream in = open()) {
      said = GeoJsonReader.system(in);
    }
    Optional<CoordinateSystem> system =
        said.isEmpty() ? Optional.of(CoordinateSystem.wgs84()) : CoordinateSystems.code(said);
    this.layer =
        new SourceLayer(
                FileNames.stem(name),
                system,
                said.isEmpty() ? Said.of("file.wgs84ByRfc") : Said.text(said),
                Said.text("UTF-8"),
                -1,
                false,
                List.of())
            .withAside(aside());
  }

  /** An id beside the properties, and heights, are offered and not taken by themselves. */
  private static Set<String> aside() {
    Set<String> out = new LinkedHashSet<>(ZAndM.COLUMNS);
    out.add(GeoJsonReader.ID);
    return out;
  }

  private InputStream open() throws IOException {
    return new BufferedInputStream(Files.newInputStream(file), 1 << 16);
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public String format() {
    return "GeoJSON";
  }

  @Override
  public List<SourceLayer> layers() {
    return List.of(layer);
  }

  @Override
  public int each(SourceLayer l, Sink sink) throws FileProblem, IOException {
    try (InputStream in = open()) {
      return GeoJsonReader.read(in, sink);
    }
  }
}
