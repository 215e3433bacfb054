package org.whinridge.formats.tiles;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.place.Mercator;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.formats.file.FileProblem;

/** A basemap of picture tiles in a file: MBTiles or the tiles of a GeoPackage. */
public interface TilePictures {
  /** The largest tile that is given out, in bytes. */
  int LARGEST = 4_000_000;

  /** The name that the file gives itself; "" for none. */
  String name();

  /** How the tiles lie. */
  Grid grid();

  /** What is not as it should be in the file and was put right; empty when all is well. */
  List<Said> notes();

  /**
   * The tile of a level, counted from the upper left corner; empty where there is none.
   *
   * @throws FileProblem when the file can't be read
   */
  Optional<byte[]> tile(int level, int column, int row) throws FileProblem;

  /**
   * How tiles lie: the upper left corner, and for each level the units of one pixel.
   *
   * @param system EPSG:3857 or EPSG:4326
   * @param west the corner's x, in the system's units
   * @param north the corner's y
   * @param perPixel units of a pixel at each level; NaN where there is no level
   * @param width pixels of a tile
   * @param height pixels of a tile
   * @param least the first level that has tiles
   * @param extent degrees west, south, east, north; where there are tiles
   */
  record Grid(
      String system,
      double west,
      double north,
      double[] perPixel,
      int width,
      int height,
      int least,
      double[] extent) {
    /** The column and row of a level's tile in which a position in degrees lies. */
    public int[] at(int level, double lon, double lat) {
      boolean degrees = system.equals("EPSG:4326");
      double x = degrees ? lon : (Mercator.x(lon) - 0.5) * Mercator.WORLD_M;
      double y = degrees ? lat : (0.5 - Mercator.y(lat)) * Mercator.WORLD_M;
      return new int[] {
        (int) Math.floor((x - west) / perPixel[level] / width),
        (int) Math.floor((north - y) / perPixel[level] / height)
      };
    }

    /** The same grid up to a level. */
    public Grid upTo(int level) {
      return new Grid(
          system, west, north, Arrays.copyOf(perPixel, level + 1), width, height, least, extent);
    }

    /** The JSON form. */
    public JsonObject json() {
      JsonArray levels = new JsonArray();
      for (double d : perPixel) levels.add(Double.isNaN(d) ? Json.NULL : Json.value(d));
      return new JsonObject()
          .add("system", system)
          .add("west", west)
          .add("north", north)
          .add("perPixel", levels)
          .add("width", width)
          .add("height", height)
          .add("least", least)
          .add("extent", Json.array(extent));
    }
  }

  /**
   * Opens a file by what is in it.
   *
   * @throws FileProblem when it is neither, or holds no tiles of pictures
   */
  static TilePictures open(Path file) throws FileProblem {
    byte[] head = new byte[100];
    try (var in = Files.newInputStream(file)) {
      int n = in.readNBytes(head, 0, head.length);
      head = Arrays.copyOf(head, n);
    } catch (IOException e) {
      throw new FileProblem("file.fileCantBeRead", "why", Unfit.said(e)).because(e);
    }
    byte[] sqlite = "SQLite format 3".getBytes(StandardCharsets.US_ASCII);
    if (head.length < 100 || !Arrays.equals(head, 0, sqlite.length, sqlite, 0, sqlite.length))
      throw new FileProblem("file.neitherMbtilesFileNor");
    return SqliteTiles.has(file, "gpkg_contents") ? new GeoPackageTiles(file) : new MbTiles(file);
  }

  /**
   * The kind of picture by its first bytes: image/png, image/jpeg or image/webp; empty for none.
   */
  static Optional<String> kind(byte[] b) {
    if (b.length > 8 && (b[0] & 0xff) == 0x89 && b[1] == 'P' && b[2] == 'N' && b[3] == 'G')
      return Optional.of("image/png");
    if (b.length > 3 && (b[0] & 0xff) == 0xff && (b[1] & 0xff) == 0xd8)
      return Optional.of("image/jpeg");
    if (b.length > 12 && b[0] == 'R' && b[1] == 'I' && b[8] == 'W' && b[9] == 'E')
      return Optional.of("image/webp");
    return Optional.empty();
  }
}
