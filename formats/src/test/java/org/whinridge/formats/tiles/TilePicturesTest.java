package org.whinridge.formats.tiles;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.util.Map;
import java.util.Random;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.whinridge.core.said.English;
import org.whinridge.formats.file.FileProblem;

class TilePicturesTest {
  @TempDir Path folder;

  private static byte[] png(int side, int rgb) throws Exception {
    BufferedImage i = new BufferedImage(side, side, BufferedImage.TYPE_INT_RGB);
    for (int x = 0; x < side; x++) for (int y = 0; y < side; y++) i.setRGB(x, y, rgb);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ImageIO.write(i, "png", out);
    return out.toByteArray();
  }

  private Path written(Map<String, String> metadata) throws Exception {
    Path file = folder.resolve("base.mbtiles");
    Files.deleteIfExists(file);
    try (MbTilesWriter w = new MbTilesWriter(file, metadata)) {
      for (int z = 9; z <= 10; z++)
        for (int x = 0; x < 2; x++)
          w.add(z, 241 * (z - 8) + x, 156 * (z - 8), png(256, 0x33aa55 + x));
    }
    return file;
  }

  private void change(Path file, String sql) throws Exception {
    try (var db = DriverManager.getConnection("jdbc:sqlite:" + file);
        var s = db.createStatement()) {
      s.execute(sql);
    }
  }

  private static String run(String... command) throws Exception {
    Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
    String out = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(p.waitFor()).as(out).isZero();
    return out;
  }

  @Test
  void tilesComeBackFromTheUpperLeft() throws Exception {
    TilePictures t =
        TilePictures.open(
            written(Map.of("name", "Base", "format", "png", "minzoom", "9", "maxzoom", "10")));
    assertThat(t.name()).isEqualTo("Base");
    assertThat(English.of(t.notes())).isEmpty();
    assertThat(t.grid().least()).isEqualTo(9);
    assertThat(t.grid().perPixel()).hasSize(11);
    assertThat(t.grid().perPixel()[0])
        .isCloseTo(156543.03392804097, within(1e-6)); // EPSG:3857, 256 pixels round the equator
    assertThat(t.tile(9, 241, 156))
        .hasValueSatisfying(b -> assertThat(TilePictures.kind(b)).hasValue("image/png"));
    assertThat(t.tile(9, 241, 157)).isEmpty();
    assertThat(t.tile(40, 0, 0)).isEmpty();
    assertThat(t.grid().extent()[0]).isCloseTo(241 / 256.0 * 180 - 180, within(0.71));
  }

  /** GDAL reads what is written, and what GDAL writes is read. */
  @Test
  void gdalAgrees() throws Exception {
    String said =
        run(
            "gdalinfo",
            written(
                    Map.of(
                        "name",
                        "Base",
                        "format",
                        "png",
                        "minzoom",
                        "9",
                        "maxzoom",
                        "10",
                        "bounds",
                        "-10.6,57.6,-9,58.2",
                        "type",
                        "baselayer"))
                .toString());
    assertThat(said).contains("MBTiles").contains("ID[\"EPSG\",3857]");
    Path picture = folder.resolve("p.png");
    Files.write(picture, png(600, 0x8899aa));
    Path mb = folder.resolve("gdal.mbtiles");
    run(
        "gdal_translate",
        "-q",
        "-of",
        "MBTILES",
        "-a_srs",
        "EPSG:3857",
        "-a_ullr",
        "-1150000",
        "7990000",
        "-1130000",
        "7970000",
        picture.toString(),
        mb.toString());
    check(TilePictures.open(mb), "EPSG:3857");
    Path gp = folder.resolve("gdal.gpkg");
    run(
        "gdal_translate",
        "-q",
        "-of",
        "GPKG",
        "-a_srs",
        "EPSG:4326",
        "-a_ullr",
        "-10.4",
        "58",
        "-10",
        "57.8",
        picture.toString(),
        gp.toString());
    check(TilePictures.open(gp), "EPSG:4326");
    Path other = folder.resolve("utm.gpkg");
    run(
        "gdal_translate",
        "-q",
        "-of",
        "GPKG",
        "-a_srs",
        "EPSG:32629",
        "-a_ullr",
        "420000",
        "6430000",
        "440000",
        "6410000",
        picture.toString(),
        other.toString());
    assertThatThrownBy(() -> TilePictures.open(other))
        .isInstanceOf(FileProblem.class)
        .satisfies(English.says("EPSG:32629"));
  }

  private static void check(TilePictures t, String system) throws Exception {
    TilePictures.Grid g = t.grid();
    assertThat(g.system()).isEqualTo(system);
    assertThat(g.extent()[0]).isBetween(-10.5, -9.9);
    assertThat(g.extent()[3]).isBetween(57.7, 58.5);
    int level = g.perPixel().length - 1;
    double x = system.equals("EPSG:4326") ? -10.2 : -1140000;
    double y = system.equals("EPSG:4326") ? 57.9 : 7980000;
    int column = (int) ((x - g.west()) / g.perPixel()[level] / g.width());
    int row = (int) ((g.north() - y) / g.perPixel()[level] / g.height());
    assertThat(t.tile(level, column, row)).as("the tile in the middle").isPresent();
  }

  @Test
  void wrongMetadataIsToldAndTheTilesBelieved() throws Exception {
    Path file =
        written(Map.of("name", "Base", "minzoom", "0", "maxzoom", "twenty", "bounds", "nowhere"));
    TilePictures t = TilePictures.open(file);
    assertThat(English.of(t.notes()))
        .hasSize(2)
        .allMatch(n -> n.contains("the tiles are believed"));
    assertThat(t.grid().least()).isEqualTo(9);
    change(file, "DROP TABLE metadata");
    assertThat(English.of(TilePictures.open(file).notes()))
        .singleElement()
        .satisfies(n -> assertThat(n).contains("says nothing about itself"));
  }

  @Test
  void whatIsNoBasemapIsRefusedInWords() throws Exception {
    Path file = written(Map.of());
    change(file, "UPDATE tiles SET tile_data = x'1f8b0800'");
    assertThatThrownBy(() -> TilePictures.open(file)).satisfies(English.says("no pictures"));
    change(file, "DELETE FROM tiles");
    assertThatThrownBy(() -> TilePictures.open(file)).satisfies(English.says("no tiles"));
    change(file, "DROP TABLE tiles");
    assertThatThrownBy(() -> TilePictures.open(file)).satisfies(English.says("no MBTiles file"));
    Path text = folder.resolve("a.txt");
    Files.writeString(text, "hello");
    assertThatThrownBy(() -> TilePictures.open(text)).satisfies(English.says("neither"));
  }

  /** Torn databases are refused in words, or give pictures. */
  @Test
  void tornFilesNeverBreak() throws Exception {
    byte[] good = Files.readAllBytes(written(Map.of("name", "Base")));
    Random r = new Random(6);
    Path torn = folder.resolve("torn.mbtiles");
    for (int i = 0; i < 150; i++) {
      byte[] b = good.clone();
      for (int k = 0; k < 60; k++) b[16 + r.nextInt(b.length - 16)] = (byte) r.nextInt();
      Files.write(torn, b);
      try {
        TilePictures.open(torn).tile(9, 241, 156);
      } catch (FileProblem e) {
        assertThat(English.of(e)).isNotBlank();
      }
    }
  }
}
