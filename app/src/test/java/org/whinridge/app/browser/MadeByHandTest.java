package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.whinridge.app.browser.OnTheMap.api;
import static org.whinridge.app.browser.OnTheMap.click;
import static org.whinridge.app.browser.OnTheMap.json;
import static org.whinridge.app.browser.OnTheMap.near;
import static org.whinridge.app.browser.OnTheMap.value;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.GeometryJson;

/** Layers that have no file yet: made, drawn and typed at the desk, from nothing. */
class MadeByHandTest extends BrowserTest {
  @TempDir Path tmp;

  private static Locator card(Page desk, int n) {
    return desk.locator("section.card").nth(n);
  }

  private static void field(Locator card, String label, String type) {
    card.locator("button:has-text('Add a field')").click();
    Locator row = card.locator("tr[data-field]").last();
    row.locator("[aria-label=label]").fill(label);
    row.locator("[aria-label=label]").blur();
    row = card.locator("tr[data-field]").last();
    assertThat(row.locator("[aria-label^='storage name']")).not().hasValue("");
    row.locator("[aria-label^='type of']").selectOption(type);
  }

  private static void codes(Locator card, String field, String text) {
    card.locator("[aria-label='codes to add']").last().fill(text);
    card.locator("button:has-text('Add these')").last().click();
    assertThat(card.locator("ul.told").last()).containsText("added");
  }

  private static void fills(Locator card, String label, String formula) {
    card.locator("[aria-label='default of " + label + "']").fill(formula);
    card.locator("[aria-label='default of " + label + "']").blur();
    card.locator("[aria-label='kind of default of " + label + "']").selectOption("formula");
    card.locator("tr:has([aria-label='default of " + label + "']) button:has-text('More')").click();
    card.locator("[aria-label='" + label + " fills itself']").check();
    card.locator("tr:has([aria-label='default of " + label + "']) button:has-text('More')").click();
  }

  private void makeThree(Page desk) {
    desk.navigate(stage.base() + "/p/ostrey/layers/make");
    desk.waitForSelector("#make-page[data-ready]");
    desk.click("button:has-text('Another layer')");
    desk.click("button:has-text('Another layer')");
    Locator points = card(desk, 0);
    points.locator("[aria-label='name of layer 1']").fill("Hand stiles");
    field(points, "Tag", "text");
    points.locator("[aria-label='Tag is unique']").check();
    points.locator("[aria-label='Tag may be empty']").uncheck();
    field(points, "Kind", "code");
    codes(points, "Kind", "code,label\nst,Stile\nga,Gate\nst,Stile");
    assertThat(points.locator("ul.told").last()).containsText("was taken for a header");
    assertThat(points.locator("ul.told").last()).containsText("stands there already");
    points.locator("tr:has([aria-label='default of Kind']) button:has-text('2 codes')").click();
    field(points, "Bearing", "whole");
    points.locator("tr:has([aria-label='default of Bearing']) button:has-text('More')").click();
    StringBuilder tens = new StringBuilder();
    for (int d = 0; d < 360; d += 10) tens.append(d).append('\n');
    codes(points, "Bearing", tens.toString());
    points.locator("[aria-label='unit of Bearing']").fill("°");
    points.locator("[aria-label='default of Bearing']").fill("90");
    points.locator("[aria-label='default of Bearing']").blur();
    points.locator("tr:has([aria-label='default of Bearing']) button:has-text('36 codes')").click();
    field(points, "Id", "unique_id");
    field(points, "Easting", "decimal");
    fills(points, "Easting", "easting(place)");
    field(points, "Northing", "decimal");
    fills(points, "Northing", "northing(place)");
    field(points, "Put up", "date");
    points.locator("[aria-label='caption with Tag']").check();
    for (int k = 1; k <= 2; k++) {
      card(desk, k)
          .locator("[aria-label='name of layer " + (k + 1) + "']")
          .fill(k == 1 ? "Hand fences" : "Hand pens");
      card(desk, k)
          .locator("[aria-label='kind of layer " + (k + 1) + "']")
          .selectOption(k == 1 ? "line" : "polygon");
      field(card(desk, k), "Ref", "text");
    }
    desk.click("text=Make 3 layers");
    desk.waitForSelector("h2 a:has-text('Hand pens')");
  }

