package org.whinridge.core.layer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;

class SchemaChangeTest {
  private static final Field LEVEL = Field.of("level", "Level", FieldType.TEXT).in("m");
  private static final Schema BEFORE =
      new Schema(
          GeometryKind.POINT,
          List.of(
              Field.of("tag", "Tag", FieldType.TEXT),
              LEVEL,
              Field.of("notes", "Notes", FieldType.TEXT)),
          "tag",
          List.of("tag"));

  private static Schema with(Field... fields) {
    return new Schema(GeometryKind.POINT, List.of(fields), "tag", List.of("tag"));
  }

  private static Feature feature(String id, Map<String, Value> v) {
    return new Feature(id, Optional.empty(), v, 1);
  }

  @Test
  void textToNumberConvertsWhatFitsAndTellsWhatDoesNotByFeature() {
    SchemaChange c =
        SchemaChange.between(BEFORE, with(BEFORE.fields().get(0), LEVEL.as(FieldType.DECIMAL)));
    Feature good =
        feature(
            "1",
            Map.of("tag", Value.text("A"), "level", Value.text("3.40"), "notes", Value.text("n")));
    Feature bad = feature("2", Map.of("tag", Value.text("B"), "level", Value.text("low")));
    c.see(good);
    c.see(bad);
    assertThat(c.effects())
        .extracting(e -> e.field() + " " + e.kind() + " " + e.count())
        .containsExactly("Notes REMOVED 1", "Level CONVERTED 1", "Level MISFIT 1");
    assertThat(c.effects().get(2).told()).containsExactly(new SchemaChange.Told("2", "B", "low"));
    assertThat(c.rewrite(good)).isEqualTo(Map.of("level", Value.of(3.4), "notes", Value.EMPTY));
    assertThat(c.rewrite(bad)).as("a value that does not fit stays").isEmpty();
  }

  @Test
  void newDemandsAreToldNotForced() {
    Field tag = new Field("tag", "Tag", FieldType.TEXT, 1, "", false, true, List.of(), false);
    Field kind = LEVEL.with(List.of(Code.of("low", "Low")));
    SchemaChange c =
        SchemaChange.between(
            BEFORE,
            with(tag, kind, BEFORE.fields().get(2), Field.of("new", "New", FieldType.DATE)));
    c.see(feature("1", Map.of("tag", Value.text("A"), "level", Value.text("high"))));
    c.see(feature("2", Map.of("tag", Value.text("A"), "level", Value.text("low"))));
    c.see(feature("3", Map.of()));
    c.see(feature("4", Map.of("tag", Value.text("LONG"))));
    assertThat(c.effects())
        .extracting(e -> e.field() + " " + e.kind() + " " + e.count())
        .containsExactlyInAnyOrder(
            "New ADDED 0", "Tag REPEATED 1", "Tag EMPTY 1", "Tag MISFIT 1", "Level NOT_LISTED 1");
  }

  @Test
  void aRetiredCodeInUseIsTold() {
    Field listed = LEVEL.with(List.of(Code.of("low", "Low"), Code.of("high", "High")));
    Field retired = LEVEL.with(List.of(Code.of("low", "Low"), new Code("high", "High", true)));
    SchemaChange c =
        SchemaChange.between(
            with(BEFORE.fields().get(0), listed), with(BEFORE.fields().get(0), retired));
    for (int i = 0; i < 56; i++) c.see(feature("h" + i, Map.of("level", Value.text("high"))));
    c.see(feature("l", Map.of("level", Value.text("low"))));
    assertThat(c.effects())
        .extracting(e -> e.field() + " " + e.kind() + " " + e.count())
        .containsExactly("Level RETIRED 56");
  }

  @Test
  void aSchemaThatIsNotSoundIsRefusedInWords() {
    assertThatIllegalArgumentException()
        .isThrownBy(() -> SchemaChange.check(with(LEVEL, LEVEL)))
        .satisfies(English.says("two fields are stored as “level”"));
    assertThatIllegalArgumentException()
        .isThrownBy(() -> SchemaChange.check(with(LEVEL)))
        .satisfies(English.says("tag field “tag” is no field"));
    assertThatIllegalArgumentException()
        .isThrownBy(
            () ->
                SchemaChange.check(
                    new Schema(
                        GeometryKind.POINT,
                        List.of(LEVEL.with(List.of(Code.of("a", "A"), Code.of("a", "B")))),
                        "",
                        List.of())))
        .satisfies(English.says("the code “a” twice"));
    assertThatIllegalArgumentException()
        .isThrownBy(
            () ->
                SchemaChange.check(
                    new Schema(
                        GeometryKind.POINT,
                        List.of(start(LEVEL, new Start.Formula("no_such + 1"))),
                        "",
                        List.of())))
        .satisfies(English.says("can't be worked out"));
    assertThatIllegalArgumentException()
        .isThrownBy(
            () ->
                SchemaChange.between(
                    BEFORE, new Schema(GeometryKind.LINE, BEFORE.fields(), "tag", List.of())))
        .satisfies(English.says("kind of geometry"));
  }

  private static Field start(Field f, Start s) {
    return Field.read(f.json().set("start", s.json()));
  }

  @Test
  void aNewFeatureBeginsWithItsDefaultsInTheOrderOfTheFields() {
    Schema s =
        new Schema(
            GeometryKind.POINT,
            List.of(
                Field.of("id", "Id", FieldType.UNIQUE_ID),
                start(Field.of("width", "Width", FieldType.WHOLE), new Start.Fixed("300")),
                start(Field.of("half", "Half", FieldType.DECIMAL), new Start.Formula("width / 2")),
                start(Field.of("made", "Made", FieldType.DATE), new Start.Formula("today()")),
                start(Field.of("kind", "Kind", FieldType.TEXT), new Start.Fixed("weir"))),
            "",
            List.of());
    SchemaChange.check(s);
    Feature f =
        NewFeature.begun(
            feature("x-1", Map.of("kind", Value.text("pump"))),
            s,
            new NewFeature.Setting(LocalDate.of(2026, 5, 4), Instant.EPOCH, Optional.empty()));
    assertThat(f.values())
        .containsEntry("id", Value.text("x-1"))
        .containsEntry("half", Value.of(150))
        .containsEntry("made", new Value.Day(LocalDate.of(2026, 5, 4)))
        .containsEntry("kind", Value.text("pump"));
    assertThat(Schema.read(s.json())).isEqualTo(s);
  }

  @Test
  void theFinerPointsOfAFieldGoThroughJson() {
    Field f =
        new Field(
            "k",
            "K",
            FieldType.CODES,
            0,
            "",
            true,
            false,
            List.of(new Code("none", "None", false, "kind = 'x'", true)),
            false,
            2,
            new Start.Fixed("none"),
            "look twice",
            Optional.of(new CodesFrom("l1", "c", "d")),
            true,
            true);
    assertThat(Field.read(f.json())).isEqualTo(f);
    assertThat(Field.of("t", "T", FieldType.TIME).holds(Value.text("09:30"))).isTrue();
    assertThat(Field.of("t", "T", FieldType.TIME).holds(Value.text("25:30"))).isFalse();
    assertThat(
            English.of(
                new Field(
                        "d",
                        "D",
                        FieldType.DECIMAL,
                        0,
                        "m",
                        true,
                        false,
                        List.of(),
                        false,
                        2,
                        Start.NOTHING,
                        "",
                        Optional.empty(),
                        false,
                        false)
                    .shown(Value.of(1.5))))
        .isEqualTo("1.50 m");
  }
}
