package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.whinridge.app.browser.OnTheMap.api;
import static org.whinridge.app.browser.OnTheMap.click;
import static org.whinridge.app.browser.OnTheMap.json;
import static org.whinridge.app.browser.OnTheMap.near;
import static org.whinridge.app.browser.OnTheMap.pixel;
import static org.whinridge.app.browser.OnTheMap.value;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Looks, basemaps, the project's map and drawing, through the real pages. */
class LooksAndMapsTest extends BrowserTest {
  @TempDir Path tmp;

  private Page look(Page desk, String layer) {
    desk.navigate(address(desk, layer) + "/look");
    desk.waitForSelector("#look-page[data-ready]");
    return desk;
  }

  private static List<Integer> counts(Page desk) {
    return desk.locator(".entry-count").allInnerTexts().stream()
        .map(s -> Integer.parseInt(s.replace(",", "")))
        .toList();
  }

  private static void tried(Page desk, Runnable change) {
    String before = String.valueOf(desk.locator("#look-page").getAttribute("data-turn"));
    change.run();
    desk.waitForFunction(
        "before => document.querySelector('#look-page').dataset.turn !== before", before);
  }

  @Test
  void looksByClassByCodeAndByRule() throws Exception {
    Page desk = look(stage.desk("coordinator"), "Washlands");
    assertThat(desk.locator("[data-way=code]")).hasAttribute("aria-pressed", "true");
    tried(desk, () -> desk.click("[data-way=class]"));
    tried(desk, () -> desk.selectOption("#look-field", "area_ha"));
    tried(desk, () -> desk.selectOption("#look-method", "quantile"));
    tried(desk, () -> desk.selectOption("#look-classes", "4"));
    assertThat(desk.locator("[data-entry]")).hasCount(5);
    assertThat(counts(desk).subList(0, 4)).containsExactly(8, 8, 8, 8);
    tried(desk, () -> desk.selectOption("#look-method", "hand"));
    Locator ends = desk.locator("[aria-label$='up to']");
    tried(
        desk,
        () -> {
          ends.nth(0).fill("1000");
          ends.nth(0).blur();
        });
    desk.waitForFunction(
        "() => document.querySelector('.entry-problem').textContent === '' && document.querySelectorAll('.entry-problem')[1].textContent.includes('greater')");
    tried(desk, () -> desk.click("#undo-look"));
    desk.waitForFunction("() => document.querySelectorAll('.entry-problem')[1].textContent === ''");

    tried(desk, () -> desk.click("[data-way=rule]"));
    rule(desk, 0, "Poor and worse", "condition >= 4");
    rule(desk, 1, "Nobody knows", "condition >= ");
    assertThat(desk.locator("[data-entry='1'] .entry-problem"))
        .containsText("nothing is drawn by this rule");
    assertThat(desk.locator("#look-said")).hasText("Tried on your map only.");
    desk.click("#save-look");
    assertThat(desk.locator("#look-said")).hasText("Saved for everybody.");

    Page reader = stage.desk("reader");
    reader.navigate(address(reader, "Washlands"));
    reader.waitForSelector("#layer-page[data-ready]");
    assertThat(reader.locator("#map-legend")).containsText("Poor and worse");
    look(reader, "Washlands");
    assertThat(reader.locator("#save-look")).hasCount(0);
    reader.context().close();

    look(desk, "Washlands");
    assertThat(desk.locator("[data-way=rule]")).hasAttribute("aria-pressed", "true");
    tried(desk, () -> desk.click("[data-way=code]"));
    assertThat(desk.locator("[data-entry]").first().locator("input").first())
        .hasValue("Wet grassland");
    assertThat(counts(desk).stream().mapToInt(Integer::intValue).sum()).isEqualTo(32);
    assertThat(stage.scriptErrors()).isEmpty();
    desk.context().close();
  }

  private static void rule(Page desk, int i, String label, String rule) {
    desk.click("#add-rule");
    Locator row = desk.locator("[data-entry='" + i + "']");
    row.locator("[aria-label=Label]").fill(label);
    row.locator("[aria-label=Label]").blur();
    tried(
        desk,
        () -> {
          row.locator(".rule").fill(rule);
          row.locator(".rule").blur();
        });
    Stage.quiet(desk);
  }

