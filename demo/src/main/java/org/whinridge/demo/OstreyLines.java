package org.whinridge.demo;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.linearref.LengthIndexedLine;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;

/** Banks and drains, and the marker posts along the banks. */
final class OstreyLines {
  private final Ground ground;

  OstreyLines(Ground ground) {
    this.ground = ground;
  }

  static Schema schema() {
    return new Schema(
        GeometryKind.LINE,
        List.of(
            new Field("ref", "Reference", FieldType.TEXT, 10, "", false, true, List.of(), false),
            Field.of("kind", "Kind", FieldType.CODE)
                .with(
                    List.of(
                        Code.of("bank", "Bank"),
                        Code.of("main_drain", "Main drain"),
                        Code.of("side_drain", "Side drain"))),
            Field.of("crest_level_m", "Crest level", FieldType.DECIMAL).in("m"),
            Field.of("bed_width_m", "Bed width", FieldType.DECIMAL).in("m"),
            Field.of("lining", "Lining", FieldType.TEXT),
            Field.of("length_m", "Length", FieldType.DECIMAL).in("m"),
            Ostrey.conditionField(),
            Field.of("vermin", "Vermin damage", FieldType.YES_NO),
            Field.of("responsible", "Responsible party", FieldType.TEXT)),
        "ref",
        List.of("ref", "kind"));
  }

  static Schema postsSchema() {
    return new Schema(
        GeometryKind.POINT,
        List.of(
            Field.of("bank_ref", "Bank", FieldType.TEXT),
            Field.of("chainage_m", "Chainage", FieldType.WHOLE).in("m")),
        "",
        List.of("bank_ref", "chainage_m"));
  }

  /**
   * 85 lines: the sea bank in 30 lengths, the main drain in 13, the side drains and their heads.
   */
  List<Feature> lines() {
    Random r = new Random(Ostrey.SEED + 3);
    List<Feature> out = new ArrayList<>();
    LengthIndexedLine coast = new LengthIndexedLine(ground.land.buffer(-0.12).getBoundary());
    for (int i = 0; i < 30; i++) out.add(line(r, out.size(), "bank", part(coast, i, 30)));
    LengthIndexedLine main =
        new LengthIndexedLine(ground.mainDrain.intersection(ground.land.buffer(-0.05)));
    for (int i = 0; i < 13; i++) out.add(line(r, out.size(), "main_drain", part(main, i, 13)));
    int sides = ground.sideDrains.size();
    int pieces = (85 - out.size() + sides - 1) / sides;
    for (int k = 0; out.size() < 85; k++) {
      LengthIndexedLine side = new LengthIndexedLine(ground.sideDrains.get(k % sides));
      out.add(line(r, out.size(), "side_drain", part(side, k / sides, pieces)));
    }
    return out;
  }

  private static Geometry part(LengthIndexedLine l, int i, int of) {
    return l.extractLine(l.getEndIndex() * i / of, l.getEndIndex() * (i + 1) / of);
  }

  private static Feature line(Random r, int n, String kind, Geometry km) {
    Geometry g = Ground.degrees(km);
    boolean bank = kind.equals("bank");
    Map<String, Value> v = new LinkedHashMap<>();
    v.put("ref", Value.text((bank ? "B-" : "D-") + String.format(Locale.ROOT, "%03d", n + 1)));
    v.put("kind", Value.text(kind));
    if (bank)
      v.put("crest_level_m", Value.of(Math.round((3.2 + r.nextGaussian() * 0.35) * 100) / 100.0));
    else
      v.put(
          "bed_width_m",
          Value.of(
              Math.round(
                      (kind.equals("main_drain") ? 5.5 : 1.8) * (0.8 + r.nextDouble() * 0.5) * 10)
                  / 10.0));
    if (n == 47) v.put("bed_width_m", Value.of(180)); // metres typed as decimetres, long ago
    if (r.nextInt(9) > 0) v.put("lining", Value.text(lining(r, bank)));
    v.put("length_m", Value.of(Math.round(Geodesy.lengthM(g) * 10) / 10.0));
    if (r.nextInt(14) > 0)
      v.put("condition", Value.of(1 + Math.min(4, (int) Math.abs(r.nextGaussian() * 1.7 + 0.6))));
    if (bank && r.nextInt(3) == 0) v.put("vermin", Value.of(r.nextBoolean()));
    v.put(
        "responsible",
        Value.text(
            new String[] {
                  "Level Water Board",
                  "Level Water Board",
                  "Parish",
                  "Level water board",
                  "Riparian owner"
                }
                [r.nextInt(5)]));
    return Ostrey.feature(r, Optional.of(g), v);
  }

  private static String lining(Random r, boolean bank) {
    String[] banks = {"Turf", "turf", "Turf", "Stone pitching", "Stone piching", "Clay"};
    String[] drains = {
      "Earth", "Earth", "Timber revetment", "Timber revetement", "Concrete", "earth "
    };
    return bank ? banks[r.nextInt(banks.length)] : drains[r.nextInt(drains.length)];
  }

  /** 160 posts along the banks, numbered by chainage from each bank's start. */
  List<Feature> posts() {
    Random r = new Random(Ostrey.SEED + 4);
    List<Feature> out = new ArrayList<>();
    List<Feature> banks =
        lines().stream().filter(f -> f.value("kind").plain().equals("bank")).toList();
    for (int i = 0; i < 160; i++) {
      Feature bank = banks.get(i % banks.size());
      LineString l = (LineString) bank.geometry().orElseThrow();
      LengthIndexedLine along = new LengthIndexedLine(l);
      double share = (i / banks.size() + 0.5) / 6.0;
      Coordinate at = along.extractPoint(along.getEndIndex() * share);
      double length = ((Value.Num) bank.value("length_m")).value();
      Map<String, Value> v = new LinkedHashMap<>();
      v.put("bank_ref", bank.value("ref"));
      v.put("chainage_m", Value.of(Math.round(length * share)));
      out.add(Ostrey.feature(r, Optional.of(GeometryJson.WGS84.createPoint(at)), v));
    }
    return out;
  }
}
