package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.value.Value;

/** What each source of a chain would give, the first that gives something winning. */
class SourcesTest {
  private static final FormFixture CHAIN =
      new FormFixture()
          .set(
              "beat",
              "prefill",
              "[{\"from\":\"asset\"},{\"from\":\"place\",\"layer\":\"beats\",\"layerName\":\"Beats\",\"field\":\"beat\"},{\"from\":\"fixed\",\"value\":\"none\"}]")
          .set("width", "prefill", "[{\"from\":\"device\",\"item\":\"bearing\"}]")
          .set("silt", "prefill", "[{\"from\":\"device\",\"item\":\"height\"}]");

  private static JsonObject at(JsonArray a, int i) {
    return a.get(i).asObject();
  }

  @Test
  void eachSourceTellsWhatItWouldGive() {
    Filling f =
        Filling.open(CHAIN.compiled(), FormFixture.start(Optional.of(FormFixture.feature())));
    JsonArray given = f.sources("beat");
    assertThat(given.size()).isEqualTo(3);
    assertThat(at(given, 0).getBoolean("empty", false)).isTrue();
    assertThat(at(given, 1).getBoolean("wins", false)).isTrue();
    JsonObject found = at(given, 1).get("found").asArray().get(0).asObject();
    assertThat(found.getString("layer", "")).isEqualTo("beats");
    assertThat(found.getString("feature", "")).isEqualTo("b1");
    assertThat(at(given, 2).getBoolean("empty", true)).isFalse();
    assertThat(at(given, 2).getBoolean("wins", true)).isFalse();
    f.moveTo(new Coordinate(9, 9));
    JsonObject nowhere = at(f.sources("beat"), 1);
    assertThat(nowhere.getBoolean("empty", false)).isTrue();
    assertThat(nowhere.get("note")).isNotNull();
    assertThat(at(f.sources("beat"), 2).getBoolean("wins", false)).isTrue();
    assertThat(f.sources("nothing").isEmpty()).isTrue();
  }

  /** A device that has a compass and knows its height. */
  @Test
  void theDeviceTellsWhereItPointsAndHowHighItIs() {
    VisitStart s = FormFixture.start(Optional.empty());
    VisitStart.Fix fix =
        new VisitStart.Fix(
            Optional.of(new Coordinate(0.6, 0.6)),
            OptionalDouble.of(4),
            OptionalInt.of(9),
            OptionalDouble.of(12),
            OptionalDouble.of(270));
    VisitStart with =
        new VisitStart(
            s.feature(),
            s.last(),
            s.person(),
            s.device(),
            s.startedAt(),
            s.offsetMinutes(),
            s.edition(),
            fix,
            s.lookups(),
            s.system(),
            s.taken(),
            s.turn());
    Filling f = Filling.open(CHAIN.compiled(), with);
    assertThat(f.value("width")).isEqualTo(Value.of(270));
    assertThat(f.value("silt")).isEqualTo(Value.of(12));
    assertThat(Filling.open(CHAIN.compiled(), s).value("width")).isEqualTo(Value.EMPTY);
  }
}
