package org.whinridge.demo;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.prefill.LookUpValue;
import org.whinridge.core.value.Value;

/** The island's basemap and layers. Everything follows from {@link #SEED}. */
public final class Ostrey {
  /** The seed of everything. */
  public static final long SEED = 57910200L;

  private static final String[] BEATS = {
    "Wester Flats",
    "Fennick Level",
    "Ridge Foot",
    "Marrowby Level",
    "Sluice End",
    "Long Level",
    "Southlode",
    "Easter Bank"
  };
  private final Ground ground = new Ground(SEED);

  /**
   * The plain basemap: a FeatureCollection whose features say what they are (land, marsh, ridge,
   * drain, main drain, road, building, place).
   */
  public String basemap() {
    JsonArray fs = new JsonArray();
    shape(fs, "land", ground.land, "");
    shape(fs, "marsh", ground.marsh, "");
    for (int i = 0; i < ground.ridge.size(); i++) shape(fs, "ridge", ground.ridge.get(i), "");
    for (Geometry g : ground.sideDrains) shape(fs, "drain", g, "");
    shape(fs, "main drain", ground.mainDrain.intersection(ground.land), "Main Drain");
    for (Geometry g : ground.roads) shape(fs, "road", g, "");
    for (Ground.Hamlet h : ground.hamlets) {
      for (Polygon b : h.buildings()) shape(fs, "building", b, "");
      shape(fs, "place", GeometryJson.WGS84.createPoint(h.at()), h.name());
    }
    shape(fs, "place", GeometryJson.WGS84.createPoint(new Coordinate(2.6, 2.45)), "Whin Ridge");
    shape(fs, "place", GeometryJson.WGS84.createPoint(new Coordinate(-5.1, -2.0)), "The Saltings");
    return new JsonObject().add("type", "FeatureCollection").add("features", fs).toString();
  }

  private static void shape(JsonArray to, String what, Geometry km, String name) {
    if (km.isEmpty()) return;
    JsonObject p = new JsonObject().add("what", what);
    to.add(
        new JsonObject()
            .add("type", "Feature")
            .add("geometry", GeometryJson.write(Ground.degrees(km)))
            .add("properties", name.isEmpty() ? p : p.add("name", name)));
  }

  /** Control structures: points, scanned by tag. */
  public static Schema structuresSchema() {
    return new Schema(
        GeometryKind.POINT,
        List.of(
            new Field("tag", "Tag", FieldType.TEXT, 12, "", false, false, List.of(), false),
            Field.of("kind", "Kind", FieldType.CODE)
                .with(
                    List.of(
                        Code.of("outfall", "Outfall"),
                        Code.of("tide_flap", "Tide flap"),
                        Code.of("sluice", "Sluice"),
                        Code.of("penstock", "Penstock"),
                        Code.of("weir", "Weir"),
                        Code.of("pump", "Pump"))),
            Field.of("material", "Material", FieldType.TEXT),
            Field.of("width_mm", "Width", FieldType.WHOLE).in("mm"),
            Field.of("invert_level_m", "Invert level", FieldType.TEXT).in("m"),
            Field.of("bearing_deg", "Bearing", FieldType.WHOLE).in("°"),
            Field.of("installed", "Installed", FieldType.DATE),
            Field.of("owner", "Owner", FieldType.CODE)
                .with(
                    List.of(
                        Code.of("OLWB", "Level Water Board"),
                        Code.of("PAR", "Parish"),
                        Code.of("PRI", "Private"))),
            conditionField(),
            Field.of("silt_depth_mm", "Silt depth", FieldType.WHOLE).in("mm"),
            Field.of("last_inspected", "Last inspected", FieldType.DATE),
            Field.of("beat", "Beat", FieldType.TEXT),
            Field.of("cost_centre", "Cost centre", FieldType.TEXT).inOffice(),
            Field.of("notes", "Notes", FieldType.TEXT)),
        "tag",
        List.of("tag", "kind"));
  }

  /** Condition grades, 1 (very good) to 5 (very poor): common practice, no source. */
  static Field conditionField() {
    return Field.of("condition", "Condition", FieldType.WHOLE)
        .with(
            List.of(
                Code.of("1", "1 very good"),
                Code.of("2", "2 good"),
                Code.of("3", "3 fair"),
                Code.of("4", "4 poor"),
                Code.of("5", "5 very poor")));
  }

