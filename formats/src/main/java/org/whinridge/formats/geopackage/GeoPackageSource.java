package org.whinridge.formats.geopackage;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.value.Value;
import org.whinridge.formats.crs.CoordinateSystems;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.file.Limits;
import org.whinridge.formats.file.SqliteFile;
import org.whinridge.formats.source.Described;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Source;
import org.whinridge.formats.source.ZAndM;

/**
 * A GeoPackage (OGC 12-128r18): its feature and attribute tables, opened for reading only. An
 * R-tree is not needed. Geometries are read by {@link GeoPackageBinary}.
 */
public final class GeoPackageSource implements Source {
  private final String name;
  private final SqliteFile file;
  private final Path scratch;
  private final Map<SourceLayer, Table> tables = new LinkedHashMap<>();

  /** {@code key}: the integer primary key, which is a column like others here; "" for none. */
  private record Table(
      String table,
      String geometry,
      String key,
      List<String> columns,
      List<String> types,
      List<GeoPackagePictures> pictures) {}

  /** {@code scratch}: a folder for the pictures that belong to rows. */
  public GeoPackageSource(String name, Path file, Path scratch) throws FileProblem {
    this.name = name;
    this.file = new SqliteFile(file);
    this.scratch = scratch;
    try (SqliteFile.Watched w = this.file.open(() -> false)) {
      List<GeoPackagePictures> pictures = GeoPackagePictures.all(w.db);
      String text =
          hasColumn(w.db, "gpkg_spatial_ref_sys", "definition_12_063")
              ? "coalesce(nullif(nullif(s.definition, ''), 'undefined'), s.definition_12_063)"
              : "s.definition";
      try (Statement s = w.db.createStatement();
          ResultSet r =
              s.executeQuery(
                  "SELECT c.table_name, c.data_type, c.identifier, g.column_name, g.srs_id, g.z, g.m, s.organization, s.organization_coordsys_id, "
                      + text
                      + ", s.srs_name FROM gpkg_contents c LEFT JOIN gpkg_geometry_columns g ON g.table_name = c.table_name LEFT JOIN gpkg_spatial_ref_sys s ON s.srs_id = g.srs_id"
                      + " WHERE c.data_type IN ('features', 'attributes') ORDER BY c.rowid")) {
        while (r.next()) layer(w.db, r, pictures);
      }
    } catch (SQLException e) {
      throw SqliteFile.problem(Said.of("file.where.file"), e);
    }
    if (tables.isEmpty()) throw new FileProblem("file.noTableOfFeatures");
  }

