package org.whinridge.formats;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.value.Value;

/** A set of JPEG pictures: each a point where its EXIF says it was taken, with the picture. */
final class PhotosSource implements Source {
  private final Map<String, Path> pictures;
  private final SourceLayer layer;

  PhotosSource(Map<String, Path> pictures) {
    this.pictures = new LinkedHashMap<>(pictures);
    SourceLayer l = SourceLayer.wgs84("Photos");
    this.layer =
        new SourceLayer(
            l.name(), l.system(), "WGS 84, as EXIF says", "", pictures.size(), false, List.of());
  }

  @Override
  public String name() {
    return pictures.size() == 1 ? pictures.keySet().iterator().next() : pictures.size() + " photos";
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
      Optional<PhotoFacts> facts = PhotoFacts.read(Files.readAllBytes(p.getValue()));
      Map<String, Value> values = new LinkedHashMap<>();
      values.put("photo", Value.text(FileNames.shown(p.getKey())));
      facts.flatMap(PhotoFacts::taken).ifPresent(t -> values.put("taken", new Value.Moment(t)));
      if (facts.isPresent() && facts.get().directionDeg().isPresent())
        values.put("direction_deg", Value.of(facts.get().directionDeg().getAsDouble()));
      Optional<Geometry> g = facts.flatMap(PhotoFacts::place).map(GeometryJson.WGS84::createPoint);
      String problem =
          facts.isEmpty()
              ? "“" + p.getKey() + "” is not a readable JPEG."
              : g.isEmpty() ? "“" + p.getKey() + "” has no position in its EXIF." : "";
      sink.take(
          new RawFeature(
              ++n, g, values, problem, facts.isEmpty() ? List.of() : List.of(p.getValue())));
    }
    return n;
  }
}
