package org.whinridge.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.whinridge.core.look.Colour;
import org.whinridge.core.place.Mercator;
import org.whinridge.formats.tiles.TilePictures;

class ReliefTest {
  @TempDir Path tmp;

  private static int column(double lon, int z) {
    return (int) (Mercator.x(lon) * (1 << z));
  }

  private static int row(double lat, int z) {
    return (int) (Mercator.y(lat) * (1 << z));
  }

  /**
   * The same island each time, pale enough for features to stand out, and slopes that can be seen.
   */
  @Test
  void theReliefIsTheSameEachTimeAndPale() throws Exception {
    Relief.write(tmp.resolve("a.mbtiles"));
    Relief.write(tmp.resolve("b.mbtiles"));
    TilePictures a = TilePictures.open(tmp.resolve("a.mbtiles"));
    TilePictures b = TilePictures.open(tmp.resolve("b.mbtiles"));
    assertThat(a.notes()).isEmpty();
    assertThat(a.grid().extent()[0]).isLessThan(-10.33);
    assertThat(a.grid().extent()[2]).isGreaterThan(-10.07);
    Colour ink = Colour.read("#1f2a30").orElseThrow();
    int slopes = 0;
    for (int z = 9; z <= 14; z++) {
      byte[] tile = a.tile(z, column(-10.165, z), row(57.921, z)).orElseThrow();
      assertThat(tile)
          .as("zoom %d", z)
          .isEqualTo(b.tile(z, column(-10.165, z), row(57.921, z)).orElseThrow());
      BufferedImage i = ImageIO.read(new ByteArrayInputStream(tile));
      assertThat(i.getWidth()).isEqualTo(256);
      long contrast = 0;
      java.util.Set<Integer> shades = new java.util.TreeSet<>();
      for (int y = 0; y < 256; y += 8)
        for (int x = 0; x < 256; x += 8) {
          int rgb = i.getRGB(x, y);
          shades.add(rgb);
          if (Colour.contrast(ink, new Colour(rgb >> 16 & 255, rgb >> 8 & 255, rgb & 255)) > 4.5)
            contrast++;
        }
      assertThat(contrast).as("ink is read on it, zoom %d", z).isGreaterThan(1024 * 9 / 10);
      slopes = Math.max(slopes, shades.size());
    }
    assertThat(slopes).as("shades on the ridge").isGreaterThan(200);
  }
}
