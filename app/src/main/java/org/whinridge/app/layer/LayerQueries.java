package org.whinridge.app.layer;

import java.time.Instant;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.UUID;
import java.util.WeakHashMap;
import java.util.function.BiFunction;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.springframework.stereotype.Service;
import org.whinridge.app.project.ProjectDays;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.Reach;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.prefill.LookupResult;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.prefill.PlaceSource;
import org.whinridge.core.read.Clock;
import org.whinridge.core.read.Filter;
import org.whinridge.core.read.InView;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.read.UniqueValues;
import org.whinridge.core.value.Value;

/** Filters of the rules language over layers, on their read models. */
@Service
public class LayerQueries {
  private final ReadModels models;
  private final ProjectDays days;

  /** Of so many features at most all are made ready for look-ups, once for a state of the layer. */
  private static final int READY = 50_000;

  /** By state of a layer; they go when the state is used no more. */
  private final Map<LayerColumns, PlaceIndex> places =
      Collections.synchronizedMap(new WeakHashMap<>());

  LayerQueries(ReadModels models, ProjectDays days) {
    this.days = days;
    this.models = models;
  }

  /** Uses the rows of a layer that a filter holds for. */
  public <T> T where(Layer layer, LayerFilter filter, BiFunction<LayerColumns, BitSet, T> use) {
    LayerColumns c = models.of(layer);
    return use.apply(
        c, filter.isAll() ? c.all() : Filter.rows(filter.rule(c.schema()), c, clock(layer)));
  }

  /** The clock of this moment, with the day that it is in the layer's project. */
  public Clock clock(Layer layer) {
    Instant now = Instant.now();
    return new Clock(days.day(layer.projectId(), now), now);
  }

  /**
   * The features whose boxes lie within some metres of a box in degrees, also over the date line:
   * at most {@code most}, and one more if there are more.
   */
  public List<Feature> around(Layer layer, Envelope box, double metres, int most) {
    LayerColumns c = models.of(layer);
    Set<Integer> rows = new LinkedHashSet<>();
    for (Envelope part : Reach.boxes(box, metres))
      for (int row : InView.rows(c, part, null, most)) rows.add(row);
    return rows.stream().limit(most + 1L).map(c::feature).toList();
  }

  /** All features whose boxes lie within some metres of a box in degrees. */
  public List<Feature> around(Layer layer, Envelope box, double metres) {
    LayerColumns c = models.of(layer);
    Set<Integer> rows = new LinkedHashSet<>();
    for (Envelope part : Reach.boxes(box, metres)) for (int row : c.near(part)) rows.add(row);
    return rows.stream().map(c::feature).toList();
  }

  /** All features that meet a box in degrees. */
  public List<Feature> in(Layer layer, Envelope box) {
    LayerColumns c = models.of(layer);
    return Arrays.stream(c.near(box)).mapToObj(c::feature).toList();
  }

  /**
   * Some features by id, in the order of the ids; those that the layer does not have are left out.
   */
  public List<Feature> some(Layer layer, Collection<UUID> ids) {
    LayerColumns c = models.of(layer);
    return ids.stream()
        .mapToInt(id -> c.row(id.toString()))
        .filter(row -> row >= 0)
        .mapToObj(c::feature)
        .toList();
  }

  /** How many features may meet a shape, or lie within some metres of it, by their boxes. */
  public int near(Layer layer, Geometry shape, double metres) {
    LayerColumns c = models.of(layer);
    int n = 0;
    for (Envelope box : Reach.boxes(shape.getEnvelopeInternal(), metres)) n += c.near(box).length;
    return n;
  }

  /** The features that meet a shape or lie within some geodesic metres of it, the nearest first. */
  public List<Feature> within(Layer layer, Geometry shape, double metres) {
    LookUp around =
        new LookUp(
            layer.id().toString(),
            layer.name(),
            LookUp.How.AROUND,
            metres,
            "",
            LookUp.Several.LIST);
    return places(layer).lookUp(around, shape, f -> true) instanceof LookupResult.Found found
        ? found.hits().stream().map(LookupResult.Hit::feature).toList()
        : List.of();
  }

  /** Features in the layer's order, from the {@code from}th on, at most {@code most}. */
  public List<Feature> inOrder(Layer layer, int from, int most) {
    LayerColumns c = models.of(layer);
    return c.all().stream().skip(from).limit(most).mapToObj(c::feature).toList();
  }

  /** Where a feature stands in the layer's order, from 0; empty for none of the layer. */
  public OptionalInt place(Layer layer, String feature) {
    LayerColumns c = models.of(layer);
    int row = c.row(feature);
    return row < 0 ? OptionalInt.empty() : OptionalInt.of(c.all().get(0, row).cardinality());
  }

  /** All features of a layer for look-ups by place; for one run, in one thread. */
  public PlaceIndex places(Layer layer) {
    LayerColumns c = models.of(layer);
    if (layer.count() > READY) return new PlaceIndex(c.schema(), new Large(c, layer));
    PlaceIndex known = places.get(c);
    if (known == null)
      places.put(
          c, known = new PlaceIndex(c.schema(), c.all().stream().mapToObj(c::feature).toList()));
    return known;
  }

  private record Large(LayerColumns columns, Layer layer) implements PlaceSource {
    @Override
    public int size() {
      return columns.count();
    }

    @Override
    public Envelope extent() {
      return layer.extent().orElse(null);
    }

    @Override
    public int[] near(Envelope box) {
      return columns.near(box);
    }

    @Override
    public Feature feature(int number) {
      return columns.feature(number);
    }
  }

  /** Who has the values of a layer's field, for many questions one after another. */
  public UniqueValues unique(Layer layer, String field) {
    return new UniqueValues(models.of(layer), field);
  }

  /** How many features a filter holds for. */
  public int count(Layer layer, LayerFilter filter) {
    return where(layer, filter, (c, rows) -> rows.cardinality());
  }

  /**
   * Whether a feature other than one of that id has a value in a field. A value that the field's
   * type can't be compared with is nobody's.
   */
  public boolean isTaken(Layer layer, String field, Value value, String self) {
    LayerColumns c = models.of(layer);
    return UniqueValues.taken(c, field, value, row -> c.id(row).equals(self));
  }

  /**
   * How many features lie outside the area where the layer expects them; 0 when it expects none.
   */
  public int outside(Layer layer) {
    return layer.expectedArea().isEmpty() ? 0 : count(layer, LayerFilter.outside(layer));
  }
}
