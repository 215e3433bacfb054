package org.whinridge.formats.geojson;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatExceptionOfType;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.photos.PhotoFacts;
import org.whinridge.formats.source.RawFeature;

class GeoJsonReaderTest {
  private static List<RawFeature> read(String json) throws FileProblem {
    List<RawFeature> out = new ArrayList<>();
    GeoJsonReader.read(new ByteArrayInputStream(json.getBytes(StandardCharsets.UTF_8)), out::add);
    return out;
  }

  private static String feature(String properties) {
    return "{\"type\":\"Feature\",\"properties\":"
        + properties
        + ",\"geometry\":{\"type\":\"Point\",\"coordinates\":[1,2,99]}}";
  }

  private static String collection(String features) {
    return "{\"features\":[" + features + "],\"bbox\":[0,0,1,1],\"type\":\"FeatureCollection\"}";
  }

  @Test
  void membersMayComeInAnyOrderAndHeightsAreOffered() throws Exception {
    List<RawFeature> all = read(collection(feature("{\"a\":1}") + "," + feature("null")));
    assertThat(all).hasSize(2);
    assertThat(all.get(1).number()).isEqualTo(2);
    assertThat(all.get(0).geometry().orElseThrow()).hasToString("POINT (1 2)");
    assertThat(all.get(1).properties()).containsOnlyKeys("geometry z");
  }

  @Test
  void aSingleFeatureIsAFileOfOne() throws Exception {
    assertThat(read(feature("{\"a\":\"x\"}")))
        .singleElement()
        .satisfies(f -> assertThat(f.properties()).containsEntry("a", Value.text("x")));
  }

  @Test
  void valuesAreKeptWhateverTheyAre() throws Exception {
    var p =
        read(collection(
                feature(
                    "{\"n\":1.50,\"big\":12345678901234567890,\"t\":\"\",\"y\":false,\"z\":null,\"l\":[\"a\",\"b\"],\"m\":[1,\"b\"],\"o\":{\"k\":[]},\"u\":\"\\u00fc\\n\"}")))
            .get(0)
            .properties();
    assertThat(p)
        .containsEntry("n", Value.of(1.5))
        .containsEntry("big", Value.text("12345678901234567890"))
        .containsEntry("t", Value.EMPTY)
        .containsEntry("y", Value.NO)
        .containsEntry("z", Value.EMPTY)
        .containsEntry("l", Value.many(List.of(Value.text("a"), Value.text("b"))))
        .containsEntry("o", Value.text("{\"k\":[]}"))
        .containsEntry("u", Value.text("ü\n"));
    assertThat(p.get("m").plain()).isEqualTo("[1,\"b\"]");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '~',
      value = {
        "{\"type\":\"FeatureCollection\",\"features\":{}}|of type FeatureCollection",
        "{\"type\":\"FeatureCollection\",\"features\":[]} x|not sound JSON",
        "{\"type\":\"FeatureCollection\",\"features\":[]}{}|follows the end",
        "{\"type\":\"Feature\",\"geometry\":{\"type\":\"Point\",\"coordinates\":[1e999,0]}}|too large",
        "|does not begin"
      })
  void whatCannotBeReadIsSaid(String json, String words) {
    assertThatExceptionOfType(FileProblem.class)
        .isThrownBy(
            () ->
                read(
                    json == null
                        ? ""
                        : json.contains("features\":[]} x") || json.contains("[]}{}")
                            ? json.replace("[]", "[" + feature("{}") + "]")
                            : json))
        .satisfies(English.says(words));
  }

  @Test
  void aBadGeometryIsToldWithItsFeatureAndTheOthersGoOn() throws Exception {
    List<RawFeature> all =
        read(
            collection(
                "{\"type\":\"Feature\",\"properties\":{\"a\":1},\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[1,0],[1,1],[0,1]]]}},"
                    + feature("{\"a\":2}")));
    assertThat(all).hasSize(2);
    assertThat(English.of(all.get(0).problem())).startsWith("Feature 1: ");
    assertThat(all.get(0).geometry()).isEmpty();
    assertThat(English.of(all.get(1).problem())).isEmpty();
  }

  @Test
  void newlineDelimitedFeaturesAreRead() throws Exception {
    assertThat(read(feature("{\"a\":1}") + "\n" + feature("{\"a\":2}") + "\n")).hasSize(2);
  }

