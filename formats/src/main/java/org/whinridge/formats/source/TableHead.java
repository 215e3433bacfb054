package org.whinridge.formats.source;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;
import org.whinridge.formats.file.Limits;

/**
 * Which row of a table has the names of its columns: the first that is about as full as those below
 * it, since titles and comments above it are not; none when that row holds numbers.
 *
 * @param row the row with the names, from 1; 0 for none
 * @param before rows that are passed over before the first row of values
 * @param names of the columns, none empty, none twice
 * @param notes what is to be told
 */
public record TableHead(int row, int before, List<String> names, List<Said> notes) {
  /** The most rows that are looked at. */
  public static final int EXAMINED = 40;

  private static final int SHOWN = 60;

  /**
   * Finds the names.
   *
   * @param rows the first rows of the file, empty ones too
   * @param asked the row that a person named
   */
  public static TableHead of(List<List<String>> rows, OptionalInt asked) {
    List<Said> notes = new ArrayList<>();
    int row = asked.isPresent() ? Math.min(asked.getAsInt(), rows.size()) : found(rows);
    if (asked.isEmpty() && row > 0 && isValues(rows.get(row - 1))) {
      notes.add(Said.of("file.rowHoldsValuesNot", "row", row));
      return new TableHead(0, row - 1, numbered(rows), notes);
    }
    if (row == 0) return new TableHead(0, 0, numbered(rows), notes);
    if (row > 1) notes.add(above(rows, row));
    return new TableHead(row, row, unique(rows.get(row - 1), notes), notes);
  }

  private static int found(List<List<String>> rows) {
    int most = 0;
    for (List<String> r : rows) most = Math.max(most, filled(r));
    for (int i = 0; i < rows.size(); i++) {
      int n = filled(rows.get(i));
      if (n > 0 && 2 * n >= most && (n > 1 || most <= 2)) return i + 1;
    }
    return 0;
  }

  private static int filled(List<String> row) {
    int n = 0;
    for (String s : row) if (s != null && !s.isBlank()) n++;
    return n;
  }

  /** Whether at least half of a row's cells are numbers or days; years may be names. */
  private static boolean isValues(List<String> row) {
    int values = 0;
    for (String s : row) {
      if (s == null || s.isBlank() || s.strip().matches("(19|20)\\d\\d")) continue;
      String t = s.strip();
      if (Numbers.read(t).isPresent()
          || Reading.DECIMAL_COMMA.number(t).isPresent()
          || Reading.PLAIN.date(t) != null
          || Reading.DAY_FIRST.date(t) != null) values++;
    }
    return values > 0 && 2 * values >= filled(row);
  }

  private static Said above(List<List<String>> rows, int row) {
    List<String> said = new ArrayList<>();
    for (List<String> r : rows.subList(0, row - 1))
      if (filled(r) > 0)
        said.add(
            "“" + Limits.cut(String.join(" ", r).replaceAll("\\s+", " ").strip(), SHOWN) + "”");
    return Said.of(
        said.isEmpty() ? "file.namesInRow" : "file.namesBelow",
        "row",
        row,
        "above",
        Limits.cut(String.join(", ", said), 300));
  }

  private static List<String> numbered(List<List<String>> rows) {
    int most = 0;
    for (List<String> r : rows) most = Math.max(most, r.size());
    List<String> out = new ArrayList<>();
    for (int i = 1; i <= most; i++) out.add("column " + i);
    return out;
  }

  /** Column names as a table has them: none empty, none twice, none without a name at the end. */
  static List<String> unique(List<String> raw, List<Said> notes) {
    Set<String> out = new LinkedHashSet<>();
    List<String> all = new ArrayList<>();
    for (int i = 0; i < raw.size(); i++) {
      String base =
          raw.get(i) == null || raw.get(i).isBlank()
              ? "column " + (i + 1)
              : Limits.cut(raw.get(i).strip().replaceAll("\\s+", " "), 200);
      String name = base;
      for (int k = 2; !out.add(name); k++) name = base + " " + k;
      if (!name.equals(base)) notes.add(Said.of("file.columnTwice", "column", base, "name", name));
      all.add(name);
    }
    while (!all.isEmpty()
        && (raw.get(all.size() - 1) == null || raw.get(all.size() - 1).isBlank())
        && all.size() > 1) all.remove(all.size() - 1);
    return all;
  }
}
