package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockMultipartFile;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.demo.Ostrey;

/** Files of strangers: nothing in them is moved or left out without being told. */
class FilesFromAnywhereTest extends FilesTest {
  @Autowired LayerMaking making;

  private JsonObject preview(String page, String query) throws Exception {
    String api = page.replace("/p/ostrey/layers/bring-in", "/api/p/ostrey/bring-in") + "/preview?";
    return Json.parse(
            mvc.perform(get(api + query).with(COORDINATOR))
                .andReturn()
                .getResponse()
                .getContentAsString(StandardCharsets.UTF_8))
        .asObject();
  }

  private static String feature(String properties, String geometry) {
    return "{\"type\":\"Feature\",\"properties\":" + properties + ",\"geometry\":" + geometry + "}";
  }

  private static String collection(List<String> features) {
    return "{\"type\":\"FeatureCollection\",\"features\":[" + String.join(",", features) + "]}";
  }

  private List<Feature> all(String layer) {
    return layers.first(layer(layer), 5_000);
  }

  @Test
  void metresAreNotTakenForDegreesAndTheSystemIsAsked() throws Exception {
    String page =
        upload(
            "metres.csv",
            "tag,wkt\nA,POINT (566000 6420000)\nB,POINT (566100 6420100)\nC,POINT (566200 6420100)\n");
    assertThat(html(page)).doesNotContain("value=\"EPSG:4326\"");
    assertThat(preview(page, "part=0").getString("problem", ""))
        .isEqualTo("Choose the coordinate system.");
    assertThat(decide(page, "take_0", "on", "name_0", "Metres", "wkt_0", "wkt"))
        .contains("Choose the coordinate system of “Metres” first");
    assertThat(
            decide(
                page, "take_0", "on", "name_0", "Metres", "wkt_0", "wkt", "system_0", "EPSG:25829"))
        .isEmpty();
    assertThat(all("Metres")).hasSize(3).allMatch(f -> f.geometry().isPresent());
    // GeoJSON that does not say a system and is in metres is asked for, too
    String json =
        upload(
            "m.geojson",
            collection(
                List.of(feature("{}", "{\"type\":\"Point\",\"coordinates\":[566000,6420000]}"))));
    assertThat(preview(json, "part=0").getString("problem", "")).startsWith("Choose the coord");
    act(json, "drop");
  }

  @Test
  void oneBadCoordinateDoesNotHideTheColumnsAndIsTold() throws Exception {
    StringBuilder b = new StringBuilder("tag,lon,lat\n");
    for (int i = 0; i < 1000; i++)
      b.append(
          String.format(
              Locale.ROOT, "T%d,%s,%.4f%n", i, i == 500 ? "999999" : "-10.2", 57.8 + i / 1e5));
    String page = upload("points.csv", b.toString());
    assertThat(html(page)).contains("value=\"EPSG:4326\"");
    assertThat(decide(page, "take_0", "on", "name_0", "One bad", "x_0", "lon", "y_0", "lat"))
        .isEmpty();
    assertThat(html(page)).contains("1 feature has no place", "row 501", "999999");
    assertThat(all("One bad").stream().filter(f -> f.geometry().isPresent())).hasSize(999);
  }

  @Test
  void longitudesUpTo360AreWrappedAndTold() throws Exception {
    String page =
        upload(
            "pacific.geojson",
            collection(
                List.of(
                    feature("{\"n\":1}", "{\"type\":\"Point\",\"coordinates\":[190,-10]}"),
                    feature("{\"n\":2}", "{\"type\":\"Point\",\"coordinates\":[170,-10]}"))));
    assertThat(html(page)).contains("1 feature has longitudes beyond 180 degrees");
    assertThat(decide(page, "take_0", "on", "name_0", "Pacific")).isEmpty();
    assertThat(html(page)).contains("they were put where they belong");
    assertThat(all("Pacific"))
        .extracting(f -> f.geometry().orElseThrow().getCoordinate().x)
        .containsExactlyInAnyOrder(-170.0, 170.0);
  }

