package org.whinridge.formats.tiles;

import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.Map;
import org.whinridge.core.look.Drawn;
import org.whinridge.core.look.LookRows;
import org.whinridge.core.look.TileRows;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.read.WkbPaths;

/**
 * Writes a layer's features as vector tiles.
 *
 * <p>Source: Mapbox Vector Tile specification 2.1, an open specification. Each tile has one layer,
 * called "features". A feature has {@code c}, its legend entries (a number, or text "0,3"), {@code
 * t0}, {@code t1} … degrees of turn, {@code s0} … sizes in pixels, {@code l} its label. What was
 * thinned comes as squares, one feature for all of an entry and a strength: {@code n} says about
 * how many each square stands for, {@code all} how many they stand for together. An id is a row in
 * the read model: it tells features of one tile apart, and is no lasting name.
 */
public final class TileWriter {
  /** The name of the layer in each tile. */
  public static final String LAYER = "features";

  private final LayerColumns layer;
  private final LookRows look;
  private final TileRows rows;

  /**
   * A writer over a read model that does not change meanwhile; for one thread.
   *
   * @param only the rows to draw, null for all
   */
  public TileWriter(LayerColumns layer, LookRows look, BitSet only) {
    this.layer = layer;
    this.look = look;
    this.rows = new TileRows(layer, look, only);
  }

  /**
   * A tile's bytes; none when nothing lies in it.
   *
   * @param z zoom, 0 to 22
   * @param x 0 to 2^z - 1, to the east
   * @param y the same, to the south
   */
  public byte[] tile(int z, int x, int y) {
    One one = new One(z, x, y);
    rows.in(z, x, y, one);
    return one.bytes();
  }

  /** Collects one tile. */
  private final class One implements TileRows.To {
    private final Bytes out = new Bytes();
    private final Bytes feature = new Bytes();
    private final Bytes tags = new Bytes();
    private final TileGeometry geometry = new TileGeometry();
    private final Map<String, Integer> keys = new LinkedHashMap<>();
    private final Map<Object, Integer> values = new LinkedHashMap<>();
    private final Squares squares = new Squares(look.other() + 1);
    private final WkbPaths reader = new WkbPaths();
    private final boolean plain = look.saysAll();
    private final Integer[] entryAt = new Integer[look.other() + 1];
    private int keyAt;
    private int count;

    One(int z, int x, int y) {
      geometry.tile(z, x, y);
    }

    @Override
    public void position(int row, int x, int y, int n) {
      if (n > 0) {
        squares.add(look.top(row), x, y, n);
        return;
      }
      geometry.begin();
      geometry.position(x, y);
      add(row);
    }

    @Override
    public void shape(int row) {
      geometry.begin();
      layer.paths(row, geometry, reader);
      if (geometry.type() != 0) add(row);
    }

    @Override
    public void dot(int row, int x, int y, int n) {
      squares.add(look.top(row), x, y, n);
    }

    private void add(int row) {
      tags.clear();
      if (plain) entry(look.top(row));
      else drawn(look.draw(row, true));
      write(row, geometry.type(), geometry.commands);
    }

    private void write(long id, int type, Bytes commands) {
      count++;
      feature.clear();
      feature.number(1, id);
      feature.message(2, tags);
      feature.number(3, type);
      feature.message(4, commands);
      out.message(2, feature);
    }

    private void squares() {
      for (Squares.One s : squares.all()) {
        if (s == null) continue;
        tags.clear();
        entry(s.entry);
        tag("n", s.each());
        tag("all", s.features);
        write(layer.rows() + (long) count, TileGeometry.POLYGON, s.commands);
      }
    }

    private void drawn(Drawn d) {
      if (d.entries().length == 1) entry(d.entries()[0]);
      else tag("c", d.entriesText());
      for (int i = 0; i < d.turns().length; i++) tag("t" + i, (float) d.turns()[i]);
      for (int i = 0; i < d.sizes().length; i++) tag("s" + i, (float) d.sizes()[i]);
      if (!d.label().isEmpty()) tag("l", d.label().inText());
    }

    /** The commonest tag, without a look into the tables. */
    private void entry(int c) {
      if (entryAt[c] == null) {
        keyAt = key("c");
        entryAt[c] = value((long) c);
      }
      tags.varint(keyAt);
      tags.varint(entryAt[c]);
    }

    private int key(String name) {
      return keys.computeIfAbsent(name, k -> keys.size());
    }

    private int value(Object v) {
      Integer at = values.get(v);
      if (at == null) {
        at = values.size();
        values.put(v, at);
      }
      return at;
    }

    private void tag(String key, Object value) {
      tags.varint(key(key));
      tags.varint(value(value));
    }

    byte[] bytes() {
      squares();
      if (count == 0) return new byte[0];
      Bytes head = new Bytes();
      head.number(15, 2);
      head.text(1, LAYER);
      for (String k : keys.keySet()) out.text(3, k);
      for (Object v : values.keySet()) {
        feature.clear();
        if (v instanceof Long n) feature.number(5, n);
        else if (v instanceof Float f) feature.single(2, f);
        else feature.text(1, (String) v);
        out.message(4, feature);
      }
      out.number(5, TileRows.EXTENT);
      Bytes tile = new Bytes();
      tile.field(3, 2);
      tile.varint((long) head.length + out.length);
      return join(tile, head, out);
    }

    private byte[] join(Bytes... parts) {
      int n = 0;
      for (Bytes b : parts) n += b.length;
      byte[] all = new byte[n];
      int at = 0;
      for (Bytes b : parts) {
        System.arraycopy(b.bytes, 0, all, at, b.length);
        at += b.length;
      }
      return all;
    }
  }
}
