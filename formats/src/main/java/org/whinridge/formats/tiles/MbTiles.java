package org.whinridge.formats.tiles;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.place.Mercator;
import org.whinridge.core.said.Said;
import org.whinridge.formats.file.FileProblem;

/**
 * An MBTiles file (MBTiles specification 1.3, an open specification): tiles of Web Mercator, rows
 * counted from the south. The metadata is believed only where the tiles bear it out.
 */
final class MbTiles implements TilePictures {
  private static final int MOST_LEVEL = 22;
  private final Path file;
  private final String name;
  private final Grid grid;
  private final List<Said> notes = new ArrayList<>();

  MbTiles(Path file) throws FileProblem {
    this.file = file;
    if (!SqliteTiles.has(file, "tiles")) throw new FileProblem("file.sqliteFileNoTable");
    try (Connection db = SqliteTiles.open(file)) {
      Map<String, String> said = SqliteTiles.has(file, "metadata") ? metadata(db) : Map.of();
      if (said.isEmpty()) notes.add(Said.of("file.fileSaysNothingAbout"));
      name = said.getOrDefault("name", "");
      grid = grid(db, SqliteTiles.size(SqliteTiles.any(db, "tiles")), said);
    } catch (SQLException e) {
      throw SqliteTiles.unreadable(e);
    }
  }

  private static Map<String, String> metadata(Connection db) throws SQLException {
    Map<String, String> out = new LinkedHashMap<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("SELECT name, value FROM metadata LIMIT 200")) {
      while (r.next())
        if (r.getString(1) != null && r.getString(2) != null)
          out.put(
              r.getString(1), r.getString(2).substring(0, Math.min(200, r.getString(2).length())));
    }
    return out;
  }

  private Grid grid(Connection db, int[] size, Map<String, String> said)
      throws SQLException, FileProblem {
    int least = -1;
    int most = -1;
    double[] extent = {180, 90, -180, -90};
    try (Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery(
                "SELECT zoom_level, min(tile_column), max(tile_column), min(tile_row), max(tile_row) FROM tiles WHERE zoom_level BETWEEN 0 AND "
                    + MOST_LEVEL
                    + " GROUP BY zoom_level ORDER BY zoom_level")) {
      while (r.next()) {
        int z = r.getInt(1);
        if (least < 0) least = z;
        most = z;
        double side = Math.scalb(1.0, z);
        extent[0] = Mercator.lon(Math.max(0, r.getInt(2) / side));
        extent[2] = Mercator.lon(Math.min(1, (r.getInt(3) + 1) / side));
        extent[1] = Mercator.lat(Math.min(1, 1 - r.getInt(4) / side));
        extent[3] = Mercator.lat(Math.max(0, 1 - (r.getInt(5) + 1) / side));
      }
    }
    if (least < 0) throw new FileProblem("file.noTilesOfLevels", "most", MOST_LEVEL);
    compare(said, "minzoom", least);
    compare(said, "maxzoom", most);
    double[] perPixel = new double[most + 1];
    for (int z = 0; z <= most; z++) perPixel[z] = Mercator.WORLD_M / size[0] / Math.scalb(1.0, z);
    return new Grid(
        "EPSG:3857",
        -Mercator.WORLD_M / 2,
        Mercator.WORLD_M / 2,
        perPixel,
        size[0],
        size[1],
        least,
        extent);
  }

  private void compare(Map<String, String> said, String what, int is) {
    String s = said.get(what);
    if (s != null && !s.strip().equals(Integer.toString(is)))
      notes.add(Said.of("file.tilesSayOther", "what", what, "said", s, "is", is));
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public Grid grid() {
    return grid;
  }

  @Override
  public List<Said> notes() {
    return List.copyOf(notes);
  }

  @Override
  public Optional<byte[]> tile(int level, int column, int row) throws FileProblem {
    if (level < 0 || level > MOST_LEVEL) return Optional.empty();
    return SqliteTiles.tile(file, "tiles", level, column, (1L << level) - 1 - row);
  }
}