  @Test
  void theSystemOfAnOlderFileIsFound() throws Exception {
    String file =
        "{\"type\":\"FeatureCollection\",\"crs\":{\"type\":\"name\",\"properties\":{\"name\":\"urn:ogc:def:crs:EPSG::27700\"}},\"features\":[]}";
    assertThat(
            GeoJsonReader.system(new ByteArrayInputStream(file.getBytes(StandardCharsets.UTF_8))))
        .isEqualTo("urn:ogc:def:crs:EPSG::27700");
  }

  @Test
  void crs84IsWgs84() throws Exception {
    assertThat(
            read(
                "{\"type\":\"FeatureCollection\",\"crs\":{\"type\":\"name\",\"properties\":{\"name\":\"urn:ogc:def:crs:OGC:1.3:CRS84\"}},\"features\":["
                    + feature("{}")
                    + "]}"))
        .hasSize(1);
  }

  @Test
  void nestingAndPropertiesAreBounded() {
    assertThatExceptionOfType(FileProblem.class).isThrownBy(() -> read("[".repeat(100_000)));
    assertThatExceptionOfType(FileProblem.class)
        .isThrownBy(
            () ->
                read(
                    "{\"type\":\"Feature\",\"properties\":{\"a\":"
                        + "[".repeat(500)
                        + "]".repeat(500)
                        + "},\"geometry\":null}"))
        .satisfies(English.says("not sound JSON"));
    StringBuilder many = new StringBuilder("{");
    for (int i = 0; i < 600; i++)
      many.append(i == 0 ? "" : ",").append("\"p").append(i).append("\":1");
    assertThatExceptionOfType(FileProblem.class)
        .isThrownBy(() -> read(collection(feature(many + "}"))))
        .satisfies(English.says("properties"));
  }

  /**
   * A file that never ends its features is read as a stream: memory stays flat however long it is.
   */
  @Test
  void aLongFileIsStreamed() throws Exception {
    byte[] one =
        (feature("{\"name\":\"" + "x".repeat(200) + "\"}") + ",").getBytes(StandardCharsets.UTF_8);
    byte[] last = (feature("{}") + "]}").getBytes(StandardCharsets.UTF_8);
    InputStream endless =
        new InputStream() {
          private int feature = -1;
          private byte[] now =
              "{\"type\":\"FeatureCollection\",\"features\":[".getBytes(StandardCharsets.UTF_8);
          private int at;

          @Override
          public int read() throws IOException {
            if (at == now.length) {
              if (++feature > 200_000) return -1;
              now = feature == 200_000 ? last : one;
              at = 0;
            }
            return now[at++];
          }

          @Override
          public int read(byte[] b, int off, int len) throws IOException {
            int first = read();
            if (first < 0) return -1;
            b[off] = (byte) first;
            int n = Math.min(len - 1, now.length - at);
            System.arraycopy(now, at, b, off + 1, n);
            at += n;
            return n + 1;
          }
        };
    int[] seen = {0};
    assertThat(GeoJsonReader.read(endless, f -> seen[0]++)).isEqualTo(200_001);
    assertThat(seen[0]).isEqualTo(200_001);
  }

  @Test
  void damagedFilesGiveAProblemOrFeaturesNeverAnythingElse() {
    long seed = 31;
    Random random = new Random(seed);
    byte[] good =
        collection(feature("{\"a\":\"ü\",\"b\":[1,{\"c\":null}]}") + "," + feature("{\"d\":1e30}"))
            .getBytes(StandardCharsets.UTF_8);
    for (int i = 0; i < 5_000; i++) {
      byte[] bad = java.util.Arrays.copyOf(good, 1 + random.nextInt(good.length));
      for (int k = random.nextInt(6); k > 0; k--)
        bad[random.nextInt(bad.length)] = (byte) random.nextInt(256);
      try {
        GeoJsonReader.read(new ByteArrayInputStream(bad), f -> {});
      } catch (FileProblem e) {
        assertThat(English.of(e)).as("seed %d, file %d", seed, i).isNotBlank();
      }
    }
  }

  @Test
  void whatIsNoPhotoHasNoFacts() {
    assertThat(PhotoFacts.read(new byte[] {1, 2, 3})).isEmpty();
  }
}
