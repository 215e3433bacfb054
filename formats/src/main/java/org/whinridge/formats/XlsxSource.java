package org.whinridge.formats;

import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;
import org.whinridge.core.value.Value;

/**
 * An Excel workbook (ISO/IEC 29500, SpreadsheetML): each sheet with a row of names is a table. Of
 * formulas the kept results are read, they are never worked out; error cells are told and empty.
 */
final class XlsxSource implements Source {
  private static final long MOST_BYTES = 600_000_000;
  private final String name;
  private final Path file;
  private final Map<SourceLayer, List<String>> layers = new LinkedHashMap<>();

  XlsxSource(String name, Path file) throws FileProblem, IOException {
    this.name = name;
    this.file = file;
    Archive.check(file, MOST_BYTES);
    book(
        b -> {
          for (Sheet s : b.getSheets().toList()) {
            List<String> notes = new ArrayList<>();
            List<String> columns = columns(s, notes);
            if (columns.isEmpty()) continue;
            Limits.columns(columns.size(), "The sheet “" + s.getName() + "”");
            String title = b.getSheets().count() == 1 ? FileNames.stem(name) : s.getName();
            layers.put(
                new SourceLayer(
                    title, Optional.empty(), "", "UTF-8, as the format says", -1, true, notes),
                columns);
          }
        });
    if (layers.isEmpty())
      throw new FileProblem("No sheet of this workbook has a row of column names.");
  }

  private interface Use {
    void of(ReadableWorkbook book) throws IOException, FileProblem;
  }

  private void book(Use use) throws FileProblem, IOException {
    try (InputStream in = Files.newInputStream(file);
        ReadableWorkbook b = new ReadableWorkbook(in, new ReadingOptions(true, true))) {
      use.of(b);
    } catch (IOException e) {
      throw damaged(e);
    } catch (RuntimeException e) {
      if (e.getCause() instanceof FileProblem p) throw p;
      throw damaged(e); // the library throws many kinds for damaged workbooks
    }
  }

  private static FileProblem damaged(Exception e) {
    String why = String.valueOf(e.getMessage()).replaceAll("\\s+", " ");
    return new FileProblem("This workbook can't be read: " + Limits.cut(why, 160) + ".", e);
  }

  private static List<String> columns(Sheet s, List<String> notes) throws IOException {
    try (Stream<Row> rows = s.openStream()) {
      Iterator<Row> it = rows.iterator();
      while (it.hasNext()) {
        Row r = it.next();
        List<String> names = new ArrayList<>();
        boolean any = false;
        for (int i = 0; i < Math.min(r.getCellCount(), Limits.COLUMNS + 2); i++) {
          String text = r.getOptionalCell(i).map(Cell::getText).orElse("");
          any |= !text.isBlank();
          names.add(text);
        }
        if (!any) continue;
        if (r.getRowNum() > 1)
          notes.add("The column names were found in row " + r.getRowNum() + ".");
        return CsvSource.Names.unique(names, notes);
      }
    }
    return List.of();
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public String format() {
    return "XLSX";
  }

  @Override
  public List<SourceLayer> layers() {
    return List.copyOf(layers.keySet());
  }

  @Override
  public int each(SourceLayer layer, Sink sink) throws FileProblem, IOException {
    List<String> columns = layers.get(layer);
    int[] n = {0};
    book(
        b -> {
          int place = List.copyOf(layers.keySet()).indexOf(layer);
          Sheet sheet = sheets(b).get(place);
          try (Stream<Row> rows = sheet.openStream()) {
            Iterator<Row> it = rows.iterator();
            boolean names = true;
            while (it.hasNext()) {
              Row r = it.next();
              if (blank(r)) continue;
              if (names) {
                names = false;
                continue;
              }
              Limits.features(++n[0]);
              sink.take(row(r, n[0], columns));
            }
          }
        });
    if (n[0] == 0)
      throw new FileProblem("The sheet “" + layer.name() + "” has column names but no rows.");
    return n[0];
  }

  private static List<Sheet> sheets(ReadableWorkbook b) throws IOException {
    List<Sheet> out = new ArrayList<>();
    for (Sheet s : b.getSheets().toList()) if (!columns(s, new ArrayList<>()).isEmpty()) out.add(s);
    return out;
  }

  private static boolean blank(Row r) {
    for (Cell c : r)
      if (c != null && c.getType() != CellType.EMPTY && !c.getText().isBlank()) return false;
    return true;
  }

  private static RawFeature row(Row r, int n, List<String> columns) {
    Map<String, Value> values = new LinkedHashMap<>();
    String problem = "";
    for (int i = 0; i < columns.size(); i++) {
      Cell c = i < r.getCellCount() ? r.getCell(i) : null;
      Value v = Value.EMPTY;
      if (c != null)
        try {
          v = value(c);
        } catch (IllegalArgumentException e) {
          problem =
              "Row " + r.getRowNum() + ", column “" + columns.get(i) + "”: " + e.getMessage() + ".";
        }
      values.put(columns.get(i), v);
    }
    return new RawFeature(n, Optional.empty(), values).with(problem);
  }

  private static Value value(Cell c) {
    switch (c.getType()) {
      case EMPTY:
        return Value.EMPTY;
      case NUMBER:
        return number(c);
      case BOOLEAN:
        return Value.of(Boolean.TRUE.equals(c.asBoolean()));
      case ERROR:
        throw new IllegalArgumentException(
            "the cell holds the error " + c.getRawValue() + "; it is taken as empty");
      case FORMULA:
        return formula(c);
      default:
        return Value.text(Limits.cut(c.getText(), Limits.TEXT));
    }
  }

  private static Value formula(Cell c) {
    Object kept = c.getValue();
    if (kept instanceof BigDecimal) return number(c);
    if (kept instanceof Boolean b) return Value.of(b);
    String text = kept == null ? c.getRawValue() : kept.toString();
    if (text == null || text.isEmpty())
      throw new IllegalArgumentException(
          "the formula has no result kept in the file; it is taken as empty");
    if (text.startsWith("#"))
      throw new IllegalArgumentException(
          "the formula gave the error " + text + "; it is taken as empty");
    var number = org.whinridge.core.value.Numbers.read(text);
    return number.isPresent()
        ? Value.of(number.getAsDouble())
        : Value.text(Limits.cut(text, Limits.TEXT));
  }

  private static Value number(Cell c) {
    String format = c.getDataFormatString();
    double d = c.asNumber().doubleValue();
    if (format == null || !isDate(format) || d < 0 || d > 2_958_465) return Value.of(d);
    if (d < 1)
      return Value.text(
          LocalTime.ofSecondOfDay(Math.min(86_399, Math.round(d * 86_400))).toString());
    LocalDateTime at = c.asDate();
    if (d == Math.floor(d)) return new Value.Day(at.toLocalDate());
    LocalDateTime rounded = at.plusNanos(500_000_000L).withNano(0);
    return new Value.Moment(rounded.toInstant(ZoneOffset.UTC));
  }

  /**
   * Whether a number format shows a date or time: it has y, d, h or s outside quotes and brackets.
   */
  static boolean isDate(String format) {
    String bare =
        format.replaceAll("\"[^\"]*\"", "").replaceAll("\\[[^\\]]*\\]", "").replaceAll("\\\\.", "");
    return !bare.equalsIgnoreCase("General") && bare.matches("(?i).*[ydhs].*");
  }
}
