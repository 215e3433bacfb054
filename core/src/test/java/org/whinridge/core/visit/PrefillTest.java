package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.whinridge.core.said.English;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;

/** Each source of a chain, alone and in order. */
class PrefillTest {
  private static Filling with(String chain) {
    return new FormFixture().set("note", "prefill", chain).open();
  }

  @ParameterizedTest
  @CsvSource({"person,inspector1", "device,phone"})
  void theDeviceKnowsWhoAndWhat(String item, String value) {
    Filling f = with("[{\"from\":\"device\",\"item\":\"" + item + "\"}]");
    assertThat(f.value("note")).isEqualTo(Value.text(value));
    assertThat(English.of(f.provenance("note").said())).isEqualTo("from this device");
  }

  @Test
  void theDeviceKnowsDayMomentAccuracyAndPlaceInTheProjectsSystem() {
    FormFixture x = new FormFixture();
    x.add(
        "{\"name\":\"d\",\"label\":\"D\",\"type\":\"date\",\"prefill\":[{\"from\":\"device\",\"item\":\"date\"}]}");
    x.add(
        "{\"name\":\"m\",\"label\":\"M\",\"type\":\"date_time\",\"prefill\":[{\"from\":\"device\",\"item\":\"moment\"}]}");
    x.add(
        "{\"name\":\"a\",\"label\":\"A\",\"type\":\"decimal\",\"prefill\":[{\"from\":\"device\",\"item\":\"accuracy\"}]}");
    x.add(
        "{\"name\":\"e\",\"label\":\"E\",\"type\":\"decimal\",\"prefill\":[{\"from\":\"device\",\"item\":\"easting\"}]}");
    Filling f = x.open();
    assertThat(f.value("d").plain()).isEqualTo("2026-05-05");
    assertThat(f.value("m").plain()).isEqualTo("2026-05-04T23:30:00Z");
    assertThat(f.value("a")).isEqualTo(Value.of(4));
    // 0.6° E in UTM zone 31 lies west of its meridian (3° E), so its easting is under 500 000 m
    assertThat(Numbers.read(f.value("e").plain()).getAsDouble()).isBetween(200_000.0, 260_000.0);
  }

  @Test
  void theLastVisitCountsOnlyWhileItIsFresh() {
    String old = "[{\"from\":\"last visit\",\"mostDays\":100}]";
    assertThat(new FormFixture().set("width", "prefill", old).open().value("width"))
        .as("247 days ago")
        .isEqualTo(Value.EMPTY);
    String fresh = "[{\"from\":\"last visit\",\"mostDays\":300}]";
    assertThat(new FormFixture().set("width", "prefill", fresh).open().value("width"))
        .isEqualTo(Value.of(900));
  }

  @Test
  void aFixedValueFillsWhatNothingElseDid() {
    Filling f =
        with(
            "[{\"from\":\"last visit\",\"mostDays\":0},{\"from\":\"fixed\",\"value\":\"nothing to tell\"},{\"from\":\"asset\"}]");
    assertThat(f.value("note")).isEqualTo(Value.text("nothing to tell"));
    assertThat(English.of(f.provenance("note").said())).isEqualTo("set by the form");
  }

  @Test
  void anEmptyChainGivesNothingAndNoProvenance() {
    Filling f = with("[]");
    assertThat(f.value("note")).isEqualTo(Value.EMPTY);
    assertThat(f.provenance("note")).isEqualTo(Provenance.NONE);
  }

  @Test
  void aNewFeatureHasNoAssetToAsk() {
    Filling f = Filling.open(new FormFixture().compiled(), FormFixture.start(Optional.empty()));
    assertThat(f.value("silt")).isEqualTo(Value.EMPTY);
  }

  @Test
  void aTypedAnswerIsNoLongerPrefilled() {
    Filling f = with("[{\"from\":\"asset\"}]");
    assertThat(f.value("note")).isEqualTo(Value.text("park at the pump house"));
    f.set("note", Value.text(" gate is locked "));
    assertThat(f.value("note")).as("trimmed").isEqualTo(Value.text("gate is locked"));
    assertThat(f.provenance("note")).isEqualTo(Provenance.TYPED);
  }
}
