package org.whinridge.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.formats.photos.Pictures;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Source;

/** What a KML or KMZ holds, and what becomes of it. */
class KmlHoldsTest {
  @TempDir Path home;

  private static final String KML =
      """
      <?xml version="1.0" encoding="UTF-8"?><kml xmlns="http://www.opengis.net/kml/2.2"><Document>
      <Folder><name>North shore</name><Folder><name>Flaps</name>
      <Placemark><name>Flap 1</name>
        <description><![CDATA[Caf&eacute; side &amp; <b>gate</b><br>second line
          <img src="files/a%20b.jpg"><img src=files/plain.png width=40><img src='https://example.org/far.jpg'><img src="files/none.jpg">
          <table><tr><td>Bore</td><td>300 mm</td></tr><tr><th>Seat:</th><td>brass</td></tr><tr><td colspan=2>one cell</td></tr></table>]]></description>
        <ExtendedData><Data name="Owner"><displayName>Owner</displayName><value>Harbour board</value></Data></ExtendedData>
        <Point><coordinates>-10.25,57.91,4.5</coordinates></Point></Placemark>
      </Folder></Folder>
      <GroundOverlay><name>o</name><Icon><href>files/o.png</href></Icon></GroundOverlay>
      <NetworkLink><Link><href>https://example.org/x.kml</href></Link></NetworkLink>
      </Document></kml>
      """;

  private Path kmz() throws Exception {
    Map<String, byte[]> files = new LinkedHashMap<>();
    files.put("doc.kml", KML.getBytes(StandardCharsets.UTF_8));
    files.put("files/a b.jpg", new ExifBytes().jpeg());
    files.put("files/plain.png", new ExifBytes().png());
    ByteArrayOutputStream b = new ByteArrayOutputStream();
    try (ZipOutputStream z = new ZipOutputStream(b)) {
      for (var e : files.entrySet()) {
        z.putNextEntry(new ZipEntry(e.getKey()));
        z.write(e.getValue());
      }
    }
    return Files.write(home.resolve("shore.kmz"), b.toByteArray());
  }

  @Test
  void dataEntitiesFoldersPicturesAndTablesAreTaken() throws Exception {
    Sources.Opened o = Gdal.open(Files.createDirectories(home.resolve("s")), kmz());
    assertThat(o.notUnderstood()).isEmpty();
    Source.SourceLayer l = o.sources().get(0).layers().get(0);
    RawFeature f = Gdal.features(o).get(0);
    assertThat(f.properties())
        .containsEntry("Owner", Value.text("Harbour board"))
        .containsEntry("folder", Value.text("North shore / Flaps"))
        .containsEntry("Bore", Value.text("300 mm"))
        .containsEntry("Seat", Value.text("brass"))
        .containsEntry("geometry z", Value.of(4.5));
    assertThat(f.properties().get("description").plain())
        .startsWith("Café side & gate\nsecond line");
    assertThat(f.pictures()).hasSize(2);
    for (Path p : f.pictures()) assertThat(Pictures.fault(p)).isEqualTo(Pictures.Fault.NONE);
    // what stands in a table of the text is an offer, taken when ticked
    assertThat(l.aside()).contains("Bore", "Seat", "geometry z").doesNotContain("Owner");
    assertThat(String.join("\n", English.of(l.notes())))
        .contains("1 picture laid over the map is left out")
        .contains("1 link to another file is left out; bring in that file itself")
        .contains("1 picture lies on the network")
        .contains("1 picture that it shows is not in the file")
        .contains("descriptions hold tables");
  }

  @Test
  void aColumnWithValuesOfItsOwnIsTakenThoughAnotherTextNamesItToo() throws Exception {
    String two =
        KML.replace(
            "</Placemark>",
            "</Placemark><Placemark><name>Flap 2</name><ExtendedData><Data name=\"Bore\"><value>200 mm</value></Data></ExtendedData></Placemark>");
    Path f = Files.writeString(home.resolve("two.kml"), two, StandardCharsets.UTF_8);
    Sources.Opened o = Gdal.open(Files.createDirectories(home.resolve("s")), f);
    assertThat(o.sources().get(0).layers().get(0).aside()).contains("Seat").doesNotContain("Bore");
  }

  @Test
  void heightsThatAreAllZeroAreNone() throws Exception {
    Path f =
        Files.writeString(
            home.resolve("z.kml"), KML.replace("57.91,4.5", "57.91,0"), StandardCharsets.UTF_8);
    Sources.Opened o = Gdal.open(Files.createDirectories(home.resolve("s")), f);
    assertThat(Gdal.features(o).get(0).properties()).doesNotContainKey("geometry z");
  }

  @Test
  void messagesAreInTheReadersWords() throws Exception {
    for (var e :
        Map.of(
                "open.kml", "<kml><Placemark><name>x</Placemark></kml>",
                "cut.kml", "<kml><Placemark><name>x",
                "entity.kml", "<kml><Placemark><name>&bad;</name></Placemark></kml>")
            .entrySet()) {
      Path f = Files.writeString(home.resolve(e.getKey()), e.getValue());
      Sources.Opened o = Gdal.open(Files.createTempDirectory(home, "s"), f);
      String why = English.of(o.notUnderstood().get(0).why());
      assertThat(why).contains("line 1").doesNotContain("end-tag", "referenced", "structures");
      assertThat(List.of("“name” is not closed", "ends too early", "“&bad;” is not defined"))
          .anyMatch(why::contains);
    }
  }
}
