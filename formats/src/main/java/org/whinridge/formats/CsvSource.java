package org.whinridge.formats;

import java.io.BufferedReader;
import java.io.FilterReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.apache.commons.csv.DuplicateHeaderMode;
import org.whinridge.core.value.Value;

/** A CSV file (RFC 4180): delimiter and encoding are found; the first row has the names. */
final class CsvSource implements Source {
  private static final char[] DELIMITERS = {',', ';', '\t', '|'};
  private static final int LONGEST_ROW = 4_000_000;
  private final String name;
  private final Path file;
  private final Encodings.Found encoding;
  private final char delimiter;
  private final List<String> columns;
  private final SourceLayer layer;

  CsvSource(String name, Path file) throws FileProblem, IOException {
    this.name = name;
    this.file = file;
    this.encoding = Encodings.of(file);
    String head = firstLine();
    if (head.isBlank())
      throw new FileProblem("The first row, which should have the column names, is empty.");
    if (head.indexOf(0) >= 0)
      throw new FileProblem("This is not a text file: its first row holds zero bytes.");
    this.delimiter = delimiter(head);
    this.columns = new ArrayList<>();
    List<String> notes = new ArrayList<>();
    try (CSVParser p = parser()) {
      Iterator<CSVRecord> rows = p.iterator();
      if (!rows.hasNext()) throw new FileProblem("The file is empty.");
      CSVRecord first = rows.next();
      // before the names are looked at: a row of a million names must not be compared with itself
      Limits.columns(first.size(), "The first row");
      columns.addAll(Names.unique(first.toList(), notes));
    } catch (UncheckedIOException | IllegalStateException e) {
      throw broken(e, 1);
    }
    String said = delimiter == '\t' ? "tab" : String.valueOf(delimiter);
    notes.add("Columns are parted by “" + said + "”.");
    this.layer =
        new SourceLayer(
            FileNames.stem(name), Optional.empty(), "", encoding.said(), -1, true, notes);
  }

  private Reader text() throws IOException {
    return new BufferedReader(
        new InputStreamReader(Files.newInputStream(file), encoding.charset()), 1 << 16);
  }

  private String firstLine() throws FileProblem, IOException {
    try (Reader r = text()) {
      StringBuilder b = new StringBuilder();
      boolean quoted = false;
      for (int c = r.read(); c >= 0; c = r.read()) {
        if (c == '"') quoted = !quoted;
        if ((c == '\n' || c == '\r') && !quoted) break;
        if (c != 0xFEFF) b.append((char) c);
        if (b.length() > LONGEST_ROW)
          throw new FileProblem("The first row has more than 4,000,000 characters.");
      }
      return b.toString();
    }
  }

  private static char delimiter(String line) {
    char best = ',';
    int most = 0;
    for (char d : DELIMITERS) {
      int n = 0;
      boolean quoted = false;
      for (int i = 0; i < line.length(); i++) {
        if (line.charAt(i) == '"') quoted = !quoted;
        else if (line.charAt(i) == d && !quoted) n++;
      }
      if (n > most) {
        most = n;
        best = d;
      }
    }
    return best;
  }

  private CSVParser parser() throws IOException {
    CSVFormat f =
        CSVFormat.RFC4180
            .builder()
            .setDelimiter(delimiter)
            .setIgnoreEmptyLines(true)
            .setDuplicateHeaderMode(DuplicateHeaderMode.ALLOW_ALL)
            .setLenientEof(true)
            .setTrailingData(true)
            .get();
    Reader in = text();
    in.mark(1);
    if (in.read() != 0xFEFF) in.reset();
    return CSVParser.builder().setReader(new Bounded(in)).setFormat(f).get();
  }

  private static FileProblem broken(Exception e, int row) {
    Throwable why = e instanceof UncheckedIOException && e.getCause() != null ? e.getCause() : e;
    return new FileProblem(
        "Row "
            + row
            + " can't be read: "
            + Limits.cut(String.valueOf(why.getMessage()).replaceAll("\\s+", " "), 160)
            + ".",
        e);
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public String format() {
    return "CSV";
  }

  @Override
  public List<SourceLayer> layers() {
    return List.of(layer);
  }

  @Override
  public int each(SourceLayer l, Sink sink) throws FileProblem, IOException {
    int n = 0;
    try (CSVParser p = parser()) {
      Iterator<CSVRecord> rows = p.iterator();
      if (rows.hasNext()) rows.next();
      while (rows.hasNext()) {
        CSVRecord r = rows.next();
        Limits.features(++n);
        Map<String, Value> values = new LinkedHashMap<>();
        for (int i = 0; i < columns.size(); i++)
          values.put(
              columns.get(i),
              i < r.size() ? Value.text(CsvWriter.original(r.get(i))) : Value.EMPTY);
        RawFeature f = new RawFeature(n, Optional.empty(), values);
        if (r.size() > columns.size())
          f =
              f.with(
                  "Row "
                      + (n + 1)
                      + " has "
                      + r.size()
                      + " values for "
                      + columns.size()
                      + " columns; the last are left out.");
        else if (r.size() < columns.size() && r.size() > 1)
          f =
              f.with(
                  "Row "
                      + (n + 1)
                      + " has "
                      + r.size()
                      + " values for "
                      + columns.size()
                      + " columns; the last are empty.");
        sink.take(f);
      }
    } catch (UncheckedIOException | IllegalStateException e) {
      throw broken(e, n + 2);
    }
    if (n == 0) throw new FileProblem("The file has column names but no rows.");
    return n;
  }

  /** Column names as a table has them: none empty, none twice. */
  static final class Names {
    private Names() {}

    static List<String> unique(List<String> raw, List<String> notes) {
      Set<String> out = new LinkedHashSet<>();
      List<String> all = new ArrayList<>();
      for (int i = 0; i < raw.size(); i++) {
        String base =
            raw.get(i) == null || raw.get(i).isBlank()
                ? "column " + (i + 1)
                : Limits.cut(raw.get(i).strip(), 200);
        String name = base;
        for (int k = 2; !out.add(name); k++) name = base + " " + k;
        if (!name.equals(base))
          notes.add(
              "The column name “"
                  + base
                  + "” stands more than once; the later one is “"
                  + name
                  + "”.");
        all.add(name);
      }
      while (!all.isEmpty()
          && (raw.get(all.size() - 1) == null || raw.get(all.size() - 1).isBlank())
          && all.size() > 1) all.remove(all.size() - 1);
      return all;
    }
  }

  /** Ends reading at a row that never ends, so that one quote too few can't fill the memory. */
  private static final class Bounded extends FilterReader {
    private int sinceNewLine;

    Bounded(Reader in) {
      super(in);
    }

    @Override
    public int read() throws IOException {
      int c = super.read();
      return count(c) ? c : -1;
    }

    @Override
    public int read(char[] b, int from, int most) throws IOException {
      int n = super.read(b, from, most);
      for (int i = 0; i < n; i++) count(b[from + i]);
      return n;
    }

    private boolean count(int c) throws IOException {
      sinceNewLine = c == '\n' ? 0 : sinceNewLine + 1;
      if (sinceNewLine > LONGEST_ROW)
        throw new IOException("a row has more than 4,000,000 characters");
      return true;
    }
  }
}
