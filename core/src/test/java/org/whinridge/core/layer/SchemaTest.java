package org.whinridge.core.layer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import com.eclipsesource.json.Json;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;

class SchemaTest {
  @Test
  void anExampleOfAFilterIsOneThatTheLayerUnderstands() {
    for (Schema s :
        java.util.List.of(
            new Schema(
                GeometryKind.POINT,
                java.util.List.of(
                    Field.of("width", "Width", FieldType.WHOLE),
                    Field.of("kind", "Kind", FieldType.CODE)
                        .with(java.util.List.of(Code.of("it's", "It")))),
                "",
                java.util.List.of()),
            new Schema(
                GeometryKind.POINT,
                java.util.List.of(Field.of("select", "Select", FieldType.WHOLE)),
                "",
                java.util.List.of()),
            new Schema(
                GeometryKind.POINT,
                java.util.List.of(Field.of("note", "Note", FieldType.TEXT)),
                "",
                java.util.List.of()),
            new Schema(GeometryKind.POINT, java.util.List.of(), "", java.util.List.of())))
      assertThat(
              org.whinridge.core.rules.Rules.condition(LayerScope.example(s), new LayerScope(s))
                  .problems())
          .as(LayerScope.example(s))
          .isEmpty();
  }

  private static final Schema SCHEMA =
      new Schema(
          GeometryKind.POINT,
          List.of(
              new Field("tag", "Tag", FieldType.TEXT, 8, "", false, true, List.of(), false),
              Field.of("kind", "Kind", FieldType.CODE)
                  .with(List.of(Code.of("flap", "Tide flap"), new Code("mill", "Mill", true))),
              Field.of("silt", "Silt", FieldType.WHOLE).in("mm"),
              Field.of("seen", "Seen", FieldType.DATE),
              Field.of("works", "Works", FieldType.YES_NO),
              Field.of("many", "Many", FieldType.CODES),
              Field.of("cost", "Cost", FieldType.TEXT).inOffice()),
          "tag",
          List.of("tag", "kind"));

  @Test
  void schemasComeBackFromTheirJson() {
    assertThat(Schema.read(Json.parse(SCHEMA.json().toString()).asObject())).isEqualTo(SCHEMA);
  }

  @Test
  void featuresComeBackFromTheirJsonAndValuesThatDoNotFitAreKeptAsText() {
    String json =
        "{\"type\":\"Feature\",\"id\":\"f\",\"version\":4,\"geometry\":{\"type\":\"Point\",\"coordinates\":[1,2]},\"properties\":{\"tag\":\"OS-1\",\"silt\":\"deep\",\"seen\":\"2025-02-30\",\"works\":true,\"many\":[\"a\",\"b\"],\"unknown\":5}}";
    Feature f = Feature.read(Json.parse(json).asObject(), SCHEMA);
    assertThat(f.value("silt")).isEqualTo(Value.text("deep"));
    assertThat(f.value("seen")).isEqualTo(Value.text("2025-02-30"));
    assertThat(f.value("works")).isEqualTo(Value.YES);
    assertThat(f.value("many")).isEqualTo(Value.many(List.of(Value.text("a"), Value.text("b"))));
    assertThat(f.value("unknown"))
        .as("attributes that no field names are kept")
        .isEqualTo(Value.text("5"));
    assertThat(f.value("nothing")).isEqualTo(Value.EMPTY);
    assertThat(Feature.read(Json.parse(f.json(SCHEMA).toString()).asObject(), SCHEMA)).isEqualTo(f);
  }

  @Test
  void aMemberOfAFeatureThatCantBeReadIsAsIfItWereNotThere() {
    Feature f =
        Feature.read(
            Json.parse("{\"id\":7,\"version\":\"new\",\"geometry\":[],\"properties\":\"none\"}")
                .asObject(),
            SCHEMA);
    assertThat(f.id()).as("RFC 7946: an id may be a number").isEqualTo("7");
    assertThat(f.version()).isZero();
    assertThat(f.values()).isEmpty();
    assertThat(Feature.read(Json.parse("{\"id\":{}}").asObject(), SCHEMA).id()).isEmpty();
  }

  @Test
  void aFeatureWithoutAPlaceOrWithABrokenOneHasNone() {
    assertThat(
            Feature.read(Json.parse("{\"id\":\"f\",\"geometry\":null}").asObject(), SCHEMA)
                .geometry())
        .isEmpty();
    assertThat(
            Feature.read(
                    Json.parse("{\"id\":\"f\",\"geometry\":{\"type\":\"Point\"}}").asObject(),
                    SCHEMA)
                .geometry())
        .isEmpty();
  }

