package org.whinridge.core.read;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.ParseException;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.BitSet;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Consumer;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.value.Value;

/**
 * A read model as bytes: a head with the schema, then the columns, geometries and indexes as plain
 * arrays in little-endian order, so that a mapped file is read without looking at single rows.
 * Whoever keeps the bytes sees to it that they are whole; bytes of another version or that break
 * off are refused.
 */
public final class ColumnsImage {
  private static final long MAGIC = 0x31_4c_4f_43_48_4e_49_57L; // "WINHCOL1", the last byte first
  private static final int BLOCK = 1 << 16;

  private ColumnsImage() {}

  /** Gives the image in pieces; each buffer is used again for the next one. */
  public static void write(LayerColumns c, Consumer<ByteBuffer> to) {
    new Writer(to).all(c);
  }

  /**
   * Reads an image back.
   *
   * @param from the bytes of a whole image; at most 2 GB, as a buffer has
   * @throws IllegalArgumentException when the bytes are no image of this version, or not whole
   */
  public static LayerColumns read(ByteBuffer from) {
    try {
      return new Reader(from.duplicate().order(ByteOrder.LITTLE_ENDIAN)).all();
    } catch (BufferUnderflowException
        | NegativeArraySizeException
        | IndexOutOfBoundsException
        | ParseException
        | java.time.DateTimeException
        | UnsupportedOperationException e) {
      throw new IllegalArgumentException("this is no whole image of a read model", e);
    }
  }

  private static final class Writer {
    private final Consumer<ByteBuffer> to;
    private final ByteBuffer b = ByteBuffer.allocate(BLOCK).order(ByteOrder.LITTLE_ENDIAN);

    Writer(Consumer<ByteBuffer> to) {
      this.to = to;
    }

    private ByteBuffer room(int n) {
      if (b.remaining() < n) flush();
      return b;
    }

    private void flush() {
      b.flip();
      if (b.hasRemaining()) to.accept(b);
      b.clear();
    }

    void all(LayerColumns c) {
      room(8).putLong(MAGIC);
      text(c.schema().json().toString());
      room(4).putInt(c.rows());
      longs(c.idHigh(), c.rows());
      longs(c.idLow(), c.rows());
      ints(c.versions(), c.rows());
      for (Field f : c.schema().fields()) {
        Column x = c.column(f.name()).orElseThrow();
        if (x instanceof NumberColumn n) number(n, c.rows());
        else dictionary((DictionaryColumn) x, c.rows());
      }
      shapes(c.shapes(), c.rows());
      bits(c.gone());
      bits(c.loose());
      ints(c.tree().rows());
      ints(c.tree().boxes());
      longs(c.tiles().codes());
      ints(c.tiles().rows());
      ints(c.tiles().boxRows());
      ints(c.tiles().boxCorners());
      room(8).putLong(MAGIC);
      flush();
    }

    private void number(NumberColumn n, int rows) {
      doubles(n.numbers(), rows);
      room(4).putInt(n.others().size());
      n.others()
          .forEach(
              (row, v) -> {
                room(4).putInt(row);
                value(v);
              });
    }

    private void dictionary(DictionaryColumn d, int rows) {
      room(4).putInt(d.distinct());
      for (int i = 0; i < d.distinct(); i++) value(d.distinct(i));
      ints(d.numbers(), rows);
    }

    private void shapes(Shapes s, int rows) {
      doubles(s.xs(), rows);
      doubles(s.ys(), rows);
      room(8).putLong(s.wkbBytes());
      for (int row = 0; s.wkbBytes() > 0 && row < rows; row++) {
        byte[] wkb = s.wkb(row);
        bytes(wkb == null ? new byte[0] : wkb);
      }
    }

    private void value(Value v) {
      if (v instanceof Value.Text t) {
        room(1).put((byte) 1);
        text(t.value());
      } else if (v instanceof Value.Num n) room(9).put((byte) 2).putDouble(n.value());
      else if (v instanceof Value.Bool x) room(2).put((byte) 3).put((byte) (x.value() ? 1 : 0));
      else if (v instanceof Value.Day d) room(9).put((byte) 4).putLong(d.value().toEpochDay());
      else if (v instanceof Value.Moment m) {
        room(13).put((byte) 5).putLong(m.value().getEpochSecond()).putInt(m.value().getNano());
      } else if (v instanceof Value.Many m) {
        room(5).put((byte) 6).putInt(m.values().size());
        m.values().forEach(this::value);
      } else if (v.isEmpty()) room(1).put((byte) 0);
      else {
        room(1).put((byte) 7);
        text(org.whinridge.core.value.ValueJson.write(v).toString());
      }
    }

    private void text(String s) {
      bytes(s.getBytes(StandardCharsets.UTF_8));
    }

    private void bytes(byte[] bytes) {
      room(4).putInt(bytes.length);
      for (int at = 0; at < bytes.length; ) {
        int n = Math.min(room(1).remaining(), bytes.length - at);
        b.put(bytes, at, n);
        at += n;
      }
    }

    private void bits(BitSet s) {
      longs(s.toLongArray());
    }

    private void longs(long[] a) {
      room(4).putInt(a.length);
      for (long x : a) room(8).putLong(x);
    }

    private void ints(int[] a) {
      room(4).putInt(a.length);
      for (int x : a) room(4).putInt(x);
    }

