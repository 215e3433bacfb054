package org.whinridge.formats.shapefile;

import java.io.BufferedReader;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.file.Limits;
import org.whinridge.formats.source.Described;

/**
 * The tables that {@link ShapefileWriter} puts beside a Shapefile: whole names and labels of its
 * columns, and texts longer than a .dbf column.
 *
 * @param names the field of each column
 * @param labels the label of each field
 * @param whole the table of whole texts, if there is one
 */
public record ShapefileCompanions(
    Map<String, String> names, Map<String, String> labels, Optional<Path> whole) {
  /** How the table of names is called after the Shapefile. */
  public static final String NAMES = "_names.csv";

  /** How the table of whole texts is called after the Shapefile. */
  public static final String WHOLE = "_whole_texts.csv";

  /** The head of the table of names. */
  public static final List<String> NAMES_HEAD = List.of("column", "field", "label");

  /** The head of the table of whole texts. */
  public static final List<String> WHOLE_HEAD = List.of("row", "feature_id", "column", "text");

  /** Whether a table has these column names and no others: made by us, not only called so. */
  public static boolean begins(Path csv, List<String> head) throws IOException {
    try (BufferedReader in = Files.newBufferedReader(csv, StandardCharsets.UTF_8)) {
      return String.join(",", head).equals(in.readLine());
    } catch (java.nio.charset.CharacterCodingException e) {
      return false; // not written by us
    }
  }

  /** Reads the table of names; the table of whole texts is only kept for later. */
  public static ShapefileCompanions read(Path names, Optional<Path> whole)
      throws FileProblem, IOException {
    Map<String, String> fields = new LinkedHashMap<>();
    Map<String, String> labels = new LinkedHashMap<>();
    try (CSVParser p = parser(names)) {
      for (CSVRecord r : p) {
        if (r.size() < 3 || !Field.isName(r.get(1)) || fields.size() >= Limits.COLUMNS) continue;
        fields.put(r.get(0), r.get(1));
        labels.put(r.get(1), r.get(2));
      }
    } catch (java.io.UncheckedIOException | IllegalStateException e) {
      throw new FileProblem("file.tableNamesBesideDamaged").because(e);
    }
    return new ShapefileCompanions(fields, labels, whole);
  }

  static CSVParser parser(Path csv) throws IOException {
    return CSVFormat.RFC4180
        .builder()
        .setHeader()
        .setSkipHeaderRecord(true)
        .get()
        .parse(Files.newBufferedReader(csv, StandardCharsets.UTF_8));
  }

  /** Values under the whole names of their fields. */
  Map<String, Value> renamed(Map<String, Value> values) {
    Map<String, Value> out = new LinkedHashMap<>();
    values.forEach((k, v) -> out.put(names.getOrDefault(k, k), v));
    return out;
  }

  /** The labels that the table tells; types are guessed as in any Shapefile. */
  Described described() {
    List<Field> fields = new ArrayList<>();
    labels.forEach((n, l) -> fields.add(Field.of(n, l, FieldType.TEXT)));
    return new Described(fields, "", "", List.of());
  }

  List<Said> notes() {
    return List.of(Said.of(whole.isPresent() ? "file.namesAndTextsWhole" : "file.namesWhole"));
  }
}
