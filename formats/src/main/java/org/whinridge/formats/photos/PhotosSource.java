package org.whinridge.formats.photos;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.formats.file.FileNames;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Source;

/** A set of pictures: each a point where its EXIF says it was taken, with the picture. */
public final class PhotosSource implements Source {
  private final Map<String, Path> pictures;
  private final SourceLayer layer;

  /** Photos by their names. */
  public PhotosSource(Map<String, Path> pictures) {
    this.pictures = new LinkedHashMap<>(pictures);
    SourceLayer l = SourceLayer.wgs84("Photos");
    this.layer =
        new SourceLayer(
            l.name(),
            l.system(),
            Said.of("file.wgs84ByExif"),
            Said.NONE,
            pictures.size(),
            false,
            List.of());
  }

  @Override
  public String name() {
    return pictures.keySet().iterator().next();
  }

  @Override
  public Said title() {
    return pictures.size() == 1 ? Said.text(name()) : Said.of("file.photos", "n", pictures.size());
  }

  @Override
  public String format() {
    return "JPEG";
  }

  @Override
  public List<SourceLayer> layers() {
    return List.of(layer);
  }

  @Override
  public int each(SourceLayer l, Sink sink) throws FileProblem, IOException {
    int n = 0;
    for (Map.Entry<String, Path> p : pictures.entrySet()) {
      sink.take(feature(++n, p.getKey(), p.getValue()));
    }
    return n;
  }

  private static RawFeature feature(int n, String name, Path file) throws IOException {
    Optional<PhotoFacts> facts = PhotoFacts.read(Files.readAllBytes(file));
    Map<String, Value> values = new LinkedHashMap<>();
    values.put("photo", Value.text(FileNames.shown(name)));
    facts.flatMap(PhotoFacts::taken).ifPresent(t -> values.put("taken", new Value.Moment(t)));
    facts
        .filter(f -> f.directionDeg().isPresent())
        .ifPresent(f -> values.put("direction_deg", Value.of(f.directionDeg().getAsDouble())));
    facts
        .filter(f -> f.altitudeM().isPresent())
        .ifPresent(f -> values.put("altitude_m", Value.of(f.altitudeM().getAsDouble())));
    facts
        .map(PhotoFacts::description)
        .filter(d -> !d.isEmpty())
        .ifPresent(d -> values.put("description", Value.text(d)));
    Optional<Geometry> g = facts.flatMap(PhotoFacts::place).map(GeometryJson.WGS84::createPoint);
    Optional<Path> photo = Pictures.photo(file);
    List<Said> told = new ArrayList<>();
    if (facts.isEmpty()) told.add(Said.of("file.whatSaysItselfCant"));
    else if (g.isEmpty()) told.add(Said.of("file.noPositionExif"));
    if (facts.filter(f -> f.taken().isPresent() && !f.zoned()).isPresent())
      told.add(Said.of("file.clockSaysNoZone"));
    if (photo.isPresent() && Pictures.fault(photo.get()) == Pictures.Fault.CUT_OFF)
      told.add(Said.of("file.cutOffLowerPart"));
    if (photo.isPresent() && !photo.get().equals(file)) told.add(Said.of("file.pngKeptAsJpeg"));
    if (!List.of("jpg", "jpeg", "jpe", "png").contains(FileNames.ending(name)))
      told.add(Said.of("file.pictureThoughNameDoes"));
    Said problem =
        told.isEmpty()
            ? Said.NONE
            : Said.of(
                "file.photoTold", "name", name, "told", Said.row(told, "list.also", "list.also"));
    return new RawFeature(n, g, values, problem, photo.map(List::of).orElse(List.of()));
  }
}
