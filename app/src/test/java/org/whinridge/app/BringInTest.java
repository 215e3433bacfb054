package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.multipart;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.mock.web.MockHttpServletResponse;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;

/**
 * Files brought in: what is wrong with them is said, nothing is half imported, all can be undone.
 */
class BringInTest extends FilesTest {
  private static String point(String properties, String coordinates) {
    return "{\"type\":\"Feature\",\"properties\":"
        + properties
        + ",\"geometry\":{\"type\":\"Point\",\"coordinates\":"
        + coordinates
        + "}}";
  }

  private static String collection(String... features) {
    return "{\"type\":\"FeatureCollection\",\"features\":[" + String.join(",", features) + "]}";
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '~',
      value = {
        "a.geojson|hello|not sound JSON",
        "a.json|{\"a\":1}|no type FeatureCollection",
        "a.json|{\"type\":\"Topology\"}|of type Topology",
        "a.json|{\"type\":\"FeatureCollection\",\"features\":[]}|holds no features",
        "a.json|{\"type\":\"FeatureCollection\",\"features\":[|not sound JSON",
        "a.json|{\"type\":\"FeatureCollection\",\"features\":[7]}|Feature 1 is not an object",
        "a.kml|<?xml version=\"1.0\"?><kml><Placemark><name>x</Placemark></kml>|not sound XML",
        "a.xml|<?xml version=\"1.0\"?><a/>|neither KML nor GPX",
        "a.gpx|<gpx></gpx>|no waypoints",
        "a.shp|nothing|cut off within its header",
        "a.txt|~only~|column names but no rows",
        "a.bin|SQLite format 3|no table or map data"
      })
  void whatIsNotUnderstoodIsSaidAndNothingIsImported(String name, String content, String words)
      throws Exception {
    long before = layers.count(projects.byKey("ostrey").id());
    String page = upload(name, content);
    assertThat(html(page)).contains(words).contains("Nothing in these files can be imported");
    assertThat(layers.count(projects.byKey("ostrey").id())).isEqualTo(before);
    act(page, "drop");
    try (var all = Files.list(data.folder("incoming"))) {
      assertThat(all.map(p -> p.getFileName().toString())).noneMatch(page::endsWith);
    }
  }

  @Test
  void rowsWithBadPlacesAreToldAndTheOthersAreImported() throws Exception {
    String unclosed =
        "{\"type\":\"Feature\",\"properties\":{\"n\":3},\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[1,0],[1,1],[0,1]]]}}";
    String page =
        upload(
            "places.geojson",
            collection(point("{\"n\":1}", "[1,2]"), point("{\"n\":2}", "[1,91]"), unclosed));
    assertThat(html(page)).contains("Feature 3");
    assertThat(decide(page, "take_0", "on", "name_0", "Some places", "system_0", "EPSG:4326"))
        .isEmpty();
    assertThat(html(page)).contains("row 2", "latitude 91 is out of range");
    assertThat(byKey(layer("Some places"), "n").get("2").geometry()).isEmpty();
    assertThat(byKey(layer("Some places"), "n").get("1").geometry()).isPresent();
  }

