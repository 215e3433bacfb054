package org.whinridge.formats;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Types;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.ByteOrderValues;
import org.locationtech.jts.io.WKBWriter;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.GeometryKind;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.value.Value;

/**
 * Writes one layer into a new GeoPackage (OGC 12-128, version 1.3), with an R-tree (its extension
 * gpkg_rtree_index) and photos as related media (OGC 18-000, Related Tables Extension). Close it to
 * end the file.
 */
public final class GeoPackageWriter implements AutoCloseable {
  private static final int BATCH = 1000;
  private final Connection db;
  private final String table;
  private final Schema schema;
  private final boolean spatial;
  private final PreparedStatement rows;
  private final PreparedStatement index;
  private final Envelope extent = new Envelope();
  private long fid;
  private boolean photos;

  /**
   * Begins a file.
   *
   * @param path where; must not exist
   * @param name the layer's name; letters, digits and underscores of it make the table's name
   */
  public GeoPackageWriter(Path path, String name, Schema schema) throws IOException {
    if (Files.exists(path))
      throw new IOException("the file is there already: " + path.getFileName());
    this.schema = schema;
    this.table = Field.nameFrom(name);
    this.spatial = schema.kind() != GeometryKind.TABLE;
    try {
      db = DriverManager.getConnection("jdbc:sqlite:" + path);
      try (Statement s = db.createStatement()) {
        for (String pragma :
            List.of(
                "application_id=1196444487",
                "user_version=10300",
                "journal_mode=OFF",
                "synchronous=OFF")) s.execute("PRAGMA " + pragma);
        db.setAutoCommit(false);
        for (String ddl : GeoPackageTables.BASE) s.execute(ddl);
        s.execute(
            "CREATE TABLE "
                + q(table)
                + " (fid INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL"
                + (spatial ? ", geom " + geometryType() : "")
                + ", feature_id TEXT NOT NULL"
                + columns()
                + ")");
        if (spatial)
          s.execute(
              "CREATE VIRTUAL TABLE "
                  + q("rtree_" + table + "_geom")
                  + " USING rtree(id,minx,maxx,miny,maxy)");
      }
      String marks = ",?".repeat(schema.fields().size());
      rows =
          db.prepareStatement(
              "INSERT INTO "
                  + q(table)
                  + " VALUES (?"
                  + (spatial ? ",?" : "")
                  + ",?"
                  + marks
                  + ")");
      index =
          spatial
              ? db.prepareStatement(
                  "INSERT INTO " + q("rtree_" + table + "_geom") + " VALUES (?,?,?,?,?)")
              : null;
    } catch (SQLException e) {
      throw new IOException(e);
    }
  }

  private static String q(String name) {
    return "\"" + name.replace("\"", "\"\"") + "\"";
  }

  /** Column names that the table needs itself get an underscore behind them. */
  private static String column(Field f) {
    return List.of("fid", "geom", "feature_id")
            .contains(f.name().toLowerCase(java.util.Locale.ROOT))
        ? f.name() + "_"
        : f.name();
  }

  private String columns() {
    return schema.fields().stream()
        .map(f -> ", " + q(column(f)) + " " + type(f))
        .collect(Collectors.joining());
  }

  private static String type(Field f) {
    switch (f.type()) {
      case WHOLE:
        return "INTEGER";
      case DECIMAL:
        return "DOUBLE";
      case YES_NO:
        return "BOOLEAN";
      case DATE:
        return "DATE";
      case DATE_TIME:
        return "DATETIME";
      default:
        return f.length() > 0 ? "TEXT(" + f.length() + ")" : "TEXT";
    }
  }

  private String geometryType() {
    return schema.kind() == GeometryKind.POINT
        ? "POINT"
        : schema.kind() == GeometryKind.LINE ? "LINESTRING" : "POLYGON";
  }

  /**
   * Adds one feature; gives its row id, for its photos. A value that the column's type can't hold
   * is written as text.
   */
  public long add(Feature f) throws IOException {
    try {
      int i = 1;
      rows.setLong(i++, ++fid);
      if (spatial) {
        if (f.geometry().isPresent()) {
          rows.setBytes(i++, blob(f.geometry().get()));
          index(f.geometry().get());
        } else rows.setNull(i++, Types.BLOB);
      }
      rows.setString(i++, f.id());
      for (Field field : schema.fields()) put(i++, f.value(field.name()), field);
      rows.addBatch();
      if (fid % BATCH == 0) flush();
      return fid;
    } catch (SQLException e) {
      throw new IOException(e);
    }
  }

