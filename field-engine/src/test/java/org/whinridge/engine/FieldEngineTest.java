package org.whinridge.engine;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import org.junit.jupiter.api.Test;
import org.whinridge.core.said.English;

/** The exported border as the day book calls it: text in, text out, long-lived objects between. */
class FieldEngineTest {
  private static final String SCHEMA =
      "{\"kind\":\"point\",\"fields\":[{\"name\":\"kind\",\"label\":\"Kind\",\"type\":\"text\"},"
          + "{\"name\":\"silt\",\"label\":\"Silt\",\"type\":\"whole\"},"
          + "{\"name\":\"beat\",\"label\":\"Beat\",\"type\":\"text\"}]}";
  private static final String FORM =
      "{\"title\":\"T\",\"sections\":[{\"title\":\"S\",\"startsPage\":true,\"questions\":["
          + "{\"name\":\"kind\",\"label\":\"Kind\",\"type\":\"text\",\"writesTo\":\"kind\",\"prefill\":[{\"from\":\"asset\"}]},"
          + "{\"name\":\"silt\",\"label\":\"Silt\",\"type\":\"whole\",\"writesTo\":\"silt\",\"need\":\"needed\",\"askWhen\":\"kind = 'flap'\"},"
          + "{\"name\":\"beat\",\"label\":\"Beat\",\"type\":\"text\",\"writesTo\":\"beat\",\"prefill\":[{\"from\":\"place\",\"layer\":\"b\",\"layerName\":\"Beats\",\"field\":\"beat\"}]}]}]}";
  private static final String FEATURE =
      "{\"type\":\"Feature\",\"id\":\"f1\",\"version\":3,\"geometry\":{\"type\":\"Point\",\"coordinates\":[0.5,0.5]},\"properties\":{\"kind\":\"flap\"}}";
  private static final String START =
      "{\"person\":\"inspector1\",\"device\":\"phone\",\"startedAt\":\"2026-05-04T09:30:00Z\",\"offset\":60,\"edition\":2,"
          + "\"position\":{\"lon\":0.4,\"lat\":0.4,\"accuracy\":5},\"system\":{\"code\":\"EPSG:32631\",\"definition\":\"+proj=utm +zone=31 +datum=WGS84 +units=m +no_defs\"}}";

  private static FieldEngine.Layers beats() {
    FieldEngine.Layers layers = FieldEngine.layers();
    String polygons =
        "[{\"type\":\"Feature\",\"id\":\"b1\",\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[1,0],[1,1],[0,1],[0,0]]]},\"properties\":{\"beat\":\"West\"}},"
            + "{\"type\":\"Feature\",\"id\":\"b2\",\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[1,0],[2,0],[2,1],[1,1],[1,0]]]},\"properties\":{\"beat\":\"East\"}}]";
    assertThat(
            layers.add(
                "b",
                "{\"kind\":\"polygon\",\"fields\":[{\"name\":\"beat\",\"label\":\"Beat\",\"type\":\"text\"}]}",
                polygons,
                ""))
        .isEqualTo(2);
    return layers;
  }

  private static JsonObject question(FieldEngine.Visit v, String name) {
    JsonArray sections = Json.parse(v.view()).asObject().get("sections").asArray();
    for (JsonValue q : sections.get(0).asObject().get("questions").asArray())
      if (q.asObject().getString("name", "").equals(name)) return q.asObject();
    throw new AssertionError("not asked: " + name);
  }

  @Test
  void aVisitIsOpenedFilledKeptAndGoneOnWith() {
    FieldEngine.Visit v = FieldEngine.form(FORM, SCHEMA).visit(START, FEATURE, beats(), "");
    assertThat(question(v, "beat").getString("value", "")).isEqualTo("West");
    assertThat(v.isComplete()).isFalse();
    assertThat(v.set("silt", "\"120\"")).as("an input gives text").isTrue();
    assertThat(question(v, "silt").get("value")).hasToString("120");
    assertThat(v.confirm("kind")).isTrue();
    assertThat(v.isComplete()).isTrue();
    v.moveTo(1.5, 0.5);
    assertThat(question(v, "beat").getString("value", "")).isEqualTo("East");
    FieldEngine.Visit again =
        FieldEngine.form(FORM, SCHEMA).visit(START, FEATURE, FieldEngine.layers(), v.saved());
    assertThat(again.saved()).isEqualTo(v.saved());
    assertThat(again.result()).isEqualTo(v.result());
    JsonObject result = Json.parse(again.result()).asObject();
    assertThat(result.get("set")).hasToString("{\"silt\":120,\"beat\":\"East\"}");
    assertThat(result.get("base").asObject().get("values")).hasToString("{\"kind\":\"flap\"}");
    assertThat(result.get("geometry"))
        .hasToString("{\"type\":\"Point\",\"coordinates\":[1.5,0.5]}");
  }