  @Test
  void iconsTurnWithTheirBearingAndOwnIconsAreCleaned() throws Exception {
    Page desk = stage.desk("coordinator");
    String layer = address(desk, "Control structures");
    desk.navigate(layer);
    desk.waitForSelector("#layer-page[data-ready]");
    JsonObject turned =
        Json.parse(
                (String)
                    desk.evaluate(
                        "() => { const m = document.querySelector('.map').olMap; const l = m.getLayers().getArray().find((x) => x.getSource()?.getFeatures?.().length === 240); return JSON.stringify(Object.fromEntries(l.getSource().getFeatures().map((f) => [f.getId(), l.getStyleFunction()(f, 5).find((s) => s.getImage()?.getRotation).getImage().getRotation() * 180 / Math.PI]))); }"))
            .asObject();
    int seen = 0;
    for (JsonValue v : json(desk, api(layer) + "/features").get("features").asArray()) {
      JsonObject f = v.asObject();
      double bearing = f.get("properties").asObject().getDouble("bearing_deg", 0);
      assertThat(turned.getDouble(f.getString("id", ""), -1))
          .isCloseTo(bearing % 360, within(0.51));
      if (bearing != 0) seen++;
    }
    assertThat(seen).isGreaterThan(200);

    desk.navigate(layer + "/look");
    desk.waitForSelector("#look-page[data-ready]");
    desk.locator(".symbol-button").first().click();
    Path svg = tmp.resolve("hut.svg");
    Files.writeString(
        svg,
        "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 10 10' onload='window.bad = 1'><script>window.bad = 1</script><path d='M0 0H10V10H0Z'/></svg>");
    tried(desk, () -> desk.locator("[data-open] input[type=file]").setInputFiles(svg));
    assertThat(desk.locator("#look-said")).containsText("a script");
    assertThat(desk.locator("[data-icon^=own-]")).hasAttribute("aria-pressed", "true");
    assertThat(desk.evaluate("() => window.bad ?? 0")).isEqualTo(0);
    Files.write(
        svg,
        ("<svg viewBox='0 0 9 9'><path d='M" + " 1".repeat(15_000) + "'/></svg>")
            .getBytes(StandardCharsets.UTF_8));
    desk.locator("[data-open] input[type=file]").setInputFiles(svg);
    assertThat(desk.locator("#look-problems")).containsText("20,000 are the most");

    Path out = tmp.resolve("look.json");
    desk.click("summary:has-text('Take it out')");
    Download d = desk.waitForDownload(() -> desk.click("button:has-text('As a file of its own')"));
    d.saveAs(out);
    assertThat(Files.readString(out)).contains("\"by\": \"code\"").doesNotContain("script");
    Download sld = desk.waitForDownload(() -> desk.click("button:has-text('As SLD')"));
    sld.saveAs(tmp.resolve("look.sld"));
    assertThat(Files.readString(tmp.resolve("look.sld"))).contains("se:Rotation");
    tried(desk, () -> desk.click("[data-way=one]"));
    desk.click("summary:has-text('Take it out')");
    desk.setInputFiles("#look-in", out);
    assertThat(desk.locator("[data-way=code]")).hasAttribute("aria-pressed", "true");
    Files.writeString(out, "{\"by\":\"moon\"}");
    desk.click("summary:has-text('Take it out')");
    desk.setInputFiles("#look-in", out);
    assertThat(desk.locator("#look-problems")).containsText("not by “moon”");
    assertThat(stage.scriptErrors()).isEmpty();
    desk.context().close();
  }

  @Test
  void basemapsAreSwitchedAndTheMapIsKeptForEverybody() {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/map");
    desk.waitForSelector("#project-map[data-ready]");
    desk.click("[data-basemap]:has-text('Relief')");
    desk.waitForFunction(
        "() => document.querySelector('.map').olMap.getLayers().item(0).getSource().getTileGrid !== undefined");
    String first = desk.locator("#map-layers > li").first().getAttribute("data-layer");
    desk.locator("#map-layers > li").first().locator("button[aria-label$=down]").click();
    assertThat(desk.locator("#map-layers > li").nth(1)).hasAttribute("data-layer", first);
    Locator moved = desk.locator("#map-layers > li").nth(1);
    moved.locator("input[placeholder]").fill("Gates and weirs");
    moved.locator("input[placeholder]").blur();
    moved.locator("input[type=checkbox]").uncheck();
    desk.click("#save-map");
    assertThat(desk.locator("#map-said")).hasText("Saved for everybody.");

    Page reader = stage.desk("reader");
    reader.navigate(stage.base() + "/p/ostrey/map");
    reader.waitForSelector("#project-map[data-ready]");
    assertThat(reader.locator("#map-layers > li").nth(1)).containsText("Gates and weirs");
    assertThat(reader.locator("#map-layers > li").nth(1).locator("input[type=checkbox]"))
        .not()
        .isChecked();
    assertThat(reader.locator("[data-basemap]:has-text('Relief')"))
        .hasAttribute("aria-pressed", "true");
    reader.click("[data-basemap]:has-text('None')");
    assertThat(reader.locator("[data-basemap]:has-text('None')"))
        .hasAttribute("aria-pressed", "true");
    reader.context().close();

    desk.locator("#map-layers > li").nth(1).locator("button.order").click();
    desk.locator("#map-layers > li").first().locator("input[type=checkbox]").check();
    desk.click("[data-basemap]:has-text('Plain')");
    desk.click("#save-map");
    assertThat(desk.locator("#map-said")).hasText("Saved for everybody.");
    assertThat(stage.scriptErrors()).isEmpty();
    desk.context().close();
  }