  @Test
  void threeLayersFromNothingDrawnTypedTakenOutAndBroughtInAgain() throws Exception {
    Page desk = stage.desk("coordinator");
    makeThree(desk);
    String stiles = address(desk, "Hand stiles");
    for (String layer : List.of(stiles, address(desk, "Hand fences"), address(desk, "Hand pens"))) {
      desk.navigate(layer);
      desk.waitForSelector("#layer-page[data-ready]");
      assertThat(desk.locator("#first-feature")).containsText("no features yet");
      assertThat(desk.locator("[role=alert]:visible")).hasCount(0);
    }

    desk.navigate(stiles + "/look");
    desk.waitForSelector("#look-page[data-ready]");
    desk.click("[data-way=code]");
    desk.selectOption("#look-field", "kind");
    Stage.quiet(desk);
    desk.locator(".symbol-button").first().click();
    desk.locator("[aria-label^='turned by'], #turn-by, label:has-text('Turned by') select")
        .first()
        .selectOption("bearing");
    desk.click("#save-look");
    assertThat(desk.locator("#look-foot")).containsText("Saved");

    desk.navigate(stiles + "/draw");
    desk.waitForSelector("#draw-page[data-ready]");
    near(desk, -10.2, 57.9, 15);
    Map<String, Map<String, String>> made = new LinkedHashMap<>();
    for (int i = 0; i < 15; i++) {
      double lon = -10.2 + (i % 5) * 0.002;
      double lat = 57.9 + i / 5 * 0.001;
      desk.locator("#make-from button").first().click();
      if (i < 10) click(desk, lon, lat);
      else {
        desk.fill("#typed", (lat + "; " + lon).replace("-", "\u2212").replace('.', ','));
        desk.click("button:has-text('Put it there')");
        assertThat(desk.locator("#draw-said")).containsText("There:");
      }
      Map<String, String> values = new LinkedHashMap<>();
      values.put("tag", "S-" + i);
      values.put("kind", i % 2 == 0 ? "st" : "ga");
      values.put("bearing", String.valueOf(i * 10 % 360));
      values.put("put_up", "2026-05-" + (10 + i));
      for (var v : values.entrySet()) {
        Locator input = value(desk, v.getKey());
        if (v.getKey().equals("kind") || v.getKey().equals("bearing"))
          input.selectOption(v.getValue());
        else {
          input.fill(v.getValue());
          input.blur();
        }
      }
      made.put("S-" + i, values);
    }
    // told at the field, and nothing written
    value(desk, "put_up").fill("6.5.2024");
    value(desk, "put_up").blur();
    assertThat(desk.locator("[data-value-of=put_up] [role=alert]")).containsText("is not a date");
    desk.click("#write");
    assertThat(desk.locator("#draw-side .problem"))
        .containsText("Put up: “6.5.2024” is not a date");
    value(desk, "put_up").fill("2026-05-24");
    value(desk, "put_up").blur();
    desk.click("#write");
    assertThat(desk.locator("#draw-said")).containsText("Written: 15 changes");

    List<JsonObject> there = features(desk, stiles);
    assertThat(there).hasSize(15);
    for (JsonObject f : there) cardHas(desk, stiles, f, made);
    Path file = tmp.resolve("stiles.gpkg");
    desk.navigate(stage.base() + "/p/ostrey/outputs?layer=" + stiles.replaceAll(".*/", ""));
    desk.check("input[name=format][value=gpkg]");
    Download d = desk.waitForDownload(() -> desk.click("button.main"));
    d.saveAs(file);
    bringIn(desk, file, "Hand stiles again");
    same(there, features(desk, address(desk, "Hand stiles again")));
    assertThat(stage.scriptErrors()).isEmpty();
    desk.context().close();
  }

