package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.whinridge.demo.DemoPhoto;
import org.whinridge.demo.Ostrey;
import org.whinridge.formats.photos.PhotoFacts;

/**
 * The whole thread as one story: a file becomes a layer, a form, a round, an offline day, a merged
 * edit and a file again.
 */
class TheThreadTest extends BrowserTest {
  private static final double LON = -10.29;
  private static final double LAT = 57.8835;

  @Test
  void aFileBecomesALayerAFormARoundAnOfflineDayAndAMergedEdit(@TempDir Path tmp) throws Exception {
    Path file = tmp.resolve("west-structures.geojson");
    Files.writeString(file, Ostrey.file(Ostrey.structuresSchema(), new Ostrey().structures()));
    Path photo = tmp.resolve("shot.jpg");
    Files.write(photo, DemoPhoto.jpeg("OS-1000", "tide_flap", "2026-11-24"));
    Page desk = stage.desk("coordinator");
    bringIn(desk, file);
    seeTheLayerOnTheMap(desk);
    makeTheForm(desk);
    planTheRound(desk);
    Path profile = tmp.resolve("phone");
    String caption = aDayOffline(profile, photo);
    review(desk, caption);
    takeOut(desk, tmp);
    assertThat(stage.scriptErrors()).as("errors in the pages' scripts").isEmpty();
  }

  private void bringIn(Page desk, Path file) {
    desk.click("nav >> text=Layers");
    desk.click("text=Bring in files");
    desk.setInputFiles("#file", file);
    desk.click("button:has-text('See what they hold')");
    desk.waitForSelector("#report[data-ready]");
    assertThat(desk.locator(".part h2")).containsText("west-structures.geojson");
    assertThat(desk.locator(".part dl")).containsText("240");
    assertThat(desk.locator("tr", new Page.LocatorOptions().setHasText("condition")))
        .containsText("whole numbers, 1 to 5");
    desk.fill("#name0", "West structures");
    desk.click("#import");
    assertThat(desk.locator("h1")).hasText("Brought in");
    assertThat(desk.locator("main")).containsText("240 features imported");
    assertThat(desk.locator(".told"))
        .containsText("2025-02-30"); // the date that does not exist is kept and told
    desk.click("text=Open “West structures”");
  }

  private void seeTheLayerOnTheMap(Page desk) {
    desk.waitForSelector("#layer-page[data-ready]");
    assertThat(desk.locator(".map canvas").first()).isVisible();
    desk.locator("#feature-list button").first().click();
    assertThat(desk.locator("#card")).containsText("OS-1000");
    desk.click("#card >> text=Close");
    clickTheMapUntilACardOpens(desk);
    assertThat(desk.locator("#card")).containsText("Ledger");
    assertThat(desk.locator("#card")).containsText("import of west-structures.geojson");
  }

  /** Where a feature lies the pointer turns into a hand once it rests; a click opens its card. */
  private static void clickTheMapUntilACardOpens(Page desk) {
    @SuppressWarnings("unchecked")
    List<Number> at =
        (List<Number>)
            desk.evaluate(
                "() => { const t = document.querySelector('.map'); const b = t.getBoundingClientRect(); for (const l of t.olMap.getLayers().getArray()) for (const f of l.getSource()?.getFeatures?.() ?? []) { const q = f.get('caption') && t.olMap.getPixelFromCoordinate(f.getGeometry().getFirstCoordinate()); if (q && q[0] > 60 && q[1] > 60 && q[0] < b.width - 60 && q[1] < b.height - 60) return [q[0] + b.left, q[1] + b.top]; } return null; }");
    desk.mouse().move(at.get(0).doubleValue(), at.get(1).doubleValue());
    desk.waitForFunction("() => document.querySelector('.map').style.cursor === 'pointer'");
    desk.mouse().click(at.get(0).doubleValue(), at.get(1).doubleValue());
    desk.waitForSelector("#card:visible");
  }

