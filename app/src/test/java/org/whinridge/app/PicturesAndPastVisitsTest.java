package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.whinridge.app.layer.Layer;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.photo.ExifWriter;
import org.whinridge.core.photo.Geotag;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.demo.DemoPhoto;

/** Pictures and past visits that come in files. */
class PicturesAndPastVisitsTest extends FilesTest {

  @Test
  void aTableOfPastVisitsBecomesVisitsOfItsFeatures() throws Exception {
    Layer structures = layer("Control structures");
    Feature one = layers.first(structures, 1).get(0);
    String tag = one.value("tag").plain();
    String page =
        upload(
            "visits.csv",
            "tag,day,condition,remark\n"
                + tag
                + ",04/05/2024,3,\"reeds, cut\"\n"
                + tag
                + ",17/05/2025,4,\nnobody,01/01/2024,1,\n");
    assertThat(
            decide(
                page,
                "take_0",
                "on",
                "target_0",
                "visits",
                "into_0",
                structures.id().toString(),
                "key_0",
                "tag",
                "date_0",
                "day",
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
                "c_1_type_0",
                "date",
                "c_2_known_0",
                "1",
                "c_2_take_0",
                "on",
                "c_2_into_0",
                "condition",
                "c_2_type_0",
                "whole",
                "c_3_known_0",
                "1",
                "c_3_take_0",
                "on",
                "c_3_type_0",
                "text"))
        .isEmpty();
    assertThat(html(page))
        .contains(
            "2 past visits kept", "1 row has a key that no feature has and was left out: nobody.");
    var kept =
        accepted(structures.id()).stream()
            .filter(v -> v.featureId().toString().equals(one.id()))
            .toList();
    assertThat(kept).hasSize(2);
    assertThat(kept.get(0).endedAt()).hasToString("2024-05-04T12:00:00Z");
    assertThat(kept.get(0).sent().text()).contains("\"remark\":\"reeds, cut\"", "\"condition\":3");
    assertThat(html("/p/ostrey/hand-ins/" + kept.get(0).id())).contains("reeds, cut");
    act(page, "take-back");
    assertThat(accepted(structures.id())).noneMatch(v -> v.featureId().toString().equals(one.id()));
  }

  private List<org.whinridge.app.daybook.Visit> accepted(UUID layer) {
    return visits.featuresOfAccepted(layer).keySet().stream().map(visits::get).toList();
  }