  /** A day in the browser's style. */
  private static String day(Page page, String iso) {
    return (String)
        page.evaluate(
            "d => new Date(d).toLocaleDateString(navigator.languages, {dateStyle: 'medium', timeZone: 'UTC'})",
            iso);
  }

  private void cardHas(
      Page desk, String layer, JsonObject f, Map<String, Map<String, String>> made) {
    JsonObject p = f.get("properties").asObject();
    Map<String, String> wanted = made.get(p.getString("tag", ""));
    desk.navigate(layer + "#" + f.getString("id", ""));
    desk.reload();
    assertThat(desk.locator("#card h2")).hasText(p.getString("tag", ""));
    String shown = desk.locator("#card table").innerText();
    assertThat(shown)
        .contains(wanted.get("kind").equals("st") ? "Stile" : "Gate")
        .contains(wanted.get("bearing") + " °")
        .contains(day(desk, wanted.get("put_up")))
        .contains(f.getString("id", ""));
    var at = f.get("geometry").asObject().get("coordinates").asArray();
    Coordinate utm =
        CoordinateSystem.utmNorth(29)
            .project(new Coordinate(at.get(0).asDouble(), at.get(1).asDouble()))
            .orElseThrow();
    assertThat(p.getDouble("easting", 0)).isCloseTo(utm.x, within(0.01));
    assertThat(p.getDouble("northing", 0)).isCloseTo(utm.y, within(0.01));
  }

  private static List<JsonObject> features(Page desk, String layer) {
    List<JsonObject> out = new ArrayList<>();
    for (JsonValue v : json(desk, api(layer) + "/features").get("features").asArray())
      out.add(v.asObject());
    return out;
  }

  private void bringIn(Page desk, Path file, String name) {
    desk.navigate(stage.base() + "/p/ostrey/layers/bring-in");
    desk.setInputFiles("#file", file);
    desk.click("button:has-text('See what they hold')");
    desk.waitForSelector("#report[data-ready]");
    desk.fill("#name0", name);
    desk.click("#import");
    assertThat(desk.locator("main")).containsText("15 features imported");
  }

  private static void same(List<JsonObject> a, List<JsonObject> b) {
    Map<String, JsonObject> byTag = new LinkedHashMap<>();
    b.forEach(f -> byTag.put(f.get("properties").asObject().getString("tag", ""), f));
    assertThat(byTag).hasSize(a.size());
    for (JsonObject f : a) {
      JsonObject p = f.get("properties").asObject();
      JsonObject q = byTag.get(p.getString("tag", ""));
      for (String name : List.of("tag", "kind", "bearing", "put_up", "id", "easting", "northing"))
        assertThat(q.get("properties").asObject().get(name)).as(name).isEqualTo(p.get(name));
      assertThat(GeometryJson.parse(q.get("geometry").toString()))
          .isEqualTo(GeometryJson.parse(f.get("geometry").toString()));
    }
  }