  @Test
  void aSystemWhoseDatumNobodyKnowsIsNotTakenByDefault() throws Exception {
    String page =
        upload(
            shapefile(
                "PROJCS[\"Old survey of Ostrey\",GEOGCS[\"GCS_Ostrey_1891\",DATUM[\"D_Ostrey_1891\",SPHEROID[\"Airy_1830\",6377563.396,299.3249646]],PRIMEM[\"Greenwich\",0.0],UNIT[\"Degree\",0.0174532925199433]],PROJECTION[\"Transverse_Mercator\"],PARAMETER[\"False_Easting\",50000.0],PARAMETER[\"False_Northing\",0.0],PARAMETER[\"Central_Meridian\",-10.0],PARAMETER[\"Scale_Factor\",1.0],PARAMETER[\"Latitude_Of_Origin\",57.0],UNIT[\"Meter\",1.0]]",
                40_000,
                100_000));
    JsonObject p = preview(page, "part=0");
    assertThat(p.getBoolean("unsure", false)).isTrue();
    assertThat(p.getString("accuracy", "")).contains("may be off by hundreds of metres");
    assertThat(decide(page, "take_0", "on", "name_0", "Old survey"))
        .contains("may be off by hundreds of metres", "Nothing was imported");
    assertThat(decide(page, "take_0", "on", "name_0", "Old survey", "unsure_0", "on")).isEmpty();
    Coordinate at = all("Old survey").get(0).geometry().orElseThrow().getCoordinate();
    assertThat(Geodesy.distanceM(at, new Coordinate(-10.165, 57.898))).isLessThan(1_000);
  }

  @Test
  void aKnownSystemSaysHowExactItIs() throws Exception {
    String page =
        upload(
            shapefile(
                "PROJCS[\"NTF_Paris_Lambert_Zone_II\",GEOGCS[\"GCS_NTF_Paris\",DATUM[\"D_NTF\",SPHEROID[\"Clarke_1880_IGN\",6378249.2,293.466021293627]],PRIMEM[\"Paris\",2.33722917],UNIT[\"Grad\",0.0157079632679489]],PROJECTION[\"Lambert_Conformal_Conic\"],PARAMETER[\"False_Easting\",600000.0],PARAMETER[\"False_Northing\",2200000.0],PARAMETER[\"Central_Meridian\",0.0],PARAMETER[\"Standard_Parallel_1\",52.0],PARAMETER[\"Scale_Factor\",0.99987742],PARAMETER[\"Latitude_Of_Origin\",52.0],UNIT[\"Meter\",1.0]]",
                600_000,
                2_428_000));
    JsonObject p = preview(page, "part=0");
    assertThat(p.getString("system", "")).isEqualTo("NTF (Paris) / Lambert zone II");
    assertThat(p.getString("accuracy", "")).matches("Positions are right to about [12] m\\.");
    var c =
        p.get("features")
            .asArray()
            .get(0)
            .asObject()
            .get("geometry")
            .asObject()
            .get("coordinates")
            .asArray();
    // Source: GDAL 3.6 (gdaltransform -s_srs EPSG:27572), to 3 m; it was 575 km off before
    assertThat(
            Geodesy.distanceM(
                new Coordinate(c.get(0).asDouble(), c.get(1).asDouble()),
                new Coordinate(2.33650566263583, 48.8503465927249)))
        .isLessThan(3);
    act(page, "drop");
  }

