package org.whinridge.app.bringin;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.locationtech.jts.geom.Geometry;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.LayerChanges;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.look.Looks;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.shell.Ids;
import org.whinridge.app.shell.Jobs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.look.Look;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.profile.ColumnMatch;
import org.whinridge.core.said.Said;
import org.whinridge.formats.source.Described;

/** Imports what was decided as new layers, and checks decisions of all kinds. */
@Component
class Importing {
  private final Layers layers;
  private final LayerMaking making;
  private final LayerChanges changes;
  private final Photos photos;
  private final Looks looks;

  Importing(Layers layers, LayerMaking making, LayerChanges changes, Photos photos, Looks looks) {
    this.looks = looks;
    this.layers = layers;
    this.making = making;
    this.changes = changes;
    this.photos = photos;
  }

  /**
   * What became of one part.
   *
   * @param said what came of it: "240 features imported"
   * @param act what can be taken back
   * @param visits whether that is a hand-in of past visits
   */
  record Outcome(
      UUID layer,
      String layerName,
      Said said,
      Optional<UUID> act,
      boolean visits,
      List<Said> notes) {}

  /** Refuses decisions that can't be carried out, before any work is done. */
  void check(List<Choice> choices, UUID project) {
    List<String> names = new ArrayList<>();
    for (Choice c : choices) {
      boolean fresh = c.target().equals("new");
      if (fresh) making.checkName(project, c.name());
      if (fresh && names.contains(c.name()))
        throw Refusal.refused("refused.twoNewLayersCalled", "name", c.name());
      names.add(c.name());
      if (!c.target().equals("visits") && placed(c) && c.system().isEmpty())
        throw Refusal.refused("refused.chooseCoordinateSystemFirst", "title", c.part().title());
      if (!c.target().equals("visits")
          && placed(c)
          && c.system().get().accuracyM().isEmpty()
          && !c.unsure())
        throw Refusal.refused(
            "refused.howLiesWgsNot", "name", c.system().get().name(), "title", c.part().title());
      if (!fresh && c.key().isEmpty())
        throw Refusal.refused("refused.chooseColumnSaysFeature", "title", c.part().title());
      if (c.order().isEmpty() && c.mustSayOrder())
        throw Refusal.refused("refused.datesFirstNumberCould", "title", c.part().title());
      if (c.target().equals("visits") && c.date().isEmpty())
        throw Refusal.refused("refused.chooseColumnDayEach", "title", c.part().title());
    }
  }

  private static boolean placed(Choice c) {
    return c.part().kind() != GeometryKind.TABLE || c.places().isPresent();
  }

  /** Imports a part as a new layer. */
  Outcome asNewLayer(Choice c, UUID project, String person, Jobs.Job job) throws Exception {
    Found.Part p = c.part();
    boolean placed = placed(c);
    Map<String, Field> fields = new LinkedHashMap<>();
    for (Choice.ColumnChoice k : c.columns())
      if (!isPlaceColumn(c, k)) fields.put(k.column().source(), k.field());
    GeometryKind kind = p.kind() == GeometryKind.TABLE && placed ? kindOf(c) : p.kind();
    List<Field> all = List.copyOf(fields.values());
    String tag =
        c.columns().stream()
            .filter(k -> k.column().source().equals(c.tag()))
            .filter(k -> fields.containsKey(k.column().source()))
            .map(k -> k.field().name())
            .findFirst()
            .orElse("");
    Schema schema = schema(kind, all, tag, p.layer().described());
    Rows rows = new Rows(c, fields);
    Map<UUID, List<Path>> pictures = new LinkedHashMap<>();
    int[] count = {0};
    UUID layer =
        making.make(
            new LayerMaking.NewLayer(
                project,
                c.name(),
                schema,
                Said.of("ledger.importOf", "file", p.source().title()),
                "",
                List.of(),
                c.system()
                    .map(s -> s.code().isEmpty() ? "EPSG:4326" : s.code())
                    .orElse("EPSG:4326"),
                ""),
            person,
            take ->
                rows.each(
                    job,
                    Said.of("job.importing", "name", c.name()),
                    r -> {
                      UUID id = Ids.next();
                      take.accept(new Feature(id.toString(), r.geometry(), r.values(), 1));
                      count[0]++;
                      if (!r.raw().pictures().isEmpty()) pictures.put(id, r.raw().pictures());
                    }));
    List<Said> notes = new ArrayList<>(rows.notes());
    look(layer, c, notes);
    if (!pictures.isEmpty()) {
      job.now(Said.of("job.keepingPhotos"), -1);
      try {
        photos.keep(layer, person, pictures);
      } catch (IOException | RuntimeException e) {
        act(layer).ifPresent(a -> changes.takeBack(layer, a, person)); // whole, or not at all
        throw e;
      }
      notes.add(Said.of("told.picturesKept", "n", pictures.size()));
    }
    return new Outcome(
        layer,
        c.name().strip(),
        Said.of("told.featuresImported", "n", count[0]),
        act(layer),
        false,
        notes);
  }

  /** The schema with the captions that the file names, else those that look like ones. */
  private static Schema schema(
      GeometryKind kind, List<Field> all, String tag, Optional<Described> said) {
    List<String> names = all.stream().map(Field::name).toList();
    List<String> captions =
        said.map(Described::captionFields).orElse(List.of()).stream()
            .filter(names::contains)
            .toList();
    return new Schema(
        kind, all, tag, captions.isEmpty() ? ColumnMatch.captions(all, tag) : captions);
  }

  /** Gives a new layer the look that its file carries; what can't be read is told. */
  private void look(UUID layer, Choice c, List<Said> notes) {
    String said = c.part().layer().described().map(Described::look).orElse("");
    if (said.isEmpty()) return;
    try {
      looks.save(layers.byId(layer), Look.read(said), 0);
      notes.add(Said.of("told.drawnAsFileSays"));
    } catch (RuntimeException e) {
      notes.add(Said.of("told.fileCarriesLookCant"));
    }
  }

  private Optional<UUID> act(UUID layer) {
    var history = layers.history(layers.byId(layer));
    return history.isEmpty() ? Optional.empty() : Optional.of(history.get(history.size() - 1).id());
  }

  static boolean isPlaceColumn(Choice c, Choice.ColumnChoice k) {
    return c.places()
        .filter(p -> List.of(p.x(), p.y(), p.wkt()).contains(k.column().source()))
        .isPresent();
  }

  /** The kind of a table's WKT, by its first rows; points for coordinates. */
  private static GeometryKind kindOf(Choice c) {
    for (var f : c.part().sample())
      try {
        Optional<Geometry> g = c.places().get().place(f.properties());
        if (g.isPresent() && GeometryKind.of(g.get()).isPresent())
          return GeometryKind.of(g.get()).get();
      } catch (IllegalArgumentException e) {
        // told when the row is imported
      }
    return GeometryKind.POINT;
  }
}
