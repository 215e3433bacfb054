package org.whinridge.formats.tiles;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.place.Mercator;
import org.whinridge.core.said.Said;
import org.whinridge.formats.file.FileProblem;

/**
 * The first table of tiles in a GeoPackage (OGC 12-128r18, clause 2.2), in Web Mercator or in
 * degrees of WGS 84; rows are counted from the north there.
 */
final class GeoPackageTiles implements TilePictures {
  private static final int MOST_LEVEL = 30;
  private final Path file;
  private final String table;
  private final String name;
  private final Grid grid;
  private List<Said> notes = List.of();

  GeoPackageTiles(Path file) throws FileProblem {
    this.file = file;
    try (Connection db = SqliteTiles.open(file);
        Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery(
                "SELECT c.table_name, c.identifier, m.min_x, m.max_y, r.organization_coordsys_id, r.organization, c.min_x, c.min_y, c.max_x, c.max_y, m.max_x, m.min_y"
                    + " FROM gpkg_contents c JOIN gpkg_tile_matrix_set m ON m.table_name = c.table_name JOIN gpkg_spatial_ref_sys r ON r.srs_id = m.srs_id"
                    + " WHERE c.data_type = 'tiles' ORDER BY c.rowid")) {
      if (!r.next()) throw new FileProblem("file.noTableOfTiles");
      String of = r.getString(1);
      table = "\"" + of.replace("\"", "\"\"") + "\"";
      name = r.getString(2) == null ? of : r.getString(2);
      String system = r.getString(6) + ":" + r.getInt(5);
      if (!system.equalsIgnoreCase("EPSG:3857") && !system.equalsIgnoreCase("EPSG:4326"))
        throw new FileProblem("file.tilesBasemapsTilesMust", "name", name, "system", system);
      double[] box =
          box(r, 7)
              ? new double[] {r.getDouble(7), r.getDouble(8), r.getDouble(9), r.getDouble(10)}
              : new double[] {r.getDouble(3), r.getDouble(12), r.getDouble(11), r.getDouble(4)};
      SqliteTiles.any(db, table);
      grid =
          grid(
              db,
              of,
              system.toUpperCase(java.util.Locale.ROOT),
              r.getDouble(3),
              r.getDouble(4),
              box);
      if (r.next()) notes = List.of(Said.of("file.severalTiles", "name", name));
    } catch (SQLException e) {
      throw SqliteTiles.unreadable(e);
    }
  }

  private static boolean box(ResultSet r, int from) throws SQLException {
    for (int i = 0; i < 4; i++) if (r.getObject(from + i) == null) return false;
    return true;
  }

  private static Grid grid(
      Connection db, String of, String system, double west, double north, double[] box)
      throws SQLException, FileProblem {
    double[] perPixel = new double[MOST_LEVEL + 1];
    Arrays.fill(perPixel, Double.NaN);
    int least = -1;
    int most = -1;
    int width = 256;
    int height = 256;
    try (PreparedStatement s =
        db.prepareStatement(
            "SELECT zoom_level, tile_width, tile_height, pixel_x_size FROM gpkg_tile_matrix WHERE table_name = ? AND zoom_level BETWEEN 0 AND "
                + MOST_LEVEL
                + " ORDER BY zoom_level")) {
      s.setString(1, of);
      try (ResultSet r = s.executeQuery()) {
        while (r.next()) {
          if (!(r.getDouble(4) > 0) || r.getInt(2) <= 0 || r.getInt(3) <= 0) continue;
          if (least < 0) least = r.getInt(1);
          most = r.getInt(1);
          width = r.getInt(2);
          height = r.getInt(3);
          perPixel[most] = r.getDouble(4);
        }
      }
    }
    if (least < 0) throw new FileProblem("file.geopackageDoesNotSay");
    // levels that are missing take their place, so that the count stays the file's own
    for (int z = most - 1; z >= 0; z--)
      if (!(perPixel[z] > perPixel[z + 1])) perPixel[z] = 2 * perPixel[z + 1];
    double[] extent =
        system.equals("EPSG:4326")
            ? box
            : new double[] {
              Mercator.lon(box[0] / Mercator.WORLD_M + 0.5),
              Mercator.lat(0.5 - box[1] / Mercator.WORLD_M),
              Mercator.lon(box[2] / Mercator.WORLD_M + 0.5),
              Mercator.lat(0.5 - box[3] / Mercator.WORLD_M)
            };
    return new Grid(
        system, west, north, Arrays.copyOf(perPixel, most + 1), width, height, least, extent);
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
    return notes;
  }

  @Override
  public Optional<byte[]> tile(int level, int column, int row) throws FileProblem {
    return SqliteTiles.tile(file, table, level, column, row);
  }
}
