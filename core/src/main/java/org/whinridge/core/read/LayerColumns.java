package org.whinridge.core.read;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.index.hprtree.HPRtree;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * A layer in memory, made for reading: one {@link Column} per field, compact geometries, and an
 * index over envelopes that is built at the first question by place. Rows keep the order in which
 * features came; a feature that is taken away leaves a gap.
 *
 * <p>Values under names that the schema does not have are not kept here; the store has them.
 */
public final class LayerColumns {
  private static final int MOST_CHANGED = 2000;
  private final Schema schema;
  private final Map<String, Column> columns = new LinkedHashMap<>();
  private final Shapes shapes = new Shapes();
  private final BitSet gone = new BitSet();
  private final TreeSet<Integer> patched = new TreeSet<>();
  private long[] idHigh = new long[1024];
  private long[] idLow = new long[1024];
  private int[] versions = new int[1024];
  private int rows;
  private HPRtree index;
  private int indexed;
  private TileIndex tiles;
  private long changes;
  private final BitSet changedTiles = new BitSet();

  /** An empty read model for features of a schema. */
  public LayerColumns(Schema schema) {
    this.schema = schema;
    for (Field f : schema.fields()) {
      ValueType t = f.type().valueType();
      boolean number = t == ValueType.NUMBER || t == ValueType.DATE || t == ValueType.DATE_TIME;
      columns.put(f.name(), number ? new NumberColumn(t) : new DictionaryColumn());
    }
  }

  /** Adds a feature as the next row; its id must be a UUID in text form. */
  public void add(Feature f) {
    int row = rows++;
    if (row >= idHigh.length) {
      idHigh = Arrays.copyOf(idHigh, row + row / 2);
      idLow = Arrays.copyOf(idLow, idHigh.length);
      versions = Arrays.copyOf(versions, idHigh.length);
    }
    idHigh[row] = hex(f.id(), 0, 18);
    idLow[row] = hex(f.id(), 19, 36);
    put(row, f);
  }

  /** Gives back memory that was only needed while rows came. */
  public void trim() {
    columns.values().forEach(c -> c.trim(rows));
    shapes.trim(rows);
    idHigh = Arrays.copyOf(idHigh, rows);
    idLow = Arrays.copyOf(idLow, rows);
    versions = Arrays.copyOf(versions, rows);
  }

  private void put(int row, Feature f) {
    changes++;
    versions[row] = (int) f.version();
    shapes.set(row, f.geometry());
    columns.forEach((name, c) -> c.set(row, f.value(name)));
  }

  /** Counts the changes since the model was begun: what was made from it is old when this grew. */
  public long changes() {
    return changes;
  }

  /** Takes the newer state of a feature: changed where it is there, else added. */
  public void patch(Feature f) {
    int row = row(f.id());
    changedTiles.set(row < 0 ? rows : row);
    if (row < 0) {
      add(f);
      return;
    }
    gone.clear(row);
    put(row, f);
    if (index != null && row < indexed) patched.add(row);
  }

  /** Takes a feature away. */
  public void remove(String id) {
    int row = row(id);
    if (row < 0) return;
    changes++;
    gone.set(row);
  }

  /** The row of a feature; -1 when it is not here. */
  public int row(String id) {
    long high = hex(id, 0, 18);
    long low = hex(id, 19, 36);
    for (int i = 0; i < rows; i++) if (idLow[i] == low && idHigh[i] == high) return i;
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
    StringBuilder b = new StringBuilder(36);
    for (int i = 0; i < 32; i++) {
      long half = i < 16 ? idHigh[row] : idLow[row];
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
    return new Feature(id(row), shapes.get(row), values, versions[row]);
  }

  /** Rows whose envelope meets a box in degrees, in rising order. */
  public int[] near(Envelope box) {
    if (index == null) index();
    List<Integer> hits = new ArrayList<>();
    for (Object o : index.query(box)) {
      int row = (Integer) o;
      if (has(row) && !patched.contains(row)) hits.add(row);
    }
    for (int row : patched) if (has(row) && meets(row, box)) hits.add(row);
    for (int row = indexed; row < rows; row++) if (has(row) && meets(row, box)) hits.add(row);
    return hits.stream().mapToInt(Integer::intValue).sorted().toArray();
  }

  /** Gives the parts of a row's geometry; none when it has none. */
  public void paths(int row, Paths to) {
    paths(row, to, new WkbPaths());
  }

  /** The same with a reader that is used again, for whoever asks for many rows. */
  public void paths(int row, Paths to, WkbPaths reader) {
    shapes.paths(row, to, reader);
  }

  /** Where rows lie in the world of tiles, but for those of {@link #changedTiles}. */
  public synchronized TileIndex tiles() {
    if (tiles == null || changedTiles.cardinality() > MOST_CHANGED) {
      tiles = TileIndex.of(this, gone);
      changedTiles.clear();
    }
    return tiles;
  }

  /** Rows that came or changed since {@link #tiles} was made. */
  public synchronized BitSet changedTiles() {
    return (BitSet) changedTiles.clone();
  }

  boolean meets(int row, Envelope box) {
    return shapes.envelope(row).filter(box::intersects).isPresent();
  }

  private void index() {
    HPRtree tree = new HPRtree();
    for (int row = 0; row < rows; row++) {
      int at = row;
      shapes.envelope(row).ifPresent(e -> tree.insert(e, at));
    }
    tree.build();
    index = tree;
    indexed = rows;
  }

  /** Memory taken, in bytes, estimated; the index counts once it is built. */
  public long bytes() {
    long n = 20L * idHigh.length + shapes.bytes() + 400;
    for (Column c : columns.values()) n += c.bytes();
    return n + (index == null ? 0 : 60L * indexed) + (tiles == null ? 0 : tiles.bytes());
  }
}
