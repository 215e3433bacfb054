package org.whinridge.formats.geopackage;

import com.eclipsesource.json.Json;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.formats.file.Limits;
import org.whinridge.formats.out.OutColumns;
import org.whinridge.formats.out.OutLayer;
import org.whinridge.formats.source.Described;

/**
 * What a GeoPackage says of its columns: labels and code lists by the Schema extension (OGC
 * 12-128r18, annex F.9, gpkg_schema), and all of it, with the look, in the table whinridge_layers
 * of files that were taken out here (docs/formats.md).
 */
final class GeoPackageDescription {
  static final String OWN = "whinridge_layers";
  private static final int MOST_CODES = 2_000;

  private GeoPackageDescription() {}

  /** What stands in the file about a table's columns; empty when it says nothing. */
  static Optional<Described> read(Connection db, String table) throws SQLException {
    if (has(db, OWN)) {
      try (PreparedStatement p =
          db.prepareStatement("SELECT schema, look FROM " + OWN + " WHERE table_name = ?")) {
        p.setString(1, table);
        try (ResultSet r = p.executeQuery()) {
          if (r.next()) {
            Schema own = Schema.read(Json.parse(r.getString(1)).asObject());
            String look = r.getString(2) == null ? "" : r.getString(2);
            return Optional.of(
                new Described(own.fields(), look, own.tagField(), own.captionFields()));
          }
        }
      } catch (RuntimeException e) {
        return standard(db, table); // not what was written here: the standard's tables still say
      }
    }
    return standard(db, table);
  }

  private static Optional<Described> standard(Connection db, String table) throws SQLException {
    if (!has(db, "gpkg_data_columns")) return Optional.empty();
    Map<String, List<Code>> lists = has(db, "gpkg_data_column_constraints") ? lists(db) : Map.of();
    List<Field> fields = new ArrayList<>();
    try (PreparedStatement p =
        db.prepareStatement(
            "SELECT column_name, title, description, constraint_name FROM gpkg_data_columns WHERE table_name = ?")) {
      p.setString(1, table);
      try (ResultSet r = p.executeQuery()) {
        while (r.next()) {
          String name = r.getString(1);
          if (name == null || !Field.isName(Field.nameFrom(name))) continue;
          String title = r.getString(2) == null || r.getString(2).isBlank() ? "" : r.getString(2);
          List<Code> codes = lists.getOrDefault(String.valueOf(r.getString(4)), List.of());
          Field f =
              Field.of(
                  Field.nameFrom(name), title, codes.isEmpty() ? FieldType.TEXT : FieldType.CODE);
          if (r.getString(3) != null) f = f.hinted(Limits.cut(r.getString(3), 300));
          if (!codes.isEmpty() || !title.isEmpty()) fields.add(f.with(codes));
        }
      }
    }
    return fields.isEmpty()
        ? Optional.empty()
        : Optional.of(new Described(fields, "", "", List.of()));
  }

  private static Map<String, List<Code>> lists(Connection db) throws SQLException {
    Map<String, List<Code>> out = new LinkedHashMap<>();
    try (PreparedStatement p =
            db.prepareStatement(
                "SELECT constraint_name, value, description FROM gpkg_data_column_constraints WHERE constraint_type = 'enum' ORDER BY rowid");
        ResultSet r = p.executeQuery()) {
      while (r.next()) {
        List<Code> list = out.computeIfAbsent(r.getString(1), k -> new ArrayList<>());
        String code = r.getString(2);
        if (code == null || code.isBlank() || list.size() >= MOST_CODES) continue;
        String label = r.getString(3);
        list.add(Code.of(code, label == null || label.isBlank() ? code : label));
      }
    }
    return out;
  }

  private static boolean has(Connection db, String table) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement("SELECT 1 FROM sqlite_master WHERE name = ? AND type = 'table'")) {
      p.setString(1, table);
      try (ResultSet r = p.executeQuery()) {
        return r.next();
      }
    }
  }

  /** The statements that write it down for a layer. */
  static List<String> write(String table, OutLayer layer, List<OutColumns.Column> columns) {
    List<String> out = new ArrayList<>(TABLES);
    for (OutColumns.Column c : columns) {
      Field f = c.field();
      String list = table + "_" + f.name();
      boolean codes = !f.codes().isEmpty() && !c.label();
      out.add(
          "INSERT INTO gpkg_data_columns VALUES ("
              + GeoPackageTables.literal(table)
              + ","
              + GeoPackageTables.literal(GeoPackageLayer.name(c))
              + ","
              + GeoPackageTables.literal(GeoPackageLayer.name(c))
              + ","
              + GeoPackageTables.literal(f.label())
              + ","
              + GeoPackageTables.literal(f.hint())
              + ",NULL,"
              + (codes ? GeoPackageTables.literal(list) : "NULL")
              + ")");
      if (codes)
        for (Code code : f.codes())
          out.add(
              "INSERT OR IGNORE INTO gpkg_data_column_constraints VALUES ("
                  + GeoPackageTables.literal(list)
                  + ",'enum',"
                  + GeoPackageTables.literal(code.code())
                  + ",NULL,NULL,NULL,NULL,"
                  + GeoPackageTables.literal(code.label())
                  + ")");
    }
    if (layer.codes() == OutColumns.Codes.CODES)
      out.add(
          "INSERT INTO "
              + OWN
              + " VALUES ("
              + GeoPackageTables.literal(table)
              + ","
              + GeoPackageTables.literal(layer.schema().json().toString())
              + ","
              + GeoPackageTables.literal(layer.look())
              + ")");
    return out;
  }

  private static final List<String> TABLES =
      List.of(
          "CREATE TABLE IF NOT EXISTS gpkg_data_columns (table_name TEXT NOT NULL, column_name TEXT NOT NULL, name TEXT, title TEXT, description TEXT, mime_type TEXT, constraint_name TEXT,"
              + " CONSTRAINT pk_gdc PRIMARY KEY (table_name, column_name), CONSTRAINT gdc_tn UNIQUE (table_name, name))",
          "CREATE TABLE IF NOT EXISTS gpkg_data_column_constraints (constraint_name TEXT NOT NULL, constraint_type TEXT NOT NULL, value TEXT, min NUMERIC, min_is_inclusive BOOLEAN, max NUMERIC, max_is_inclusive BOOLEAN, description TEXT,"
              + " CONSTRAINT gdcc_ntv UNIQUE (constraint_name, constraint_type, value))",
          "CREATE TABLE IF NOT EXISTS "
              + OWN
              + " (table_name TEXT NOT NULL PRIMARY KEY, schema TEXT NOT NULL, look TEXT NOT NULL)",
          "INSERT OR IGNORE INTO gpkg_extensions VALUES ('gpkg_data_columns',NULL,'gpkg_schema','http://www.geopackage.org/spec121/#extension_schema','read-write'),"
              + "('gpkg_data_column_constraints',NULL,'gpkg_schema','http://www.geopackage.org/spec121/#extension_schema','read-write'),"
              + "('"
              + OWN
              + "',NULL,'whinridge_layers','docs/formats.md','read-write')");
}