  private void makeTheForm(Page desk) {
    desk.click("text=Make a form from its fields");
    desk.waitForSelector("#form-page[data-ready]");
    assertThat(desk.locator("[data-line]")).hasCount(15); // 14 fields of the file and the photo
    desk.fill("#title", "Quick look");
    desk.press("#title", "Tab");
    stored(desk);
    open(desk, "notes");
    change(desk, "#e-label", "Anything else");
    for (int i = 0; i < 3; i++) {
      desk.click("#move-up");
      stored(desk);
    }
    open(desk, "condition");
    choose(desk, "#e-need", "needed");
    open(desk, "notes");
    choose(desk, "#e-type", "long_text");
    open(desk, "silt_depth_mm");
    FormStories.rule(desk, "#e-ask", "kind IN ('tide_flap', 'sluce')");
    assertThat(desk.locator("#form-problems")).containsText("did you mean sluice?");
    assertThat(desk.locator("#publish")).hasAttribute("data-sound", "false");
    desk.click("#editor [data-cure]");
    stored(desk);
    assertThat(desk.locator("#e-ask")).hasValue("kind IN ('tide_flap', 'sluice')");
    desk.click("#add-check");
    stored(desk);
    FormStories.rule(desk, "#e-check-0", "silt_depth_mm <= width_mm");
    change(desk, "[data-part=message]", "Silt of {silt_depth_mm} mm is more than the width");
    desk.fill("#typing", "Silted share: decimal");
    assertThat(desk.locator("#understood")).containsText("Decimal number, name silted_share");
    desk.press("#typing", "Enter");
    open(desk, "silted_share");
    FormStories.rule(desk, "#e-work", "round(silt_depth_mm / width_mm * 100, 1)");
    change(desk, "#e-unit", "%");
    open(desk, "beat");
    desk.selectOption("#add-source", "place");
    stored(desk);
    desk.selectOption(
        "[data-look=layer]", new com.microsoft.playwright.options.SelectOption().setLabel("Beats"));
    stored(desk);
    desk.selectOption(
        "[data-look=field]",
        new com.microsoft.playwright.options.SelectOption().setLabel("Beat name"));
    stored(desk);
    desk.click("[data-source=place] >> text=sooner");
    stored(desk);
    assertThat(desk.locator("#live-sheet [data-question=beat]")).containsText("looked up in Beats");
    assertThat(desk.locator("#publish")).hasAttribute("data-sound", "true");
    desk.click("#publish");
    desk.click("#publish-now");
    assertThat(desk.locator(".done")).containsText("Edition 1 is published");
  }

  private static void open(Page desk, String question) {
    if (desk.locator("[data-line=" + question + "] #editor").count() == 0)
      desk.click("[data-line=" + question + "] button[data-name]");
    desk.waitForSelector("[data-line=" + question + "] #editor");
  }

  private static void change(Page desk, String field, String text) {
    desk.fill(field, text);
    desk.press(field, "Tab");
    stored(desk);
  }

  private static void choose(Page desk, String field, String value) {
    desk.selectOption(field, value);
    stored(desk);
  }

  private static void stored(Page desk) {
    assertThat(
            desk.locator("[role=status]", new Page.LocatorOptions().setHasText("stored")).first())
        .hasText("stored");
  }

  private void planTheRound(Page desk) {
    desk.click("text=Plan a round");
    desk.waitForSelector("#round-planner[data-ready]");
    assertThat(
            desk.locator("#round-forms label", new Page.LocatorOptions().setHasText("Quick look"))
                .locator("input"))
        .isChecked();
    desk.click("[data-tool=rectangle]");
    desk.waitForFunction(
        "() => document.querySelector('#planner-map').olMap.getAllLayers().some((l) => l.getSource()?.getFeatures?.().length > 100)");
    var box = desk.locator(".map").first().boundingBox();
    desk.mouse().move(box.x + 10, box.y + box.height * 0.25);
    desk.mouse().down();
    desk.mouse().move(box.x + box.width * 0.2, box.y + box.height * 0.6);
    desk.mouse().move(box.x + box.width * 0.35, box.y + box.height - 10);
    desk.mouse().up();
    assertThat(desk.locator("#chosen-count")).hasText(Pattern.compile("[1-9][0-9]* stops"));
    desk.fill("#name", "West, first look");
    desk.fill("#note", "Park at the pump house");
    desk.fill("#due", "2027-03-01");
    desk.check("#round-people input[value=inspector1]");
    desk.click("text=Make the round with");
    assertThat(desk.locator(".done")).containsText("The round is ready");
  }