  @Test
  void mixedKindsAreOfferedAsSeveralLayers() throws Exception {
    String line =
        "{\"type\":\"Feature\",\"properties\":{\"n\":9},\"geometry\":{\"type\":\"LineString\",\"coordinates\":[[0,0],[1,1]]}}";
    String page =
        upload(
            "mixed.geojson",
            collection(point("{\"n\":1}", "[1,2]"), line, point("{\"n\":2}", "[3,4]")));
    assertThat(html(page)).contains("Mixed points", "Mixed lines");
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
                "Mixed lines"))
        .isEmpty();
    assertThat(layer("Mixed points").count()).isEqualTo(2);
    assertThat(layer("Mixed lines").schema().kind()).isEqualTo(GeometryKind.LINE);
    // all of it is undone as a whole
    act(page, "take-back");
    assertThat(layers.list(projects.byKey("ostrey").id()))
        .noneMatch(l -> l.name().startsWith("Mixed"));
  }

  @Test
  void aTableIsPlacedByItsColumnsInTheSystemChosen() throws Exception {
    String page =
        upload(
            "posts.csv",
            "ref;easting;northing;height\nA;428873,5;6418207,9;1,5\nB;428900;6418300;2\n");
    assertThat(html(page)).contains("Columns are parted by “;”", "in columns", "decimal comma");
    assertThat(
            decide(
                page,
                "take_0",
                "on",
                "name_0",
                "Posts of a table",
                "x_0",
                "easting",
                "y_0",
                "northing"))
        .contains("Choose the coordinate system");
    assertThat(
            decide(
                page,
                "take_0",
                "on",
                "name_0",
                "Posts of a table",
                "x_0",
                "easting",
                "y_0",
                "northing",
                "system_0",
                "EPSG:99999"))
        .contains("no coordinate system");
    assertThat(
            decide(
                page,
                "take_0",
                "on",
                "name_0",
                "Posts of a table",
                "x_0",
                "easting",
                "y_0",
                "northing",
                "system_0",
                "EPSG:32629"))
        .isEmpty();
    Feature a = byKey(layer("Posts of a table"), "ref").get("A");
    // EPSG:32629 by PROJ's cs2cs: 428873.5 6418207.9 is 10.2° W, 57.9° N to five decimals
    assertThat(a.geometry().orElseThrow().getCoordinate().x)
        .isEqualTo(-10.2, org.assertj.core.api.Assertions.within(0.001));
    assertThat(a.value("height")).isEqualTo(Value.of(1.5));
    assertThat(layer("Posts of a table").systemCode()).isEqualTo("EPSG:32629");
    assertThat(layer("Posts of a table").schema().fields())
        .extracting(f -> f.name())
        .containsExactly("ref", "height");
  }

  @Test
  void anUpdateByKeyIsCountedFirstThenWrittenThenTakenBack() throws Exception {
    String made =
        upload(
            "wells.csv",
            "tag,depth,note,longitude,latitude\nW1,1,a,-10.1,57.9\nW2,2,b,-10.2,57.9\nW3,3,c,-10.3,57.9\n");
    assertThat(
            decide(made, "take_0", "on", "name_0", "Wells", "x_0", "longitude", "y_0", "latitude"))
        .isEmpty();
    String id = layer("Wells").id().toString();
    String page = upload("new.csv", "tag,depth,note\nW1,1,a\nW2,22,b\nW4,4,\n,5,x\nW2,9,twice\n");
    assertThat(html(page + "?into0=" + id + "&target0=update"))
        .contains("Goes into", "remove features that the file does not have");
    String[] decisions = {
      "take_0",
      "on",
      "target_0",
      "update",
      "into_0",
      id,
      "key_0",
      "tag",
      "remove_0",
      "on",
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
      "whole",
      "c_2_known_0",
      "1",
      "c_2_take_0",
      "on",
      "c_2_into_0",
      "note",
      "c_2_type_0",
      "text"
    };
    assertThat(decide(page, decisions)).isEmpty();
    String plan = html(page);
    for (String count :
        List.of(
            "data-count=\"new\">1",
            "data-count=\"changed\">1",
            "data-count=\"unchanged\">1",
            "data-count=\"missing\">1")) assertThat(plan).contains(count);
    assertThat(plan).contains("“W2” in rows 2 and 5", "will be removed", "W3");
    assertThat(byKey(layer("Wells"), "tag").get("W2").value("depth"))
        .as("nothing is written yet")
        .isEqualTo(Value.of(2));
    act(page, "confirm");
    Map<String, Feature> after = byKey(layer("Wells"), "tag");
    assertThat(after.keySet()).containsExactlyInAnyOrder("W1", "W2", "W4");
    assertThat(layer("Wells").count()).isEqualTo(3);
    assertThat(after.get("W2").value("depth")).isEqualTo(Value.of(22));
    assertThat(after.get("W1").version()).isEqualTo(1);
    act(page, "take-back");
    Map<String, Feature> back = byKey(layer("Wells"), "tag");
    assertThat(back.keySet()).containsExactlyInAnyOrder("W1", "W2", "W3");
    assertThat(layer("Wells").count()).isEqualTo(3);
    assertThat(back.get("W2").value("depth")).isEqualTo(Value.of(2));
  }

  @Test
  void featuresWithoutAKeyOrWithASharedOneAreNeverTakenForMissing() throws Exception {
    String made = upload("posts.csv", "tag,n\nP1,1\nP1,2\n,3\nP2,4\n");
    assertThat(decide(made, "take_0", "on", "name_0", "Shared keys")).isEmpty();
    String id = layer("Shared keys").id().toString();
    String page = upload("again.csv", "tag,n\nP1,11\n");
    assertThat(
            decide(
                page,
                "take_0",
                "on",
                "target_0",
                "update",
                "into_0",
                id,
                "key_0",
                "tag",
                "remove_0",
                "on",
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
                "n",
                "c_1_type_0",
                "whole"))
        .isEmpty();
    assertThat(html(page)).contains("data-count=\"missing\">1", "data-count=\"changed\">1");
    act(page, "confirm");
    assertThat(layers.first(layer("Shared keys"), 10))
        .extracting(f -> f.value("n").plain())
        .containsExactlyInAnyOrder("11", "2", "3");
  }

  @Test
  void hostileNamesArePlainTextAndLongIdsKeepTheirDigits() throws Exception {
    String f =
        point(
            "{\"<script>alert(1)</script>\":\"x'; DROP TABLE layer; --\",\"Name, of it\":\"é\",\"id\":12345678901234567890}",
            "[-10.2,57.9,3.5]");
    String page = upload("../../etc/some file.geojson", collection(f));
    assertThat(html(page))
        .contains("some file.geojson")
        .contains("&lt;script&gt;")
        .doesNotContain("<script>alert");
    assertThat(decide(page, "take_0", "on", "name_0", "Odd, but fine")).isEmpty();
    assertThat(layers.first(layer("Odd, but fine"), 5))
        .singleElement()
        .satisfies(
            x ->
                assertThat(x.values().values())
                    .extracting(Value::plain)
                    .containsExactly("x'; DROP TABLE layer; --", "é", "12345678901234567890"));
    String again = upload("again.geojson", collection(f));
    assertThat(decide(again, "take_0", "on", "name_0", "Odd, but fine"))
        .contains("already has a layer called");
  }

  @Test
  void damagedFilesNeverFailTheServer() throws Exception {
    long seed = 77;
    Random random = new Random(seed);
    byte[] good =
        collection(
                point("{\"a\":\"ü\",\"b\":[1,{\"c\":null}],\"d\":1e300}", "[1,2]"),
                point("{}", "[1.5,2.5]"))
            .getBytes(StandardCharsets.UTF_8);
    for (int i = 0; i < 25; i++) {
      byte[] bad =
          java.util.Arrays.copyOf(
              good, random.nextInt(4) == 0 ? 1 + random.nextInt(good.length) : good.length);
      for (int k = random.nextInt(5); k >= 0; k--)
        bad[random.nextInt(bad.length)] = (byte) random.nextInt(256);
      String page = upload(file("a.geojson", bad));
      assertThat(mvc.perform(get(page).with(COORDINATOR)).andReturn().getResponse().getStatus())
          .as("seed %d, file %d", seed, i)
          .isEqualTo(200);
    }
  }

  private MockHttpServletResponse tus(String method, String path, byte[] body, String... headers)
      throws Exception {
    var q =
        org.springframework.test.web.servlet.request.MockMvcRequestBuilders.request(
                org.springframework.http.HttpMethod.valueOf(method), path)
            .header("Tus-Resumable", "1.0.0")
            .contentType("application/offset+octet-stream")
            .content(body);
    for (int i = 0; i < headers.length; i += 2) q.header(headers[i], headers[i + 1]);
    return mvc.perform(q.with(COORDINATOR).with(csrf())).andReturn().getResponse();
  }

  private static String base64(String s) {
    return java.util.Base64.getEncoder().encodeToString(s.getBytes(StandardCharsets.UTF_8));
  }

  @Test
  void anUploadGoesOnWhereItWasCut() throws Exception {
    byte[] content = "ref,lon,lat\nA,-10.2,57.9\nB,-10.3,57.9\n".getBytes(StandardCharsets.UTF_8);
    String home = "/api/p/ostrey/bring-in/uploads";
    String lot =
        Json.parse(
                mvc.perform(post("/api/p/ostrey/bring-in").with(COORDINATOR).with(csrf()))
                    .andReturn()
                    .getResponse()
                    .getContentAsString())
            .asObject()
            .getString("id", "");
    String metadata = "lot " + base64(lot) + ",name " + base64("../../posts of a cut.csv");
    String place =
        tus(
                "POST",
                home,
                new byte[0],
                "Upload-Length",
                String.valueOf(content.length),
                "Upload-Metadata",
                metadata)
            .getHeader("Location");
    assertThat(
            tus("PATCH", place, java.util.Arrays.copyOf(content, 10), "Upload-Offset", "0")
                .getStatus())
        .isEqualTo(204);
    assertThat(tus("HEAD", place, new byte[0]).getHeader("Upload-Offset")).isEqualTo("10");
    assertThat(tus("PATCH", place, content, "Upload-Offset", "0").getStatus())
        .as("not from the beginning again")
        .isEqualTo(409);
    assertThat(
            tus("HEAD", "/api/day/uploads/" + place.substring(place.length() - 36), new byte[0])
                .getStatus())
        .as("not under another address")
        .isEqualTo(404);
    assertThat(
            tus(
                    "PATCH",
                    place,
                    java.util.Arrays.copyOfRange(content, 10, content.length),
                    "Upload-Offset",
                    "10")
                .getStatus())
        .isEqualTo(204);
    mvc.perform(
        post("/api/p/ostrey/bring-in/" + lot + "/inventory").with(COORDINATOR).with(csrf()));
    waitFor(PAGE + "/" + lot);
    assertThat(html(PAGE + "/" + lot)).contains("posts of a cut.csv", "in columns");
    assertThat(
            decide(
                PAGE + "/" + lot,
                "take_0",
                "on",
                "name_0",
                "Cut and whole",
                "x_0",
                "lon",
                "y_0",
                "lat"))
        .isEmpty();
    assertThat(layer("Cut and whole").count()).isEqualTo(2);
    String none = "lot " + base64("00000000-0000-4000-8000-000000000000") + ",name " + base64("x");
    assertThat(
            tus("POST", home, new byte[0], "Upload-Length", "5", "Upload-Metadata", none)
                .getStatus())
        .isEqualTo(404);
    assertThat(
            tus(
                    "POST",
                    home,
                    new byte[0],
                    "Upload-Length",
                    "9999999999999",
                    "Upload-Metadata",
                    metadata)
                .getStatus())
        .isEqualTo(413);
    assertThat(
            tus("POST", home, new byte[0], "Upload-Length", "5", "Upload-Metadata", "lot !!!")
                .getStatus())
        .isEqualTo(400);
  }

  @Test
  void afterARestartTheFilesAreStillThereAndAnInterruptedImportIsSaid() throws Exception {
    String page = upload("restart.csv", "ref,lon,lat\nA,-10.2,57.9\n");
    String id = page.substring(page.lastIndexOf('/') + 1);
    // what a server finds that stopped in the middle of an import: the files and the mark
    Files.writeString(data.folder("incoming").resolve(id).resolve("state"), "importing");
    String copy = UUID.randomUUID().toString();
    org.springframework.util.FileSystemUtils.copyRecursively(
        data.folder("incoming").resolve(id), data.folder("incoming").resolve(copy));
    String again = PAGE + "/" + copy;
    waitFor(again);
    assertThat(html(again))
        .contains("The server stopped while this was being imported", "restart.csv");
  }

  @Test
  void aLotOfAnotherProjectOrNoLotIsNotThere() throws Exception {
    for (String path :
        List.of(
            PAGE + "/00000000-0000-4000-8000-000000000000",
            "/api/p/ostrey/bring-in/00000000-0000-4000-8000-000000000000/state"))
      assertThat(mvc.perform(get(path).with(COORDINATOR)).andReturn().getResponse().getStatus())
          .isEqualTo(404);
  }

  @Test
  void onlyACoordinatorBringsIn() throws Exception {
    var f = file("a.geojson", collection(point("{}", "[1,2]")).getBytes(StandardCharsets.UTF_8));
    assertThat(
            mvc.perform(multipart(PAGE).file(f).with(user("reader")).with(csrf()))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(403);
    assertThat(mvc.perform(get(PAGE).with(user("reader"))).andReturn().getResponse().getStatus())
        .isEqualTo(403);
    assertThat(
            mvc.perform(multipart(PAGE).file(f).with(COORDINATOR))
                .andReturn()
                .getResponse()
                .getRedirectedUrl())
        .isEqualTo("/sign-in?old");
  }
}
