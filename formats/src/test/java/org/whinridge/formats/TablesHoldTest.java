package org.whinridge.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import org.dhatim.fastexcel.VisibilityState;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Source;
import org.whinridge.formats.source.TableReading;

/** What tables of CSV and XLSX may hold, and what becomes of it (docs/formats.md). */
class TablesHoldTest {
  @TempDir Path tmp;

  /** A table that was read: notes of the layer, rows, problems. */
  private record Read(Source.SourceLayer layer, List<RawFeature> rows) {
    List<String> column(String name) {
      return rows.stream().map(r -> r.properties().get(name).plain()).toList();
    }

    List<String> problems() {
      return rows.stream().map(r -> English.of(r.problem())).filter(p -> !p.isEmpty()).toList();
    }
  }

  private List<Read> read(Path file, TableReading how) throws Exception {
    String name = file.getFileName().toString();
    Sources.Opened o =
        Sources.open(
            List.of(new Sources.Brought(name, file)),
            Files.createDirectories(tmp.resolve("s")),
            Map.of(name, how));
    assertThat(o.notUnderstood()).isEmpty();
    List<Read> out = new ArrayList<>();
    Source s = o.sources().get(0);
    for (Source.SourceLayer l : s.layers()) {
      List<RawFeature> rows = new ArrayList<>();
      s.each(l, rows::add);
      out.add(new Read(l, rows));
    }
    return out;
  }

  private Read csv(String text, TableReading how) throws Exception {
    Path p = tmp.resolve("t.csv");
    Files.writeString(p, text, StandardCharsets.UTF_8);
    return read(p, how).get(0);
  }

  private Read csv(String text) throws Exception {
    return csv(text, TableReading.FOUND);
  }

  @Test
  void anUnclosedQuoteSwallowsNothing() throws Exception {
    StringBuilder b = new StringBuilder("tag,note\n");
    for (int i = 1; i <= 1000; i++) b.append("T").append(i).append(i == 10 ? ",\"open\n" : ",ok\n");
    Read r = csv(b.toString());
    assertThat(r.rows).hasSize(1000);
    assertThat(r.rows.get(9).properties()).containsEntry("note", Value.text("\"open"));
    assertThat(English.of(r.layer.notes()))
        .anySatisfy(n -> assertThat(n).contains("line 11", "read literally"));
    // one that a later row closes swallows what lies between
    Read later = csv("tag,note\nA,\"open\nB,ok\nC,\"x\" y\nD,ok\n");
    assertThat(later.column("tag")).containsExactly("A", "B", "C", "D");
  }

  /** RFC 4180, section 2, rules 5 to 7. */
  @Test
  void soundQuotesAreRead() throws Exception {
    Read r = csv("tag,note\r\nA,\"two\r\nlines, and a comma\"\r\nB,\"he said \"\"no\"\"\"\r\n");
    assertThat(r.column("note")).containsExactly("two\r\nlines, and a comma", "he said \"no\"");
    assertThat(English.of(r.layer.notes())).noneMatch(n -> n.contains("literally"));
    // a mark in the middle of a text of one line is sloppy, and swallows nothing
    assertThat(csv("tag,note\nA,\"5\" pipe\"\nB,6\" pipe\n").column("tag"))
        .containsExactly("A", "B");
    // on wish they are characters like others
    assertThat(
            csv("tag,note\nA,\"x\"\n", new TableReading(OptionalInt.empty(), true)).column("note"))
        .containsExactly("\"x\"");
  }

  @Test
  void titlesCommentsAndTheSignOfTheSeparatorAreFound() throws Exception {
    Read sep = csv("sep=;\ntag;width\nA;1,5\n");
    assertThat(sep.column("width")).containsExactly("1,5");
    Read titled =
        csv("Inventory of gates, 2024\n# made by hand\n\ntag;kind;width\nA;weir;1\nB;pump;2\n");
    assertThat(titled.column("tag")).containsExactly("A", "B");
    assertThat(English.of(titled.layer.notes()))
        .anySatisfy(
            n -> assertThat(n).contains("row 3", "Inventory of gates, 2024", "# made by hand"));
  }

