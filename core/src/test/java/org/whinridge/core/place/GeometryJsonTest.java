package org.whinridge.core.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;

class GeometryJsonTest {
  /** The geometries of RFC 7946, appendix A. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "{\"type\":\"Point\",\"coordinates\":[100,0]}",
        "{\"type\":\"LineString\",\"coordinates\":[[100,0],[101,1]]}",
        "{\"type\":\"Polygon\",\"coordinates\":[[[100,0],[101,0],[101,1],[100,1],[100,0]],[[100.8,0.8],[100.8,0.2],[100.2,0.2],[100.2,0.8],[100.8,0.8]]]}",
        "{\"type\":\"MultiPoint\",\"coordinates\":[[100,0],[101,1]]}",
        "{\"type\":\"MultiLineString\",\"coordinates\":[[[100,0],[101,1]],[[102,2],[103,3]]]}",
        "{\"type\":\"MultiPolygon\",\"coordinates\":[[[[102,2],[103,2],[103,3],[102,3],[102,2]]],[[[100,0],[101,0],[101,1],[100,1],[100,0]],[[100.2,0.2],[100.2,0.8],[100.8,0.8],[100.8,0.2],[100.2,0.2]]]]}"
      })
  void theExamplesOfTheRfcComeBackAsTheyWere(String json) {
    assertThat(GeometryJson.write(GeometryJson.parse(json).orElseThrow())).hasToString(json);
  }

  /** RFC 7946 section 3.1.6: outer rings run counter-clockwise. */
  @Test
  void ringsAreWoundByTheRightHandRule() {
    var clockwise =
        GeometryJson.parse(
                "{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[0,1],[1,1],[1,0],[0,0]]]}")
            .orElseThrow();
    assertThat(GeometryJson.write(clockwise))
        .hasToString("{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[1,0],[1,1],[0,1],[0,0]]]}");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "{}",
        "[]",
        "nonsense",
        "{\"type\":\"Point\"}",
        "{\"type\":\"Point\",\"coordinates\":[1]}",
        "{\"type\":\"Point\",\"coordinates\":[181,0]}",
        "{\"type\":\"Point\",\"coordinates\":[0,\"x\"]}",
        "{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[1,0],[1,1],[0,1]]]}",
        "{\"type\":\"Polygon\",\"coordinates\":[]}",
        "{\"type\":\"LineString\",\"coordinates\":[[0,0]]}",
        "{\"type\":\"Circle\",\"coordinates\":[0,0]}",
        "{\"type\":\"Point\",\"coordinates\":[[0,0]]}",
        "{\"type\":7,\"coordinates\":[0,0]}"
      })
  void whatIsNoGeometryIsNone(String json) {
    assertThat(GeometryJson.parse(json)).isEmpty();
  }

  /** RFC 7946 sections 3.1.4 and 3.1.6: a line has two positions or more, a ring four, closed. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "Polygon|[[[0,0],[1,0],[1,1],[0,1]]]|geometry.ring",
        "Polygon|[[[0,0],[1,0],[0,0]]]|geometry.ring",
        "Polygon|[[[0,0],[9,0],[9,9],[0,0]],[[1,1],[2,2]]]|geometry.ring",
        "MultiPolygon|[[[[0,0],[1,0],[1,1],[0,1]]]]|geometry.ring",
        "LineString|[[0,0]]|geometry.onePosition",
        "MultiLineString|[[[0,0],[1,1]],[[0,0]]]|geometry.onePosition"
      })
  void whatIsWrongWithALineOrARingIsTold(String type, String coordinates, String key) {
    JsonObject o = new JsonObject().add("type", type).add("coordinates", Json.parse(coordinates));
    assertThatThrownBy(() -> GeometryJson.readOrSay(o))
        .isInstanceOfSatisfying(
            Unfit.class, e -> assertThat(e.said()).isEqualTo(Said.of(key, "type", type)));
  }
}
