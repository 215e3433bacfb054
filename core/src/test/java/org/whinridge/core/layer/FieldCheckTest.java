package org.whinridge.core.layer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import com.eclipsesource.json.Json;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;

/** Limits of fields, and what fills itself. */
class FieldCheckTest {
  private static Field field(String json) {
    return Field.read(Json.parse(json.replace('\'', '"')).asObject());
  }

  private static final String CODED =
      "{'name':'f','label':'F','type':'code','codes':[{'code':'a','label':'A'},{'code':'b','label':'B','retired':true}]}";

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "{'name':'f','type':'whole'}|abc|TYPE",
        "{'name':'f','type':'whole'}|3.7|WHOLE",
        "{'name':'f','type':'whole'}|12|",
        "{'name':'f','type':'decimal'}|3,7|TYPE",
        "{'name':'f','type':'date'}|6.5.2024|TYPE",
        "{'name':'f','type':'date'}|2024-05-06|",
        "{'name':'f','type':'time'}|25:99|TIME",
        "{'name':'f','type':'time'}|9:30|",
        "{'name':'f','type':'yes_no'}|maybe|TYPE",
        "{'name':'f','length':3}|four|LENGTH",
        "{'name':'f','length':4}|four|",
        "{'name':'f','nullable':false}||NEEDED",
        "{'name':'f','type':'unique_id','nullable':false}||",
        CODED + "|a|",
        CODED + "|b|RETIRED",
        CODED + "|c|NOT_LISTED",
        "{'name':'f','type':'codes','codes':[{'code':'a','label':'A'}]}|a;x|NOT_LISTED",
        "{'name':'f','type':'whole','codes':[{'code':'1','label':'One'}]}|2|NOT_LISTED",
        "{'name':'f','type':'whole','codes':[{'code':'1','label':'One'}]}|1|"
      })
  void aValueIsHeldAgainstItsField(String json, String typed, FieldCheck.Kind kind) {
    Field f = field(json);
    assertThat(
            FieldCheck.of(f, FieldCheck.typed(f, typed == null ? "" : typed), Value.EMPTY)
                .map(FieldCheck.Fault::kind))
        .isEqualTo(Optional.ofNullable(kind));
  }

  @Test
  void whatStoodThereMayStay() {
    Field f = field(CODED);
    assertThat(FieldCheck.of(f, Value.text("b"), Value.text("b"))).isEmpty();
    assertThat(FieldCheck.of(f, Value.text("odd"), Value.text("odd"))).isEmpty();
    assertThat(FieldCheck.of(f, Value.text("odd"), Value.text("b"))).isPresent();
    Field many = field(CODED.replace("'code',", "'codes',"));
    Value before = Value.many(List.of(Value.text("b")));
    assertThat(FieldCheck.of(many, Value.many(List.of(Value.text("a"), Value.text("b"))), before))
        .isEmpty();
  }

  @Test
  void aFeatureIsLookedAtAsAWhole() {
    Schema s =
        new Schema(
            GeometryKind.POINT,
            List.of(
                field("{'name':'tag','label':'Tag','unique':true,'nullable':false}"),
                field("{'name':'n','label':'N','type':'whole'}")),
            "tag",
            List.of());
    assertThat(FieldCheck.of(s, Map.of(), Optional.empty(), (f, v) -> false))
        .extracting(FieldCheck.Fault::kind)
        .containsExactly(FieldCheck.Kind.NEEDED);
    Feature f = new Feature("x", Optional.empty(), Map.of("tag", Value.text("T1")), 1);
    assertThat(FieldCheck.of(s, Map.of("n", Value.of(2)), Optional.of(f), (x, v) -> true))
        .isEmpty();
    assertThat(FieldCheck.of(s, Map.of("tag", Value.text("T1")), Optional.of(f), (x, v) -> true))
        .as("its own")
        .isEmpty();
    assertThat(FieldCheck.of(s, Map.of("tag", Value.text("T2")), Optional.of(f), (x, v) -> true))
        .extracting(x -> English.of(x.message()))
        .containsExactly("another feature has “T2” already");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "{'name':'f','label':'F','length':-3}|the length of “F” is -3",
        "{'name':'f','label':'F','length':3,'start':{'fixed':'four'}}|at most 3 characters",
        "{'name':'f','label':'F','unique':true,'start':{'fixed':'x'}}|“F” is unique",
        "{'name':'f','label':'F','type':'code','codes':[{'code':'a','label':'A'}],'start':{'fixed':'z'}}|“z” is not in the code list",
        "{'name':'f','label':'F','type':'whole','start':{'fixed':'3.7'}}|“3.7” is not a whole number",
        "{'name':'f','label':'F','type':'decimal','decimals':-4}|-4 decimals",
        "{'name':'f','label':'F','readOnly':true}|nothing could fill it"
      })
  void limitsThatCantBeAreRefusedWhenTheFieldIsMade(String json, String said) {
    Schema s = new Schema(GeometryKind.POINT, List.of(field(json)), "", List.of());
    assertThatIllegalArgumentException()
        .isThrownBy(() -> SchemaChange.check(s))
        .satisfies(English.says(said));
  }

  @Test
  void eastingAndNorthingFillThemselvesAndFollow() {
    Schema s =
        new Schema(
            GeometryKind.POINT,
            List.of(
                Field.of("e", "Easting", FieldType.DECIMAL)
                    .readOnlyWith(new Start.Formula("easting(place)")),
                Field.of("km", "Kilometre", FieldType.WHOLE)
                    .readOnlyWith(new Start.Formula("e / 1000")),
                field(
                    "{'name':'once','label':'Once','type':'decimal','start':{'formula':'northing(place)'}}")),
            "",
            List.of());
    SchemaChange.check(s);
    CoordinateSystem utm = CoordinateSystem.utmNorth(29);
    NewFeature.Setting setting =
        new NewFeature.Setting(LocalDate.EPOCH, Instant.EPOCH, Optional.of(utm));
    Feature f = NewFeature.begun(at(-10.2, 57.9, Map.of()), s, setting);
    double east = utm.project(new Coordinate(-10.2, 57.9)).orElseThrow().x;
    assertThat(f.value("e")).isEqualTo(Value.of(east));
    assertThat(f.value("km")).isEqualTo(Value.of(Math.round(east / 1000)));
    assertThat(f.value("once").isEmpty()).isFalse();
    Map<String, Value> moved = NewFeature.followed(at(-10.3, 57.9, f.values()), s, setting);
    assertThat(moved).containsOnlyKeys("e", "km");
    assertThat(moved.get("e"))
        .isEqualTo(Value.of(utm.project(new Coordinate(-10.3, 57.9)).orElseThrow().x));
    assertThat(FieldCheck.byHand(s, Map.of("e", Value.of(1), "once", Value.of(2))))
        .extracting(FieldCheck.Fault::field)
        .containsExactly("e");
  }

  private static Feature at(double lon, double lat, Map<String, Value> values) {
    return new Feature(
        "x", Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(lon, lat))), values, 1);
  }
}