  /**
   * Takes the round out, works without a network across a closed browser, hands in; gives the
   * caption of the stop visited.
   */
  private String aDayOffline(Path profile, Path photo) throws IOException {
    Page day = stage.dayBook(profile, LON, LAT);
    Locator round =
        day.locator("[data-round]", new Page.LocatorOptions().setHasText("West, first look"));
    round.locator("text=Take this round offline").click();
    assertThat(day.locator(".done")).containsText("You can go offline");
    day.waitForFunction("() => navigator.serviceWorker.ready.then(() => true)");
    day.reload();
    day.waitForSelector("[data-round]");
    day.context().setOffline(true);
    day.reload();
    day.locator("[data-round]", new Page.LocatorOptions().setHasText("West, first look"))
        .locator("text=Go to the stops")
        .click();
    day.waitForSelector(".stop");
    List<String> far = day.locator(".stop .far").allInnerTexts();
    assertThat(far.stream().map(TheThreadTest::metres).toList()).as("stops by distance").isSorted();
    day.locator(".stop", new Page.LocatorOptions().setHasText("Tide flap")).first().click();
    day.waitForSelector("[data-question=tag]");
    String caption = day.locator(".day-head h1").innerText();
    assertThat(day.locator("[data-question=tag]")).containsText("from the asset");
    assertThat(day.locator("[data-question=beat]")).containsText("looked up in Beats");
    assertThat(day.locator("[data-question=beat] [aria-pressed=true]")).hasText("Sluice End");
    fillIn(day);
    day.setInputFiles("[data-question=photo] input[type=file]", photo);
    assertThat(day.locator("[data-question=photo] img")).isVisible();
    assertThat(day.locator("[data-question=photo] figcaption")).containsText("±4 m");
    assertThat(day.locator("#trail")).containsText("nothing open");
    day.click("#save");
    assertThat(day.locator(".done")).containsText("is saved");
    day.context().close();

    Page again = stage.phone(profile, LON, LAT);
    again.context().setOffline(true);
    again.navigate(stage.base() + "/day");
    again.click("nav >> text=Carried");
    assertThat(again.locator("#hand-in")).hasText("Hand in 1 visit and 1 photo");
    assertThat(again.locator("[data-visit]")).containsText(caption);
    again.click("#hand-in");
    assertThat(again.locator(".day-body .problem")).containsText("Nothing is lost");
    again.context().setOffline(false);
    again.click("#hand-in");
    assertThat(again.locator(".done")).containsText("Handed in: 1 visit, 1 photo");
    assertThat(again.locator("[data-visit]")).containsText("1 of 1 photos at the office");
    again.context().close();
    return caption;
  }

  /**
   * The engine at work: a question appears, a check holds back, a formula follows, a needed answer
   * is missing.
   */
  private static void fillIn(Page day) {
    day.locator("[data-question=kind] [data-code=weir]").click();
    assertThat(day.locator("[data-question=silt_depth_mm]")).hasCount(0);
    day.locator("[data-question=kind] [data-code=tide_flap]").click();
    day.fill("#q-width_mm", "600");
    day.fill("#q-silt_depth_mm", "700");
    assertThat(day.locator("[data-question=silt_depth_mm]"))
        .containsText("Silt of 700 mm is more than the width");
    assertThat(day.locator("#trail")).containsText("1 to mend");
    assertThat(day.locator("[data-question=silted_share] output")).hasText("116.7 %");
    day.click("#next-page");
    assertThat(day.locator("#trail")).containsText("1 to mend"); // on every page
    day.click("#trail");
    day.click("#open-points >> text=more than the width");
    day.fill("#q-silt_depth_mm", "120");
    assertThat(day.locator("#trail")).not().containsText("to mend");
    day.fill("#q-condition", "");
    assertThat(day.locator("#trail")).containsText("1 to fill");
    day.click("#save");
    assertThat(day.locator(".told")).containsText("1 to fill before it is complete");
    day.fill("#q-condition", "4");
    day.fill("#q-notes", "Hinge is worn — ünïcode & <b>");
    assertThat(day.locator("[data-question=silted_share] output")).hasText("20 %");
    day.click("#next-page");
  }