  @Test
  void aFirstRowOfDataIsNotEatenAndMayBeSwitched() throws Exception {
    Read r = csv("A1,51.2,0.3\nA2,51.3,0.4\n");
    assertThat(r.column("column 1")).containsExactly("A1", "A2");
    assertThat(English.of(r.layer.notes()))
        .anySatisfy(n -> assertThat(n).contains("holds values, not names"));
    Read named = csv("A1,51.2,0.3\nA2,51.3,0.4\n", new TableReading(OptionalInt.of(1), false));
    assertThat(named.column("A1")).containsExactly("A2");
    // years are names
    assertThat(csv("place,2020,2021\nx,1,2\n").column("2021")).containsExactly("2");
    Read none = csv("tag,kind\nA,weir\n", new TableReading(OptionalInt.of(0), false));
    assertThat(none.column("column 2")).containsExactly("kind", "weir");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '#',
      value = {
        "tag,a,b\\nA,1\\n#has 2 values for 3 columns",
        "tag,a\\nA,1,2\\n#has 3 values for 2 columns"
      })
  void rowsOfAnotherLengthAreTold(String text, String told) throws Exception {
    assertThat(csv(text.replace("\\n", "\n")).problems()).singleElement().asString().contains(told);
  }

  private interface Fill {
    void of(Workbook book);
  }

  private Path book(Fill fill) throws Exception {
    Path p = tmp.resolve("t.xlsx");
    try (var out = Files.newOutputStream(p);
        Workbook b = new Workbook(out, "test", "1.0")) {
      fill.of(b);
    }
    return p;
  }

  private static void row(Worksheet s, int row, Object... cells) {
    for (int i = 0; i < cells.length; i++)
      if (cells[i] instanceof Number n) s.value(row, i, n);
      else if (cells[i] != null) s.value(row, i, cells[i].toString());
  }

  @Test
  void namesOfASheetAreFoundBelowTitles() throws Exception {
    Path p =
        book(
            b -> {
              Worksheet s = b.newWorksheet("Gates");
              row(s, 0, "Inventory of gates");
              row(s, 1, "as of May");
              row(s, 3, "tag", "kind", "width");
              row(s, 4, "A", "weir", 1.5);
              row(s, 5, "B", "pump", 2, "stray");
            });
    Read r = read(p, TableReading.FOUND).get(0);
    assertThat(r.rows).hasSize(2);
    assertThat(r.column("kind")).containsExactly("weir", "pump");
    assertThat(English.of(r.layer.notes()))
        .anySatisfy(n -> assertThat(n).contains("row 4", "Inventory of gates"));
    assertThat(r.problems())
        .containsExactly("Row 6 has 1 value beyond the last column with a name, left out.");
    Read asked = read(p, new TableReading(OptionalInt.of(2), false)).get(0);
    assertThat(asked.rows.get(0).properties()).containsEntry("as of May", Value.text("tag"));
  }

  @Test
  void hiddenSheetsAreOfferedButNotTakenAndMergedNamesFilled() throws Exception {
    Path p =
        book(
            b -> {
              Worksheet s = b.newWorksheet("Open");
              row(s, 0, "tag", "size", null, "kind");
              s.range(0, 1, 0, 2).merge();
              row(s, 1, "A", 1, 2, "weir");
              Worksheet h = b.newWorksheet("Kept back");
              row(h, 0, "tag", "cost");
              row(h, 1, "A", 100);
              h.setVisibilityState(VisibilityState.HIDDEN);
            });
    List<Read> all = read(p, TableReading.FOUND);
    assertThat(all.get(0).rows.get(0).properties())
        .containsEntry("size", Value.of(1))
        .containsEntry("size 2", Value.of(2));
    assertThat(all.get(0).layer.hidden()).isFalse();
    assertThat(all.get(1).layer.hidden()).isTrue();
    assertThat(English.of(all.get(1).layer.notes())).anyMatch(n -> n.contains("hides this sheet"));
  }
}
