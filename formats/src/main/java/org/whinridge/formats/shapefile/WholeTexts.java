package org.whinridge.formats.shapefile;

import java.io.IOException;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.whinridge.core.value.Value;
import org.whinridge.formats.csv.CsvWriter;
import org.whinridge.formats.file.FileProblem;

/** Texts that a .dbf cuts, read beside it row by row; they stand in the order of the rows. */
final class WholeTexts implements AutoCloseable {
  private final CSVParser parser;
  private final Iterator<CSVRecord> records;
  private CSVRecord next;

  private WholeTexts(CSVParser parser) {
    this.parser = parser;
    this.records = parser == null ? null : parser.iterator();
    advance();
  }

  static WholeTexts of(Optional<ShapefileCompanions> companions) throws IOException {
    var whole = companions.flatMap(ShapefileCompanions::whole);
    return new WholeTexts(whole.isPresent() ? ShapefileCompanions.parser(whole.get()) : null);
  }

  private void advance() {
    next = records != null && records.hasNext() ? records.next() : null;
  }

  /** The values of a row, its cut texts whole; one that does not begin as the cut one stays. */
  Map<String, Value> in(int row, Map<String, Value> values) throws FileProblem {
    if (next == null) return values;
    Map<String, Value> out = new LinkedHashMap<>(values);
    try {
      while (next != null && rowOf(next) <= row) {
        String column = next.get(2);
        String text = CsvWriter.original(next.get(3));
        if (rowOf(next) == row && text.startsWith(out.getOrDefault(column, Value.EMPTY).plain()))
          out.put(column, Value.text(text));
        advance();
      }
    } catch (RuntimeException e) {
      throw new FileProblem("file.tableWholeTextsBeside", "row", row).because(e);
    }
    return out;
  }

  private static int rowOf(CSVRecord r) {
    return Integer.parseInt(r.get(0).strip());
  }

  @Override
  public void close() throws IOException {
    if (parser != null) parser.close();
  }
}
