package org.whinridge.app.output;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.BitSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.stereotype.Service;
import org.springframework.util.FileSystemUtils;
import org.whinridge.app.daybook.Visits;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerFilter;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.look.Looks;
import org.whinridge.app.photo.Photo;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.said.Unfit;
import org.whinridge.formats.csv.CsvWriter;
import org.whinridge.formats.geojson.GeoJsonWriter;
import org.whinridge.formats.geopackage.GeoPackageLayer;
import org.whinridge.formats.geopackage.GeoPackageWriter;
import org.whinridge.formats.kml.KmlWriter;
import org.whinridge.formats.out.LayerWriter;
import org.whinridge.formats.out.OutLayer;
import org.whinridge.formats.shapefile.ShapefileWriter;
import org.whinridge.formats.xlsx.XlsxWriter;

/** Writes layers out as files, from their read models. */
@Service
class Exports {
  private final LayerQueries queries;
  private final Visits visits;
  private final Photos photos;
  private final Looks looks;
  private final Path folder;

  Exports(LayerQueries queries, Visits visits, Photos photos, Looks looks, DataFolder data) {
    this.looks = looks;
    this.queries = queries;
    this.visits = visits;
    this.photos = photos;
    this.folder = data.folder("outgoing");
  }

  /** A file that was written, in a folder of its own; {@link #drop} removes both. */
  record Written(Path home, Path file, String name) {}

  /** Writes what was ordered; nothing is left when it can't be. */
  Written write(Order o) throws IOException {
    return write(o, () -> {});
  }

  /**
   * As {@link #write(Order)}.
   *
   * @param step hears of each feature, and may end the writing by an exception
   */
  Written write(Order o, Runnable step) throws IOException {
    Path home = Files.createDirectory(folder.resolve(UUID.randomUUID().toString()));
    String name = o.layers().size() == 1 ? Field.nameFrom(o.layers().get(0).name()) : "layers";
    try {
      Path file = home.resolve("out." + (o.zipped() ? "zip" : o.format().ending()));
      if (o.zipped()) zipped(o, home, file, step);
      else single(o, file, step);
      return new Written(home, file, name + "." + (o.zipped() ? "zip" : o.format().ending()));
    } catch (UncheckedIOException e) {
      FileSystemUtils.deleteRecursively(home);
      throw refused(o, e.getCause());
    } catch (IOException e) {
      FileSystemUtils.deleteRecursively(home);
      throw refused(o, e);
    } catch (RuntimeException e) {
      FileSystemUtils.deleteRecursively(home);
      throw e;
    }
  }

  private static Refusal refused(Order o, IOException e) {
    return Refusal.refused(
        "refused.cantBeWrittenNothing", "format", o.format().said(), "why", Refusal.said(e));
  }

  /** Removes a file that was sent. */
  void drop(Written w) throws IOException {
    FileSystemUtils.deleteRecursively(w.home());
  }

