package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.value.Value;

/** Visits that make a feature: what was chosen of it, and its place. */
class NewFeatureVisitTest {
  private static final String FIELDS =
      """
      ,"fields":[{"name":"tag","label":"Tag","type":"text"},
      {"name":"kind","label":"Kind","type":"code","codes":[{"code":"flap","label":"Tide flap"},{"code":"pipe","label":"Pipe"}]},
      {"name":"owner","label":"Owner","type":"text"}],"tagField":"tag","captionFields":["kind","tag"]}""";
  private static final String FORM =
      """
      {"title":"Visit","sections":[{"title":"","questions":[
      {"name":"tag","label":"Tag","type":"text","writesTo":"tag"},
      {"name":"kind","label":"Kind","type":"choice","writesTo":"kind","codes":[{"code":"flap","label":"Tide flap"},{"code":"pipe","label":"Pipe"}]},
      {"name":"big","label":"Big","type":"yes_no","askWhen":"kind = 'flap' AND before.owner IS NULL"}]}]}""";

  private static ExecutableForm form(String kind) {
    Schema schema = Schema.read(Json.parse("{\"kind\":\"" + kind + "\"" + FIELDS).asObject());
    return FormCompiler.compile(Form.read(FORM), schema).form().orElseThrow();
  }

  private static VisitStart start(ExecutableForm form, String made, boolean fix) {
    String at = fix ? ",\"position\":{\"lon\":-10.2,\"lat\":57.9,\"accuracy\":4}" : "";
    return VisitStart.read(
        Json.parse("{\"startedAt\":\"2026-05-04T09:00:00Z\",\"new\":" + made + at + "}").asObject(),
        Optional.empty(),
        Map.of(),
        Optional.empty(),
        form);
  }

  @Test
  void whatWasChosenAnswersItsQuestionAndIsWritten() {
    ExecutableForm form = form("point");
    VisitStart start = start(form, "{\"kind\":\"flap\",\"owner\":\"board\"}", true);
    Filling f = Filling.open(form, start);
    assertThat(f.value("kind")).isEqualTo(Value.text("flap"));
    assertThat(f.isAsked("big"))
        .as("rules see what was chosen, and that nothing was there before")
        .isTrue();
    assertThat(f.view().getString("caption", "")).isEqualTo("Tide flap");
    f.set("kind", Value.text("pipe"));
    f.set("tag", Value.text("OS-900"));
    assertThat(f.view().getString("caption", "")).isEqualTo("Pipe · OS-900");
    JsonObject result = f.result();
    assertThat(result.get("set").toString())
        .isEqualTo("{\"tag\":\"OS-900\",\"kind\":\"pipe\",\"owner\":\"board\"}");
    assertThat(result.get("base").asObject().getLong("version", -1)).isZero();
    Filling again = Filling.resume(form, start, f.saved());
    assertThat(again.forLayer()).isEqualTo(f.forLayer());
  }

  /** Where the device is, is where a new point is, without anybody moving it. */
  @Test
  void aNewPointLiesWhereTheDeviceIs() {
    ExecutableForm form = form("point");
    Filling f = Filling.open(form, start(form, "{}", true));
    assertThat(f.isComplete()).isTrue();
    assertThat(f.result().get("geometry").toString())
        .isEqualTo("{\"type\":\"Point\",\"coordinates\":[-10.2,57.9]}");
  }

  @Test
  void aNewFeatureNeedsAPlaceOfItsLayersKind() {
    ExecutableForm line = form("line");
    Filling f = Filling.open(line, start(line, "{}", true));
    assertThat(f.points())
        .extracting(p -> p.reason().code(), OpenPoint::kind)
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple(PointReason.Code.PLACE, OpenPoint.Kind.NEEDED));
    assertThat(f.result().get("geometry")).isNull();
    f.reshape(
        GeometryJson.WGS84.createLineString(
            new Coordinate[] {new Coordinate(-10.2, 57.9), new Coordinate(-10.21, 57.9)}));
    assertThat(f.isComplete()).isTrue();
    ExecutableForm point = form("point");
    assertThat(Filling.open(point, start(point, "{}", false)).isComplete()).isFalse();
    ExecutableForm table = form("table");
    Filling row = Filling.open(table, start(table, "{}", true));
    assertThat(row.isComplete()).as("rows of a table have no place").isTrue();
    assertThat(row.result().get("geometry")).isNull();
  }

  /** A feature that is there is not made, whatever a start says. */
  @Test
  void aFeatureThatIsThereIsNotMade() {
    JsonObject o = Json.parse("{\"new\":{\"kind\":\"flap\"}}").asObject();
    VisitStart s =
        VisitStart.read(
            o, Optional.of(FormFixture.feature()), Map.of(), Optional.empty(), form("point"));
    assertThat(s.made()).isEmpty();
  }
}
