package org.whinridge.formats.geopackage;

import java.io.IOException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Types;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;
import org.whinridge.formats.out.LayerWriter;
import org.whinridge.formats.out.OutColumns;
import org.whinridge.formats.out.OutLayer;

/** A layer that is being written into a GeoPackage. */
public final class GeoPackageLayer implements LayerWriter {
  private static final int BATCH = 1000;
  private static final DateTimeFormatter MOMENT =
      DateTimeFormatter.ofPattern("yyyy-MM-dd'T'HH:mm:ss.SSS'Z'", Locale.ROOT);
  private final Connection db;
  private final String table;
  private final OutLayer layer;
  private final List<OutColumns.Column> columns;
  private final boolean spatial;
  private final int srs;
  private final PreparedStatement rows;
  private final PackedRTree boxes = new PackedRTree();
  private long fid;
  private boolean photos;

  GeoPackageLayer(Connection db, String table, OutLayer layer) throws SQLException {
    this.db = db;
    this.table = table;
    this.layer = layer;
    this.columns = layer.columns();
    this.spatial = layer.schema().kind() != GeometryKind.TABLE;
    this.srs =
        layer.system().isWgs84()
            ? 4326
            : Integer.parseInt(layer.system().code().replaceAll("\\D", ""));
    try (Statement s = db.createStatement()) {
      if (srs != 4326) s.execute(GeoPackageTables.system(layer.system(), srs));
      s.execute(
          "CREATE TABLE "
              + q(table)
              + " (fid INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL"
              + (spatial ? ", geom " + geometryType() : "")
              + ", feature_id TEXT NOT NULL"
              + columns.stream()
                  .map(c -> ", " + q(name(c)) + " " + type(c))
                  .collect(Collectors.joining())
              + ")");
    }
    rows =
        db.prepareStatement(
            "INSERT INTO "
                + q(table)
                + " VALUES (?"
                + (spatial ? ",?" : "")
                + ",?"
                + ",?".repeat(columns.size())
                + ")");
  }

  private static String q(String name) {
    return "\"" + name.replace("\"", "\"\"") + "\"";
  }

  /** Column names that the table needs itself get an underscore behind them. */
  static String name(OutColumns.Column c) {
    return List.of("fid", "geom", "feature_id").contains(c.name().toLowerCase(Locale.ROOT))
        ? c.name() + "_"
        : c.name();
  }

  private String type(OutColumns.Column c) {
    if (layer.mixed().contains(c.field().name())) return "TEXT";
    switch (c.type()) {
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
        return !c.label() && c.field().length() > 0 ? "TEXT(" + c.field().length() + ")" : "TEXT";
    }
  }

  private String geometryType() {
    String single =
        layer.schema().kind() == GeometryKind.POINT
            ? "POINT"
            : layer.schema().kind() == GeometryKind.LINE ? "LINESTRING" : "POLYGON";
    return layer.multi() ? "MULTI" + single : single;
  }

  @Override
  public void add(Feature f) throws IOException {
    addRow(f);
  }

  /**
   * Adds one feature; gives its row id, for its photos. A value that the column's type can't hold
   * makes the whole column text, see {@link OutLayer#mixed}.
   */
  public long addRow(Feature f) throws IOException {
    try {
      int i = 1;
      rows.setLong(i++, ++fid);
      if (spatial) {
        Optional<Geometry> g = layer.geometry(f);
        if (g.isPresent()) {
          rows.setBytes(i++, GeoPackageBinary.write(parts(g.get()), srs));
          boxes.add(fid, g.get().getEnvelopeInternal());
        } else rows.setNull(i++, Types.BLOB);
      }
      rows.setString(i++, f.id());
      for (OutColumns.Column c : columns) put(i++, c.of(f), c);
      rows.addBatch();
      if (fid % BATCH == 0) rows.executeBatch();
      return fid;
    } catch (SQLException e) {
      throw new IOException(e);
    }
  }

  private Geometry parts(Geometry g) {
    if (!layer.multi() || g instanceof org.locationtech.jts.geom.GeometryCollection) return g;
    var f = g.getFactory();
    if (g instanceof org.locationtech.jts.geom.Point p)
      return f.createMultiPoint(new org.locationtech.jts.geom.Point[] {p});
    if (g instanceof org.locationtech.jts.geom.LineString l)
      return f.createMultiLineString(new org.locationtech.jts.geom.LineString[] {l});
    return g instanceof org.locationtech.jts.geom.Polygon p
        ? f.createMultiPolygon(new org.locationtech.jts.geom.Polygon[] {p})
        : g;
  }

  private void put(int i, Value v, OutColumns.Column c) throws SQLException {
    if (v.isEmpty()) rows.setNull(i, Types.NULL);
    else if (layer.mixed().contains(c.field().name())) rows.setString(i, v.plain());
    else if (v instanceof Value.Num n) {
      if (c.type() == FieldType.WHOLE && n.value() == Math.floor(n.value()))
        rows.setLong(i, (long) n.value());
      else if (c.type().valueType() == org.whinridge.core.value.ValueType.TEXT)
        rows.setString(i, v.plain());
      else rows.setDouble(i, n.value());
    } else if (v instanceof Value.Bool b) rows.setInt(i, b.value() ? 1 : 0);
    else if (v instanceof Value.Moment m)
      rows.setString(i, MOMENT.format(m.value().atOffset(ZoneOffset.UTC)));
    else rows.setString(i, v.plain());
  }

  /** Adds a photo of the feature with that row id. */
  public void addPhoto(long featureRow, byte[] jpeg, String title, String question)
      throws IOException {
    try {
      if (!photos) {
        photos = true;
        try (Statement s = db.createStatement()) {
          for (String ddl : GeoPackageTables.photos(table)) s.execute(ddl);
        }
      }
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

  @Override
  public void close() throws IOException {
    try {
      rows.executeBatch();
      rows.close();
      try (Statement s = db.createStatement()) {
        if (spatial) {
          String tree = "rtree_" + table + "_geom";
          s.execute("CREATE VIRTUAL TABLE " + q(tree) + " USING rtree(id,minx,maxx,miny,maxy)");
          boxes.write(db, tree);
        }
        List<String> end =
            new ArrayList<>(
                GeoPackageTables.contents(table, layer.name(), spatial, boxes.extent(), srs));
        if (spatial) end.addAll(GeoPackageTables.geometry(table, geometryType(), srs));
        end.addAll(GeoPackageDescription.write(table, layer, columns));
        for (String sql : end) s.execute(sql);
      }
    } catch (SQLException e) {
      throw new IOException(e);
    }
  }
}