    private void longs(Pages<long[]> p, int rows) {
      for (int from = 0; from < rows; from += Pages.SIZE) longs(p.at(from));
    }

    private void ints(Pages<int[]> p, int rows) {
      for (int from = 0; from < rows; from += Pages.SIZE) ints(p.at(from));
    }

    private void doubles(Pages<double[]> p, int rows) {
      for (int from = 0; from < rows; from += Pages.SIZE) {
        double[] page = p.at(from);
        room(4).putInt(page.length);
        for (double x : page) room(8).putDouble(x);
      }
    }
  }

  private static final class Reader {
    private final ByteBuffer b;

    Reader(ByteBuffer b) {
      this.b = b;
    }

    LayerColumns all() {
      if (b.getLong() != MAGIC)
        throw new IllegalArgumentException("this is an image of another version");
      LayerColumns.Work w = new LayerColumns.Work(Schema.read(Json.parse(text()).asObject()));
      w.rows = size(b.getInt(), 1);
      longs(w.idHigh, w.rows);
      longs(w.idLow, w.rows);
      ints(w.versions, w.rows);
      for (Field f : w.schema.fields())
        w.columns.put(
            f.name(),
            LayerColumns.Work.isNumber(f.type().valueType())
                ? number(f, w.rows)
                : dictionary(w.rows));
      w.shapes = shapes(w.rows);
      w.gone = BitSet.valueOf(longs());
      BitSet loose = BitSet.valueOf(longs());
      PackedTree tree = PackedTree.read(ints(), ints());
      TileIndex tiles = TileIndex.read(longs(), ints(), ints(), ints());
      if (b.getLong() != MAGIC)
        throw new IllegalArgumentException("this image has no end where it should");
      return new LayerColumns(w, Optional.of(new LayerColumns.Indexes(tree, tiles, loose)));
    }

    /** A count that the bytes left can hold. */
    private int size(int n, int bytesEach) {
      if (n < 0 || (long) n * bytesEach > b.remaining()) throw new BufferUnderflowException();
      return n;
    }

    private NumberColumn number(Field f, int rows) {
      Pages<double[]> p = Pages.ofNumbers();
      doubles(p, rows);
      Map<Integer, Value> others = new TreeMap<>();
      for (int n = size(b.getInt(), 5); n > 0; n--) others.put(b.getInt(), value());
      return new NumberColumn(f.type().valueType(), p, others);
    }

    private DictionaryColumn dictionary(int rows) {
      Value[] values = new Value[size(b.getInt(), 1)];
      for (int i = 0; i < values.length; i++) values[i] = value();
      Pages<int[]> p = Pages.ofInts();
      ints(p, rows);
      return new DictionaryColumn(p, new Dictionary(values), values.length);
    }

    private Shapes shapes(int rows) {
      Pages<double[]> xs = Pages.ofNumbers();
      Pages<double[]> ys = Pages.ofNumbers();
      doubles(xs, rows);
      doubles(ys, rows);
      Pages<byte[][]> wkb = Pages.ofBytes();
      long size = b.getLong();
      for (int row = 0; size > 0 && row < rows; row++) {
        byte[] one = bytes();
        if (one.length > 0) wkb.own(row)[Pages.in(row)] = one;
      }
      wkb.end(rows);
      return new Shapes(xs, ys, wkb, size);
    }

    private Value value() {
      switch (b.get()) {
        case 0:
          return Value.EMPTY;
        case 1:
          return Value.text(text());
        case 2:
          return Value.of(b.getDouble());
        case 3:
          return Value.of(b.get() != 0);
        case 4:
          return new Value.Day(java.time.LocalDate.ofEpochDay(b.getLong()));
        case 5:
          return new Value.Moment(java.time.Instant.ofEpochSecond(b.getLong(), b.getInt()));
        case 6:
          Value[] many = new Value[size(b.getInt(), 1)];
          for (int i = 0; i < many.length; i++) many[i] = value();
          return new Value.Many(java.util.List.of(many));
        case 7:
          return org.whinridge.core.value.ValueJson.read(
              Json.parse(text()), org.whinridge.core.value.ValueType.TEXT);
        default:
          throw new IllegalArgumentException("there is a value of an unknown kind in this image");
      }
    }

    private String text() {
      return new String(bytes(), StandardCharsets.UTF_8);
    }

    private byte[] bytes() {
      byte[] out = new byte[size(b.getInt(), 1)];
      b.get(out);
      return out;
    }

    private long[] longs() {
      long[] a = new long[size(b.getInt(), 8)];
      b.asLongBuffer().get(a);
      b.position(b.position() + 8 * a.length);
      return a;
    }

    private int[] ints() {
      int[] a = new int[size(b.getInt(), 4)];
      b.asIntBuffer().get(a);
      b.position(b.position() + 4 * a.length);
      return a;
    }

    private void longs(Pages<long[]> into, int rows) {
      for (int page = 0; page < Pages.count(rows); page++) into.put(page, longs());
    }

    private void ints(Pages<int[]> into, int rows) {
      for (int page = 0; page < Pages.count(rows); page++) into.put(page, ints());
    }

    private void doubles(Pages<double[]> into, int rows) {
      for (int page = 0; page < Pages.count(rows); page++) {
        double[] a = new double[size(b.getInt(), 8)];
        b.asDoubleBuffer().get(a);
        b.position(b.position() + 8 * a.length);
        into.put(page, a);
      }
    }
  }
}
