package org.whinridge.formats.xlsx;

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
import java.util.OptionalInt;
import java.util.stream.Stream;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;
import org.dhatim.fastexcel.reader.SheetVisibility;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.value.Value;
import org.whinridge.formats.file.Archive;
import org.whinridge.formats.file.FileNames;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.file.Limits;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Source;
import org.whinridge.formats.source.TableHead;
import org.whinridge.formats.source.TableReading;

/**
 * An Excel workbook (ISO/IEC 29500, SpreadsheetML): each sheet is a table, its names below titles.
 * Of formulas the kept results are read, they are never worked out; error cells are told and empty.
 */
public final class XlsxSource implements Source {
  private static final long MOST_BYTES = 600_000_000;
  private final String name;
  private final Path file;
  private final Map<SourceLayer, Table> layers = new LinkedHashMap<>();

  /** A sheet with its names. */
  private record Table(int sheet, TableHead head) {}

  /** Finds where the tables of the workbook begin, unless a person said so. */
  public XlsxSource(String name, Path file, TableReading reading) throws FileProblem, IOException {
    this.name = name;
    this.file = file;
    Archive.check(file, MOST_BYTES);
    book(
        b -> {
          List<Sheet> sheets = b.getSheets().toList();
          for (int i = 0; i < sheets.size(); i++) sheet(sheets.get(i), i, sheets.size(), reading);
        });
    if (layers.isEmpty()) throw new FileProblem("file.noSheetWorkbookRow");
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
    return new FileProblem("file.workbookDamagedOrNot").because(e);
  }

  private void sheet(Sheet s, int index, int of, TableReading reading)
      throws IOException, FileProblem {
    List<List<String>> first = first(s);
    if (first.isEmpty()) return;
    XlsxMerges.of(file, index).fill(first);
    TableHead head = TableHead.of(first, reading.namesRow());
    Limits.columns(head.names().size(), Said.of("file.where.sheet", "name", s.getName()));
    boolean hidden = s.getVisibility() != SheetVisibility.VISIBLE;
    List<Said> notes = new ArrayList<>(head.notes());
    if (hidden) notes.add(Said.of("file.workbookHidesSheetNot"));
    SourceLayer l =
        new SourceLayer(
            of == 1 ? FileNames.stem(name) : s.getName(),
            Optional.empty(),
            Said.NONE,
            Said.of("file.utf8ByFormat"),
            -1,
            true,
            notes);
    layers.put(hidden ? l.asHidden() : l, new Table(index, head));
  }

  @Override
  public Optional<TableReading> reading() {
    // of the first sheet; of several each finds its own
    return layers.size() > 1
        ? Optional.empty()
        : Optional.of(
            new TableReading(OptionalInt.of(layers.values().iterator().next().head.row()), false));
  }

  /** The texts of the first rows, by their numbers; empty when nothing stands there. */
  private static List<List<String>> first(Sheet s) throws IOException {
    List<List<String>> out = new ArrayList<>();
    boolean any = false;
    try (Stream<Row> rows = s.openStream()) {
      Iterator<Row> it = rows.iterator();
      while (it.hasNext() && out.size() < TableHead.EXAMINED) {
        Row r = it.next();
        if (r.getRowNum() > TableHead.EXAMINED && any) break;
        if (r.getRowNum() > 1_000) break;
        while (out.size() < r.getRowNum() - 1) out.add(List.of());
        List<String> texts = new ArrayList<>();
        for (int i = 0; i < Math.min(r.getCellCount(), Limits.COLUMNS + 2); i++) {
          String text = r.getOptionalCell(i).map(Cell::getText).orElse("");
          any |= !text.isBlank();
          texts.add(text);
        }
        out.add(texts);
      }
    }
    return any ? out : List.of();
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
    Table t = layers.get(layer);
    int[] n = {0};
    book(
        b -> {
          try (Stream<Row> rows = b.getSheets().toList().get(t.sheet).openStream()) {
            Iterator<Row> it = rows.iterator();
            while (it.hasNext()) {
              Row r = it.next();
              if (r.getRowNum() <= t.head.before() || blank(r)) continue;
              Limits.features(++n[0]);
              sink.take(row(r, n[0], t.head.names()));
            }
          }
        });
    if (n[0] == 0) throw new FileProblem("file.sheetColumnNamesBut", "name", layer.name());
    return n[0];
  }

  private static boolean blank(Row r) {
    for (Cell c : r)
      if (c != null && c.getType() != CellType.EMPTY && !c.getText().isBlank()) return false;
    return true;
  }

  private static RawFeature row(Row r, int n, List<String> columns) {
    Map<String, Value> values = new LinkedHashMap<>();
    Said problem = Said.NONE;
    for (int i = 0; i < columns.size(); i++) {
      Cell c = i < r.getCellCount() ? r.getCell(i) : null;
      Value v = Value.EMPTY;
      if (c != null)
        try {
          v = value(c);
        } catch (IllegalArgumentException e) {
          problem =
              Said.of(
                  "file.cell",
                  "row",
                  r.getRowNum(),
                  "column",
                  columns.get(i),
                  "why",
                  Unfit.said(e));
        }
      values.put(columns.get(i), v);
    }
    int beyond = 0;
    for (int i = columns.size(); i < r.getCellCount(); i++)
      if (!r.getOptionalCell(i).map(Cell::getText).orElse("").isBlank()) beyond++;
    if (beyond > 0) {
      Said more = Said.of("file.beyond", "row", r.getRowNum(), "n", beyond);
      problem = problem.isEmpty() ? more : Said.of("list.sentences", "a", problem, "b", more);
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
        throw new Unfit("file.cellError", "error", c.getRawValue());
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
    if (text == null || text.isEmpty()) throw new Unfit("file.formulaNoResultKept");
    if (text.startsWith("#")) throw new Unfit("file.formulaGaveErrorTaken", "text", text);
    var number = org.whinridge.core.text.Numbers.read(text);
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