  private void single(Order o, Path file, Runnable step) throws IOException {
    if (o.format() == Order.Format.GPKG) {
      try (GeoPackageWriter g = new GeoPackageWriter(file)) {
        for (Layer l : o.layers()) geoPackage(o, l, g, step);
      }
      return;
    }
    try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file), 1 << 16)) {
      switch (o.format()) {
        case KML -> {
          try (KmlWriter k = new KmlWriter(out, o.layers().get(0).name())) {
            for (Layer l : o.layers()) features(o, l, step, k::layer);
          }
        }
        case XLSX -> {
          try (XlsxWriter x = new XlsxWriter(out)) {
            for (Layer l : o.layers()) features(o, l, step, to -> x.layer(to, o.wkt()));
          }
        }
        case CSV -> features(o, o.layers().get(0), step, to -> new CsvWriter(out, to, o.wkt()));
        case GEOJSON -> features(o, o.layers().get(0), step, to -> new GeoJsonWriter(out, to));
        case GPKG, SHP -> throw new Unfit("refused.noSingleStream", "format", o.format());
      }
    }
  }

  private void zipped(Order o, Path home, Path zip, Runnable step) throws IOException {
    Path parts = Files.createDirectory(home.resolve("parts"));
    Set<String> names = new LinkedHashSet<>();
    for (Layer l : o.layers()) {
      String file = Field.nameFrom(l.name(), names);
      names.add(file);
      if (o.format() == Order.Format.SHP)
        features(
            o, l, step, to -> new ShapefileWriter(parts, file, to, LocalDate.now(ZoneOffset.UTC)));
      else
        single(
            new Order(List.of(l), o.format(), "", Set.of(), o.codes(), o.system(), o.wkt()),
            parts.resolve(file + "." + o.format().ending()),
            step);
    }
    try (ZipOutputStream out =
            new ZipOutputStream(new BufferedOutputStream(Files.newOutputStream(zip)));
        Stream<Path> all = Files.list(parts)) {
      for (Path p : all.sorted().toList()) {
        out.putNextEntry(new ZipEntry(p.getFileName().toString()));
        Files.copy(p, out);
        out.closeEntry();
      }
    }
  }

  private interface Begin {
    LayerWriter of(OutLayer to) throws IOException;
  }

  private void features(Order o, Layer layer, Runnable step, Begin begin) throws IOException {
    queries.where(
        layer,
        LayerFilter.written(o.filter()),
        (c, rows) -> {
          choose(c, rows, o.only());
          try (LayerWriter w = begin.of(outLayer(o, layer, c, rows))) {
            for (int row = rows.nextSetBit(0); row >= 0; row = rows.nextSetBit(row + 1)) {
              w.add(c.feature(row));
              step.run();
            }
          } catch (IOException e) {
            throw new UncheckedIOException(e);
          }
          return null;
        });
  }

  private static void choose(LayerColumns c, BitSet rows, Set<UUID> only) {
    if (only.isEmpty()) return;
    for (int row = rows.nextSetBit(0); row >= 0; row = rows.nextSetBit(row + 1))
      if (!only.contains(UUID.fromString(c.id(row)))) rows.clear(row);
  }

  /** How a layer is to be written: which fields are mixed, whether features have several parts. */
  private OutLayer outLayer(Order o, Layer layer, LayerColumns c, BitSet rows) {
    Set<String> mixed = new LinkedHashSet<>();
    for (Field f : layer.schema().fields()) {
      var column = c.column(f.name()).orElseThrow();
      for (int row = rows.nextSetBit(0); row >= 0; row = rows.nextSetBit(row + 1))
        if (!f.holds(column.value(row)) && column.value(row).type() != f.type().valueType()) {
          mixed.add(f.name());
          break;
        }
    }
    boolean multi = false;
    for (int row = rows.nextSetBit(0); row >= 0 && !multi; row = rows.nextSetBit(row + 1))
      multi = c.hasSeveralParts(row);
    return new OutLayer(layer.name(), layer.schema(), o.codes(), o.written(), mixed, multi)
        .drawn(looks.of(layer).look().json().toString());
  }

  /**
   * A layer of a GeoPackage, with its pictures and the photos of its accepted visits as a related
   * table.
   */
  private void geoPackage(Order o, Layer layer, GeoPackageWriter g, Runnable step)
      throws IOException {
    Map<UUID, UUID> featureOfVisit = visits.featuresOfAccepted(layer.id());
    Map<String, List<Photo>> byFeature =
        Stream.concat(
                photos.ofLayer(layer.id()).stream(), photos.of(featureOfVisit.keySet()).stream())
            .filter(Photo::received)
            .collect(
                Collectors.groupingBy(
                    p ->
                        p.visitId()
                            .map(featureOfVisit::get)
                            .or(() -> p.of().map(Photo.OfFeature::feature))
                            .orElseThrow()
                            .toString()));
    features(
        o,
        layer,
        step,
        to -> {
          GeoPackageLayer w = g.layer(to);
          return new LayerWriter() {
            @Override
            public void add(Feature f) throws IOException {
              long row = w.addRow(f);
              int n = 0;
              for (Photo p : byFeature.getOrDefault(f.id(), List.of()))
                w.addPhoto(
                    row,
                    Files.readAllBytes(photos.bytes(p).orElseThrow()),
                    layer.schema().caption(f.values()) + " " + ++n,
                    p.question());
            }

            @Override
            public void close() throws IOException {
              w.close();
            }
          };
        });
  }
}