  private void index(Geometry g) throws SQLException {
    if (g.isEmpty()) return;
    Envelope e = g.getEnvelopeInternal();
    extent.expandToInclude(e);
    index.setLong(1, fid);
    index.setDouble(2, e.getMinX());
    index.setDouble(3, e.getMaxX());
    index.setDouble(4, e.getMinY());
    index.setDouble(5, e.getMaxY());
    index.addBatch();
  }

  private void put(int i, Value v, Field field) throws SQLException {
    if (v.isEmpty()) rows.setNull(i, Types.NULL);
    else if (v instanceof Value.Num n) {
      if (field.type() == FieldType.WHOLE && n.value() == Math.floor(n.value()))
        rows.setLong(i, (long) n.value());
      else rows.setDouble(i, n.value());
    } else if (v instanceof Value.Bool b) rows.setInt(i, b.value() ? 1 : 0);
    else if (v instanceof Value.Moment m)
      rows.setString(
          i,
          java.time.format.DateTimeFormatter.ofPattern(
                  "yyyy-MM-dd'T'HH:mm:ss.SSS'Z'", java.util.Locale.ROOT)
              .format(m.value().atOffset(java.time.ZoneOffset.UTC)));
    else rows.setString(i, v.plain());
  }

  /**
   * The GeoPackage binary of a geometry: header "GP", version 0, little-endian, envelope for all
   * but points, SRS 4326.
   */
  static byte[] blob(Geometry g) {
    byte[] wkb = new WKBWriter(2, ByteOrderValues.LITTLE_ENDIAN, false).write(g);
    boolean envelope = !g.isEmpty() && g.getDimension() > 0;
    ByteBuffer b =
        ByteBuffer.allocate(8 + (envelope ? 32 : 0) + wkb.length).order(ByteOrder.LITTLE_ENDIAN);
    b.put((byte) 'G')
        .put((byte) 'P')
        .put((byte) 0)
        .put((byte) (1 | (envelope ? 2 : 0) | (g.isEmpty() ? 16 : 0)))
        .putInt(4326);
    Envelope e = g.getEnvelopeInternal();
    if (envelope)
      b.putDouble(e.getMinX()).putDouble(e.getMaxX()).putDouble(e.getMinY()).putDouble(e.getMaxY());
    return b.put(wkb).array();
  }

  /** Adds a photo of the feature with that row id. */
  public void addPhoto(long featureRow, byte[] jpeg, String title, String question)
      throws IOException {
    try {
      if (!photos) photoTables();
      try (PreparedStatement media =
              db.prepareStatement(
                  "INSERT INTO "
                      + q(table + "_photos")
                      + "(data,content_type,title,question) VALUES (?,'image/jpeg',?,?)");
          PreparedStatement map =
              db.prepareStatement(
                  "INSERT INTO " + q(table + "_has_photos") + " VALUES (?,last_insert_rowid())")) {
        media.setBytes(1, jpeg);
        media.setString(2, title);
        media.setString(3, question);
        media.execute();
        map.setLong(1, featureRow);
        map.execute();
      }
    } catch (SQLException e) {
      throw new IOException(e);
    }
  }

  private void photoTables() throws SQLException {
    photos = true;
    try (Statement s = db.createStatement()) {
      for (String ddl : GeoPackageTables.photos(table)) s.execute(ddl);
    }
  }

  private void flush() throws SQLException {
    rows.executeBatch();
    if (index != null) index.executeBatch();
  }

  @Override
  public void close() throws IOException {
    try (db) {
      flush();
      rows.close();
      if (index != null) index.close();
      try (Statement s = db.createStatement()) {
        List<String> end = new ArrayList<>(GeoPackageTables.contents(table, spatial, extent));
        if (spatial) end.addAll(GeoPackageTables.geometry(table, geometryType()));
        for (String sql : end) s.execute(sql);
      }
      db.commit();
    } catch (SQLException e) {
      throw new IOException(e);
    }
  }
}
