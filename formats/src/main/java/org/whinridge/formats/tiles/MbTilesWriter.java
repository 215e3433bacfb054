package org.whinridge.formats.tiles;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Map;

/** Writes an MBTiles file (MBTiles specification 1.3). */
public final class MbTilesWriter implements AutoCloseable {
  private final Connection db;
  private final PreparedStatement insert;

  /**
   * Begins a file, which must not be there yet.
   *
   * @param metadata name, format, minzoom, maxzoom, bounds and what else the file says of itself
   */
  public MbTilesWriter(Path file, Map<String, String> metadata) throws SQLException {
    db = DriverManager.getConnection("jdbc:sqlite:" + file.toAbsolutePath());
    db.setAutoCommit(false);
    try (Statement s = db.createStatement()) {
      s.execute("CREATE TABLE metadata (name text, value text)");
      s.execute(
          "CREATE TABLE tiles (zoom_level integer, tile_column integer, tile_row integer, tile_data blob)");
      s.execute("CREATE UNIQUE INDEX tile_index ON tiles (zoom_level, tile_column, tile_row)");
    }
    try (PreparedStatement s = db.prepareStatement("INSERT INTO metadata VALUES (?, ?)")) {
      for (Map.Entry<String, String> e : metadata.entrySet()) {
        s.setString(1, e.getKey());
        s.setString(2, e.getValue());
        s.executeUpdate();
      }
    }
    insert = db.prepareStatement("INSERT INTO tiles VALUES (?, ?, ?, ?)");
  }

  /** Adds a tile; {@code y} counts to the south. */
  public void add(int z, int x, int y, byte[] picture) throws SQLException {
    insert.setInt(1, z);
    insert.setInt(2, x);
    insert.setInt(3, (1 << z) - 1 - y);
    insert.setBytes(4, picture);
    insert.executeUpdate();
  }

  @Override
  public void close() throws SQLException {
    insert.close();
    db.commit();
    db.close();
  }
}
