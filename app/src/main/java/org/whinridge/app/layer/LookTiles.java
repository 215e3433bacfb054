package org.whinridge.app.layer;

import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiFunction;
import org.springframework.stereotype.Service;
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
class LookTiles {
  private static final int MOST_SHEETS = 8;
  private static final long MOST_BYTES = 6_000_000;
  private final ReadModels models;
  private final Looks looks;
  private final Map<String, Sheet> sheets = new LinkedHashMap<>(16, 0.75f, true);

  LookTiles(ReadModels models, Looks looks) {
    this.models = models;
    this.looks = looks;
  }

  /** A layer under a look and a filter, and the tiles made of it. */
  static final class Sheet {
    final ReadyLook ready;
    final LookRows rows;
    final BitSet only;
    private final LayerColumns from;
    private final long changes;
    private final LocalDate day;
    private final Map<String, byte[]> tiles = new ConcurrentHashMap<>();
    private volatile long bytes;

    private Sheet(Look look, LayerColumns c, String filter) {
      Clock clock = LayerQueries.clock();
      day = clock.today();
      from = c;
      changes = c.changes();
      ready = ReadyLook.of(look, c.schema());
      rows = new LookRows(ready, c, clock);
      only = filter.isBlank() ? null : Filter.rows(LayerQueries.rule(c.schema(), filter), c, clock);
    }

    private boolean isOf(LayerColumns c) {
      return from == c && changes == c.changes() && day.equals(LocalDate.now(ZoneOffset.UTC));
    }

    private byte[] tile(int z, int x, int y) {
      String key = z + "/" + x + "/" + y;
      byte[] kept = tiles.get(key);
      if (kept != null) return kept;
      byte[] made = new TileWriter(from, rows, only).tile(z, x, y);
      if (bytes > MOST_BYTES) {
        tiles.clear();
        bytes = 0;
      }
      tiles.put(key, made);
      bytes += made.length + 100;
      return made;
    }
  }

  /** Uses a layer's model with its rows sorted by a look. */
  <T> T with(Layer layer, String look, String filter, BiFunction<LayerColumns, Sheet, T> use) {
    // a saved look has its revision in the key, so that the next one is not taken for it
    String key = layer.id() + "|" + (look.isEmpty() ? layer.lookRevision() : look) + "|" + filter;
    return models.read(
        layer,
        c -> {
          Sheet s;
          synchronized (sheets) {
            s = sheets.get(key);
          }
          if (s == null || !s.isOf(c)) {
            s = new Sheet(looks.by(layer, look), c, filter);
            keep(key, s);
          }
          return use.apply(c, s);
        });
  }

  private void keep(String key, Sheet s) {
    synchronized (sheets) {
      sheets.put(key, s);
      var oldest = sheets.keySet().iterator();
      while (sheets.size() > MOST_SHEETS) {
        oldest.next();
        oldest.remove();
      }
    }
  }

  /** A tile; no bytes where nothing is. */
  byte[] tile(Layer layer, String look, String filter, int z, int x, int y) {
    return with(layer, look, filter, (c, s) -> s.tile(z, x, y));
  }
}
