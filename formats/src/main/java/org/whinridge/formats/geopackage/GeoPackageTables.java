package org.whinridge.formats.geopackage;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Envelope;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.formats.crs.CoordinateSystems;

/**
 * The statements that make a GeoPackage's own tables. Source: OGC 12-128r18, annex C (tables) and
 * F.3 (R-tree triggers); OGC 18-000.
 */
final class GeoPackageTables {
  private static final String WGS84 =
      "GEOGCS[\"WGS 84\",DATUM[\"WGS_1984\",SPHEROID[\"WGS 84\",6378137,298.257223563,AUTHORITY[\"EPSG\",\"7030\"]],AUTHORITY[\"EPSG\",\"6326\"]],PRIMEM[\"Greenwich\",0,AUTHORITY[\"EPSG\",\"8901\"]],UNIT[\"degree\",0.0174532925199433,AUTHORITY[\"EPSG\",\"9122\"]],AUTHORITY[\"EPSG\",\"4326\"]]";
  static final List<String> BASE =
      List.of(
          "CREATE TABLE gpkg_spatial_ref_sys (srs_name TEXT NOT NULL, srs_id INTEGER NOT NULL PRIMARY KEY, organization TEXT NOT NULL, organization_coordsys_id INTEGER NOT NULL, definition TEXT NOT NULL, description TEXT)",
          "INSERT INTO gpkg_spatial_ref_sys VALUES ('Undefined cartesian SRS',-1,'NONE',-1,'undefined','undefined cartesian coordinate reference system'),"
              + "('Undefined geographic SRS',0,'NONE',0,'undefined','undefined geographic coordinate reference system'),('WGS 84 geodetic',4326,'EPSG',4326,'"
              + WGS84
              + "','longitude/latitude in decimal degrees on the WGS 84 spheroid')",
          "CREATE TABLE gpkg_contents (table_name TEXT NOT NULL PRIMARY KEY, data_type TEXT NOT NULL, identifier TEXT UNIQUE, description TEXT DEFAULT '', last_change DATETIME NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ','now')),"
              + " min_x DOUBLE, min_y DOUBLE, max_x DOUBLE, max_y DOUBLE, srs_id INTEGER, CONSTRAINT fk_gc_r_srs_id FOREIGN KEY (srs_id) REFERENCES gpkg_spatial_ref_sys(srs_id))",
          "CREATE TABLE gpkg_geometry_columns (table_name TEXT NOT NULL, column_name TEXT NOT NULL, geometry_type_name TEXT NOT NULL, srs_id INTEGER NOT NULL, z TINYINT NOT NULL, m TINYINT NOT NULL,"
              + " CONSTRAINT pk_geom_cols PRIMARY KEY (table_name, column_name), CONSTRAINT uk_gc_table_name UNIQUE (table_name), CONSTRAINT fk_gc_tn FOREIGN KEY (table_name) REFERENCES gpkg_contents(table_name),"
              + " CONSTRAINT fk_gc_srs FOREIGN KEY (srs_id) REFERENCES gpkg_spatial_ref_sys (srs_id))",
          "CREATE TABLE gpkg_extensions (table_name TEXT, column_name TEXT, extension_name TEXT NOT NULL, definition TEXT NOT NULL, scope TEXT NOT NULL, CONSTRAINT ge_tce UNIQUE (table_name, column_name, extension_name))");

  private GeoPackageTables() {}

  /** The row of a coordinate system; its definition is "undefined" when there is no text of it. */
  static String system(CoordinateSystem s, int id) {
    String text = CoordinateSystems.text(s).orElse("undefined");
    return "INSERT OR IGNORE INTO gpkg_spatial_ref_sys VALUES ("
        + literal(s.name())
        + ","
        + id
        + ",'EPSG',"
        + id
        + ","
        + literal(text)
        + ",NULL)";
  }

  static String literal(String s) {
    return "'" + s.replace("'", "''") + "'";
  }

  static List<String> contents(
      String table, String identifier, boolean spatial, Envelope e, int srs) {
    String box =
        e.isNull()
            ? "NULL,NULL,NULL,NULL"
            : e.getMinX() + "," + e.getMinY() + "," + e.getMaxX() + "," + e.getMaxY();
    return List.of(
        "INSERT INTO gpkg_contents(table_name,data_type,identifier,min_x,min_y,max_x,max_y,srs_id) VALUES ('"
            + table
            + "','"
            + (spatial ? "features" : "attributes")
            + "',"
            + literal(identifier)
            + ","
            + box
            + ","
            + (spatial ? srs : "NULL")
            + ")");
  }

  static List<String> geometry(String table, String type, int srs) {
    List<String> out = new ArrayList<>();
    out.add(
        "INSERT INTO gpkg_geometry_columns VALUES ('"
            + table
            + "','geom','"
            + type
            + "',"
            + srs
            + ",0,0)");
    out.add(
        "INSERT INTO gpkg_extensions VALUES ('"
            + table
            + "','geom','gpkg_rtree_index','http://www.geopackage.org/spec120/#extension_rtree','write-only')");
    out.addAll(triggers(table));
    return out;
  }