  @Test
  void picturesOfAKmzBecomePhotosOfItsFeatures() throws Exception {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ZipOutputStream z = new ZipOutputStream(bytes)) {
      z.putNextEntry(new ZipEntry("doc.kml"));
      z.write(
          "<kml xmlns=\"http://www.opengis.net/kml/2.2\"><Document><Placemark><name>Old sluice</name><description><![CDATA[<b>Leaks</b><br/><img src=\"files/a.jpg\"/>]]></description><Point><coordinates>-10.2,57.9,3</coordinates></Point></Placemark></Document></kml>"
              .getBytes(StandardCharsets.UTF_8));
      z.putNextEntry(new ZipEntry("files/a.jpg"));
      z.write(DemoPhoto.jpeg("OLD-1", "sluice", "2024-05-04"));
    }
    String page = upload(file("old.kmz", bytes.toByteArray()));
    assertThat(html(page)).contains("1 picture comes with the features");
    assertThat(decide(page, "take_0", "on", "name_0", "Old notes")).isEmpty();
    Layer l = layer("Old notes");
    assertThat(layers.first(l, 1).get(0).value("description")).isEqualTo(Value.text("Leaks"));
    Feature sluice = layers.first(l, 1).get(0);
    UUID feature = UUID.fromString(sluice.id());
    assertThat(accepted(l.id())).as("a picture is no visit of the day it was brought in").isEmpty();
    var photo = photos.ofFeatures(l.id(), List.of(feature)).get(0);
    assertThat(photo.received()).isTrue();
    JsonObject beside = beside(l, sluice);
    assertThat(beside.get("visits").asArray()).isEmpty();
    assertThat(beside.get("pictures").asArray()).hasSize(1);
    mvc.perform(get("/api/p/ostrey/photos/" + photo.id()).with(COORDINATOR))
        .andExpect(r -> assertThat(r.getResponse().getStatus()).isEqualTo(200));
    // taken back, its pictures and their bytes go with it; what was put aside is found still
    Path file =
        data.folder("photos")
            .resolve(photo.sha256().substring(0, 2))
            .resolve(photo.sha256() + ".jpg");
    assertThat(file).exists();
    act(page, "take-back");
    assertThat(photos.find(photo.id())).isEmpty();
    for (int i = 0; i < 100 && Files.exists(file); i++) Thread.sleep(50);
    assertThat(file).doesNotExist();
    assertThat(photos.bytes(photo)).isPresent();
  }

  @Test
  void geotaggedPicturesBecomeFeaturesWithPhotos() throws Exception {
    byte[] plain = DemoPhoto.jpeg("OS-1", "weir", "2026-05-04");
    byte[] tagged =
        ExifWriter.write(
                plain,
                new Geotag(
                    -10.2,
                    57.9,
                    java.util.OptionalDouble.of(3),
                    java.util.OptionalDouble.of(90),
                    java.time.Instant.parse("2026-05-04T09:30:00Z"),
                    0))
            .orElseThrow();
    String page = upload(file("walk/one.jpg", tagged), file("walk/two.jpg", plain));
    assertThat(html(page)).contains("2 photos", "“walk/two.jpg”: it has no position in its EXIF");
    assertThat(decide(page, "take_0", "on", "name_0", "From the walk")).isEmpty();
    Layer l = layer("From the walk");
    Feature one = byKey(l, "photo").get("one.jpg");
    assertThat(one.geometry().orElseThrow().getCoordinate().x)
        .isEqualTo(-10.2, org.assertj.core.api.Assertions.within(1e-6));
    assertThat(accepted(l.id())).isEmpty();
    assertThat(photos.ofFeatures(l.id(), List.of(UUID.fromString(one.id()))))
        .singleElement()
        .satisfies(
            p -> {
              assertThat(p.takenAt()).isEqualTo("2026-05-04T09:30:00Z");
              assertThat(English.of(p.facts())).contains("57.90000°, -10.20000°", "looking 90°");
            });
    JsonObject picture = beside(l, one).get("pictures").asArray().get(0).asObject();
    assertThat(picture.getDouble("lat", 0))
        .isEqualTo(57.9, org.assertj.core.api.Assertions.within(1e-6));
    assertThat(picture.getDouble("direction", 0)).isEqualTo(90);
  }

  private JsonObject beside(Layer l, Feature f) throws Exception {
    return Json.parse(
            mvc.perform(
                    get("/api/p/ostrey/layers/" + l.id() + "/features/" + f.id() + "/visits")
                        .with(COORDINATOR))
                .andReturn()
                .getResponse()
                .getContentAsString(StandardCharsets.UTF_8))
        .asObject();
  }

  /** Brings visits of the first structure; {@code rows} without the tag. */
  private String visits(Layer structures, String head, List<String> rows, String... more)
      throws Exception {
    String tag = layers.first(structures, 1).get(0).value("tag").plain();
    StringBuilder b = new StringBuilder("tag," + head + "\n");
    for (String r : rows)
      b.append(r.contains("$") ? r.replace("$", tag) : tag + "," + r).append('\n');
    String page = upload("past.csv", b.toString());
    List<String> form =
        new ArrayList<>(
            List.of(
                "take_0",
                "on",
                "target_0",
                "visits",
                "into_0",
                structures.id().toString(),
                "key_0",
                "tag",
                "date_0",
                "day"));
    form.addAll(List.of(more));
    String told = decide(page, form.toArray(new String[0]));
    return told.isEmpty() ? page : told;
  }

  @Test
  void daysOfSeveralStylesAreReadAndWhatIsNotIsNamed() throws Exception {
    Layer structures = layer("Control structures");
    String page =
        visits(
            structures,
            "day,by,remark",
            List.of(
                "6.5.2024,Ailsa,a",
                "31.12.2023,Ailsa,b",
                "1.2.24,,c",
                "2024/03/04,Tor,d",
                "12/31/2022 3:30 PM,Tor,e",
                "32.13.2024,Tor,f",
                "soon,Tor,g",
                "2024/03/04,Tor,d",
                "1.1.2090,Tor,h",
                "XX-77,6.5.2024,Tor,i".replace("XX-77,", "$-no,")),
            "visitor_0",
            "by",
            "order_0",
            "DAY_FIRST");
    String told = html(page);
    assertThat(told)
        .contains(
            "6 past visits kept",
            "2 rows have no day that can be read and were left out",
            "“32.13.2024”",
            "“soon”",
            "is the same as an earlier one",
            "has a day in the future",
            "has a key that no feature has and was left out")
        .contains("-no");
    Feature one = layers.first(structures, 1).get(0);
    JsonArray visits = beside(structures, one).get("visits").asArray();
    assertThat(visits).hasSize(6);
    List<String> days = new ArrayList<>();
    List<String> people = new ArrayList<>();
    for (JsonValue v : visits) {
      days.add(v.asObject().getString("at", ""));
      people.add(v.asObject().getString("person", ""));
    }
    assertThat(days)
        .containsExactly(
            "2090-01-01T12:00:00Z",
            "2024-05-06T12:00:00Z",
            "2024-03-04T12:00:00Z",
            "2024-02-01T12:00:00Z",
            "2023-12-31T12:00:00Z",
            "2022-12-31T15:30:00Z");
    assertThat(people).contains("Ailsa", "Tor", "coordinator");
    // the last visit that was: not the one in the future
    UUID feature = UUID.fromString(one.id());
    var last = this.visits.last(UUID.randomUUID(), structures.id(), List.of(feature)).get(feature);
    assertThat(last.endedAt()).hasToString("2024-05-06T12:00:00Z");
    // the history of the layer takes them back as a whole, however long ago the page was closed
    String history = html("/p/ostrey/layers/" + structures.id() + "/history");
    assertThat(history).contains("6 past visits, import of past.csv");
    java.util.regex.Matcher m =
        java.util.regex.Pattern.compile("brought/([0-9a-f-]{36})/take-back").matcher(history);
    assertThat(m.find()).isTrue();
    mvc.perform(
        post("/p/ostrey/layers/" + structures.id() + "/brought/" + m.group(1) + "/take-back")
            .with(COORDINATOR)
            .with(csrf()));
    assertThat(beside(structures, one).get("visits").asArray()).isEmpty();
  }

  @Test
  void theOrderOfDayAndMonthIsAskedWhereBothCouldBe() throws Exception {
    Layer structures = layer("Control structures");
    assertThat(visits(structures, "day", List.of("4.5.2024", "6.7.2024")))
        .contains("the first number could be the day or the month", "Nothing was imported");
    String page =
        visits(structures, "day", List.of("4/5/2024", "6/7/2024"), "order_0", "MONTH_FIRST");
    Feature one = layers.first(structures, 1).get(0);
    assertThat(
            beside(structures, one).get("visits").asArray().get(0).asObject().getString("at", ""))
        .isEqualTo("2024-06-07T12:00:00Z");
    act(page, "take-back");
    // of a new layer, too
    String fresh = upload("dates.csv", "n,seen\n1,4/5/2024\n2,6/7/2024\n");
    assertThat(html(fresh)).contains("could be read in two ways");
    assertThat(decide(fresh, "take_0", "on", "name_0", "Dates", "order_0", ""))
        .contains("choose which it is");
    assertThat(decide(fresh, "take_0", "on", "name_0", "Dates", "order_0", "MONTH_FIRST"))
        .isEmpty();
    assertThat(layers.first(layer("Dates"), 1).get(0).value("seen").plain())
        .isEqualTo("2024-04-05");
    act(fresh, "take-back");
  }
}