  /** 240 control structures along the drains, with the flaws that years of free typing leave. */
  public List<Feature> structures() {
    Random r = new Random(SEED + 1);
    List<Feature> out = new ArrayList<>();
    List<String> tags = new ArrayList<>();
    var beats = new org.whinridge.core.prefill.PlaceIndex(beats());
    for (int i = 0; i < 240; i++) {
      boolean main = i % 4 == 0;
      var drain =
          main ? ground.mainDrain : ground.sideDrains.get(r.nextInt(ground.sideDrains.size()));
      var line =
          new org.locationtech.jts.linearref.LengthIndexedLine(
              main ? drain.intersection(ground.land.buffer(-0.05)) : drain);
      double along = r.nextDouble() * line.getEndIndex();
      Coordinate at = line.extractPoint(along, (r.nextDouble() - 0.5) * 0.03);
      Coordinate next = line.extractPoint(along + 0.01);
      boolean seaward = main && at.x < -5.2;
      String kind =
          seaward
              ? (r.nextBoolean() ? "outfall" : "tide_flap")
              : new String[] {
                    "sluice", "weir", "penstock", "pump", "outfall", "tide_flap", "sluice", "weir"
                  }
                  [r.nextInt(8)];
      String tag = "OS-" + String.format(java.util.Locale.ROOT, "%04d", 1000 + i * 7);
      if (i == 77 || i == 131 || i == 203) tag = tags.get(i - 40); // three duplicate tags
      tags.add(tag);
      Map<String, Value> v = new LinkedHashMap<>();
      v.put("tag", Value.text(tag));
      v.put("kind", Value.text(kind));
      v.put("material", Value.text(material(r)));
      if (r.nextInt(10) > 0)
        v.put("width_mm", Value.of(new int[] {300, 450, 600, 750, 900, 1200, 1500}[r.nextInt(7)]));
      v.put(
          "invert_level_m",
          Value.text(String.format(java.util.Locale.ROOT, "%.2f", -0.8 + r.nextDouble() * 2.4)));
      v.put(
          "bearing_deg",
          Value.of(
              Math.round(Math.toDegrees(Math.atan2(next.x - at.x, next.y - at.y)) + 360) % 360));
      v.put(
          "installed",
          new Value.Day(
              java.time.LocalDate.of(1955 + r.nextInt(66), 1 + r.nextInt(12), 1 + r.nextInt(28))));
      v.put("owner", Value.text(r.nextInt(6) == 0 ? "PRI" : r.nextInt(7) == 0 ? "PAR" : "OLWB"));
      if (r.nextInt(12) > 0)
        v.put(
            "condition",
            Value.of(
                1
                    + Math.min(
                        4, (int) Math.floor(Math.abs(r.nextGaussian()) * 1.6 + r.nextDouble()))));
      if (r.nextInt(5) > 0) v.put("silt_depth_mm", Value.of(10 * r.nextInt(28)));
      v.put(
          "last_inspected",
          i == 58
              ? Value.text("2025-02-30")
              : new Value.Day(
                  java.time.LocalDate.of(2024, 3, 1)
                      .plusDays(r.nextInt(600)))); // one date that does not exist
      Geometry place = Ground.degrees(GeometryJson.WGS84.createPoint(at));
      if (i % 3 != 0
          && beats.containing(place.getCoordinate())
              instanceof org.whinridge.core.prefill.LookupResult.Found f)
        v.put("beat", LookUpValue.of("beat").from(f)); // a third never had one
      v.put("cost_centre", Value.text("CC-" + (100 + r.nextInt(8))));
      if (r.nextInt(9) == 0)
        v.put(
            "notes",
            Value.text(
                new String[] {
                      "park at the pump house",
                      "gate key with the warden",
                      "reeds, bring a hook",
                      "soft ground after rain"
                    }
                    [r.nextInt(4)]));
      v.values().removeIf(Value::isEmpty);
      out.add(feature(r, Optional.of(place), v));
    }
    return out;
  }

