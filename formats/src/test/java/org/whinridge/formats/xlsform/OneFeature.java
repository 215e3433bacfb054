package org.whinridge.formats.xlsform;

import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.io.TempDir;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;

/** Small workbooks for tests: sheets of rows, and a form with one question of each kind. */
abstract class OneFeature {
  @TempDir Path folder;

  /** A workbook: sheets of rows, each row "column: value; column: value". */
  Path book(Map<String, List<String>> sheets) throws Exception {
    Path file = folder.resolve("one.xlsx");
    try (OutputStream out = Files.newOutputStream(file)) {
      Workbook book = new Workbook(out, "t", "1.0");
      for (Map.Entry<String, List<String>> s : sheets.entrySet()) {
        Worksheet sheet = book.newWorksheet(s.getKey());
        Set<String> columns = new LinkedHashSet<>();
        for (String row : s.getValue()) columns.addAll(cells(row).keySet());
        List<String> order = new ArrayList<>(columns);
        for (int c = 0; c < order.size(); c++) {
          sheet.value(0, c, order.get(c));
          for (int r = 0; r < s.getValue().size(); r++) {
            String v = cells(s.getValue().get(r)).get(order.get(c));
            if (v != null) sheet.value(r + 1, c, v);
          }
        }
      }
      book.finish();
    }
    return file;
  }

  static Map<String, String> cells(String row) {
    Map<String, String> out = new LinkedHashMap<>();
    for (String part : row.split("; ")) {
      int at = part.indexOf(": ");
      if (at > 0) out.put(part.substring(0, at), part.substring(at + 2));
    }
    return out;
  }

  static final List<String> SURVEY =
      List.of(
          "type: text; name: a; label: A",
          "type: decimal; name: n; label: N",
          "type: date; name: d; label: D",
          "type: select_one kk; name: k; label: K",
          "type: select_multiple kk; name: m; label: M",
          "type: geotrace; name: g; label: G",
          "type: geoshape; name: h; label: H",
          "type: begin repeat; name: r; label: R",
          "type: decimal; name: x; label: X",
          "type: end repeat");

  static final List<String> CHOICES =
      List.of(
          "list_name: kk; name: 1; label: One; size: 3",
          "list_name: kk; name: 2; label: Two; size: 5");

  XlsFormReader.Read read(List<String> survey, List<String> choices, String settings)
      throws Exception {
    Map<String, List<String>> sheets = new LinkedHashMap<>();
    sheets.put("survey", survey);
    sheets.put("choices", choices);
    sheets.put("settings", List.of(settings));
    return XlsFormReader.read(book(sheets));
  }

  static List<String> with(List<String> rows, String... more) {
    List<String> out = new ArrayList<>(rows);
    out.addAll(List.of(more));
    return out;
  }

  static ExecutableForm compiled(Form form) {
    var o = FormCompiler.compile(form, new Schema(GeometryKind.TABLE, List.of(), "", List.of()));
    return o.form().orElseThrow(() -> new AssertionError(o.problems()));
  }
}
