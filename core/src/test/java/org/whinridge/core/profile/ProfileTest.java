package org.whinridge.core.profile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.WKTReader;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.said.English;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** Profiles of fields, surveys of files, columns of places, codes for labels, parts of notes. */
class ProfileTest {
  private static FieldProfile profile(Field f, Value... values) {
    LayerColumns c = columns(f, values);
    return FieldProfile.of(f, c, c.all());
  }

  private static List<Integer> bars(Field f, Value... values) {
    LayerColumns c = columns(f, values);
    return FieldProfile.summary(f, c, c.all()).bars();
  }

  private static LayerColumns columns(Field f, Value... values) {
    LayerColumns.Builder b =
        new LayerColumns.Builder(new Schema(GeometryKind.TABLE, List.of(f), "", List.of(f.name())));
    for (int i = 0; i < values.length; i++)
      b.add(
          new Feature(
              String.format("%08d-0000-4000-8000-000000000000", i),
              Optional.empty(),
              Map.of(f.name(), values[i]),
              1));
    return b.build();
  }

  @Test
  void aFieldInShortShowsHowItsValuesAreSpread() {
    Value[] v = new Value[24];
    for (int i = 0; i < 24; i++) v[i] = Value.of(i);
    assertThat(bars(Field.of("w", "W", FieldType.WHOLE), v))
        .as("of numbers in equal steps, the greatest in the last")
        .hasSize(FieldProfile.MOST_BARS)
        .containsOnly(2);
    assertThat(bars(Field.of("w", "W", FieldType.WHOLE), Value.of(7), Value.of(7)))
        .startsWith(2, 0);
    assertThat(
            bars(
                Field.of("t", "T", FieldType.TEXT),
                Value.text("a"),
                Value.text("b"),
                Value.text("b")))
        .as("of texts the most frequent first")
        .containsExactly(2, 1);
    assertThat(bars(Field.of("t", "T", FieldType.TEXT), Value.EMPTY)).isEmpty();
  }

  @Test
  void numbersHaveRangeQuartilesHistogramAndOutliers() {
    Value[] v = new Value[101];
    for (int i = 0; i < 100; i++) v[i] = Value.of(i);
    v[100] = Value.of(1000);
    NumberProfile n = profile(Field.of("w", "W", FieldType.WHOLE), v).numbers().orElseThrow();
    assertThat(n.least()).isZero();
    assertThat(n.greatest()).isEqualTo(1000);
    assertThat(n.median()).isEqualTo(50);
    assertThat(n.firstQuartile()).isEqualTo(25);
    assertThat(n.thirdQuartile()).isEqualTo(75);
    assertThat(n.highFence()).isEqualTo(150); // 75 + 1.5 × 50
    assertThat(n.outliers()).isEqualTo(1);
    assertThat(n.mean()).isEqualTo(5950 / 101.0, within(1e-9));
    assertThat(n.histogram().stream().mapToInt(NumberProfile.Bin::count).sum()).isEqualTo(101);
    assertThat(n.histogram().size()).isBetween(5, 25);
  }

  @Test
  void valuesOfOneKindHaveOneBarAndNoOutliers() {
    NumberProfile n =
        profile(Field.of("w", "W", FieldType.DECIMAL), Value.of(2), Value.of(2))
            .numbers()
            .orElseThrow();
    assertThat(n.histogram()).containsExactly(new NumberProfile.Bin(2, 2, 2));
    assertThat(n.outliers()).isZero();
    assertThat(profile(Field.of("w", "W", FieldType.DECIMAL), Value.EMPTY).numbers()).isEmpty();
  }

  @Test
  void whatDoesNotFitIsToldWithItsFeature() {
    FieldProfile p =
        profile(
            Field.of("d", "D", FieldType.DATE),
            new Value.Day(LocalDate.of(2025, 1, 1)),
            Value.text("2025-02-30"),
            Value.EMPTY);
    assertThat(p.filled()).isEqualTo(2);
    assertThat(p.filledShare()).isEqualTo(2 / 3.0);
    assertThat(p.misfitCount()).isEqualTo(1);
    assertThat(p.misfits()).extracting(FieldProfile.Told::value).containsExactly("2025-02-30");
    assertThat(p.misfits().get(0).feature()).startsWith("00000001-");
  }

