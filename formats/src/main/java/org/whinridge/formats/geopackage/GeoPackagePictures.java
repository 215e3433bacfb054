package org.whinridge.formats.geopackage;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.said.Said;
import org.whinridge.formats.file.Limits;
import org.whinridge.formats.photos.Pictures;

/**
 * Pictures that belong to the rows of a table: media of the Related Tables extension (OGC 18-000).
 *
 * @param base the table whose rows have them
 * @param baseKey its key column
 * @param media the table of the pictures
 * @param mediaKey its key column
 * @param mapping the table that says which belongs to which
 */
record GeoPackagePictures(
    String base, String baseKey, String media, String mediaKey, String mapping) {
  private static final int MOST_OF_ONE = 200;

  /** All relations of pictures in a file. */
  static List<GeoPackagePictures> all(Connection db) throws SQLException {
    List<GeoPackagePictures> out = new ArrayList<>();
    try (PreparedStatement p =
        db.prepareStatement("SELECT 1 FROM sqlite_master WHERE name = 'gpkgext_relations'")) {
      if (!p.executeQuery().next()) return out;
    }
    try (PreparedStatement p =
            db.prepareStatement(
                "SELECT base_table_name, base_primary_column, related_table_name, related_primary_column, mapping_table_name FROM gpkgext_relations WHERE relation_name = 'media'");
        ResultSet r = p.executeQuery()) {
      while (r.next())
        out.add(
            new GeoPackagePictures(
                r.getString(1), r.getString(2), r.getString(3), r.getString(4), r.getString(5)));
    }
    return out;
  }

  /** The question that reads the pictures of a row; told what kind each is. */
  PreparedStatement prepare(Connection db) throws SQLException {
    return db.prepareStatement(
        "SELECT m."
            + q(mediaKey)
            + ", m.data, m.content_type FROM "
            + q(mapping)
            + " x JOIN "
            + q(media)
            + " m ON m."
            + q(mediaKey)
            + " = x.related_id WHERE x.base_id = ? LIMIT "
            + MOST_OF_ONE);
  }

  private static String q(String name) {
    return GeoPackageSource.quoted(name);
  }

  /** The pictures of a row as files, and what is to be told of those that are none. */
  Optional<Said> of(PreparedStatement asked, long row, Path folder, List<Path> out)
      throws SQLException, IOException {
    Said told = null;
    asked.setLong(1, row);
    try (ResultSet r = asked.executeQuery()) {
      while (r.next()) {
        byte[] bytes = r.getBytes(2);
        String type = String.valueOf(r.getString(3));
        if (bytes == null || bytes.length == 0) continue;
        Path p = folder.resolve(Math.abs(media.hashCode()) + "-" + r.getLong(1) + ".jpg");
        if (!Files.exists(p)) Files.write(p, bytes);
        Optional<Path> photo = Pictures.photo(p);
        if (photo.isPresent()) out.add(photo.get());
        else told = Said.of("file.pictureKind", "kind", Limits.cut(type, 40));
      }
    }
    return Optional.ofNullable(told);
  }
}