  @Test
  void linesAreSplitWithUndoAndTakenBackAsAWhole() {
    Page desk = stage.desk("coordinator");
    String layer = address(desk, "Banks and drains");
    JsonObject longest = null;
    for (JsonValue v : json(desk, api(layer) + "/features").get("features").asArray())
      if (longest == null
          || v.asObject().get("properties").asObject().getDouble("length_m", 0)
              > longest.get("properties").asObject().getDouble("length_m", 0))
        longest = v.asObject();
    List<JsonValue> line =
        new ArrayList<>(longest.get("geometry").asObject().get("coordinates").asArray().values());
    double[] a = position(line.get(line.size() / 2 - 1));
    double[] b = position(line.get(line.size() / 2));
    desk.navigate(layer + "/draw#" + longest.getString("id", ""));
    desk.waitForSelector("#draw-page[data-ready]");
    assertThat(desk.locator("#measured")).containsText("Length");
    String whole = desk.locator("#measured").innerText();
    near(desk, a[0], a[1], 15);
    desk.click("[data-tool=split]");
    click(desk, (a[0] + b[0]) / 2, (a[1] + b[1]) / 2);
    assertThat(desk.locator("#write")).hasText("Write 2 changes to the layer");
    assertThat(desk.locator("#measured")).not().hasText(whole);
    desk.click("#undo-draw");
    assertThat(desk.locator("#write")).hasText("Nothing to write yet");
    assertThat(desk.locator("#measured")).hasText(whole);
    desk.click("[data-tool=split]");
    click(desk, (a[0] + b[0]) / 2, (a[1] + b[1]) / 2);
    desk.click("#write");
    // the reference is unique, so that the second part needs its own
    assertThat(desk.locator("#draw-side .problem")).containsText("Reference: this must have");
    value(desk, "ref").fill("BD-900");
    desk.click("#write");
    assertThat(desk.locator("#draw-said")).containsText("Written: 2 changes");
    assertThat(count(desk, layer)).isEqualTo(86);
    takeBack(desk, layer);
    assertThat(count(desk, layer)).isEqualTo(85);
    assertThat(stage.scriptErrors()).isEmpty();
    desk.context().close();
  }

  private static double[] position(JsonValue v) {
    return new double[] {v.asArray().get(0).asDouble(), v.asArray().get(1).asDouble()};
  }

  private static int count(Page desk, String layer) {
    return json(desk, api(layer) + "/features").getInt("count", -1);
  }

  private static void takeBack(Page desk, String layer) {
    desk.navigate(layer + "/history");
    desk.locator("button:has-text('Take back')").first().click();
    assertThat(desk.locator(".done")).containsText("Taken back");
  }

  @Test
  void featuresAreMadeFromTheLegendWithItsValues() {
    Page desk = stage.desk("coordinator");
    String layer = address(desk, "Control structures");
    desk.navigate(layer + "/draw");
    desk.waitForSelector("#draw-page[data-ready]");
    near(desk, -10.15, 57.93, 15);
    desk.locator("#make-from button", new Page.LocatorOptions().setHasText("Tide flap")).click();
    click(desk, -10.15, 57.93);
    assertThat(desk.locator("#write")).hasText("Write 1 change to the layer");
    assertThat(value(desk, "kind")).hasValue("tide_flap");
    assertThat(value(desk, "material")).hasValue("Cast iron");
    value(desk, "tag").fill("OS-9001");
    // a second one, typed in the project's system
    desk.locator("#make-from button", new Page.LocatorOptions().setHasText("Weir")).click();
    desk.fill("#typed", "429300.5 6419200.25");
    desk.click("button:has-text('Put it there')");
    assertThat(desk.locator("#draw-said")).containsText("in EPSG:32629");
    assertThat(desk.locator("#write")).hasText("Write 2 changes to the layer");
    desk.click("#write");
    assertThat(desk.locator("#draw-side .problem")).containsText("Tag: this must have a value");
    value(desk, "tag").fill("OS-9002");
    desk.click("#write");
    assertThat(desk.locator("#draw-said")).containsText("Written: 2 changes");
    JsonObject made =
        json(desk, api(layer) + "/features?filter=" + "tag%20%3D%20'OS-9001'")
            .get("features")
            .asArray()
            .get(0)
            .asObject();
    JsonObject values = made.get("properties").asObject();
    assertThat(values.getString("kind", "")).isEqualTo("tide_flap");
    assertThat(values.getString("material", "")).isEqualTo("Cast iron");
    assertThat(values.getString("owner", "")).isEqualTo("OLWB");
    takeBack(desk, layer);
    assertThat(count(desk, layer)).isEqualTo(240);
    assertThat(stage.scriptErrors()).isEmpty();
    desk.context().close();
  }

