package org.whinridge.app.output;

import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.daybook.Visit;
import org.whinridge.app.daybook.Visits;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.photo.Photo;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.formats.GeoJsonWriter;
import org.whinridge.formats.GeoPackageWriter;

/** Writes layers out as files. */
@Service
@Transactional(readOnly = true)
class Exports {
  private final Layers layers;
  private final Visits visits;
  private final Photos photos;
  private final Path folder;

  Exports(Layers layers, Visits visits, Photos photos, DataFolder data) {
    this.layers = layers;
    this.visits = visits;
    this.photos = photos;
    this.folder = data.folder("outgoing");
  }

  /** Streams a layer as GeoJSON. */
  public void geoJson(Layer layer, OutputStream out) throws IOException {
    try (GeoJsonWriter w = new GeoJsonWriter(out, layer.name(), layer.schema())) {
      layers.each(
          layer,
          f -> {
            try {
              w.add(f);
            } catch (IOException e) {
              throw new UncheckedIOException(e);
            }
          });
    }
  }

  /**
   * Writes a layer with the photos of its accepted visits as a GeoPackage; the caller deletes the
   * file.
   */
  public Path geoPackage(Layer layer) throws IOException {
    Path file = folder.resolve(UUID.randomUUID() + ".gpkg");
    Map<UUID, UUID> featureOfVisit =
        visits.accepted(layer.id()).stream().collect(Collectors.toMap(Visit::id, Visit::featureId));
    Map<String, List<Photo>> byFeature =
        photos.of(featureOfVisit.keySet()).stream()
            .filter(Photo::received)
            .collect(Collectors.groupingBy(p -> featureOfVisit.get(p.visitId()).toString()));
    try (GeoPackageWriter w = new GeoPackageWriter(file, layer.name(), layer.schema())) {
      layers.each(
          layer,
          f -> {
            try {
              long row = w.add(f);
              int n = 0;
              for (Photo p : byFeature.getOrDefault(f.id(), List.of()))
                w.addPhoto(
                    row,
                    Files.readAllBytes(photos.bytes(p).orElseThrow()),
                    layer.schema().caption(f.values()) + " " + ++n,
                    p.question());
            } catch (IOException e) {
              throw new UncheckedIOException(e);
            }
          });
      return file;
    } catch (IOException | RuntimeException e) {
      Files.deleteIfExists(file);
      throw e;
    }
  }
}
