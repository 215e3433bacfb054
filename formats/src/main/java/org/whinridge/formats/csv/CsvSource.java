package org.whinridge.formats.csv;

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
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.apache.commons.csv.DuplicateHeaderMode;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.formats.file.Encodings;
import org.whinridge.formats.file.FileNames;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.file.Limits;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Source;
import org.whinridge.formats.source.TableHead;
import org.whinridge.formats.source.TableReading;

/**
 * A CSV file (RFC 4180): delimiter, encoding and the row with the names are found; quotation marks
 * that do not fit together are read literally.
 */
public final class CsvSource implements Source {
  private static final char[] DELIMITERS = {',', ';', '\t', '|'};
  private static final int LONGEST_ROW = 4_000_000;
  private final String name;
  private final Path file;
  private final Encodings.Found encoding;
  private final boolean said;
  private final char delimiter;
  private final boolean literal;
  private final TableHead head;
  private final SourceLayer layer;

  /** Finds out how the table is written, unless a person said so. */
  public CsvSource(String name, Path file, TableReading reading) throws FileProblem, IOException {
    this.name = name;
    this.file = file;
    this.encoding = Encodings.of(file);
    List<String> lines = firstLines();
    if (lines.isEmpty()) throw new FileProblem("file.noRowFile");
    if (lines.get(0).indexOf(0) >= 0) throw new FileProblem("file.notTextFileFirst");
    this.said = lines.get(0).matches("(?i)sep=.");
    this.delimiter = said ? lines.get(0).charAt(4) : delimiter(lines);
    List<Said> notes = new ArrayList<>();
    CsvQuotes quotes = quotes();
    this.literal = reading.literalQuotes() || !quotes.areSound();
    if (!quotes.areSound())
      notes.add(Said.of("file.quotationMarkOpenedLine", "line", quotes.line()));
    try {
      this.head = TableHead.of(firstRows(), reading.namesRow());
    } catch (UncheckedIOException | IllegalStateException e) {
      throw broken(e, 1);
    }
    notes.addAll(head.notes());
    String shown = delimiter == '\t' ? "tab" : String.valueOf(delimiter);
    notes.add(Said.of(said ? "file.partedSaid" : "file.parted", "sign", shown));
    this.layer =
        new SourceLayer(
            FileNames.stem(name), Optional.empty(), Said.NONE, encoding.said(), -1, true, notes);
  }

  @Override
  public Optional<TableReading> reading() {
    return Optional.of(new TableReading(OptionalInt.of(head.row()), literal));
  }

  private CsvQuotes quotes() throws IOException {
    try (Reader r = text()) {
      return CsvQuotes.of(r, delimiter);
    }
  }

  private List<List<String>> firstRows() throws IOException, FileProblem {
    List<List<String>> out = new ArrayList<>();
    try (CSVParser p = parser()) {
      Iterator<CSVRecord> rows = p.iterator();
      while (rows.hasNext() && out.size() < TableHead.EXAMINED) {
        CSVRecord r = rows.next();
        // before the names are looked at: a row of a million names must not be compared with itself
        Limits.columns(r.size(), Said.of("file.where.row", "n", out.size() + 1));
        out.add(r.toList());
      }
    }
    if (out.isEmpty()) throw new FileProblem("file.fileEmpty");
    return out;
  }

  private Reader text() throws IOException {
    return new BufferedReader(
        new InputStreamReader(Files.newInputStream(file), encoding.charset()), 1 << 16);
  }

  private List<String> firstLines() throws FileProblem, IOException {
    List<String> out = new ArrayList<>();
    try (Reader r = text()) {
      StringBuilder b = new StringBuilder();
      for (int c = r.read(); c >= 0 && out.size() < TableHead.EXAMINED; c = r.read()) {
        if (c == '\n' || c == '\r') {
          if (!b.isEmpty()) out.add(b.toString());
          b.setLength(0);
        } else if (c != 0xFEFF) b.append((char) c);
        if (b.length() > LONGEST_ROW)
          throw new FileProblem("file.tooLongRow", "row", out.size() + 1);
      }
      if (!b.isEmpty()) out.add(b.toString());
    }
    return out;
  }

  /**
   * The mark that parts most lines into equally many columns; of equals the one of more columns.
   */
  private static char delimiter(List<String> lines) {
    char best = ',';
    long most = 0;
    for (char d : DELIMITERS) {
      Map<Integer, Integer> lengths = new LinkedHashMap<>();
      for (String line : lines) lengths.merge(parts(line, d), 1, Integer::sum);
      for (Map.Entry<Integer, Integer> e : lengths.entrySet()) {
        long score = e.getKey() == 0 ? 0 : 1000L * e.getValue() + e.getKey();
        if (score > most) {
          most = score;
          best = d;
        }
      }
    }
    return best;
  }

  private static int parts(String line, char d) {
    int n = 0;
    boolean quoted = false;
    for (int i = 0; i < line.length(); i++) {
      if (line.charAt(i) == '"') quoted = !quoted;
      else if (line.charAt(i) == d && !quoted) n++;
    }
    return n;
  }

  private CSVParser parser() throws IOException {
    CSVFormat f =
        CSVFormat.RFC4180
            .builder()
            .setDelimiter(delimiter)
            .setQuote(literal ? null : Character.valueOf('"'))
            .setIgnoreEmptyLines(true)
            .setDuplicateHeaderMode(DuplicateHeaderMode.ALLOW_ALL)
            .setLenientEof(true)
            .setTrailingData(true)
            .get();
    Reader in = text();
    in.mark(1);
    if (in.read() != 0xFEFF) in.reset();
    if (said) for (int c = in.read(); c >= 0 && c != '\n'; ) c = in.read();
    return CSVParser.builder().setReader(new Bounded(in)).setFormat(f).get();
  }

  private static FileProblem broken(Exception e, int row) {
    boolean tooLong = String.valueOf(e.getMessage()).contains("4,000,000");
    return new FileProblem(tooLong ? "file.tooLongRow" : "file.quotesUnfit", "row", row).because(e);
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
      for (int i = 0; i < head.before() && rows.hasNext(); i++) rows.next();
      List<String> columns = head.names();
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
                  Said.of(
                      "file.rowTooLong",
                      "row",
                      n + head.before(),
                      "n",
                      r.size(),
                      "columns",
                      columns.size()));
        else if (r.size() < columns.size() && r.size() > 1)
          f =
              f.with(
                  Said.of(
                      "file.rowTooShort",
                      "row",
                      n + head.before(),
                      "n",
                      r.size(),
                      "columns",
                      columns.size()));
        sink.take(f);
      }
    } catch (UncheckedIOException | IllegalStateException e) {
      throw broken(e, n + 1 + head.before());
    }
    if (n == 0) throw new FileProblem("file.fileColumnNamesBut");
    return n;
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