  /** A layer without places: its rows are typed, changed, taken away and brought back. */
  @Test
  void aTableIsTyped() {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/layers/make");
    desk.waitForSelector("#make-page[data-ready]");
    desk.fill("[aria-label='name of layer 1']", "Owners");
    desk.selectOption("[aria-label='kind of layer 1']", "table");
    field(card(desk, 0), "Name", "text");
    card(desk, 0).locator("[aria-label='Name may be empty']").uncheck();
    // pressed right after typing, without leaving the field first
    card(desk, 0).locator("[aria-label='length of Name']").fill("12");
    card(desk, 0).locator("button:has-text('Add a field')").click();
    assertThat(card(desk, 0).locator("tr[data-field]")).hasCount(2);
    card(desk, 0).locator("[aria-label=label]").last().fill("Since");
    card(desk, 0).locator("[aria-label=label]").last().blur();
    card(desk, 0).locator("[aria-label='type of Since']").selectOption("date");
    desk.click("#make-layers");
    desk.waitForSelector("#layer-page[data-ready]");
    desk.click("text=Type the first row");
    desk.waitForSelector("#draw-page[data-ready]");
    for (int i = 0; i < 2; i++) {
      desk.click("#new-row");
      value(desk, "name").fill(i == 0 ? "Water board" : "Parish");
      value(desk, "since").fill("2026-05-0" + (i + 1));
    }
    desk.click("#write");
    assertThat(desk.locator("#draw-said")).containsText("Written: 2 rows");
    desk.click("[data-row]:has-text('Parish')");
    value(desk, "name").fill("A name that is far too long");
    desk.click("#write");
    assertThat(desk.locator(".stay .problem")).containsText("Name: at most 12 characters");
    value(desk, "name").fill("");
    desk.click("#write");
    assertThat(desk.locator(".stay .problem")).containsText("Name: this must have a value");
    value(desk, "name").fill("Manor");
    desk.click("#write");
    assertThat(desk.locator("#draw-said")).containsText("Written: 1 row");
    assertThat(desk.locator("[data-row]")).containsText(new String[] {"Water board", "Manor"});
    assertThat(stage.scriptErrors()).isEmpty();
    desk.context().close();
  }

  /** The answer is lost after the office has written: nothing is written twice, and it is told. */
  @Test
  void anAnswerThatIsLostIsAskedFor() {
    Page desk = stage.desk("coordinator");
    String layer = address(desk, "Control structures");
    desk.navigate(layer + "/draw");
    desk.waitForSelector("#draw-page[data-ready]");
    int before = features(desk, layer).size();
    near(desk, -10.15, 57.93, 15);
    desk.locator("#make-from button").first().click();
    click(desk, -10.15, 57.93);
    value(desk, "tag").fill("OS-LOST");
    desk.route(
        "**/edits",
        r -> {
          r.fetch();
          r.abort();
        });
    desk.click("#write");
    assertThat(desk.locator("#draw-said")).containsText("Written: 1 change");
    assertThat(features(desk, layer)).hasSize(before + 1);
    // other stories count on the demo's own features
    desk.unroute("**/edits");
    desk.navigate(layer + "/history");
    desk.locator("button:has-text('Take back')").first().click();
    assertThat(desk.locator(".done")).containsText("Taken back");
    assertThat(features(desk, layer)).hasSize(before);
    assertThat(stage.scriptErrors().stream().filter(e -> !e.contains("ERR_FAILED")).toList())
        .isEmpty();
    desk.context().close();
  }

  /**
   * The first tap confirms what is prefilled; taking it away is an act of its own, told, undone.
   */
  @Test
  void aTapNeverEmptiesByAccident() {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/forms");
    desk.click("main td a:text-is('Structure visit')");
    desk.waitForSelector("#form-page[data-ready]");
    Locator q = desk.locator("#form-page [data-question=kind]").first();
    Locator chosen = q.locator("[aria-pressed=true]");
    String was = chosen.innerText();
    assertThat(q).not().containsText("confirmed");
    chosen.click();
    assertThat(chosen).hasText(was);
    assertThat(q).containsText("confirmed");
    chosen.click();
    assertThat(chosen).hasText(was);
    q.locator("[data-take-away]").click();
    assertThat(chosen).hasCount(0);
    assertThat(q).containsText("“" + was + "” was taken away.");
    q.locator("[data-put-back]").click();
    assertThat(chosen).hasText(was);
    assertThat(q).not().containsText("was taken away");
    assertThat(stage.scriptErrors()).isEmpty();
    desk.context().close();
  }
}
