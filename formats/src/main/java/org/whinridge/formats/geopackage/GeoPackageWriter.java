package org.whinridge.formats.geopackage;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.whinridge.core.layer.Field;
import org.whinridge.formats.out.OutLayer;

/**
 * Writes a new GeoPackage (OGC 12-128, version 1.3) of one layer or several, each with an R-tree
 * (its extension gpkg_rtree_index) and photos as related media (OGC 18-000, Related Tables
 * Extension). Close it to end the file.
 */
public final class GeoPackageWriter implements AutoCloseable {
  private final Connection db;
  private final Set<String> tables = new LinkedHashSet<>();

  /**
   * Begins a file.
   *
   * @param path where; must not exist
   */
  public GeoPackageWriter(Path path) throws IOException {
    if (Files.exists(path))
      throw new IOException("the file is there already: " + path.getFileName());
    try {
      db = DriverManager.getConnection("jdbc:sqlite:" + path);
      try (Statement s = db.createStatement()) {
        for (String pragma :
            List.of(
                "application_id=1196444487",
                "user_version=10300",
                "journal_mode=OFF",
                "synchronous=OFF",
                "locking_mode=EXCLUSIVE",
                "cache_size=-64000")) s.execute("PRAGMA " + pragma);
        db.setAutoCommit(false);
        for (String ddl : GeoPackageTables.BASE) s.execute(ddl);
      }
    } catch (SQLException e) {
      throw new IOException(e);
    }
  }

  /**
   * Begins a layer; letters, digits and underscores of its name make the table's name. End it
   * before the next one.
   */
  public GeoPackageLayer layer(OutLayer layer) throws IOException {
    String base = Field.nameFrom(layer.name());
    String table = base;
    for (int i = 2; !tables.add(table); i++) table = base + "_" + i;
    try {
      return new GeoPackageLayer(db, table, layer);
    } catch (SQLException e) {
      throw new IOException(e);
    }
  }

  @Override
  public void close() throws IOException {
    try (db) {
      db.commit();
    } catch (SQLException e) {
      throw new IOException(e);
    }
  }
}