  static List<String> photos(String table) {
    String media = table + "_photos";
    String map = table + "_has_photos";
    return List.of(
        "CREATE TABLE IF NOT EXISTS gpkgext_relations (id INTEGER PRIMARY KEY AUTOINCREMENT, base_table_name TEXT NOT NULL, base_primary_column TEXT NOT NULL DEFAULT 'id', related_table_name TEXT NOT NULL,"
            + " related_primary_column TEXT NOT NULL DEFAULT 'id', relation_name TEXT NOT NULL, mapping_table_name TEXT NOT NULL UNIQUE)",
        "CREATE TABLE \""
            + media
            + "\" (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, data BLOB NOT NULL, content_type TEXT NOT NULL, title TEXT, question TEXT)",
        "CREATE TABLE \"" + map + "\" (base_id INTEGER NOT NULL, related_id INTEGER NOT NULL)",
        "INSERT INTO gpkg_contents(table_name,data_type,identifier) VALUES ('"
            + media
            + "','attributes','"
            + media
            + "')",
        "INSERT INTO gpkgext_relations(base_table_name,base_primary_column,related_table_name,related_primary_column,relation_name,mapping_table_name) VALUES ('"
            + table
            + "','fid','"
            + media
            + "','id','media','"
            + map
            + "')",
        "INSERT INTO gpkg_extensions VALUES ('gpkgext_relations',NULL,'gpkg_related_tables','http://www.geopackage.org/18-000.html','read-write'),('"
            + map
            + "',NULL,'gpkg_related_tables','http://www.geopackage.org/18-000.html','read-write')");
  }

  private static List<String> triggers(String table) {
    String name = "rtree_" + table + "_geom";
    String t = "\"" + table + "\"";
    String r = "\"" + name + "\"";
    String box =
        "(NEW.fid, ST_MinX(NEW.geom), ST_MaxX(NEW.geom), ST_MinY(NEW.geom), ST_MaxY(NEW.geom))";
    String has = "(NEW.geom NOTNULL AND NOT ST_IsEmpty(NEW.geom))";
    String had = "(OLD.geom NOTNULL AND NOT ST_IsEmpty(OLD.geom))";
    String none = "(NEW.geom ISNULL OR ST_IsEmpty(NEW.geom))";
    return List.of(
        "CREATE TRIGGER \""
            + name
            + "_insert\" AFTER INSERT ON "
            + t
            + " WHEN "
            + has
            + " BEGIN INSERT OR REPLACE INTO "
            + r
            + " VALUES "
            + box
            + "; END",
        "CREATE TRIGGER \""
            + name
            + "_update6\" AFTER UPDATE OF geom ON "
            + t
            + " WHEN OLD.fid = NEW.fid AND "
            + has
            + " AND "
            + had
            + " BEGIN UPDATE "
            + r
            + " SET minx = ST_MinX(NEW.geom), maxx = ST_MaxX(NEW.geom), miny = ST_MinY(NEW.geom), maxy = ST_MaxY(NEW.geom) WHERE id = NEW.fid; END",
        "CREATE TRIGGER \""
            + name
            + "_update7\" AFTER UPDATE OF geom ON "
            + t
            + " WHEN OLD.fid = NEW.fid AND "
            + has
            + " AND NOT "
            + had
            + " BEGIN INSERT INTO "
            + r
            + " VALUES "
            + box
            + "; END",
        "CREATE TRIGGER \""
            + name
            + "_update2\" AFTER UPDATE OF geom ON "
            + t
            + " WHEN OLD.fid = NEW.fid AND "
            + none
            + " BEGIN DELETE FROM "
            + r
            + " WHERE id = OLD.fid; END",
        "CREATE TRIGGER \""
            + name
            + "_update5\" AFTER UPDATE ON "
            + t
            + " WHEN OLD.fid != NEW.fid AND "
            + has
            + " BEGIN DELETE FROM "
            + r
            + " WHERE id = OLD.fid; INSERT OR REPLACE INTO "
            + r
            + " VALUES "
            + box
            + "; END",
        "CREATE TRIGGER \""
            + name
            + "_update4\" AFTER UPDATE ON "
            + t
            + " WHEN OLD.fid != NEW.fid AND "
            + none
            + " BEGIN DELETE FROM "
            + r
            + " WHERE id IN (OLD.fid, NEW.fid); END",
        "CREATE TRIGGER \""
            + name
            + "_delete\" AFTER DELETE ON "
            + t
            + " WHEN OLD.geom NOT NULL BEGIN DELETE FROM "
            + r
            + " WHERE id = OLD.fid; END");
  }
}
