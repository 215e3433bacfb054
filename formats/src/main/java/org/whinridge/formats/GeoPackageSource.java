package org.whinridge.formats;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteOpenMode;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.value.Value;
import org.whinridge.formats.crs.CoordinateSystems;

/**
 * A GeoPackage (OGC 12-128r18): its feature and attribute tables, opened for reading only. An
 * R-tree is not needed. Geometries are read by {@link GeoPackageBinary}.
 */
final class GeoPackageSource implements Source {
  private final String name;
  private final Path file;
  private final Map<SourceLayer, Table> tables = new LinkedHashMap<>();

  private record Table(String table, String geometry, List<String> columns, List<String> types) {}

  GeoPackageSource(String name, Path file) throws FileProblem {
    this.name = name;
    this.file = file;
    try (Connection db = open();
        Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery(
                "SELECT c.table_name, c.data_type, c.identifier, g.column_name, g.srs_id, g.z, g.m, s.organization, s.organization_coordsys_id, s.definition, s.srs_name"
                    + " FROM gpkg_contents c LEFT JOIN gpkg_geometry_columns g ON g.table_name = c.table_name LEFT JOIN gpkg_spatial_ref_sys s ON s.srs_id = g.srs_id"
                    + " WHERE c.data_type IN ('features', 'attributes') ORDER BY c.rowid")) {
      while (r.next()) layer(db, r);
    } catch (SQLException e) {
      throw unreadable(e);
    }
    if (tables.isEmpty())
      throw new FileProblem("This GeoPackage holds no table of features or attributes.");
  }

  private Connection open() throws SQLException {
    SQLiteConfig c = new SQLiteConfig();
    c.setOpenMode(SQLiteOpenMode.READONLY);
    c.setReadOnly(true);
    return c.createConnection("jdbc:sqlite:file:" + file.toAbsolutePath() + "?immutable=1");
  }

  private static FileProblem unreadable(SQLException e) {
    return new FileProblem(
        "This GeoPackage can't be read: " + Limits.cut(String.valueOf(e.getMessage()), 200) + ".",
        e);
  }

  private void layer(Connection db, ResultSet r) throws SQLException, FileProblem {
    String table = r.getString(1);
    String geometry = r.getString(4);
    boolean features = "features".equals(r.getString(2)) && geometry != null;
    if (!features && table.startsWith("layer_styles")) return;
    List<String> columns = new ArrayList<>();
    List<String> types = new ArrayList<>();
    String key = columns(db, table, geometry, columns, types);
    if (columns.isEmpty() && geometry == null) return;
    Limits.columns(columns.size(), "The table “" + table + "”");
    long n = count(db, table);
    List<String> notes = new ArrayList<>();
    if (features && (r.getInt(6) == 1 || r.getInt(7) == 1))
      notes.add("Heights or measures (Z, M) are left out; positions are read as x and y.");
    if (!key.isEmpty()) notes.add("The row number (" + key + ") is not a field; it is left out.");
    Optional<CoordinateSystem> system = Optional.empty();
    String said = "";
    if (features) {
      String organization = String.valueOf(r.getString(8));
      said = organization + ":" + r.getInt(9) + " " + r.getString(11);
      if (organization.equalsIgnoreCase("EPSG")) system = CoordinateSystems.epsg(r.getInt(9));
      if (system.isEmpty() && r.getString(10) != null)
        system = CoordinateSystems.wkt(r.getString(10));
    }
    String shown = r.getString(3) == null || r.getString(3).isBlank() ? table : r.getString(3);
    tables.put(
        new SourceLayer(shown, system, said, "UTF-8, as the format says", n, !features, notes),
        new Table(table, features ? geometry : "", columns, types));
  }

  /** Columns without the geometry and the integer key, whose name this gives. */
  private static String columns(
      Connection db, String table, String geometry, List<String> columns, List<String> types)
      throws SQLException {
    String key = "";
    try (Statement s = db.createStatement();
        ResultSet c = s.executeQuery("PRAGMA table_info(" + quoted(table) + ")")) {
      while (c.next()) {
        String column = c.getString("name");
        String type = String.valueOf(c.getString("type")).toUpperCase(Locale.ROOT);
        if (c.getInt("pk") > 0 && type.startsWith("INT")) key = column;
        else if (!column.equals(geometry)) {
          columns.add(column);
          types.add(type);
        }
      }
    }
    return key;
  }

  private static long count(Connection db, String table) throws SQLException, FileProblem {
    try (Statement s = db.createStatement();
        ResultSet c = s.executeQuery("SELECT count(*) FROM " + quoted(table))) {
      long n = c.getLong(1);
      Limits.features((int) Math.min(Integer.MAX_VALUE, n));
      return n;
    }
  }

  private static String quoted(String name) {
    return "\"" + name.replace("\"", "\"\"") + "\"";
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public String format() {
    return "GeoPackage";
  }

  @Override
  public List<SourceLayer> layers() {
    return List.copyOf(tables.keySet());
  }

  @Override
  public int each(SourceLayer layer, Sink sink) throws FileProblem {
    Table t = tables.get(layer);
    StringBuilder sql = new StringBuilder("SELECT ");
    sql.append(t.geometry.isEmpty() ? "NULL" : quoted(t.geometry));
    for (String c : t.columns) sql.append(", ").append(quoted(c));
    int n = 0;
    try (Connection db = open();
        Statement s = db.createStatement();
        ResultSet r = s.executeQuery(sql + " FROM " + quoted(t.table))) {
      ResultSetMetaData unused = r.getMetaData();
      int columns = unused.getColumnCount();
      while (r.next()) {
        Limits.features(++n);
        Map<String, Value> values = new LinkedHashMap<>();
        for (int i = 2; i <= columns; i++)
          values.put(t.columns.get(i - 2), value(r.getObject(i), t.types.get(i - 2)));
        Optional<Geometry> g = Optional.empty();
        String problem = "";
        Object blob = r.getObject(1);
        if (blob instanceof byte[] b)
          try {
            g = GeoPackageBinary.read(b);
          } catch (IllegalArgumentException e) {
            problem = "Row " + n + " of “" + t.table + "”: " + e.getMessage() + ".";
          }
        else if (blob != null)
          problem =
              "Row " + n + " of “" + t.table + "” has a geometry that is no GeoPackage geometry.";
        sink.take(new RawFeature(n, g, values, problem, List.of()));
      }
      return n;
    } catch (SQLException e) {
      throw new FileProblem(
          "The table “"
              + t.table
              + "” can't be read beyond row "
              + n
              + ": "
              + Limits.cut(String.valueOf(e.getMessage()), 160)
              + ".",
          e);
    }
  }

  private static Value value(Object o, String type) {
    if (o == null) return Value.EMPTY;
    if (o instanceof Number k) {
      if (type.startsWith("BOOL") && (k.longValue() == 0 || k.longValue() == 1))
        return Value.of(k.longValue() == 1);
      boolean exact = !(o instanceof Long) || Math.abs(k.longValue()) < 1L << 53;
      return exact ? Value.of(k.doubleValue()) : Value.text(o.toString());
    }
    if (o instanceof byte[] b) return Value.text("(" + b.length + " bytes)");
    Value text = Value.text(Limits.cut(o.toString(), Limits.TEXT));
    if (type.equals("DATE")) return Reading.PLAIN.read(text, FieldType.DATE);
    return type.startsWith("DATETIME") || type.startsWith("TIMESTAMP")
        ? Reading.PLAIN.read(text, FieldType.DATE_TIME)
        : text;
  }
}