  private static boolean hasColumn(Connection db, String table, String column) throws SQLException {
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("PRAGMA table_info(" + quoted(table) + ")")) {
      while (r.next()) if (r.getString("name").equals(column)) return true;
      return false;
    }
  }

  private void layer(Connection db, ResultSet r, List<GeoPackagePictures> pictures)
      throws SQLException, FileProblem {
    String table = r.getString(1);
    String geometry = r.getString(4);
    boolean features = "features".equals(r.getString(2)) && geometry != null;
    if (!features && table.startsWith("layer_styles")) return;
    // pictures come with the features they belong to
    if (pictures.stream().anyMatch(p -> p.media().equals(table))) return;
    List<String> columns = new ArrayList<>();
    List<String> types = new ArrayList<>();
    String key = columns(db, table, geometry, columns, types);
    if (columns.isEmpty() && geometry == null) return;
    Limits.columns(columns.size(), Said.of("file.where.table", "name", table));
    boolean view = isView(db, table);
    List<Said> notes = new ArrayList<>();
    if (view) notes.add(Said.of("file.viewRowsWorkedOut", "table", table));
    if (features && (r.getInt(6) == 1 || r.getInt(7) == 1)) notes.add(ZAndM.NOTE);
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
    Set<String> aside = new LinkedHashSet<>(ZAndM.COLUMNS);
    if (!key.isEmpty()) aside.add(key);
    Optional<Described> described = GeoPackageDescription.read(db, table);
    if (described.isPresent() && columns.contains("feature_id")) aside.add("feature_id");
    long n = view ? -1 : count(db, table);
    tables.put(
        new SourceLayer(
                shown, system, Said.text(said), Said.of("file.utf8ByFormat"), n, !features, notes)
            .withAside(aside)
            .as(described),
        new Table(
            table,
            features ? geometry : "",
            key,
            columns,
            types,
            pictures.stream().filter(p -> p.base().equals(table) && !key.isEmpty()).toList()));
  }

  private static boolean isView(Connection db, String table) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement("SELECT 1 FROM sqlite_master WHERE name = ? AND type = 'view'")) {
      p.setString(1, table);
      try (ResultSet r = p.executeQuery()) {
        return r.next();
      }
    }
  }

  /** Columns without the geometry, the integer key among them, whose name this gives. */
  private static String columns(
      Connection db, String table, String geometry, List<String> columns, List<String> types)
      throws SQLException {
    String key = "";
    try (Statement s = db.createStatement();
        ResultSet c = s.executeQuery("PRAGMA table_info(" + quoted(table) + ")")) {
      while (c.next()) {
        String column = c.getString("name");
        String type = String.valueOf(c.getString("type")).toUpperCase(Locale.ROOT);
        if (column.equals(geometry)) continue;
        if (c.getInt("pk") > 0 && type.startsWith("INT")) key = column;
        columns.add(column);
        types.add(type);
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

  static String quoted(String name) {
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
  public int each(SourceLayer layer, Sink sink) throws FileProblem, IOException {
    Table t = tables.get(layer);
    StringBuilder sql = new StringBuilder("SELECT ");
    sql.append(t.geometry.isEmpty() ? "NULL" : quoted(t.geometry));
    for (String c : t.columns) sql.append(", ").append(quoted(c));
    int[] n = {0};
    try (SqliteFile.Watched w = file.open(sink::isOver)) {
      List<PreparedStatement> asked = new ArrayList<>();
      for (GeoPackagePictures p : t.pictures) asked.add(p.prepare(w.db));
      try (Statement s = w.db.createStatement();
          ResultSet r = s.executeQuery(sql + " FROM " + quoted(t.table))) {
        while (r.next()) {
          w.row();
          Limits.features(++n[0]);
          sink.take(row(t, r, n[0], asked));
        }
        return n[0];
      } catch (SQLException e) {
        sink.over(); // it may have been stopped on purpose
        if (w.gaveUp())
          throw new FileProblem(
                  "file.tableStandsStill",
                  "table",
                  t.table,
                  "seconds",
                  SqliteFile.PATIENCE_S,
                  "n",
                  n[0])
              .because(e);
        throw e;
      } finally {
        for (PreparedStatement p : asked) p.close();
      }
    } catch (SQLException e) {
      throw SqliteFile.problem(Said.of("file.where.beyondRow", "table", t.table, "n", n[0]), e);
    }
  }

  private RawFeature row(Table t, ResultSet r, int n, List<PreparedStatement> asked)
      throws SQLException, IOException {
    Map<String, Value> values = new LinkedHashMap<>();
    for (int i = 0; i < t.columns.size(); i++)
      values.put(t.columns.get(i), value(r.getObject(i + 2), t.types.get(i)));
    Optional<Geometry> g = Optional.empty();
    Said problem = Said.NONE;
    Said where = Said.of("file.where.rowOfTable", "n", n, "table", t.table);
    Object blob = r.getObject(1);
    if (blob instanceof byte[] b)
      try {
        g = GeoPackageBinary.read(b);
        g.ifPresent(x -> ZAndM.put(x, values));
      } catch (IllegalArgumentException e) {
        problem = Said.of("file.atPlace", "where", where, "why", Unfit.said(e));
      }
    else if (blob != null) problem = Said.of("file.geometryNoGeopackageGeometry", "where", where);
    List<Path> pictures = new ArrayList<>();
    for (int i = 0; i < asked.size(); i++) {
      Optional<Said> told =
          t.pictures
              .get(i)
              .of(asked.get(i), r.getLong(2 + t.columns.indexOf(t.key)), scratch, pictures);
      if (told.isPresent()) problem = Said.of("file.thatPlace", "where", where, "told", told.get());
    }
    return new RawFeature(n, g, values, problem, pictures);
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
