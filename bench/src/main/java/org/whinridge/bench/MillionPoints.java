package org.whinridge.bench;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import java.util.function.Consumer;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;

/** 1,000,000 points with eight fields, always the same. */
final class MillionPoints {
  static final int COUNT = 1_000_000;
  private static final String[] KINDS = {
    "outfall", "tide_flap", "sluice", "penstock", "weir", "pump"
  };
  static final Schema SCHEMA =
      new Schema(
          GeometryKind.POINT,
          List.of(
              Field.of("tag", "Tag", FieldType.TEXT),
              Field.of("kind", "Kind", FieldType.CODE).with(codes()),
              Field.of("material", "Material", FieldType.TEXT),
              Field.of("width_mm", "Width", FieldType.WHOLE),
              Field.of("level_m", "Level", FieldType.DECIMAL),
              Field.of("installed", "Installed", FieldType.DATE),
              Field.of("condition", "Condition", FieldType.WHOLE),
              Field.of("open", "Open", FieldType.YES_NO)),
          "tag",
          List.of("tag"));

  private MillionPoints() {}

  private static List<Code> codes() {
    List<Code> out = new ArrayList<>();
    for (String k : KINDS) out.add(Code.of(k, k));
    return out;
  }

  /** Gives the points one after the other. */
  static void each(Consumer<Feature> take) {
    Random r = new Random(7);
    String[] materials = {"Brick", "Concrete", "Timber", "Steel", "Cast iron"};
    for (int i = 0; i < COUNT; i++) {
      Map<String, Value> v = new LinkedHashMap<>();
      v.put("tag", Value.text("P-" + i));
      v.put("kind", Value.text(KINDS[r.nextInt(KINDS.length)]));
      v.put("material", Value.text(materials[r.nextInt(materials.length)]));
      v.put("width_mm", Value.of(300 + 50 * r.nextInt(30)));
      v.put("level_m", Value.of(Math.round(r.nextDouble() * 1000) / 100.0));
      v.put(
          "installed",
          new Value.Day(java.time.LocalDate.of(1960, 1, 1).plusDays(r.nextInt(22_000))));
      if (r.nextInt(10) > 0) v.put("condition", Value.of(1 + r.nextInt(5)));
      v.put("open", Value.of(r.nextBoolean()));
      Coordinate c = new Coordinate(-10.6 + r.nextDouble() * 0.8, 57.7 + r.nextDouble() * 0.4);
      take.accept(
          new Feature(
              new UUID(0x4000L | (long) i << 16, r.nextLong() >>> 2 | 0x8000000000000000L)
                  .toString(),
              Optional.of(GeometryJson.WGS84.createPoint(c)),
              v,
              1));
    }
  }

  /** What may fail while writing, within a taker. */
  interface Writing {
    void of(Feature f) throws IOException;
  }

  static Consumer<Feature> writing(Writing w) {
    return f -> {
      try {
        w.of(f);
      } catch (IOException e) {
        throw new java.io.UncheckedIOException(e);
      }
    };
  }
}