  @Test
  void lengthsPatternsCodesAndRepeatsAreSeen() {
    FieldProfile p =
        profile(
            Field.of("t", "T", FieldType.TEXT),
            Value.text("OS-1001"),
            Value.text("OS-1002"),
            Value.text("os 7"));
    assertThat(p.lengths()).hasValue(new int[] {4, 7});
    assertThat(p.patterns())
        .containsExactly(new ValueCount("AA-9999", 2), new ValueCount("aa 9", 1));
    Field coded =
        Field.of("k", "K", FieldType.CODE)
            .with(List.of(Code.of("a", "A"), new Code("b", "B", true)));
    FieldProfile k =
        profile(coded, Value.text("a"), Value.text("b"), Value.text("z"), Value.text("z"));
    assertThat(k.notListed()).containsExactly(new ValueCount("z", 2));
    assertThat(k.retired()).containsExactly(new ValueCount("b", 1));
    Field unique = new Field("u", "U", FieldType.TEXT, 0, "", true, true, List.of(), false);
    assertThat(profile(unique, Value.text("x"), Value.text("x"), Value.text("y")).repeated())
        .containsExactly(new ValueCount("x", 2));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "57,9;-10,25;3|DECIMAL|DECIMAL_COMMA|numbers, -10.25 to 57.9, decimal comma",
        "04/05/2026;17/05/2026|DATE|DAY_FIRST|2 of 2 dates, day first",
        "05/17/2026;05/04/2026|DATE|MONTH_FIRST|2 of 2 dates, month first",
        "4.5.2026;17.12.2025|DATE|DAY_FIRST|day first",
        "20260504;20251217|DATE|COMPACT_DATE|written as 20260504",
        "2026-05-04 09:30;2026-05-04T10:00:00+02:00|DATE_TIME|PLAIN|2 of 2 moments",
        "09:30;7:05;23:59:59|TIME|PLAIN|3 of 3 times of day",
        "12345678901234567890;1|TEXT|PLAIN|text",
        "1;2;3|WHOLE|PLAIN|3 of 3 whole numbers"
      })
  void oneReadingFitsAllValuesOfAColumn(
      String values, FieldType type, Reading reading, String evidence) {
    TypeGuess g = new TypeGuess();
    for (String s : values.split(";")) g.see(Value.text(s));
    assertThat(g.guess().type()).isEqualTo(type);
    assertThat(g.guess().reading()).isEqualTo(reading);
    assertThat(English.of(g.guess().evidence())).contains(evidence);
    for (String s : values.split(";"))
      assertThat(Field.of("x", "X", type).holds(reading.read(Value.text(s), type))).as(s).isTrue();
  }

  @Test
  void whatCannotBeReadStaysText() {
    assertThat(Reading.DAY_FIRST.read(Value.text("30.02.2025"), FieldType.DATE))
        .isEqualTo(Value.text("30.02.2025"));
    assertThat(Reading.PLAIN.read(Value.text("1,5"), FieldType.DECIMAL))
        .isEqualTo(Value.text("1,5"));
    assertThat(Reading.PLAIN.read(Value.text("maybe"), FieldType.YES_NO))
        .isEqualTo(Value.text("maybe"));
    assertThat(Reading.PLAIN.read(Value.text("a; b"), FieldType.CODES))
        .isEqualTo(Value.many(List.of(Value.text("a"), Value.text("b"))));
    assertThat(Reading.PLAIN.read(Value.of(1), FieldType.YES_NO)).isEqualTo(Value.YES);
  }

  @Test
  void aFewValuesThatComeAgainSpeakForACodeList() {
    TypeGuess g = new TypeGuess();
    for (int i = 0; i < 240; i++) g.see(Value.of(1 + i % 5));
    assertThat(English.of(g.guess().evidence()))
        .isEqualTo("240 of 240 whole numbers, 1 to 5, perhaps a code");
    assertThat(g.guess().mayBeCode()).isTrue();
  }

  @Test
  void aSurveyTellsKeysKindsAndProblemsByRow() throws Exception {
    Survey s = new Survey();
    WKTReader wkt = new WKTReader();
    Geometry bow = wkt.read("POLYGON ((0 0, 2 2, 2 0, 0 2, 0 0))");
    for (int i = 1; i <= 40; i++)
      s.see(
          i,
          Map.of(GeometryKind.POLYGON, i == 7 ? bow : wkt.read("POLYGON ((0 0, 1 0, 1 1, 0 0))")),
          Map.of(
              "ref",
              Value.text(i == 20 ? "R5" : "R" + i),
              "name",
              Value.text(i == 3 ? "Łódź" : "x")),
          Said.NONE);
    s.see(41, Map.of(), Map.of("ref", Value.text("R41")), Said.text("Row 41: broken."));
    assertThat(s.count()).isEqualTo(41);
    assertThat(s.withoutPlace()).isEqualTo(1);
    assertThat(s.selfCrossing()).isEqualTo(1);
    assertThat(English.of(s.problems()))
        .anyMatch(p -> p.startsWith("Row 7: its polygon is not sound at 1, 1"))
        .contains("Row 41: broken.");
    assertThat(s.foreignText()).containsExactly("Łódź");
    Survey.Column ref = s.columns().get(s.columns().get(0).source().equals("ref") ? 0 : 1);
    assertThat(ref.mayBeKey()).isTrue();
    assertThat(English.of(ref.repeated())).containsExactly("“R5” in rows 5 and 20");
    assertThat(s.mayBeDegrees()).isTrue();
    assertThatIllegalArgumentException()
        .isThrownBy(
            () -> {
              for (int i = 0; i < 600; i++)
                s.see(50 + i, Map.of(), Map.of("column" + i, Value.YES), Said.NONE);
            })
        .satisfies(English.says("more than 500"));
  }

  @Test
  void placesAreFoundByNameAndRange() {
    assertThat(places(Map.of("Lat", "57.9", "Lon", "-10.2")))
        .contains(new PlaceColumns("Lon", "Lat", "", true));
    assertThat(places(Map.of("Easting (m)", "428873", "Northing (m)", "6418207")))
        .contains(new PlaceColumns("Easting (m)", "Northing (m)", "", false));
    assertThat(places(Map.of("lat", "428873", "lon", "6418207"))).isEmpty();
    assertThat(places(Map.of("geom", "POINT (1 2)", "x", "1")))
        .contains(new PlaceColumns("", "", "geom", true));
    assertThat(places(Map.of("x", "east", "y", "north"))).isEmpty();
  }

  private static Optional<PlaceColumns> places(Map<String, String> row) {
    Survey s = new Survey();
    Map<String, Value> values = new java.util.LinkedHashMap<>();
    row.forEach((k, v) -> values.put(k, Value.text(v)));
    s.see(1, Map.of(), values, Said.NONE);
    return s.places();
  }

  @Test
  void aPlaceThatIsNoneIsSaid() {
    PlaceColumns p = new PlaceColumns("x", "y", "", false);
    assertThat(p.place(Map.of())).isEmpty();
    assertThat(
            p.place(Map.of("x", Value.text("1,5"), "y", Value.of(2)))
                .orElseThrow()
                .getCoordinate()
                .x)
        .isEqualTo(1.5);
    assertThatIllegalArgumentException()
        .isThrownBy(() -> p.place(Map.of("x", Value.text("here"), "y", Value.of(2))))
        .satisfies(English.says("“here”"));
    assertThatIllegalArgumentException()
        .isThrownBy(() -> p.place(Map.of("x", Value.of(2))))
        .satisfies(English.says("y is empty"));
    assertThatIllegalArgumentException()
        .isThrownBy(
            () -> new PlaceColumns("", "", "w", true).place(Map.of("w", Value.text("POINT ("))))
        .satisfies(English.says("not WKT"));
  }

  @Test
  void codesAreProposedForLabels() {
    List<String> labels = List.of("Tide flap", "Sluice", " Tide flap ", "", "Tide-flap");
    assertThat(CodeProposal.NUMBERS.codes(labels))
        .extracting(Code::code)
        .containsExactly("1", "2", "3");
    assertThat(CodeProposal.SHORT_WORDS.codes(labels))
        .extracting(Code::code)
        .containsExactly("tide_flap", "sluice", "tide_flap_2");
    assertThat(CodeProposal.SAME.codes(labels))
        .extracting(Code::label)
        .containsExactly("Tide flap", "Sluice", "Tide-flap");
    assertThat(pasted("WG, Wet grassland\nRB;Reedbed\n\"OW\"\tOpen water\n", CodeProposal.SAME))
        .containsExactly(
            Code.of("WG", "Wet grassland"), Code.of("RB", "Reedbed"), Code.of("OW", "Open water"));
    assertThat(pasted("Good\nBad\n", CodeProposal.NUMBERS))
        .containsExactly(Code.of("1", "Good"), Code.of("2", "Bad"));
  }

  private static List<Code> pasted(String text, CodeProposal how) {
    return PastedCodes.read(text, how, List.of()).codes();
  }

  @Test
  void pastedPairsAndLabelsMixedKeepTheirOrderCodesAndLabels() {
    assertThat(pasted("Poor\n1, Good\nFair\nG, Green", CodeProposal.NUMBERS))
        .containsExactly(
            Code.of("2", "Poor"),
            Code.of("1", "Good"),
            Code.of("3", "Fair"),
            Code.of("G", "Green"));
    assertThat(pasted("Brick\nbk, Brick\nBrick wall", CodeProposal.SHORT_WORDS))
        .containsExactly(
            Code.of("brick", "Brick"), Code.of("bk", "Brick"), Code.of("brick_wall", "Brick wall"));
  }

  @Test
  void aHeaderIsRecognisedAndDoublesAreTold() {
    PastedCodes csv =
        PastedCodes.read(
            "\uFEFFcode,label\nA,One\nB,Two\nA,Another\nB,Two", CodeProposal.SAME, List.of());
    assertThat(csv.codes()).containsExactly(Code.of("A", "One"), Code.of("B", "Two"));
    assertThat(English.of(csv.told()))
        .containsExactly(
            "The first line, “code, label”, was taken for a header.",
            "“A, Another” was left out: its code stands for “One” already.",
            "“B, Two” stands there already and was left out.");
    assertThat(pasted("Name, Title", CodeProposal.SAME)).as("alone it is no header").hasSize(1);
    assertThat(pasted("Value\nLow\nHigh", CodeProposal.SAME)).hasSize(2);
    assertThat(
            PastedCodes.read("One\nThree", CodeProposal.NUMBERS, List.of(Code.of("1", "One")))
                .codes())
        .containsExactly(Code.of("2", "Three"));
  }

  @Test
  void notesAreSplitAtASeparatorOrByAPattern() {
    assertThat(Split.at(";").parts("a; b;c ")).containsExactly("a", "b", "c");
    assertThat(Split.at(" - ").parts("one")).containsExactly("one");
    assertThat(Split.by("(\\d+) ?mm,? *(.*)").parts("silt 120 mm, hinge worn"))
        .containsExactly("120", "hinge worn");
    assertThat(Split.by("(\\d+)").parts("none")).isEmpty();
    assertThatIllegalArgumentException()
        .isThrownBy(() -> Split.by("("))
        .satisfies(English.says("not sound"));
    assertThatIllegalArgumentException()
        .isThrownBy(() -> Split.by("abc"))
        .satisfies(English.says("no group"));
    assertThat(Split.at(",").parts(",".repeat(100))).hasSize(Split.MOST_PARTS);
  }
}
