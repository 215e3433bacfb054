package org.whinridge.formats.shapefile;

import java.io.BufferedInputStream;
import java.io.DataInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.formats.file.Encodings;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.file.Limits;

/**
 * Reads a dBASE III table, the attributes of a Shapefile. Layout of the header: common practice, no
 * source.
 */
final class Dbf implements AutoCloseable {
  /** A column: type C text, N and F numbers, D date, L yes/no. */
  record Column(String name, char type, int length, int decimals) {}

  private final DataInputStream in;
  private final int rows;
  private final int rowLength;
  private final List<Column> columns = new ArrayList<>();
  private final Charset charset;
  private final int driver;
  private int row;

  Dbf(Path file, Optional<Charset> named) throws IOException, FileProblem {
    in = new DataInputStream(new BufferedInputStream(Files.newInputStream(file), 1 << 16));
    try {
      byte[] head = new byte[32];
      in.readFully(head);
      ByteBuffer b = ByteBuffer.wrap(head).order(ByteOrder.LITTLE_ENDIAN);
      rows = b.getInt(4);
      int headLength = b.getShort(8) & 0xFFFF;
      rowLength = b.getShort(10) & 0xFFFF;
      driver = head[29] & 0xFF;
      if (rows < 0 || headLength < 33 || rowLength < 1)
        throw new FileProblem("file.dbfHeader", "rows", rows, "bytes", rowLength);
      Limits.features(rows);
      charset = named.or(() -> Encodings.driver(driver)).orElse(Encodings.WESTERN);
      byte[] fields = new byte[headLength - 32];
      in.readFully(fields);
      columns(fields);
    } catch (EOFException e) {
      in.close();
      throw new FileProblem("file.dbfCutOffWithin").because(e);
    } catch (FileProblem | RuntimeException e) {
      in.close();
      throw e;
    }
  }

  private void columns(byte[] b) throws FileProblem {
    int length = 1;
    for (int at = 0; at + 32 <= b.length && b[at] != 13; at += 32) {
      int end = 0;
      while (end < 11 && b[at + end] != 0) end++;
      String name = new String(b, at, end, charset).strip();
      Column c =
          new Column(
              name.isEmpty() ? "field_" + (columns.size() + 1) : name,
              (char) b[at + 11],
              b[at + 16] & 0xFF,
              b[at + 17] & 0xFF);
      int width = c.type == 'C' ? c.length + 256 * c.decimals : c.length;
      columns.add(c.type == 'C' ? new Column(c.name, 'C', width, 0) : c);
      length += width;
    }
    if (columns.isEmpty()) throw new FileProblem("file.dbfNoColumns");
    if (length > rowLength)
      throw new FileProblem("file.dbfColumnsNeed", "need", length, "said", rowLength);
  }

  int rows() {
    return rows;
  }

  Charset charset() {
    return charset;
  }

  boolean driverSays() {
    return Encodings.driver(driver).isPresent();
  }

  List<Column> columns() {
    return columns;
  }

  /** The next row; empty at the end, and for rows that are marked as deleted an empty map. */
  Optional<Map<String, Value>> next() throws IOException, FileProblem {
    if (row >= rows) return Optional.empty();
    byte[] b = new byte[rowLength];
    try {
      in.readFully(b);
    } catch (EOFException e) {
      throw new FileProblem("file.dbfCutOffAt", "row", row + 1, "rows", rows).because(e);
    }
    row++;
    if (b[0] == '*') return Optional.of(Map.of());
    Map<String, Value> out = new LinkedHashMap<>();
    int at = 1;
    for (Column c : columns) {
      out.put(c.name, value(b, at, c));
      at += c.length;
    }
    return Optional.of(out);
  }

  private Value value(byte[] b, int at, Column c) {
    if (c.type == 'C') {
      String s = new String(b, at, c.length, charset);
      int end = s.length();
      while (end > 0 && (s.charAt(end - 1) == ' ' || s.charAt(end - 1) == 0)) end--;
      return Value.text(s.substring(0, end));
    }
    String s = new String(b, at, c.length, StandardCharsets.US_ASCII).replace("\0", "").strip();
    if (s.isEmpty() || s.startsWith("*")) return Value.EMPTY;
    switch (c.type) {
      case 'N', 'F':
        var d = Numbers.read(s);
        // a long row of digits is an id, whose digits count; with an exponent it is a number
        boolean number = s.indexOf('E') >= 0 || s.indexOf('e') >= 0;
        return d.isPresent() && (number || Math.abs(d.getAsDouble()) < 9007199254740992.0)
            ? Value.of(d.getAsDouble())
            : Value.text(s);
      case 'D':
        return date(s);
      case 'L':
        return "TtYy".contains(s) ? Value.YES : "FfNn".contains(s) ? Value.NO : Value.EMPTY;
      default:
        return Value.text(s);
    }
  }

  private static Value date(String s) {
    if (s.equals("00000000") || s.equals("0")) return Value.EMPTY;
    try {
      return s.matches("\\d{8}")
          ? new Value.Day(
              LocalDate.of(
                  Integer.parseInt(s.substring(0, 4)),
                  Integer.parseInt(s.substring(4, 6)),
                  Integer.parseInt(s.substring(6))))
          : Value.text(s);
    } catch (DateTimeException e) {
      return Value.text(s); // not in the calendar: kept as it is
    }
  }

  @Override
  public void close() throws IOException {
    in.close();
  }
}