  @Test
  void captionsUseLabelsAndSkipWhatIsEmpty() {
    assertThat(SCHEMA.caption(Map.of("tag", Value.text("OS-1"), "kind", Value.text("flap"))))
        .isEqualTo("OS-1 · Tide flap");
    assertThat(SCHEMA.caption(Map.of("kind", Value.text("odd")))).isEqualTo("odd");
    assertThat(SCHEMA.caption(Map.of())).isEmpty();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "Invert level (m)|invert_level_m",
        "Größe|grosse",
        "' '|field",
        "2nd visit|f_2nd_visit",
        "a--b|a_b",
        "Łąka|laka",
        "_x_|x"
      })
  void storageNamesComeFromLabels(String label, String name) {
    assertThat(Field.nameFrom(label)).isEqualTo(name);
    assertThat(Field.nameFrom(label, java.util.Set.of(name, name + "_2"))).isEqualTo(name + "_3");
    assertThat(Field.isName(name)).isTrue();
  }

  @Test
  void namesThatCouldNotBeStoredAreRefused() {
    for (String bad : List.of("", "a b", "1a", "é", "a".repeat(64), "x;y"))
      assertThatIllegalArgumentException().isThrownBy(() -> Field.of(bad, "x", FieldType.TEXT));
  }

  @Test
  void aFieldSaysWhatItHolds() {
    Field tag = SCHEMA.field("tag").orElseThrow();
    Field silt = SCHEMA.field("silt").orElseThrow();
    assertThat(tag.holds(Value.text("12345678"))).isTrue();
    assertThat(tag.holds(Value.text("123456789"))).isFalse();
    assertThat(tag.holds(Value.EMPTY)).isTrue();
    assertThat(silt.holds(Value.of(3))).isTrue();
    assertThat(silt.holds(Value.of(3.5))).isFalse();
    assertThat(silt.holds(Value.text("3"))).isFalse();
  }

  @Test
  void valuesFromElsewhereAreTurnedWhereNothingIsLost() {
    Field silt = SCHEMA.field("silt").orElseThrow();
    assertThat(silt.fit(Value.text(" 12 "))).isEqualTo(Value.of(12));
    assertThat(silt.fit(Value.text("12 mm"))).isEqualTo(Value.text("12 mm"));
    assertThat(SCHEMA.field("tag").orElseThrow().fit(Value.of(7))).isEqualTo(Value.text("7"));
    assertThat(SCHEMA.field("works").orElseThrow().fit(Value.text("yes"))).isEqualTo(Value.YES);
    assertThat(SCHEMA.field("many").orElseThrow().fit(Value.text("a")))
        .isEqualTo(Value.many(List.of(Value.text("a"))));
  }

  @Test
  void valuesAreShownWithLabelAndUnit() {
    assertThat(shown("kind", Value.text("mill"))).isEqualTo("Mill");
    assertThat(shown("silt", Value.of(12))).isEqualTo("12 mm");
    assertThat(shown("silt", Value.EMPTY)).isEmpty();
    assertThat(shown("works", Value.NO)).isEqualTo("no");
    assertThat(shown("many", Value.many(List.of(Value.of(1.5), Value.text("b")))))
        .isEqualTo("1.5, b");
  }

  private static String shown(String field, Value v) {
    return English.of(SCHEMA.field(field).orElseThrow().shown(v));
  }

  @Test
  void kindsComeFromGeometries() {
    var f = GeometryJson.WGS84;
    assertThat(GeometryKind.of(f.createPoint(new Coordinate(0, 0)))).contains(GeometryKind.POINT);
    assertThat(GeometryKind.of(f.createMultiPolygon())).contains(GeometryKind.POLYGON);
    assertThat(GeometryKind.of(f.createGeometryCollection())).isEmpty();
    assertThat(GeometryKind.of("table")).contains(GeometryKind.TABLE);
    assertThat(GeometryKind.of("blob")).isEmpty();
  }

  @Test
  void attributesKeepTheOrderOfTheFields() {
    Map<String, Value> v = new LinkedHashMap<>();
    v.put("zzz", Value.of(1));
    v.put("silt", Value.of(2));
    v.put("tag", Value.text("t"));
    assertThat(new Feature("f", Optional.empty(), v, 1).json(SCHEMA).get("properties"))
        .hasToString("{\"tag\":\"t\",\"silt\":2,\"zzz\":1}");
  }
}
