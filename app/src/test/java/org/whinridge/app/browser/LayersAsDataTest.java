package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.demo.DemoPhoto;
import org.whinridge.demo.Ostrey;
import org.whinridge.formats.csv.CsvWriter;
import org.whinridge.formats.geopackage.GeoPackageWriter;
import org.whinridge.formats.kml.KmlWriter;
import org.whinridge.formats.out.LayerWriter;
import org.whinridge.formats.out.OutLayer;
import org.whinridge.formats.shapefile.ShapefileWriter;
import org.whinridge.formats.xlsx.XlsxWriter;

/**
 * The data side of layers through the real pages: every format in and out, tidy, update, fields.
 */
class LayersAsDataTest extends BrowserTest {
  private static final Schema SCHEMA = Ostrey.washlandsSchema();
  @TempDir Path tmp;

  private static List<Feature> washlands() {
    return new Ostrey().washlands().subList(0, 12);
  }

  private void fill(LayerWriter w) throws Exception {
    for (Feature f : washlands()) w.add(f);
  }

  /** The same washlands in each format. */
  private Path file(String format) throws Exception {
    OutLayer layer = OutLayer.of("Wash " + format, SCHEMA);
    Path file = tmp.resolve("wash " + format + "." + (format.equals("shp") ? "zip" : format));
    if (format.equals("gpkg")) {
      try (GeoPackageWriter g = new GeoPackageWriter(file);
          LayerWriter w = g.layer(layer)) {
        fill(w);
      }
      return file;
    }
    if (format.equals("shp")) {
      Path parts = Files.createDirectory(tmp.resolve("parts"));
      try (LayerWriter w =
          new ShapefileWriter(parts, "wash shp", layer, LocalDate.of(2026, 5, 4))) {
        fill(w);
      }
      try (ZipOutputStream z = new ZipOutputStream(Files.newOutputStream(file));
          var all = Files.list(parts)) {
        for (Path p : all.toList()) {
          if (p.toString().endsWith(".csv")) continue;
          z.putNextEntry(new ZipEntry("in a folder/" + p.getFileName()));
          Files.copy(p, z);
        }
      }
      return file;
    }
    if (format.equals("geojson")) return Files.writeString(file, Ostrey.file(SCHEMA, washlands()));
    try (OutputStream out = Files.newOutputStream(file)) {
      switch (format) {
        case "kml" -> {
          try (KmlWriter k = new KmlWriter(out, "x");
              LayerWriter w = k.layer(layer)) {
            fill(w);
          }
        }
        case "xlsx" -> {
          try (XlsxWriter x = new XlsxWriter(out);
              LayerWriter w = x.layer(layer, true)) {
            fill(w);
          }
        }
        case "csv" -> {
          try (LayerWriter w = new CsvWriter(out, layer, true)) {
            fill(w);
          }
        }
        default ->
            out.write(
                "<gpx><wpt lat=\"57.9\" lon=\"-10.2\"><name>Gate</name></wpt><wpt lat=\"57.91\" lon=\"-10.21\"><name>Stile</name></wpt></gpx>"
                    .getBytes(StandardCharsets.UTF_8));
      }
    }
    return file;
  }

  private void look(Page desk, Path... files) {
    desk.navigate(stage.base() + "/p/ostrey/layers/bring-in");
    desk.setInputFiles("#file", files);
    desk.click("button:has-text('See what they hold')");
    desk.waitForSelector("#report[data-ready]");
  }

  private static void done(Page desk) {
    desk.click("#import");
    assertThat(desk.locator("h1")).hasText("Brought in");
  }

