package org.whinridge.formats.xlsform;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import org.whinridge.core.form.Texts;

/**
 * The languages of a workbook: columns such as {@code label::English (en)}. Columns without a
 * language, or else those of the default language, are the form's own.
 */
final class Languages {
  private final String own;

  Languages(Worksheets sheets) {
    String wanted =
        sheets.get("settings").isEmpty()
            ? ""
            : sheets.get("settings").get(0).get("default_language");
    Set<String> all = new LinkedHashSet<>();
    boolean plain = false;
    for (String sheet : new String[] {"survey", "choices"})
      for (Worksheets.Line l : sheets.get(sheet))
        for (String column : l.cells().keySet()) {
          plain |= column.equals("label");
          if (column.startsWith("label::")) all.add(column.substring(7));
        }
    if (!wanted.isEmpty() && all.contains(wanted)) own = wanted;
    else own = plain || all.isEmpty() ? "" : all.iterator().next();
  }

  /** "English (en)" as its tag, en; a language without a tag is its own name. */
  static String tag(String language) {
    int open = language.lastIndexOf('(');
    int close = language.lastIndexOf(')');
    return open >= 0 && close > open
        ? language.substring(open + 1, close).strip()
        : language.strip();
  }

  /** The texts of a row: columns by what they are called there to what they are called here. */
  Texts texts(Map<String, String> cells, Map<String, String> columns) {
    Map<String, String> mine = new LinkedHashMap<>();
    Map<String, Map<String, String>> others = new LinkedHashMap<>();
    columns.forEach(
        (column, what) -> {
          mine.put(what, cells.getOrDefault(column, ""));
          cells.forEach(
              (name, text) -> {
                if (!name.startsWith(column + "::")) return;
                String language = name.substring(column.length() + 2);
                if (language.equals(own)) mine.put(what, text);
                else
                  others.computeIfAbsent(tag(language), k -> new LinkedHashMap<>()).put(what, text);
              });
        });
    return new Texts(mine, others);
  }
}