  private static String material(Random r) {
    int n = r.nextInt(40);
    if (n == 0) return "Brcik";
    if (n == 1) return "brick ";
    if (n == 2) return "brick";
    if (n == 3) return "concrete";
    if (n == 4) return "Conc.";
    if (n == 5) return "";
    return new String[] {"Brick", "Concrete", "Timber", "Steel", "Cast iron"}[r.nextInt(5)];
  }

  /** The beats' fields. */
  public static Schema beatsSchema() {
    return new Schema(
        GeometryKind.POLYGON,
        List.of(
            Field.of("beat", "Beat name", FieldType.TEXT),
            Field.of("warden", "Warden", FieldType.TEXT),
            Field.of("district", "District code", FieldType.TEXT)),
        "",
        List.of("beat"));
  }

  /** Eight beats that cover the island without gaps. */
  public List<Feature> beats() {
    Random r = new Random(SEED + 2);
    double[] x = {-9, -3.4, 0.1, 3.3, 9};
    List<Feature> out = new ArrayList<>();
    double[] bend = new double[5];
    for (int i = 1; i < 4; i++) bend[i] = (r.nextDouble() - 0.5) * 0.9;
    for (int row = 0; row < 2; row++)
      for (int c = 0; c < 4; c++) {
        Coordinate a = new Coordinate(x[c] + bend[c], -0.1 + bend[c] * 0.3);
        Coordinate b = new Coordinate(x[c + 1] + bend[c + 1], -0.1 + bend[c + 1] * 0.3);
        double far = row == 0 ? 7 : -7;
        Polygon cell =
            GeometryJson.WGS84.createPolygon(
                new Coordinate[] {
                  a, b, new Coordinate(x[c + 1], far), new Coordinate(x[c], far), a.copy()
                });
        Geometry g = Ground.degrees(cell.intersection(ground.land));
        Map<String, Value> v = new LinkedHashMap<>();
        v.put("beat", Value.text(BEATS[row * 4 + c]));
        v.put("warden", Value.text("Warden, beat " + (row * 4 + c + 1)));
        v.put("district", Value.text(row == 0 ? "N" + (c + 1) : "S" + (c + 1)));
        out.add(
            new Feature(
                new UUID(
                        r.nextLong() & ~0xF000L | 0x4000L, r.nextLong() >>> 2 | 0x8000000000000000L)
                    .toString(),
                Optional.of(g),
                v,
                1));
      }
    return out;
  }

  /** A feature with an id out of the random numbers, so that the same seed gives the same. */
  static Feature feature(Random r, Optional<Geometry> place, Map<String, Value> values) {
    UUID id = new UUID(r.nextLong() & ~0xF000L | 0x4000L, r.nextLong() >>> 2 | 0x8000000000000000L);
    return new Feature(id.toString(), place, values, 1);
  }

  /** Banks and drains: lines. */
  public static Schema linesSchema() {
    return OstreyLines.schema();
  }

  /** 85 banks and drains. */
  public List<Feature> lines() {
    return new OstreyLines(ground).lines();
  }

  /** Marker posts along the banks: points, for reference. */
  public static Schema postsSchema() {
    return OstreyLines.postsSchema();
  }

  /** 160 marker posts. */
  public List<Feature> posts() {
    return new OstreyLines(ground).posts();
  }

  /** Washlands: polygons. */
  public static Schema washlandsSchema() {
    return OstreyAreas.washlandsSchema();
  }

  /** 32 washlands. */
  public List<Feature> washlands() {
    return new OstreyAreas(ground).washlands();
  }

  /** Soil units: polygons, for reference. */
  public static Schema soilSchema() {
    return OstreyAreas.soilSchema();
  }

  /** About 300 soil units that cover the island. */
  public List<Feature> soils() {
    return new OstreyAreas(ground).soils();
  }

  /** A layer as a GeoJSON file, as somebody else would send it: properties only, no ids. */
  public static String file(Schema schema, List<Feature> features) {
    JsonArray fs = new JsonArray();
    for (Feature f : features)
      fs.add(
          new JsonObject()
              .add("type", "Feature")
              .add("geometry", GeometryJson.write(f.geometry().orElseThrow()))
              .add("properties", schema.writeValues(f.values())));
    return new JsonObject().add("type", "FeatureCollection").add("features", fs).toString();
  }
}