  @Test
  void areasAreTypedHoledReshapedAndRefusedWhenTheyCrossThemselves() {
    Page desk = stage.desk("coordinator");
    String layer = address(desk, "Washlands");
    desk.navigate(layer + "/draw");
    desk.waitForSelector("#draw-page[data-ready]");
    near(desk, -10.2, 57.94, 14);
    desk.locator("#make-from button").first().click();
    for (String corner :
        List.of(
            "57.94, -10.205", "57.94, -10.195", "57.945 N 10.195 W", "57°56'42\" N 10°12'18\" W")) {
      desk.fill("#typed", corner);
      desk.click("button:has-text('Put it there')");
    }
    desk.locator("h1").click();
    desk.keyboard().press("Enter");
    // Source: GeographicLib 2.1 PolygonArea on these corners, in hectares
    double ha = area(57.94, -10.205, 57.94, -10.195, 57.945, -10.195, 57.945, -10.205);
    assertThat(desk.locator("#measured"))
        .containsText(String.format(java.util.Locale.ROOT, "Area %.2f ha", ha));
    desk.click("[data-tool=hole]");
    for (double[] p : new double[][] {{-10.202, 57.941}, {-10.198, 57.941}, {-10.2, 57.943}})
      click(desk, p[0], p[1]);
    desk.keyboard().press("Enter");
    assertThat(desk.locator("#measured"))
        .not()
        .containsText(String.format(java.util.Locale.ROOT, "%.2f ha", ha));
    desk.click("#undo-draw");
    assertThat(desk.locator("#measured"))
        .containsText(String.format(java.util.Locale.ROOT, "Area %.2f ha", ha));
    // a corner dragged over the other side: the area crosses itself, is told so and not written
    double[] from = pixel(desk, -10.205, 57.94);
    double[] to = pixel(desk, -10.19, 57.943);
    desk.mouse().move(from[0], from[1]);
    desk.mouse().down();
    desk.mouse()
        .move(to[0] - 5, to[1], new com.microsoft.playwright.Mouse.MoveOptions().setSteps(5));
    desk.mouse().move(to[0], to[1]);
    desk.mouse().up();
    assertThat(desk.locator("#measured")).containsText("crosses itself");
    desk.click("#write");
    assertThat(desk.locator("#draw-side .problem")).containsText("Nothing was written");
    desk.click("#undo-draw");
    desk.click("#write");
    assertThat(desk.locator("#draw-said")).containsText("Written: 1 change");
    takeBack(desk, layer);
    assertThat(stage.scriptErrors()).isEmpty();
    desk.context().close();
  }

  private static double area(double... latLon) {
    var a = new net.sf.geographiclib.PolygonArea(net.sf.geographiclib.Geodesic.WGS84, false);
    for (int i = 0; i < latLon.length; i += 2) a.AddPoint(latLon[i], latLon[i + 1]);
    return Math.abs(a.Compute().area) / 10_000;
  }

  @Test
  void theDayBooksMapDrawsByTheSameLooks() throws Exception {
    Page day = stage.dayBook(tmp.resolve("phone"), -10.28, 57.885);
    day.locator("[data-round]", new Page.LocatorOptions().setHasText("Saltings"))
        .locator("text=Take this round offline")
        .click();
    assertThat(day.locator(".done")).containsText("You can go offline");
    day.waitForFunction("() => navigator.serviceWorker.ready.then(() => true)");
    day.reload();
    day.waitForSelector("[data-round]");
    day.context().setOffline(true);
    day.click("nav >> text=Map");
    day.click("text=Legend");
    assertThat(day.locator(".day-legend")).containsText("Tide flap");
    assertThat(day.locator(".day-legend")).containsText("5 very poor");
    double turn =
        ((Number)
                day.evaluate(
                    "() => { const m = document.querySelector('.map').olMap; for (const l of m.getLayers().getArray()) for (const f of l.getSource()?.getFeatures?.() ?? []) if (f.get('t0') > 0) return l.getStyleFunction()(f, 5).find((s) => s.getImage()?.getRotation).getImage().getRotation() * 180 / Math.PI - f.get('t0'); return 99; }"))
            .doubleValue();
    assertThat(turn).isCloseTo(0, within(0.51));
    assertThat(stage.scriptErrors()).isEmpty();
    day.context().close();
  }
}
