package org.whinridge.core.merge;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.layer.Start;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;

class ClaimsTest {
  private static final java.util.function.Function<String, SameValue> SAME =
      f -> SameValue.of(java.util.Optional.empty(), 8);

  private static final Schema SCHEMA =
      new Schema(
          GeometryKind.POINT,
          List.of(
              Field.of("tag", "Tag", FieldType.TEXT),
              Field.of("width", "Width", FieldType.WHOLE).in("mm"),
              Field.of("cost", "Cost centre", FieldType.TEXT).inOffice()),
          "tag",
          List.of("tag"));
  private static final Feature THEN =
      new Feature(
          "f1",
          Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(1, 1))),
          Map.of("tag", Value.text("OS-1"), "width", Value.of(600), "cost", Value.text("C7")),
          3);

  private static Map<String, Value> base(Object... more) {
    Map<String, Value> out = new LinkedHashMap<>();
    out.put("tag", Value.text("OS-1"));
    out.put("width", Value.of(600));
    out.put(Merge.GEOMETRY, new Value.Place(THEN.geometry().orElseThrow()));
    for (int i = 0; i < more.length; i += 2) out.put((String) more[i], (Value) more[i + 1]);
    return out;
  }

  private static Claims look(Map<String, Value> base, Map<String, Value> set) {
    return Claims.check(base, set, 3, Optional.of(THEN), SCHEMA, SAME);
  }

  @Test
  void anHonestVisitGoesThroughAsItIs() {
    Claims c = look(base(), Map.of("width", Value.of(650)));
    assertThat(c.problems()).isEmpty();
    assertThat(c.base()).isEqualTo(base());
    assertThat(c.set()).containsExactly(Map.entry("width", Value.of(650)));
  }

  @Test
  void whatBelongsToTheOfficeOrIsNotThereIsLeftOutAndTold() {
    Claims c =
        look(
            base(),
            Map.of("cost", Value.text("mine"), "gone", Value.text("kept"), "width", Value.of(1)));
    assertThat(c.set()).containsOnlyKeys("width");
    assertThat(c.problems())
        .extracting(Claims.Problem::kind)
        .containsExactlyInAnyOrder(Claims.Kind.OFFICE_ONLY, Claims.Kind.NO_SUCH_FIELD);
    assertThat(c.problems())
        .anySatisfy(
            p -> assertThat(English.of(p.message())).contains("Cost centre belongs to the office"));
    assertThat(look(base("cost", Value.text("guessed")), Map.of()).base())
        .doesNotContainKey("cost");
  }

  @Test
  void aShapeOfAnotherKindIsLeftOutAndTold() {
    Value area = new Value.Place(GeometryJson.WGS84.createPoint(new Coordinate(1, 1)).buffer(1));
    Claims c = look(base(), Map.of(Merge.GEOMETRY, area));
    assertThat(c.set()).isEmpty();
    assertThat(c.problems())
        .singleElement()
        .satisfies(
            p ->
                assertThat(English.of(p.message()))
                    .isEqualTo(
                        "it brings a Polygon, but the layer holds points; the place stays as it is"));
  }

  /** A base that equals what somebody wrote since would pass over that edit without a word. */
  @Test
  void aBaseThatTheLayerDidNotHaveThenIsPutRightAndTold() {
    Claims c = look(base("width", Value.of(777)), Map.of("width", Value.of(650)));
    assertThat(c.base()).containsEntry("width", Value.of(600));
    assertThat(c.problems())
        .singleElement()
        .satisfies(
            p ->
                assertThat(English.of(p.message()))
                    .isEqualTo(
                        "it says it was taken out with Width as “777 mm”, but the layer had “600 mm” then"));
    Merge.Result m = Merge.threeWay(c.base(), Map.of("width", Value.of(777)), c.set(), SAME);
    assertThat(m.clashes()).as("the edit since is not passed over").hasSize(1);
  }

  @Test
  void aVersionThatTheLayerNeverHadMakesEveryChangeAQuestion() {
    Claims c =
        Claims.check(base(), Map.of("width", Value.of(650)), 99, Optional.empty(), SCHEMA, SAME);
    assertThat(c.problems())
        .extracting(Claims.Problem::kind)
        .containsExactly(Claims.Kind.NO_SUCH_VERSION);
    assertThat(Merge.threeWay(c.base(), Map.of("width", Value.of(600)), c.set(), SAME).clashes())
        .hasSize(1);
  }

  @Test
  void whatAFieldDoesNotAllowOrFillsItselfIsLeftOutAndTold() {
    Field tag = new Field("tag", "Tag", FieldType.TEXT, 6, "", false, false, List.of(), false);
    Field kind = Field.of("kind", "Kind", FieldType.CODE).with(List.of(new Code("a", "A", true)));
    Field east =
        Field.of("east", "Easting", FieldType.DECIMAL)
            .readOnlyWith(new Start.Formula("easting(place)"));
    Schema schema =
        new Schema(
            GeometryKind.POINT, List.of(tag, SCHEMA.fields().get(1), kind, east), "tag", List.of());
    Map<String, Value> set = new LinkedHashMap<>();
    set.put("tag", Value.EMPTY);
    set.put("width", Value.text("wide"));
    set.put("kind", Value.text("a"));
    set.put("east", Value.of(5));
    Claims c = Claims.check(base(), set, 3, Optional.of(THEN), schema, SAME);
    assertThat(c.problems())
        .extracting(x -> English.of(x.message()))
        .containsExactly(
            "Tag: this must have a value; it stays as it is",
            "Width: “wide” is not a whole number, such as 12; “wide mm” stays on the visit",
            "Easting is filled by itself and not by hand; “5” stays on the visit");
    assertThat(c.set()).as("retired since it was taken out").containsOnlyKeys("kind");
  }

  /** A feature that a visit makes has no base; what it may not write is left out and told. */
  @Test
  void whatANewFeatureMayBeginWith() {
    Map<String, Value> set = new java.util.LinkedHashMap<>();
    set.put("width", Value.of(650));
    set.put("no_such", Value.of(1));
    Claims c = Claims.ofNew(set, SCHEMA);
    assertThat(c.base()).isEmpty();
    assertThat(c.set()).containsExactly(java.util.Map.entry("width", Value.of(650)));
    assertThat(c.problems())
        .extracting(Claims.Problem::kind)
        .containsExactly(Claims.Kind.NO_SUCH_FIELD, Claims.Kind.NO_PLACE);
    set.put(
        Merge.GEOMETRY,
        new Value.Place(GeometryJson.WGS84.createPoint(new Coordinate(-10.2, 57.9))));
    set.remove("no_such");
    assertThat(Claims.ofNew(set, SCHEMA).problems()).isEmpty();
  }
}
