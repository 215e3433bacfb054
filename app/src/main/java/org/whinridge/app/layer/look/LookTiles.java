package org.whinridge.app.layer.look;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.LocalDate;
import java.util.BitSet;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.BiFunction;
import org.springframework.stereotype.Service;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerFilter;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.ReadModels;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.LookRows;
import org.whinridge.core.look.ReadyLook;
import org.whinridge.core.read.Clock;
import org.whinridge.core.read.Filter;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.formats.tiles.TileWriter;

/**
 * Layers drawn from their read models: features sorted by a look once, tiles kept for a while. What
 * was made from an older state of the layer is made anew.
 */
@Service
public class LookTiles {
  private static final long MOST_SORTED_BYTES = 48_000_000;
  private static final long MOST_TILE_BYTES = 48_000_000;
  private final ReadModels models;
  private final LayerQueries queries;
  private final Looks looks;
  private final Cache<String, Sorted> sorted =
      Caffeine.newBuilder()
          .maximumWeight(MOST_SORTED_BYTES)
          .weigher((String key, Sorted s) -> s.bytes())
          .executor(Runnable::run)
          .build();
  private final Cache<TileKey, byte[]> tiles =
      Caffeine.newBuilder()
          .maximumWeight(MOST_TILE_BYTES)
          .weigher((TileKey key, byte[] tile) -> tile.length + 100)
          .executor(Runnable::run)
          .build();

  public LookTiles(ReadModels models, LayerQueries queries, Looks looks) {
    this.queries = queries;
    this.models = models;
    this.looks = looks;
    models.whenLeft(c -> sorted.asMap().values().removeIf(s -> s.from == c));
  }

  /**
   * A tile of the sorted layer of that number; it must not hold that, which holds a whole model.
   */
  private record TileKey(long sorted, int z, int x, int y) {}

  /** A layer's model under a look and a filter, on a day. Never changes. */
  static final class Sorted {
    private static final AtomicLong NUMBERS = new AtomicLong();
    final ReadyLook ready;
    final LookRows rows;
    final BitSet only;
    private final LayerColumns from;
    private final LocalDate day;
    private final long number = NUMBERS.incrementAndGet();

    private Sorted(Look look, LayerColumns c, LayerFilter filter, Clock clock) {
      day = clock.today();
      from = c;
      ready = ReadyLook.of(look, c.schema());
      rows = new LookRows(ready, c, clock);
      only = filter.isAll() ? null : Filter.rows(filter.rule(c.schema()), c, clock);
    }

    private boolean isOf(LayerColumns c, Clock clock) {
      return from == c && day.equals(clock.today());
    }

    private int bytes() {
      return 1000 + 2 * from.rows() + (only == null ? 0 : from.rows() / 8);
    }
  }

  /** Uses a layer's model with its rows sorted by a look. */
  <T> T with(
      Layer layer, String look, LayerFilter filter, BiFunction<LayerColumns, Sorted, T> use) {
    LayerColumns c = models.of(layer);
    return use.apply(c, sorted(layer, look, filter, c));
  }

  private Sorted sorted(Layer layer, String look, LayerFilter filter, LayerColumns c) {
    // a saved look has its revision in the key, so that the next one is not taken for it
    String key =
        layer.id() + "|" + (look.isEmpty() ? layer.lookRevision() : look) + "|" + filter.text();
    Clock clock = queries.clock(layer);
    Sorted s = sorted.getIfPresent(key);
    if (s == null || !s.isOf(c, clock)) {
      s = new Sorted(looks.by(layer, look), c, filter, clock);
      sorted.put(key, s);
      if (!models.holds(layer.id(), c)) sorted.asMap().remove(key, s); // it left meanwhile
    }
    return s;
  }

  /** A tile; no bytes where nothing is. */
  public byte[] tile(Layer layer, String look, LayerFilter filter, int z, int x, int y) {
    LayerColumns c = models.of(layer);
    Sorted s = sorted(layer, look, filter, c);
    return tiles.get(
        new TileKey(s.number, z, x, y), k -> new TileWriter(s.from, s.rows, s.only).tile(z, x, y));
  }
}