  /** Beyond the box that a pack's part says to be whole, nothing is told. */
  @Test
  void aPartOfAPackIsALayerForLookUpsAndOneThatIsGoneIsNone() {
    String beats =
        "{\"layer\":\"b\",\"name\":\"Beats\",\"schema\":{\"kind\":\"polygon\",\"fields\":[{\"name\":\"beat\",\"label\":\"Beat\",\"type\":\"text\"}]},\"complete\":%s,"
            + "\"features\":[{\"type\":\"Feature\",\"id\":\"b1\",\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[1,0],[1,1],[0,1],[0,0]]]},\"properties\":{\"beat\":\"West\"}}]}";
    for (String complete : new String[] {"null", "[0, 0, 1, 1]", "[5, 5, 6, 6]"}) {
      FieldEngine.Layers layers = FieldEngine.layers();
      layers.addPart("{\"missing\":true}");
      layers.addPart(String.format(beats, complete));
      FieldEngine.Visit v = FieldEngine.form(FORM, SCHEMA).visit(START, FEATURE, layers, "");
      assertThat(question(v, "beat").get("value"))
          .as(complete)
          .hasToString(complete.startsWith("[5") ? "null" : "\"West\"");
    }
  }

  @Test
  void sectionsAreConfirmedAtOnceAndUnknownNamesChangeNothing() {
    FieldEngine.Visit v = FieldEngine.form(FORM, SCHEMA).visit(START, FEATURE, beats(), "");
    String before = v.saved();
    assertThat(v.set("nothing", "1")).isFalse();
    assertThat(v.confirm("nothing")).isFalse();
    assertThat(v.confirmSoft("nothing")).isFalse();
    assertThat(v.saved()).isEqualTo(before);
    assertThat(v.confirmSection(0)).isEqualTo(2);
  }

  @Test
  void aFormThatCannotBeFilledSaysWhy() {
    String bad = FORM.replace("kind = 'flap'", "knd = 'flap'");
    assertThat(FieldEngine.form(bad, SCHEMA)).isNull();
    assertThat(English.inText(FieldEngine.problems(bad, SCHEMA)))
        .contains("\"question\":\"silt\"")
        .contains("did you mean kind?");
    assertThat(English.inText(FieldEngine.problems("[]", SCHEMA))).contains("this is not a form");
    assertThat(FieldEngine.problems(FORM, SCHEMA)).isEqualTo("[]");
  }

  @Test
  void stopsAreSortedFromWhereOneStands() {
    String list =
        "{\"schema\":"
            + SCHEMA
            + ",\"features\":["
            + FEATURE
            + ","
            + FEATURE.replace("f1", "f2").replace("[0.5,0.5]", "[0.4,0.41]")
            + "]}";
    JsonArray seen = Json.parse(FieldEngine.stops(list).from(0.4, 0.4)).asArray();
    assertThat(seen.get(0).asObject().getString("id", "")).isEqualTo("f2");
    assertThat(seen.get(0).asObject().getDouble("bearingDeg", -1)).isZero();
    assertThat(seen.get(1).asObject().getDouble("distanceM", 0)).isBetween(15_600.0, 15_800.0);
  }

  @Test
  void whatIsNoJpegGetsNoGeotag() {
    assertThat(
            FieldEngine.geotag(
                new byte[] {1, 2, 3}, "{\"lon\":1,\"lat\":2,\"at\":\"2026-05-04T09:30:00Z\"}"))
        .isNull();
  }

  private static final String LIST_FORM =
      "{\"title\":\"T\",\"in\":{\"cy\":{\"title\":\"Y\"}},\"sections\":[{\"name\":\"rows\",\"title\":\"R\",\"rows\":{\"fromLastVisit\":true},\"questions\":["
          + "{\"name\":\"m\",\"label\":\"M\",\"type\":\"decimal\"}]},{\"title\":\"S\",\"questions\":["
          + "{\"name\":\"kind\",\"label\":\"Kind\",\"type\":\"text\",\"writesTo\":\"kind\",\"unique\":true,\"prefill\":[{\"from\":\"asset\"}]},"
          + "{\"name\":\"total\",\"label\":\"Total\",\"type\":\"decimal\",\"workOut\":\"sum(rows.m)\",\"checks\":[{\"rule\":\"total < 9\"}]}]}]}";