  private static double metres(String s) {
    String[] p = s.trim().split("\\s+");
    return Double.parseDouble(p[0]) * (p[1].equals("km") ? 1000 : 1);
  }

  private void review(Page desk, String caption) {
    desk.click("nav >> text=Hand-ins");
    desk.locator("#waiting a", new Page.LocatorOptions().setHasText(caption)).click();
    assertThat(desk.locator("[data-field=condition]")).containsText("4");
    assertThat(desk.locator("[data-field=silt_depth_mm]")).containsText("120");
    assertThat(desk.locator("[data-field=silt_depth_mm]")).containsText("typed");
    assertThat(desk.locator("[data-field=notes]")).containsText("Hinge is worn — ünïcode & <b>");
    assertThat(desk.locator(".told"))
        .hasCount(0); // the server's own run of the rules found nothing else
    desk.waitForFunction("() => document.querySelector('[data-photo] img')?.naturalWidth > 0");
    assertThat(desk.locator("[data-photo]")).containsText("±4 m");
    desk.click("#accept");
    assertThat(desk.locator(".done")).containsText("written to the layer");
    desk.click("text=See it on the layer");
    desk.waitForSelector("#card:visible");
    assertThat(desk.locator("#card")).containsText("Sluice End");
    assertThat(desk.locator("#card tr", new Page.LocatorOptions().setHasText("Silt depth")))
        .containsText("120");
    assertThat(desk.locator("#card")).containsText("visit of inspector1, accepted by coordinator");
    desk.click("#card >> text=see the visit");
    assertThat(desk.locator("h1")).hasText(caption);
  }

  private void takeOut(Page desk, Path tmp) throws Exception {
    desk.click("nav >> text=Outputs");
    onlyLayer(desk, "West structures");
    desk.check("input[value=geojson]");
    Path json = save(desk, desk.locator("button.main"), tmp.resolve("out.geojson"));
    desk.check("input[value=gpkg]");
    Path gpkg = save(desk, desk.locator("button.main"), tmp.resolve("out.gpkg"));
    assertThat(gdal("ogrinfo", "-so", "-al", json.toString()))
        .contains("Feature Count: 240", "Geometry: Point");
    String summary = gdal("ogrinfo", "-so", gpkg.toString(), "west_structures");
    assertThat(summary)
        .contains("Feature Count: 240", "Geometry: Point", "silt_depth_mm: Integer", "WGS 84");
    assertThat(
            gdal(
                "ogrinfo",
                "-al",
                "-where",
                "silt_depth_mm = 120 AND notes LIKE 'Hinge%'",
                gpkg.toString(),
                "west_structures"))
        .contains("Feature Count: 1", "Hinge is worn — ünïcode & <b>");
    assertThat(gdal("ogrinfo", "-so", gpkg.toString(), "west_structures_photos"))
        .contains("Feature Count: 1", "data: Binary");
    photoInTheFileIsTheOneTaken(gpkg);
  }

  /** The photo comes out of the package with the geotag that the device wrote. */
  private static void photoInTheFileIsTheOneTaken(Path gpkg) throws Exception {
    try (var db = java.sql.DriverManager.getConnection("jdbc:sqlite:" + gpkg);
        var rows =
            db.createStatement()
                .executeQuery(
                    "SELECT p.data, f.notes FROM west_structures f JOIN west_structures_has_photos m ON m.base_id = f.fid JOIN west_structures_photos p ON p.id = m.related_id")) {
      assertThat(rows.next()).isTrue();
      assertThat(rows.getString(2)).startsWith("Hinge");
      var place = PhotoFacts.read(rows.getBytes(1)).orElseThrow().place().orElseThrow();
      assertThat(place.x).isCloseTo(LON, within(1e-6));
      assertThat(place.y).isCloseTo(LAT, within(1e-6));
    }
  }

  private static Path save(Page desk, Locator link, Path to) {
    Download d = desk.waitForDownload(link::click);
    d.saveAs(to);
    return to;
  }

  /** GDAL, the independent reader (Debian's gdal-bin). */
  private static String gdal(String... command) throws Exception {
    Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
    String out = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(p.waitFor()).as(out).isZero();
    assertThat(out).doesNotContain("Warning", "ERROR");
    return out;
  }
}
