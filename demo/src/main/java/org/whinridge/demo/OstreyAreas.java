package org.whinridge.demo;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.Polygonal;
import org.locationtech.jts.triangulate.VoronoiDiagramBuilder;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;

/** Washlands, and the soil units under them. */
final class OstreyAreas {
  private static final String[] NAMES = {
    "Long", "Cow", "Far", "Marsh", "Hither", "Reed", "Saltern", "Goose", "Otter", "Teal", "Bent",
    "Curlew", "Osier", "Heron", "Lapwing", "Bittern"
  };
  private final Ground ground;

  OstreyAreas(Ground ground) {
    this.ground = ground;
  }

  static Schema washlandsSchema() {
    return new Schema(
        GeometryKind.POLYGON,
        List.of(
            Field.of("name", "Name", FieldType.TEXT),
            Field.of("habitat", "Habitat", FieldType.CODE)
                .with(
                    List.of(
                        Code.of("WG", "Wet grassland"),
                        Code.of("RB", "Reedbed"),
                        Code.of("SM", "Salt marsh"),
                        Code.of("OW", "Open water"),
                        Code.of("CF", "Carr and fen"))),
            Field.of("area_ha", "Area", FieldType.DECIMAL).in("ha"),
            Field.of("stock", "Stock", FieldType.CODES)
                .with(
                    List.of(
                        Code.of("cattle", "Cattle"),
                        Code.of("sheep", "Sheep"),
                        Code.of("ponies", "Ponies"),
                        new Code("none", "None", false, "", true))),
            Field.of("max_depth_m", "Greatest depth", FieldType.DECIMAL).in("m"),
            Ostrey.conditionField(),
            Field.of("agreement_end", "Agreement ends", FieldType.DATE)),
        "",
        List.of("name"));
  }

  static Schema soilSchema() {
    return new Schema(
        GeometryKind.POLYGON,
        List.of(
            Field.of("soil", "Soil", FieldType.CODE)
                .with(
                    List.of(
                        Code.of("PT", "Peat"),
                        Code.of("CL", "Marine clay"),
                        Code.of("SL", "Silt loam"),
                        Code.of("SD", "Blown sand"),
                        Code.of("TL", "Till"))),
            Field.of("peat_depth_m", "Peat depth", FieldType.DECIMAL).in("m"),
            Field.of("bearing_kpa", "Bearing strength", FieldType.WHOLE).in("kPa")),
        "",
        List.of("soil"));
  }

  /** 32 washlands along the drains; one of them crosses itself. */
  List<Feature> washlands() {
    Random r = new Random(Ostrey.SEED + 5);
    List<Feature> out = new ArrayList<>();
    for (int i = 0; i < 32; i++) {
      var drain = ground.sideDrains.get(i % ground.sideDrains.size());
      Coordinate c = drain.getCoordinateN(i / ground.sideDrains.size() % drain.getNumPoints());
      Geometry km =
          washland(
              r, c.x + (i % 2 == 0 ? 0.33 : -0.33), c.y + (r.nextDouble() - 0.5) * 0.5, i == 19);
      Map<String, Value> v = new LinkedHashMap<>();
      v.put("name", Value.text(NAMES[i % NAMES.length] + (i < NAMES.length ? " Wash" : " Level")));
      String habitat =
          c.x < -3.5
              ? (r.nextBoolean() ? "SM" : "RB")
              : new String[] {"WG", "WG", "WG", "RB", "CF", "OW"}[r.nextInt(6)];
      v.put("habitat", Value.text(habitat));
      Geometry g = i == 19 ? Ground.degrees(km) : Ground.degrees(km.intersection(ground.land));
      v.put("area_ha", Value.of(Math.round(Geodesy.areaM2(g) / 100) / 100.0));
      v.put("stock", Value.many(stock(r)));
      if (r.nextInt(6) > 0) v.put("max_depth_m", Value.of(Math.round(r.nextDouble() * 18) / 10.0));
      v.put("condition", Value.of(1 + r.nextInt(5)));
      v.put("agreement_end", new Value.Day(LocalDate.of(2027 + r.nextInt(8), 3, 31)));
      out.add(Ostrey.feature(r, Optional.of(g), v));
    }
    return out;
  }

  private static List<Value> stock(Random r) {
    return switch (r.nextInt(5)) {
      case 0 -> List.of(Value.text("none"));
      case 1 -> List.of(Value.text("cattle"), Value.text("sheep"));
      case 2 -> List.of(Value.text("sheep"));
      case 3 -> List.of(Value.text("ponies"), Value.text("cattle"));
      default -> List.of(Value.text("cattle"));
    };
  }

  private static Polygon washland(Random r, double x, double y, boolean crossing) {
    int n = 7 + r.nextInt(5);
    Coordinate[] c = new Coordinate[n + 1];
    for (int i = 0; i < n; i++) {
      double a = 2 * Math.PI * i / n;
      double d = 0.75 + r.nextDouble() * 0.5;
      c[i] = new Coordinate(x + 0.26 * d * Math.cos(a), y + 0.3 * d * Math.sin(a));
    }
    if (crossing) { // two corners digitised in the wrong order
      Coordinate k = c[2];
      c[2] = c[3];
      c[3] = k;
    }
    c[n] = c[0].copy();
    return GeometryJson.WGS84.createPolygon(c);
  }

  /** About 300 irregular units that cover the island. */
  List<Feature> soils() {
    Random r = new Random(Ostrey.SEED + 6);
    List<Coordinate> sites = new ArrayList<>();
    for (int i = 0; i < 492; i++)
      sites.add(new Coordinate(r.nextDouble() * 16 - 8, r.nextDouble() * 11 - 5.5));
    VoronoiDiagramBuilder b = new VoronoiDiagramBuilder();
    b.setSites(sites);
    b.setClipEnvelope(ground.land.getEnvelopeInternal());
    Geometry cells = b.getDiagram(GeometryJson.WGS84);
    List<Feature> out = new ArrayList<>();
    for (int i = 0; i < cells.getNumGeometries(); i++) {
      Geometry km = cells.getGeometryN(i).intersection(ground.land);
      if (km.isEmpty() || !(km instanceof Polygonal)) continue;
      Coordinate c = km.getInteriorPoint().getCoordinate();
      boolean ridge = c.y > 1.2 && Math.abs(c.x - 2.3) < 3;
      String soil =
          ridge
              ? "TL"
              : c.x < -4.5
                  ? (r.nextInt(4) == 0 ? "SD" : "CL")
                  : new String[] {"PT", "PT", "CL", "SL"}[r.nextInt(4)];
      Map<String, Value> v = new LinkedHashMap<>();
      v.put("soil", Value.text(soil));
      if (soil.equals("PT"))
        v.put("peat_depth_m", Value.of(Math.round((0.4 + r.nextDouble() * 3.2) * 10) / 10.0));
      v.put(
          "bearing_kpa",
          Value.of(
              soil.equals("PT")
                  ? 10 + r.nextInt(20)
                  : soil.equals("TL") ? 150 + r.nextInt(100) : 40 + r.nextInt(60)));
      out.add(Ostrey.feature(r, Optional.of(Ground.degrees(km)), v));
    }
    return out;
  }
}