  @Test
  void rowsComeAndGoAndEveryStepIsTakenBack() {
    String start =
        START.replace(
            "\"edition\":2",
            "\"edition\":2,\"last\":{\"rows\":[{\"id\":\"a\",\"answers\":{\"m\":4}}]}");
    FieldEngine.Visit v =
        FieldEngine.formIn(LIST_FORM, SCHEMA, "cy").visit(start, FEATURE, FieldEngine.layers(), "");
    assertThat(Json.parse(v.view()).asObject().getString("title", "")).isEqualTo("Y");
    assertThat(v.addRow("rows", "b")).isTrue();
    assertThat(v.setIn("m", "b", "\"3.5\"")).isTrue();
    assertThat(v.view())
        .contains(
            "\"name\":\"total\",\"label\":\"Total\",\"type\":\"decimal\",\"need\":\"free\",\"value\":7.5");
    assertThat(v.markRow("a", "mended")).isTrue();
    assertThat(v.confirmIn("m", "a")).isTrue();
    assertThat(v.removeRow("a")).isFalse();
    assertThat(v.removeRow("b")).isTrue();
    for (int i = 0; i < 5; i++) assertThat(v.undo()).isTrue();
    assertThat(v.undo()).isFalse();
    assertThat(v.takeOffer("total", "")).isFalse();
    assertThat(v.reshape("{\"type\":\"Point\",\"coordinates\":[1,1]}")).isTrue();
    assertThat(v.reshape("nonsense")).isFalse();
  }

  @Test
  void valuesOfThePackAreTaken() {
    FieldEngine.Layers layers = FieldEngine.layers();
    String unique =
        SCHEMA.replace(
            "\"label\":\"Kind\",\"type\":\"text\"",
            "\"label\":\"Kind\",\"type\":\"text\",\"unique\":true");
    layers.peers(unique, "[" + FEATURE.replace("f1", "f2").replace("flap", "weir") + "]");
    FieldEngine.Visit v = FieldEngine.form(LIST_FORM, unique).visit(START, FEATURE, layers, "");
    assertThat(v.isComplete()).isTrue();
    v.set("kind", "\"weir\"");
    assertThat(v.isComplete()).isFalse();
    assertThat(English.inText(v.view())).contains("another feature already has");
  }

  @Test
  void rulesAreShownToTheirAuthorAndDraftsAreRunDry() {
    RuleDesk desk = FieldEngine.rules(LIST_FORM, SCHEMA);
    assertThat(English.inText(desk.view("rows", "m > 2", "condition")))
        .contains("\"sentence\":\"m is over 2\"");
    assertThat(English.inText(desk.view("", "m > 2", "condition")))
        .contains("here it is written rows.m");
    assertThat(
            desk.text(
                "{'join':'any','parts':[{'left':{'kind':'name','names':['m']},'comparison':'over','values':[{'kind':'value','value':2}]},{'left':{'kind':'name','names':['kind']},'comparison':'answered'}]}"
                    .replace('\'', '"')))
        .isEqualTo("{\"text\":\"m > 2 OR kind IS NOT NULL\"}");
    assertThat(English.inText(desk.text("{\"kind\":\"sum\"}"))).contains("takes 2 names");
    assertThat(desk.text("{}")).contains("problem");
    assertThat(desk.complete("", "ki", 2)).contains("\"text\":\"kind\"");
    assertThat(desk.words("m > 2")).isEqualTo("[[0,1,\"name\"],[2,3,\"sign\"],[4,5,\"number\"]]");
    assertThat(desk.choices("rows")).contains("\"name\":\"m\"", "\"name\":\"rows.m\"");
    assertThat(
            English.inText(
                FieldEngine.notes(
                    LIST_FORM.replace("total < 9", "total < 9 AND total > 12"), SCHEMA)))
        .contains("no answer of this question can ever meet this check");
    FieldEngine.Dry dry =
        FieldEngine.dryRun(FieldEngine.form(LIST_FORM, SCHEMA), START, FieldEngine.layers());
    dry.add("[" + FEATURE + "," + FEATURE.replace("f1", "f2") + "]");
    assertThat(dry.report()).startsWith("{\"features\":2,\"passed\":2");
  }
}
