package org.whinridge.formats.xlsform;

import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/** A workbook of sheets whose first row names their columns. */
final class BookOut {
  private final Workbook book;

  BookOut(OutputStream out) {
    book = new Workbook(out, "Whinridge", "1.0");
  }

  /** Adds a sheet; columns of our own that some row fills stand at the end. */
  void sheet(String name, List<String> columns, List<Map<String, String>> rows) {
    List<String> all = withOwn(columns, rows);
    Worksheet sheet = book.newWorksheet(name);
    for (int c = 0; c < all.size(); c++) {
      sheet.value(0, c, all.get(c));
      for (int r = 0; r < rows.size(); r++) {
        String text = rows.get(r).get(all.get(c));
        if (text != null) sheet.value(r + 1, c, text);
      }
    }
    sheet.freezePane(0, 1);
  }

  private static List<String> withOwn(List<String> columns, List<Map<String, String>> rows) {
    List<String> out = new ArrayList<>(columns);
    for (Map<String, String> row : rows)
      for (String c : row.keySet()) if (OwnColumns.isOwn(c) && !out.contains(c)) out.add(c);
    return out;
  }

  void finish() throws IOException {
    book.finish();
  }
}
