package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.JsonObject;
import com.microsoft.playwright.Page;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.whinridge.core.photo.ExifWriter;
import org.whinridge.core.photo.Geotag;
import org.whinridge.demo.DemoPhoto;

/** A stranger's files through the real pages, over the outline, with icons of everyday things. */
class FromAnywhereTest extends BrowserTest {
  @TempDir Path tmp;

  private void look(Page desk, Path... files) {
    desk.navigate(stage.base() + "/p/ostrey/layers/bring-in");
    desk.setInputFiles("#file", files);
    desk.click("button:has-text('See what they hold')");
    desk.waitForSelector("#report[data-ready]");
  }

  /** The colour of a place on the map's canvases, "r,g,b"; "" where nothing is painted. */
  private static String colour(Page desk, double lon, double lat) {
    double[] p = OnTheMap.pixel(desk, lon, lat);
    return (String)
        desk.evaluate(
            """
            ([x, y]) => {
              let found = "";
              for (const c of document.querySelectorAll('.map canvas')) {
                const b = c.getBoundingClientRect();
                const d = c.getContext('2d').getImageData(Math.round((x - b.left) * c.width / b.width), Math.round((y - b.top) * c.height / b.height), 1, 1).data;
                if (d[3] > 200) found = [d[0], d[1], d[2]].join(',');
              }
              return found;
            }
            """,
            java.util.List.of(p[0], p[1]));
  }