  private static MockMultipartFile shapefile(String prj, double x, double y) throws Exception {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ZipOutputStream z = new ZipOutputStream(bytes)) {
      z.putNextEntry(new ZipEntry("old.shp"));
      z.write(Shp.point(x, y));
      z.putNextEntry(new ZipEntry("old.dbf"));
      z.write(Shp.dbf("A"));
      z.putNextEntry(new ZipEntry("old.prj"));
      z.write(prj.getBytes(StandardCharsets.UTF_8));
    }
    return file("old.zip", bytes.toByteArray());
  }

  @Test
  void aRepairThatWouldLoseAnAreaIsNotDoneUnlessAsked() throws Exception {
    String loop =
        "{\"type\":\"Polygon\",\"coordinates\":[[[-10.2,57.9],[-10.1,57.9],[-10.1,58],[-10.15,58],[-10.1495,58.001],[-10.1495,57.999],[-10.15,58],[-10.2,58],[-10.2,57.9]]]}";
    String ownHole =
        "{\"type\":\"MultiPolygon\",\"coordinates\":[[[[-10,57],[-9,57],[-9,58],[-10,58],[-10,57]],[[-10,57],[-9,57],[-9,58],[-10,58],[-10,57]]],[[[-8,57],[-7.9,57],[-7.9,57.1],[-8,57.1],[-8,57]]]]}";
    String text = collection(List.of(feature("{\"n\":1}", loop), feature("{\"n\":2}", ownHole)));
    String page = upload("areas.geojson", text);
    assertThat(html(page))
        .contains("2 polygons cross themselves", "1 would change by more than 1 %");
    JsonObject before = preview(page, "part=0&repair=structure");
    assertThat(before.get("features").asArray().values())
        .filteredOn(f -> f.asObject().get("properties").asObject().getBoolean("repaired", false))
        .hasSize(2)
        .anySatisfy(
            f ->
                assertThat(f.asObject().get("properties").asObject().getDouble("changed", 0))
                    .isGreaterThan(0.9));
    assertThat(decide(page, "take_0", "on", "name_0", "Areas", "repair_0", "structure")).isEmpty();
    assertThat(html(page))
        .contains("1 self-crossing polygon was repaired", "1 polygon that crosses itself is kept");
    assertThat(byKey(layer("Areas"), "n").get("2").geometry().orElseThrow().getNumPoints())
        .isEqualTo(15);
    String again = upload("areas.geojson", text);
    assertThat(
            decide(
                again,
                "take_0",
                "on",
                "name_0",
                "All",
                "repair_0",
                "structure",
                "repairall_0",
                "on"))
        .isEmpty();
    assertThat(byKey(layer("All"), "n").get("2").geometry().orElseThrow().getNumPoints())
        .isEqualTo(5);
  }

  @Test
  void rowsWithoutAPlaceAmongMixedShapesAreOfferedAsATableAndNothingIsCountedTwice()
      throws Exception {
    List<String> f = new ArrayList<>();
    f.add(feature("{\"n\":1}", "{\"type\":\"Point\",\"coordinates\":[-10.2,57.9]}"));
    f.add(
        feature(
            "{\"n\":2}", "{\"type\":\"LineString\",\"coordinates\":[[-10.2,57.9],[-10.1,57.9]]}"));
    f.add(feature("{\"n\":3}", "null"));
    f.add(feature("{\"n\":4}", "null"));
    String page = upload("mixed.geojson", collection(f));
    assertThat(html(page)).contains("features without a place");
    assertThat(
            decide(
                page,
                "take_0",
                "on",
                "name_0",
                "Mixed points",
                "take_1",
                "on",
                "name_1",
                "Mixed lines",
                "take_2",
                "on",
                "name_2",
                "Mixed rest"))
        .isEmpty();
    assertThat(all("Mixed points")).hasSize(1);
    assertThat(all("Mixed lines")).hasSize(1);
    assertThat(layer("Mixed rest").schema().kind()).isEqualTo(GeometryKind.TABLE);
    assertThat(all("Mixed rest"))
        .extracting(x -> x.value("n"))
        .containsExactlyInAnyOrder(Value.of(3), Value.of(4));
  }

  @Test
  void aTableIsReadAsAPersonSays() throws Exception {
    String page = upload("t.csv", "A1,51.2,5,\"x\nA2,51.3,6,y\n");
    assertThat(html(page)).contains("holds values, not names", "quotation mark");
    mvc.perform(post(page + "/read-as/0").param("row_0", "1").with(COORDINATOR).with(csrf()));
    waitFor(page);
    assertThat(html(page)).contains("\"A1\"").doesNotContain("holds values, not names");
    act(page, "drop");
  }

  @Test
  void valuesThatDoNotFitStandInThePlanOfAnUpdate() throws Exception {
    String first = upload("posts.csv", "tag,depth,lon,lat\nP1,1,-10.2,57.9\nP2,2,-10.2,57.9\n");
    assertThat(
            decide(first, "take_0", "on", "name_0", "Posts to update", "x_0", "lon", "y_0", "lat"))
        .isEmpty();
    Layer posts = layer("Posts to update");
    String again = upload("again.csv", "tag,depth\nP1,deep\nP2,3\n");
    assertThat(
            decide(
                again,
                "take_0",
                "on",
                "target_0",
                "update",
                "into_0",
                posts.id().toString(),
                "key_0",
                "tag",
                "c_0_known_0",
                "1",
                "c_0_take_0",
                "on",
                "c_0_into_0",
                "tag",
                "c_0_type_0",
                "text",
                "c_1_known_0",
                "1",
                "c_1_take_0",
                "on",
                "c_1_into_0",
                "depth",
                "c_1_type_0",
                "whole"))
        .isEmpty();
    assertThat(html(again)).contains("Depth: 1 value does not fit the field", "row 1");
    act(again, "drop");
    act(first, "take-back");
  }

  @Test
  void aLargeOutputIsWrittenInTheBackgroundAndKeptForItsProject() throws Exception {
    StringBuilder b = new StringBuilder("tag,kind\n");
    for (int i = 0; i < 20_010; i++) b.append('T').append(i).append(",post\n");
    String page = upload("many.csv", b.toString());
    assertThat(decide(page, "take_0", "on", "name_0", "Many rows")).isEmpty();
    String job =
        mvc.perform(
                get("/p/ostrey/outputs/file?format=csv&layer=" + layer("Many rows").id())
                    .with(COORDINATOR))
            .andReturn()
            .getResponse()
            .getRedirectedUrl();
    assertThat(job).startsWith("/p/ostrey/outputs/job/");
    String shown = html(job);
    for (int i = 0; i < 200 && !shown.contains("Take the file"); i++) {
      Thread.sleep(50);
      shown = html(job);
    }
    assertThat(shown).contains("Take the file", "many_rows.csv", "MB");
    for (int twice = 0; twice < 2; twice++)
      assertThat(
              mvc.perform(get(job + "/file").with(COORDINATOR))
                  .andReturn()
                  .getResponse()
                  .getContentAsString(StandardCharsets.UTF_8)
                  .lines())
          .hasSize(20_011);
    assertThat(
            mvc.perform(
                    get("/p/ostrey/outputs/job/00000000-0000-7000-8000-000000000000")
                        .with(COORDINATOR))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(404);
    // a job that is no output is not found here, and can't be cancelled from here
    String lot = page.replaceAll(".*/", "");
    assertThat(
            mvc.perform(get("/p/ostrey/outputs/job/" + lot).with(COORDINATOR))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(404);
    act(page, "take-back");
  }

  @Test
  void manySpellingsAreComparedInTheBackgroundAndPaged() throws Exception {
    StringBuilder b = new StringBuilder("n,street\n");
    for (int i = 0; i < 3_000; i++) {
      String s = "Lantern lane number " + i;
      b.append(i).append(',').append(s).append('\n');
      if (i % 30 == 0)
        b.append(i + 10_000).append(",\"").append(s.toUpperCase(Locale.ROOT)).append("\"\n");
    }
    String page = upload("streets.csv", b.toString());
    assertThat(decide(page, "take_0", "on", "name_0", "Streets of many")).isEmpty();
    String values = "/p/ostrey/layers/" + layer("Streets of many").id() + "/values?field=street";
    String shown = html(values);
    // the page is there before or after they are compared; which, is the machine's matter
    for (int i = 0; i < 200 && shown.contains("are being compared"); i++) {
      Thread.sleep(50);
      shown = html(values);
    }
    assertThat(shown).contains("page 1 of 4, 100 values with unlike spellings");
    assertThat(html(values + "&groups=4")).contains("page 4 of 4", "earlier");
    act(page, "take-back");
  }

  private void made(String name, Schema schema, List<Feature> features) throws Exception {
    making.make(
        projects.byKey("ostrey").id(),
        name,
        schema,
        Said.text("the board's areas"),
        "coordinator",
        take -> features.forEach(take));
  }

  @Test
  void theOwnExportBroughtInAgainMovesNothing() throws Exception {
    Ostrey isle = new Ostrey();
    made("Beats", Ostrey.beatsSchema(), isle.beats());
    made("Washlands", Ostrey.washlandsSchema(), isle.washlands());
    for (String name : List.of("Beats", "Washlands")) {
      Layer l = layer(name);
      String key =
          l.schema().tagField().isEmpty()
              ? l.schema().captionFields().get(0)
              : l.schema().tagField();
      for (String format : List.of("gpkg", "shp", "geojson", "kml")) {
        byte[] out =
            mvc.perform(get("/p/ostrey/outputs/" + l.id() + "/" + format).with(COORDINATOR))
                .andReturn()
                .getResponse()
                .getContentAsByteArray();
        String page = upload(file("own." + (format.equals("shp") ? "zip" : format), out));
        assertThat(
                decide(
                    page,
                    "take_0",
                    "on",
                    "target_0",
                    "update",
                    "into_0",
                    l.id().toString(),
                    "key_0",
                    key,
                    "place_0",
                    "on"))
            .as(name + " as " + format)
            .isEmpty();
        assertThat(html(page))
            .as(name + " as " + format)
            .contains("data-count=\"unchanged\">" + l.count() + "<")
            .contains("data-count=\"new\">0<");
        act(page, "drop");
      }
    }
  }
}