  @Test
  void everyFormatComesInThroughThePages() throws Exception {
    Page desk = stage.desk("coordinator");
    for (String format : List.of("gpkg", "shp", "geojson", "kml", "xlsx", "csv", "gpx")) {
      look(desk, file(format));
      assertThat(desk.locator(".part")).hasCount(1);
      assertThat(desk.locator(".part .system-problem")).hasText("");
      assertThat(desk.locator(".part .map canvas").first()).isVisible();
      desk.fill("#name0", "In as " + format);
      done(desk);
      assertThat(desk.locator("main"))
          .containsText(format.equals("gpx") ? "2 features imported" : "12 features imported");
      desk.click("text=Open “In as " + format);
      desk.waitForSelector("#layer-page[data-ready]");
      assertThat(desk.locator("#matching"))
          .hasText(format.equals("gpx") ? "2 features" : "12 features");
      if (!format.equals("gpx"))
        assertThat(desk.locator("#feature-list")).containsText("Long Wash");
    }
    assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void severalFilesAtOncePhotosAndWhatIsNotUnderstood() throws Exception {
    Page desk = stage.desk("coordinator");
    Path photo =
        Files.write(tmp.resolve("plain.jpg"), DemoPhoto.jpeg("OS-1", "weir", "2026-05-04"));
    Path odd = Files.writeString(tmp.resolve("readme.md"), "# Nothing of ours");
    look(desk, file("csv"), photo, odd);
    assertThat(desk.locator("#not-understood")).containsText("readme.md");
    assertThat(desk.locator(".part")).hasCount(2);
    assertThat(desk.locator(".part").nth(1)).containsText("has no position in its EXIF");
    desk.locator(".part").nth(1).locator("input[name=take_1]").uncheck();
    desk.fill("#name0", "One of several");
    done(desk);
    desk.click("text=Take the import back");
    assertThat(desk.locator(".done")).containsText("“One of several” was taken back");
    assertThat(desk.locator("main")).not().containsText("One of several of");
    assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void whatIsWrongWithTheDecisionsIsSaidAndNothingTypedIsLost() throws Exception {
    Page desk = stage.desk("coordinator");
    look(
        desk,
        Files.writeString(
            tmp.resolve("posts.csv"),
            "ref,easting,northing\nA,428873,6418207\nB,428900,6418300\n"));
    assertThat(desk.locator(".system-problem")).hasText("Choose the coordinate system.");
    desk.fill("#name0", "Posts far away");
    desk.fill("input[aria-label='label of ref']", "Number of the post");
    desk.click("#import");
    assertThat(desk.locator("#decide-problem"))
        .containsText("Choose the coordinate system of “Posts”");
    assertThat(desk.locator("input[aria-label='label of ref']")).hasValue("Number of the post");
    desk.fill("input.system", "EPSG:32629");
    assertThat(desk.locator(".system-problem")).hasText("");
    assertThat(desk.locator(".system-name")).containsText("WGS 84 / UTM zone 29N");
    done(desk);
    assertThat(desk.locator("main")).containsText("2 features imported");
  }

  @Test
  void aFieldIsTidiedAndTheTidyTakenBack() {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/layers");
    desk.click("text=Control structures");
    desk.click("nav.leaves >> text=Values");
    desk.click("nav[aria-label='Fields of this layer'] >> text=Material");
    desk.waitForSelector("#profile[data-ready]");
    Locator group = desk.locator(".group", new Page.LocatorOptions().setHasText("Brcik"));
    assertThat(group).containsText("1 letter apart");
    group.locator("text=Show on the map").click();
    assertThat(desk.locator("#values-map-said"))
        .containsText("53 features have one of these spellings");
    group.locator("button.main").click();
    assertThat(desk.locator(".done")).containsText("17 features were changed");
    assertThat(desk.locator("#all-values")).not().containsText("Brcik");
    desk.click("#take-back");
    assertThat(desk.locator(".done")).containsText("17 features are as before");
    desk.goBack();
    desk.reload();
    assertThat(desk.locator("#all-values")).containsText("Brcik");
    assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void aCodeListIsMadeOfValuesAndANoteIsSplit() throws Exception {
    Page desk = stage.desk("coordinator");
    StringBuilder csv = new StringBuilder("ref,state,note,longitude,latitude\n");
    for (int i = 0; i < 20; i++)
      csv.append("R")
          .append(i)
          .append(i % 2 == 0 ? ",Good" : i == 3 ? ",odd one" : ",Poor")
          .append(",\"silt ")
          .append(100 + i)
          .append(" mm; hinge worn\",-10.2,57.9\n");
    look(desk, Files.writeString(tmp.resolve("notes.csv"), csv));
    desk.selectOption("select[aria-label='type of state']", "text");
    done(desk);
    desk.click("text=See its values");
    desk.click("nav[aria-label='Fields of this layer'] >> text=State");
    desk.uncheck("input[aria-label='list odd one']");
    desk.selectOption("#proposal", "NUMBERS");
    desk.click("text=Make a code list of what is ticked");
    assertThat(desk.locator(".done")).containsText("19 features were changed");
    assertThat(desk.locator("main")).containsText("Not in the code list: “odd one” (1)");
    desk.click("nav[aria-label='Fields of this layer'] >> text=Note");
    desk.fill("#pattern", "(\\d+) mm; (.*)");
    desk.click("text=Try it on real values");
    assertThat(desk.locator("#split"))
        .containsText("20 of 20 values are split, into up to 2 parts");
    desk.fill("#part1", "Silt depth");
    desk.fill("#part2", "Remark");
    desk.click("text=Make fields of the named parts");
    assertThat(desk.locator(".done")).containsText("20 features were changed");
    desk.click("nav[aria-label='Fields of this layer'] >> text=Silt depth");
    assertThat(desk.locator("#profile")).containsText("whole number");
    assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void aLayerIsUpdatedByItsKey() throws Exception {
    Page desk = stage.desk("coordinator");
    String head = "tag,width,note,longitude,latitude\n";
    look(
        desk,
        Files.writeString(
            tmp.resolve("gates.csv"),
            head + "G1,1,a,-10.2,57.9\nG2,2,b,-10.21,57.9\nG3,3,c,-10.22,57.9\n"));
    done(desk);
    look(
        desk,
        Files.writeString(
            tmp.resolve("gates again.csv"),
            head + "G1,1,a,-10.2,57.9\nG2,22,b,-10.21,57.9\nG4,4,d,-10.23,57.9\n"));
    desk.selectOption(
        "select.into",
        new com.microsoft.playwright.options.SelectOption().setLabel("update “Gates”"));
    desk.waitForSelector("select[name=key_0]");
    desk.waitForSelector("#report[data-ready]");
    assertThat(desk.locator("select[name=key_0]")).hasValue("tag");
    desk.click("#import");
    assertThat(desk.locator("h1")).hasText("What this would change");
    for (String count : List.of("new", "changed", "unchanged", "missing"))
      assertThat(desk.locator("[data-count=" + count + "]")).hasText("1");
    assertThat(desk.locator("main")).containsText("22");
    desk.click("text=Write these changes");
    assertThat(desk.locator("main")).containsText("1 feature changed, 1 added");
    desk.click("text=Open “Gates”");
    desk.waitForSelector("#layer-page[data-ready]");
    assertThat(desk.locator("#matching")).hasText("4 features");
    desk.fill("#rule", "width = 22");
    desk.press("#rule", "Enter");
    assertThat(desk.locator("#matching")).hasText("1 feature");
    desk.fill("#rule", "widht = 22");
    desk.press("#rule", "Enter");
    assertThat(
            desk.locator(
                "[role=alert]",
                new Page.LocatorOptions().setHasText("The filter can't be used, at character 1")))
        .isVisible();
    assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void layersAreMadeAndTheirFieldsChangedWithAnUndo() {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/layers");
    desk.click("text=Make layers");
    desk.waitForSelector("#make-page[data-ready]");
    desk.fill("[aria-label='name of layer 1']", "Stiles");
    desk.click("text=Add a field");
    desk.locator("input[aria-label='label']").fill("Height of the step");
    desk.locator("input[aria-label='label']").press("Tab");
    assertThat(desk.locator("input[aria-label='storage name of Height of the step']"))
        .hasValue("height_of_the_step");
    desk.click("text=Another layer");
    desk.fill("[aria-label='name of layer 2']", "Fences");
    desk.selectOption("[aria-label='kind of layer 2']", "line");
    desk.click("text=Make 2 layers");
    assertThat(desk.locator("main")).containsText("Stiles");
    assertThat(desk.locator("main")).containsText("Fences");
    // text to number: what does not fit is told before anything is done
    desk.click("text=Control structures");
    desk.click("nav.leaves >> text=Fields");
    desk.waitForSelector("#fields-page[data-ready]");
    desk.selectOption("select[aria-label='type of Invert level']", "decimal");
    desk.selectOption("select[aria-label='type of Material']", "whole");
    desk.click("#fields-preview");
    assertThat(desk.locator("#effects"))
        .containsText("Invert level takes the form of the new type: 240 features");
    assertThat(desk.locator("#effects"))
        .containsText("Material does not fit the new type and stays as it is: 237 features");
    desk.selectOption("select[aria-label='type of Material']", "text");
    desk.click("#fields-preview");
    assertThat(desk.locator("#effects")).not().containsText("Material");
    desk.click("#fields-change");
    assertThat(desk.locator("#effects")).hasCount(0); // the page is loaded anew
    assertThat(desk.locator("#fields-page[data-ready] select[aria-label='type of Invert level']"))
        .hasValue("decimal");
    desk.click("nav.leaves >> text=History");
    desk.locator("tr", new Page.LocatorOptions().setHasText("Invert level is now decimal number"))
        .locator("text=Take back")
        .click();
    assertThat(desk.locator(".done")).containsText("240 features are as before");
    desk.click("nav.leaves >> text=Fields");
    assertThat(desk.locator("select[aria-label='type of Invert level']")).hasValue("text");
    assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void everyFormatIsTakenOut() throws Exception {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/outputs");
    onlyLayer(desk, "Banks and drains");
    desk.fill("#filter", "kind = 'bank' AND condition >= 3");
    desk.selectOption("#codes", "BOTH");
    desk.fill("#system", "EPSG:32629");
    assertThat(desk.locator(".system-name").first()).containsText("WGS 84 / UTM zone 29N");
    for (String format : List.of("gpkg", "shp", "geojson", "kml", "csv", "xlsx")) {
      desk.check("input[name=format][value=" + format + "]");
      Download d = desk.waitForDownload(() -> desk.click("button.main"));
      Path file = tmp.resolve(d.suggestedFilename());
      d.saveAs(file);
      String all = gdal(format.equals("shp") ? "/vsizip/" + file : file.toString());
      assertThat(all).as(format).contains("Bank");
      assertThat(all).as(format).doesNotContain("main_drain");
      if (!format.equals("kml"))
        assertThat(all)
            .as(format)
            .contains(
                format.equals("shp") ? "kind_label (String) = Bank" : "kind_label (String) = Bank");
      if (format.equals("gpkg") || format.equals("shp"))
        assertThat(all).as(format).contains("UTM zone 29N");
    }
    desk.fill("#filter", "kind = 'bonk'");
    desk.click("button.main");
    assertThat(desk.locator(".problem")).containsText("bonk");
    assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void onlyWhatIsTickedIsTakenOut() throws Exception {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/layers");
    desk.click("text=Marker posts");
    desk.waitForSelector("#layer-page[data-ready]");
    desk.locator("#feature-list input").nth(0).check();
    desk.locator("#feature-list input").nth(2).check();
    desk.click("#ticked-out");
    assertThat(desk.locator("#only-said")).hasText("only the 2 features that you ticked");
    desk.check("input[name=format][value=geojson]");
    Download d = desk.waitForDownload(() -> desk.click("button.main"));
    Path file = tmp.resolve("ticked.geojson");
    d.saveAs(file);
    assertThat(gdal(file.toString())).contains("Feature Count: 2");
    assertThat(stage.scriptErrors()).isEmpty();
  }

  private static String gdal(String file) throws Exception {
    Process p = new ProcessBuilder("ogrinfo", "-al", "-ro", file).redirectErrorStream(true).start();
    String out = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(p.waitFor()).as(out).isZero();
    return out;
  }
}
