package org.whinridge.core.read;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.GeometryKind;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.value.Value;

class LayerColumnsTest {
  private static final Schema SCHEMA =
      new Schema(
          GeometryKind.POINT,
          List.of(
              Field.of("kind", "Kind", FieldType.TEXT),
              Field.of("w", "W", FieldType.WHOLE),
              Field.of("d", "D", FieldType.DATE),
              Field.of("at", "At", FieldType.DATE_TIME),
              Field.of("ok", "Ok", FieldType.YES_NO),
              Field.of("many", "Many", FieldType.CODES)),
          "kind",
          List.of("kind"));
  private static final Clock CLOCK =
      new Clock(LocalDate.of(2026, 5, 4), Instant.parse("2026-05-04T09:30:00Z"));

  private static Feature random(Random r, int i) {
    Map<String, Value> v = new LinkedHashMap<>();
    if (r.nextInt(4) > 0)
      v.put("kind", Value.text(List.of("weir", "sluice", "pump", "it's").get(r.nextInt(4))));
    if (r.nextInt(4) > 0)
      v.put("w", r.nextInt(9) == 0 ? Value.text("wide") : Value.of(r.nextInt(8) - 3));
    if (r.nextInt(4) > 0)
      v.put(
          "d",
          r.nextInt(9) == 0
              ? Value.text("2025-02-30")
              : new Value.Day(LocalDate.of(2026, 5, 1 + r.nextInt(8))));
    if (r.nextInt(4) > 0)
      v.put(
          "at",
          new Value.Moment(
              Instant.parse("2026-05-04T09:30:00Z").plusNanos(r.nextInt(3) * 500_000L)));
    if (r.nextInt(4) > 0) v.put("ok", Value.of(r.nextBoolean()));
    if (r.nextInt(4) > 0)
      v.put("many", Value.many(List.of(Value.text("a"), Value.text(r.nextBoolean() ? "b" : "c"))));
    Optional<Geometry> g =
        r.nextInt(9) == 0
            ? Optional.empty()
            : Optional.of(
                r.nextInt(9) == 0
                    ? GeometryJson.WGS84.createMultiPointFromCoords(
                        new Coordinate[] {new Coordinate(r.nextInt(10), 50), new Coordinate(3, 51)})
                    : GeometryJson.WGS84.createPoint(
                        new Coordinate(r.nextInt(10), 50 + r.nextInt(3))));
    return new Feature(new java.util.UUID(r.nextLong(), i).toString(), g, v, 1 + r.nextInt(3));
  }

  private static List<Feature> features(long seed, int n) {
    Random r = new Random(seed);
    List<Feature> out = new ArrayList<>();
    for (int i = 0; i < n; i++) out.add(random(r, i));
    return out;
  }

  private static LayerColumns columns(List<Feature> features) {
    LayerColumns c = new LayerColumns(SCHEMA);
    features.forEach(c::add);
    c.trim();
    return c;
  }

  @Test
  void featuresComeOutAsTheyWentIn() {
    List<Feature> all = features(1, 3_000);
    LayerColumns c = columns(all);
    for (int i = 0; i < all.size(); i++) {
      assertThat(c.feature(i)).isEqualTo(all.get(i));
      assertThat(c.row(all.get(i).id())).isEqualTo(i);
    }
    assertThat(c.bytes()).isBetween(50_000L, 3_000_000L);
  }

  private static Rule rule(String text) {
    Rules.Outcome o = Rules.condition(text, new LayerScope(SCHEMA));
    assertThat(o.problems()).as(text).isEmpty();
    return o.rule().orElseThrow();
  }

  /**
   * Columns, distinct values and rows one by one must give what the evaluator gives for each
   * feature.
   */
  @Test
  void everyFilterAgreesWithTheEvaluatorRowByRow() {
    LayerColumns c = columns(features(2, 2_500));
    List<String> atoms =
        List.of(
            "w > 2",
            "w >= 2",
            "2 > w",
            "w = 3",
            "w <> 3",
            "w BETWEEN -1 AND 2",
            "w NOT BETWEEN -1 AND 2",
            "w IS NULL",
            "w IS NOT NULL",
            "w IN (1, 2)",
            "kind = 'weir'",
            "kind <> 'weir'",
            "kind LIKE '%u%'",
            "kind IN ('pump', 'it''s')",
            "kind IS NULL",
            "kind < 'q'",
            "upper(kind) = 'PUMP'",
            "d > DATE('2026-05-03')",
            "d = today()",
            "d IS NULL",
            "at <= TIMESTAMP('2026-05-04T09:30:00Z')",
            "ok = TRUE",
            "ok = FALSE",
            "ok",
            "A_CONTAINS(many, ('b'))",
            "w + 1 > 2",
            "length(kind) = w",
            "w / 0 = 1",
            "S_INTERSECTS(place, POLYGON((0 49, 4 49, 4 52, 0 52, 0 49)))");
    long seed = 9;
    Random r = new Random(seed);
    for (int i = 0; i < 400; i++) {
      String text = i < atoms.size() ? atoms.get(i) : combined(r, atoms, 3);
      Rule rule = rule(text);
      RowSituation s = new RowSituation(c, CLOCK);
      var rows = Filter.rows(rule, c, CLOCK);
      for (int row = 0; row < c.rows(); row++)
        assertThat(rows.get(row))
            .as("seed %d: %s, row %d: %s", seed, text, row, c.feature(row))
            .isEqualTo(rule.holds(s.at(row)));
    }
  }

  private static String combined(Random r, List<String> atoms, int depth) {
    if (depth == 0 || r.nextInt(4) == 0) return atoms.get(r.nextInt(atoms.size()));
    String a = combined(r, atoms, depth - 1);
    return switch (r.nextInt(3)) {
      case 0 -> "NOT (" + a + ")";
      case 1 -> "(" + a + ") AND (" + combined(r, atoms, depth - 1) + ")";
      default -> "(" + a + ") OR (" + combined(r, atoms, depth - 1) + ")";
    };
  }

  @Test
  void editsAreSeenByFiltersAndByTheIndex() {
    List<Feature> all = features(3, 500);
    LayerColumns c = columns(all);
    Envelope far = new Envelope(99, 101, 0, 1);
    assertThat(c.near(far)).isEmpty();
    Feature moved =
        new Feature(
            all.get(7).id(),
            Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(100, 0.5))),
            Map.of("w", Value.of(77)),
            9);
    c.patch(moved);
    Feature added =
        new Feature(
            new java.util.UUID(1, 2).toString(),
            Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(100, 0.5))),
            Map.of("w", Value.of(78)),
            1);
    c.patch(added);
    assertThat(c.near(far)).containsExactly(7, 500);
    assertThat(Filter.rows(rule("w >= 77"), c, CLOCK).stream().toArray()).containsExactly(7, 500);
    assertThat(c.feature(7)).isEqualTo(moved);
    c.remove(moved.id());
    assertThat(c.count()).isEqualTo(500);
    assertThat(c.near(far)).containsExactly(500);
    assertThat(Filter.count(rule("w >= 77"), c, CLOCK)).isEqualTo(1);
    c.patch(moved);
    assertThat(Filter.count(rule("w >= 77"), c, CLOCK)).isEqualTo(2);
  }
}
