package org.whinridge.core.round;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.eclipsesource.json.Json;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.said.Unfit;

class TravelTest {
  @Test
  void whatIsWrittenIsReadAgain() {
    Coordinate pump = new Coordinate(-10.25, 57.88);
    Travel back = new Travel(VisitOrder.Ends.andBack(pump), 4.5);
    assertThat(Travel.read(back.json())).isEqualTo(back);
    assertThat(Travel.read(Travel.USUAL.json())).isEqualTo(Travel.USUAL);
    assertThat(Travel.read(Json.parse("{}").asObject())).isEqualTo(Travel.USUAL);
    Travel to = Travel.read(Json.parse("{\"end\": [180, -90], \"kmh\": 300}").asObject());
    assertThat(to.ends().start()).isEqualTo(Optional.empty());
    assertThat(to.ends().end()).contains(new Coordinate(180, -90));
    assertThat(to.how(3).metresPerHour()).isEqualTo(300_000);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "{\"kmh\": 0}",
        "{\"kmh\": 1e9}",
        "{\"kmh\": \"20\"}",
        "{\"start\": [1]}",
        "{\"start\": [\"a\", 2]}",
        "{\"start\": {}}",
        "{\"end\": [181, 0]}",
        "{\"end\": [0, 90.5]}"
      })
  void whatIsNoWayToTravelIsRefused(String json) {
    assertThatThrownBy(() -> Travel.read(Json.parse(json).asObject())).isInstanceOf(Unfit.class);
  }
}
