package org.whinridge.formats.tiles;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Optional;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteOpenMode;
import org.whinridge.formats.file.FileProblem;

/** SQLite files with tiles, opened for reading only. */
final class SqliteTiles {
  private SqliteTiles() {}

  static Connection open(Path file) throws SQLException {
    SQLiteConfig c = new SQLiteConfig();
    c.setOpenMode(SQLiteOpenMode.READONLY);
    c.setReadOnly(true);
    return c.createConnection("jdbc:sqlite:file:" + file.toAbsolutePath() + "?immutable=1");
  }

  static FileProblem unreadable(SQLException e) {
    String why = String.valueOf(e.getMessage());
    return new FileProblem(
            "file.tilesUnreadable", "why", why.substring(0, Math.min(200, why.length())))
        .because(e);
  }

  /** Whether a file has a table or view of that name. */
  static boolean has(Path file, String table) throws FileProblem {
    try (Connection db = open(file);
        PreparedStatement s =
            db.prepareStatement(
                "SELECT 1 FROM sqlite_master WHERE type IN ('table', 'view') AND lower(name) = ?")) {
      s.setString(1, table);
      try (ResultSet r = s.executeQuery()) {
        return r.next();
      }
    } catch (SQLException e) {
      throw unreadable(e);
    }
  }

  /** Some tile, to see what kind of picture they are. */
  static byte[] any(Connection db, String table) throws SQLException, FileProblem {
    try (Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery(
                "SELECT tile_data FROM " + table + " WHERE length(tile_data) > 0 LIMIT 1")) {
      if (!r.next()) throw new FileProblem("file.noTiles");
      byte[] b = r.getBytes(1);
      if (TilePictures.kind(b).isEmpty()) throw new FileProblem("file.tilesNoPicturesPng");
      return b;
    }
  }

  static Optional<byte[]> tile(Path file, String table, int level, int column, long row)
      throws FileProblem {
    try (Connection db = open(file);
        PreparedStatement s =
            db.prepareStatement(
                "SELECT tile_data FROM "
                    + table
                    + " WHERE zoom_level = ? AND tile_column = ? AND tile_row = ? AND length(tile_data) <= "
                    + TilePictures.LARGEST)) {
      s.setInt(1, level);
      s.setInt(2, column);
      s.setLong(3, row);
      try (ResultSet r = s.executeQuery()) {
        return r.next()
            ? Optional.ofNullable(r.getBytes(1)).filter(b -> TilePictures.kind(b).isPresent())
            : Optional.empty();
      }
    } catch (SQLException e) {
      throw unreadable(e);
    }
  }

  /** The width and height of a picture, by the JDK's readers; 256 where they know none (WebP). */
  static int[] size(byte[] picture) {
    try (var in =
        javax.imageio.ImageIO.createImageInputStream(new java.io.ByteArrayInputStream(picture))) {
      var readers = javax.imageio.ImageIO.getImageReaders(in);
      if (!readers.hasNext()) return new int[] {256, 256};
      var reader = readers.next();
      reader.setInput(in);
      int[] size = {reader.getWidth(0), reader.getHeight(0)};
      reader.dispose();
      return size[0] > 0 && size[0] <= 4096 && size[1] > 0 && size[1] <= 4096
          ? size
          : new int[] {256, 256};
    } catch (java.io.IOException e) {
      return new int[] {256, 256}; // a tile that can't be drawn leaves its place empty
    }
  }
}
