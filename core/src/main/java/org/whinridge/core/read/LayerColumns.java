package org.whinridge.core.read;

import java.util.Arrays;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * A layer in memory as it was at one moment, made for reading: one {@link Column} per field,
 * compact geometries, and indexes by place. It never changes, so that any number of threads may
 * read it for as long as they like; {@link #with} gives the next state, which shares with this one
 * all that did not change. Rows keep the order in which features came; a feature that is taken away
 * leaves a gap.
 *
 * <p>Values under names that the schema does not have are not kept here; the store has them.
 */
public final class LayerColumns {
  /** So many rows may lie beside the indexes before these are made anew, and a share of all. */
  private static final int MOST_LOOSE = 2000;

  private static final int LOOSE_SHARE = 50;
  private final Schema schema;
  private final Map<String, Column> columns;
  private final Shapes shapes;
  private final Pages<long[]> idHigh;
  private final Pages<long[]> idLow;
  private final Pages<int[]> versions;
  private final int rows;
  private final BitSet gone;
  private final BitSet loose;
  private final PackedTree tree;
  private final TileIndex tiles;

  /**
   * What finds rows by place.
   *
   * @param loose rows that came or changed since, and stand beside
   */
  record Indexes(PackedTree tree, TileIndex tiles, BitSet loose) {}

  /** A state of what was put in, with indexes that are there already or with new ones. */
  LayerColumns(Work w, Optional<Indexes> there) {
    schema = w.schema;
    columns = w.columns;
    shapes = w.shapes;
    idHigh = w.idHigh;
    idLow = w.idLow;
    versions = w.versions;
    rows = w.rows;
    gone = w.gone;
    loose = there.map(Indexes::loose).orElseGet(BitSet::new);
    tree = there.map(Indexes::tree).orElseGet(() -> PackedTree.of(this));
    tiles = there.map(Indexes::tiles).orElseGet(() -> TileIndex.of(this));
  }

  /** The columns while rows are being put in; for one thread, and given away once. */
  static final class Work {
    final Schema schema;
    final Map<String, Column> columns = new LinkedHashMap<>();
    Shapes shapes = new Shapes();
    Pages<long[]> idHigh = Pages.ofLongs();
    Pages<long[]> idLow = Pages.ofLongs();
    Pages<int[]> versions = Pages.ofInts();
    BitSet gone = new BitSet();
    BitSet loose = new BitSet();
    int rows;

    Work(Schema schema) {
      this.schema = schema;
      for (Field f : schema.fields()) {
        ValueType t = f.type().valueType();
        columns.put(f.name(), isNumber(t) ? new NumberColumn(t) : new DictionaryColumn());
      }
    }

    Work(LayerColumns c) {
      schema = c.schema;
      c.columns.forEach(
          (name, x) ->
              columns.put(
                  name, x instanceof NumberColumn n ? n.newer() : ((DictionaryColumn) x).newer()));
      shapes = c.shapes.newer();
      idHigh = c.idHigh.newer();
      idLow = c.idLow.newer();
      versions = c.versions.newer();
      gone = (BitSet) c.gone.clone();
      loose = (BitSet) c.loose.clone();
      rows = c.rows;
    }

    static boolean isNumber(ValueType t) {
      return t == ValueType.NUMBER || t == ValueType.DATE || t == ValueType.DATE_TIME;
    }

    int add(Feature f) {
      int row = rows++;
      idHigh.own(row)[Pages.in(row)] = hex(f.id(), 0, 18);
      idLow.own(row)[Pages.in(row)] = hex(f.id(), 19, 36);
      put(row, f);
      return row;
    }

    void put(int row, Feature f) {
      versions.own(row)[Pages.in(row)] = (int) f.version();
      shapes.set(row, f.geometry());
      columns.forEach(
          (name, c) -> {
            Value v = f.value(name);
            if (c instanceof NumberColumn n) n.set(row, v);
            else ((DictionaryColumn) c).set(row, v);
          });
    }

    void end() {
      for (Column c : columns.values())
        if (c instanceof NumberColumn n) n.end(rows);
        else ((DictionaryColumn) c).end(rows);
      shapes.end(rows);
      idHigh.end(rows);
      idLow.end(rows);
      versions.end(rows);
    }
  }

  /** Makes a read model of features that come one after the other; for one thread. */
  public static final class Builder {
    private final Work work;

    /** For features of a schema. */
    public Builder(Schema schema) {
      work = new Work(schema);
    }

    /** Adds a feature as the next row; its id must be a UUID in text form. */
    public Builder add(Feature f) {
      work.add(f);
      return this;
    }

    /** How many features were added. */
    public int rows() {
      return work.rows;
    }

    /** The read model; the builder is not used any more. */
    public LayerColumns build() {
      work.end();
      work.columns
          .values()
          .forEach(
              c -> {
                if (c instanceof DictionaryColumn d) d.rest();
              });
      return new LayerColumns(work, Optional.empty());
    }
  }

  /** A read model of some features, in their order. */
  public static LayerColumns of(Schema schema, Iterable<Feature> features) {
    Builder b = new Builder(schema);
    features.forEach(b::add);
    return b.build();
  }

  /**
   * The next state: features as they are now, changed where they are there and added where not, and
   * without those that are gone. For one thread at a time, from the newest state.
   *
   * @param away ids of features that were taken away
   */
  public LayerColumns with(List<Feature> now, List<String> away) {
    Work w = new Work(this);
    int[] at = rowsOf(now.stream().map(Feature::id).toList());
    for (int i = 0; i < at.length; i++) {
      int row = at[i];
      if (row < 0) row = w.add(now.get(i));
      else {
        w.gone.clear(row);
        w.put(row, now.get(i));
      }
      w.loose.set(row);
    }
    for (int row : rowsOf(away)) if (row >= 0) w.gone.set(row);
    w.end();
    boolean many = w.loose.cardinality() > MOST_LOOSE + w.rows / LOOSE_SHARE;
    return new LayerColumns(
        w, many ? Optional.empty() : Optional.of(new Indexes(tree, tiles, w.loose)));
  }

  /** The rows of features, -1 for those that are not here, found in one walk. */
  private int[] rowsOf(List<String> ids) {
    int[] out = new int[ids.size()];
    Arrays.fill(out, -1);
    if (ids.size() < 4) {
      for (int i = 0; i < out.length; i++) out[i] = row(ids.get(i));
      return out;
    }
    Map<String, Integer> wanted = new LinkedHashMap<>();
    BitSet seen = new BitSet(1 << 16);
    for (int i = 0; i < out.length; i++) {
      wanted.put(ids.get(i).toLowerCase(java.util.Locale.ROOT), i);
      seen.set((int) (hex(ids.get(i), 19, 36) & 0xffff));
    }
    for (int row = 0; row < rows; row++) {
      if (!seen.get((int) (idLow.at(row)[Pages.in(row)] & 0xffff))) continue;
      Integer i = wanted.get(id(row));
      if (i != null) out[i] = row;
    }
    return out;
  }

  /** The row of a feature; -1 when it is not here. */
  public int row(String id) {
    long high = hex(id, 0, 18);
    long low = hex(id, 19, 36);
    for (int from = 0; from < rows; from += Pages.SIZE) {
      long[] lows = idLow.at(from);
      int n = Math.min(Pages.SIZE, rows - from);
      for (int i = 0; i < n; i++)
        if (lows[i] == low && idHigh.at(from)[i] == high && !gone.get(from + i)) return from + i;
    }
    return -1;
  }

  private static long hex(String id, int from, int to) {
    long n = 0;
    for (int i = from; i < to; i++) {
      char c = id.charAt(i);
      if (c == '-') continue;
      n = n << 4 | Character.digit(c, 16);
    }
    return n;
  }

  /** The schema. */
  public Schema schema() {
    return schema;
  }

  /** Rows with gaps: every row is below this. */
  public int rows() {
    return rows;
  }

  /** How many features there are. */
  public int count() {
    return rows - gone.cardinality();
  }

  /** Whether a row has a feature. */
  public boolean has(int row) {
    return row >= 0 && row < rows && !gone.get(row);
  }

  /** All rows that have a feature. */
  public BitSet all() {
    BitSet b = new BitSet(rows);
    b.set(0, rows);
    b.andNot(gone);
    return b;
  }

  /** The column of a field; empty when the schema does not have it. */
  public Optional<Column> column(String field) {
    return Optional.ofNullable(columns.get(field));
  }

  /** The id of a row's feature, in text form. */
  public String id(int row) {
    long high = idHigh.at(row)[Pages.in(row)];
    long low = idLow.at(row)[Pages.in(row)];
    StringBuilder b = new StringBuilder(36);
    for (int i = 0; i < 32; i++) {
      long half = i < 16 ? high : low;
      b.append(Character.forDigit((int) (half >>> (60 - 4 * (i % 16)) & 15), 16));
      if (i == 7 || i == 11 || i == 15 || i == 19) b.append('-');
    }
    return b.toString();
  }

  /** The geometry of a row. */
  public Optional<Geometry> geometry(int row) {
    return shapes.get(row);
  }

  /** Whether a row's geometry has more than one part. */
  public boolean hasSeveralParts(int row) {
    return shapes.hasSeveralParts(row);
  }

  /** The feature of a row. */
  public Feature feature(int row) {
    Map<String, Value> values = new LinkedHashMap<>();
    columns.forEach(
        (name, c) -> {
          Value v = c.value(row);
          if (!v.isEmpty()) values.put(name, v);
        });
    return new Feature(id(row), shapes.get(row), values, versions.at(row)[Pages.in(row)]);
  }

  /** Rows whose envelope meets a box in degrees, in rising order. */
  public int[] near(Envelope box) {
    return InView.rows(this, box, null, Integer.MAX_VALUE - 8);
  }

  /** Gives the parts of a row's geometry; none when it has none. */
  public void paths(int row, Paths to) {
    paths(row, to, new WkbPaths());
  }

  /** The same with a reader that is used again, for whoever asks for many rows. */
  public void paths(int row, Paths to, WkbPaths reader) {
    shapes.paths(row, to, reader);
  }

  /** Where rows lie in the world of tiles, but for those of {@link #loose}. */
  public TileIndex tiles() {
    return tiles;
  }

  /** Rows that came or changed since the indexes by place were made. A copy. */
  public BitSet loose() {
    return (BitSet) loose.clone();
  }

  PackedTree tree() {
    return tree;
  }

  BitSet gone() {
    return gone;
  }

  Shapes shapes() {
    return shapes;
  }

  Map<String, Column> columns() {
    return columns;
  }

  Pages<long[]> idHigh() {
    return idHigh;
  }

  Pages<long[]> idLow() {
    return idLow;
  }

  Pages<int[]> versions() {
    return versions;
  }

  /** Whether a row's envelope meets a box. */
  boolean meets(int row, Envelope box) {
    return shapes.isPoint(row)
        ? shapes.pointIn(row, box)
        : shapes.envelope(row).filter(box::intersects).isPresent();
  }

  /** Memory taken, in bytes, estimated, indexes included. */
  public long bytes() {
    long n = 8 * (idHigh.places(rows) + idLow.places(rows)) + 4 * versions.places(rows) + 400;
    for (Column c : columns.values()) n += c.bytes(rows);
    return n + shapes.bytes(rows) + tree.bytes() + tiles.bytes() + rows / 4;
  }
}
