package org.whinridge.formats.xlsform;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;
import org.whinridge.formats.file.Archive;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.file.Limits;

/** The sheets of a form workbook as rows of named cells. */
final class Worksheets {
  private static final long MOST_BYTES = 50_000_000;
  private static final int MOST_ROWS = 10_000;
  private static final int MOST_COLUMNS = 200;

  /** A row: its number in the sheet from 1, and its filled cells by column name. */
  record Line(int row, Map<String, String> cells) {
    String get(String column) {
      return cells.getOrDefault(column, "");
    }
  }

  private final Map<String, List<Line>> sheets = new LinkedHashMap<>();

  private Worksheets() {}

  List<Line> get(String sheet) {
    return sheets.getOrDefault(sheet, List.of());
  }

  Iterable<String> names() {
    return sheets.keySet();
  }

  static Worksheets read(Path file) throws FileProblem, IOException {
    Archive.check(file, MOST_BYTES);
    Worksheets out = new Worksheets();
    try (InputStream in = Files.newInputStream(file);
        ReadableWorkbook book = new ReadableWorkbook(in, new ReadingOptions(false, true))) {
      for (Sheet s : book.getSheets().toList())
        out.sheets.put(s.getName().strip().toLowerCase(Locale.ROOT), lines(s));
    } catch (IOException e) {
      throw damaged(e);
    } catch (RuntimeException e) {
      throw damaged(e); // the library throws many kinds for damaged workbooks
    }
    if (!out.sheets.containsKey("survey")) throw new FileProblem("sheetTold.workbookNoSheetSurvey");
    return out;
  }

  private static FileProblem damaged(Exception e) {
    if (e.getCause() instanceof FileProblem p) return p;
    String why = String.valueOf(e.getMessage()).replaceAll("\\s+", " ");
    return new FileProblem("sheetTold.workbookCantBeRead", "why", Limits.cut(why, 160)).because(e);
  }

  private static List<Line> lines(Sheet sheet) throws IOException {
    List<Line> out = new ArrayList<>();
    List<String> columns = new ArrayList<>();
    try (Stream<Row> rows = sheet.openStream()) {
      for (Row r : (Iterable<Row>) rows::iterator) {
        if (out.size() > MOST_ROWS)
          throw new IOException("the sheet " + sheet.getName() + " has more than 10,000 rows");
        List<String> texts = new ArrayList<>();
        for (int i = 0; i < Math.min(r.getCellCount(), MOST_COLUMNS); i++)
          texts.add(r.getOptionalCell(i).map(Worksheets::text).orElse(""));
        if (texts.stream().allMatch(String::isBlank)) continue;
        if (columns.isEmpty()) {
          for (String t : texts) columns.add(column(t));
          continue;
        }
        Map<String, String> cells = new LinkedHashMap<>();
        for (int i = 0; i < Math.min(texts.size(), columns.size()); i++)
          if (!texts.get(i).isBlank() && !columns.get(i).isEmpty())
            cells.putIfAbsent(columns.get(i), texts.get(i).strip());
        out.add(new Line(r.getRowNum(), cells));
      }
    }
    return out;
  }

  private static String text(Cell c) {
    String s = c.getText();
    return s == null ? "" : Limits.cut(s, 20_000);
  }

  /** Column names in one spelling: "Label :: English (en)" as label::English (en). */
  private static String column(String s) {
    String[] parts = s.strip().split("\\s*::?\\s*", 2);
    String name = parts[0].toLowerCase(Locale.ROOT).replace(' ', '_');
    if (parts.length == 1) return alias(name);
    if (name.equals("media")) return "media::" + parts[1];
    return alias(name) + "::" + parts[1];
  }

  private static String alias(String name) {
    switch (name) {
      case "relevance":
        return "relevant";
      case "readonly":
      case "read_only":
        return "read_only";
      case "list_name":
      case "list":
        return "list_name";
      case "calculate":
        return "calculation";
      case "image":
        return "media::image";
      default:
        return name;
    }
  }
}