  @Test
  void misspellingsAreMergedInTheReportAndAListThatWasFoundIsKnownAsOne() throws Exception {
    Page desk = stage.desk("coordinator");
    StringBuilder b = new StringBuilder("Plate,KindOfGate,WidthMm,Seen,lon,lat\n");
    String[] kinds = {"Tide flap", "Tide flap", "Weir", "Weir ", "tide flap", "Tide flap"};
    for (int i = 0; i < 60; i++)
      b.append(
          "K%d,%s,%d,4/%d/2024,-%d.%d,57.9%n"
              .formatted(
                  100 + i,
                  i == 7 ? "Tide flpa" : kinds[i % 6],
                  300 + 100 * (i % 9),
                  1 + i % 12,
                  10,
                  10 + i));
    look(desk, Files.writeString(tmp.resolve("far gates.csv"), b));
    assertThat(desk.locator("[aria-label='label of KindOfGate']")).hasValue("Kind of gate");
    assertThat(desk.locator("[aria-label='unit of WidthMm']")).hasValue("mm");
    assertThat(desk.locator("#tag0")).hasValue("Plate");
    assertThat(desk.locator(".spelling")).containsText("Tide flpa");
    assertThat(desk.locator(".spelling input")).not().isChecked();
    desk.locator(".spelling input").check();
    // what nobody can know is asked, and nothing is imported before it is answered
    desk.click("#import");
    assertThat(desk.locator("#decide-problem")).containsText("the day or the month");
    desk.locator("select[name=order_0]").selectOption("DAY_FIRST");
    desk.click("#import");
    assertThat(desk.locator("h1")).hasText("Brought in");
    desk.click("text=See its values");
    desk.click("nav[aria-label='Fields of this layer'] a:has-text('Kind of gate')");
    assertThat(desk.locator("#all-values tbody tr")).hasCount(2);
    assertThat(desk.locator("#spellings")).hasCount(0);
    assertThat(desk.locator("#found-list")).containsText("nobody has said yet that it is right");
    desk.click("#found-list button");
    assertThat(desk.locator("#found-list")).hasCount(0);
    assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void whatLiesAnywhereLiesOnTheOutlineOfTheWorld() throws Exception {
    Page desk = stage.desk("coordinator");
    Path file =
        Files.writeString(
            tmp.resolve("far places.geojson"),
            "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{\"name\":\"A\"},\"geometry\":{\"type\":\"Point\",\"coordinates\":[9,50]}},{\"type\":\"Feature\",\"properties\":{\"name\":\"B\"},\"geometry\":{\"type\":\"Point\",\"coordinates\":[14,48]}}]}");
    look(desk, file);
    desk.click("#import");
    desk.click("text=Open “Far places”");
    desk.waitForSelector("#layer-page[data-ready]");
    desk.waitForSelector(".map[data-outline=fine]");
    OnTheMap.drawn(desk);
    assertThat(colour(desk, 11.5, 49.2)).as("land").isEqualTo("241,237,223");
    OnTheMap.near(desk, 0, 30, 1.6);
    desk.waitForSelector(".map[data-outline=coarse]");
    OnTheMap.drawn(desk);
    assertThat(colour(desk, 20, 3)).as("land, coarser").isEqualTo("241,237,223");
    assertThat(colour(desk, -38, 33)).as("the open sea").isEmpty();
    // no land is drawn across the world where it meets the date line
    for (double lat = 64; lat <= 78; lat += 0.5)
      assertThat(colour(desk, -5, lat)).as("the sea at 5° W, " + lat + "° N").isEmpty();
    desk.click("[data-basemap=none]");
    OnTheMap.drawn(desk);
    assertThat(colour(desk, 20, 3)).as("no basemap, no outline").isEmpty();
    assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void anIconOfTheLibraryGoesWithTheLook() throws Exception {
    Page desk = stage.desk("coordinator");
    look(
        desk,
        Files.writeString(
            tmp.resolve("benches.csv"), "name,lon,lat\nOne,-10.2,57.9\nTwo,-10.21,57.9\n"));
    desk.click("#import");
    desk.click("text=Open “Benches”");
    desk.waitForSelector("#layer-page[data-ready]");
    String address = desk.url().replaceAll("#.*", "");
    desk.navigate(address + "/look");
    desk.waitForSelector("#look-page[data-ready]");
    if (desk.locator(".more-icons").count() == 0)
      desk.locator(".look-entry button").first().click();
    desk.locator(".more-icons").first().click();
    desk.fill("#icon-library input[type=search]", "hydrant");
    assertThat(desk.locator("#icon-library [role=status]")).containsText("2 icons");
    // found by another word for it
    desk.fill("#icon-library input[type=search]", "seat");
    desk.locator("#icon-library button[title=Bench]").click();
    assertThat(desk.locator("#icon-library")).hasCount(0);
    assertThat(desk.locator(".icon-grid button[aria-pressed=true]").first())
        .hasAttribute("data-icon", java.util.regex.Pattern.compile("own-.*"));
    desk.locator("#save-look").click();
    assertThat(desk.locator("#look-said")).hasText("Saved for everybody.");
    JsonObject saved =
        OnTheMap.json(desk, OnTheMap.api(address.replace(stage.base(), "")) + "/look");
    assertThat(saved.toString()).contains("\"Bench\"");
    assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void aPictureIsSeenOnTheCardWithPlaceAndTime() throws Exception {
    Page desk = stage.desk("coordinator");
    byte[] tagged =
        ExifWriter.write(
                DemoPhoto.jpeg("OS-1", "weir", "2026-05-04"),
                new Geotag(
                    -10.2,
                    57.9,
                    OptionalDouble.of(3),
                    OptionalDouble.of(90),
                    Instant.parse("2026-05-04T09:30:00Z"),
                    0))
            .orElseThrow();
    look(desk, Files.write(tmp.resolve("seen once.jpg"), tagged));
    desk.fill("#name0", "Seen once");
    desk.click("#import");
    desk.click("text=Open “Seen once”");
    desk.waitForSelector("#layer-page[data-ready]");
    desk.locator("#feature-list button").first().click();
    assertThat(desk.locator("#pictures img")).isVisible();
    assertThat(desk.locator("#pictures figcaption")).containsText("57.90000°, -10.20000°");
    assertThat(desk.locator("#pictures figcaption")).containsText("looking 90°");
    assertThat(desk.locator("#visits")).isHidden();
    assertThat(
            (Boolean)
                desk.evaluate("() => document.querySelector('#pictures img').naturalWidth > 200"))
        .isTrue();
    assertThat(stage.scriptErrors()).isEmpty();
  }
}
