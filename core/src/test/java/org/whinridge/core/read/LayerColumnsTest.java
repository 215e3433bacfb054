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
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
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
    return LayerColumns.of(SCHEMA, features);
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
  void editsMakeANewStateAndTheOldOneStays() {
    List<Feature> all = features(3, 5_000);
    LayerColumns before = columns(all);
    Envelope far = new Envelope(99, 101, 0, 1);
    assertThat(before.near(far)).isEmpty();
    Feature moved =
        new Feature(
            all.get(7).id(),
            Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(100, 0.5))),
            Map.of("w", Value.of(77), "kind", Value.text("never seen before")),
            9);
    Feature added =
        new Feature(
            new java.util.UUID(1, 2).toString(),
            Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(100, 0.5))),
            Map.of("w", Value.of(78)),
            1);
    LayerColumns after = before.with(List.of(moved, added), List.of());
    assertThat(after.near(far)).containsExactly(7, 5_000);
    assertThat(Filter.rows(rule("w >= 77"), after, CLOCK).stream().toArray())
        .containsExactly(7, 5_000);
    assertThat(after.feature(7)).isEqualTo(moved);
    LayerColumns without = after.with(List.of(), List.of(moved.id()));
    assertThat(without.count()).isEqualTo(5_000);
    assertThat(without.near(far)).containsExactly(5_000);
    assertThat(Filter.count(rule("w >= 77"), without, CLOCK)).isEqualTo(1);
    assertThat(Filter.count(rule("w >= 77"), without.with(List.of(moved), List.of()), CLOCK))
        .isEqualTo(2);
    for (int i = 0; i < all.size(); i++) assertThat(before.feature(i)).isEqualTo(all.get(i));
    assertThat(before.rows()).isEqualTo(5_000);
    assertThat(before.near(far)).isEmpty();
  }

  /** A layer that somebody has just made has no feature, then one, then two. */
  @Test
  void aModelGrowsFromNothing() {
    LayerColumns c = columns(List.of());
    List<Feature> all = features(5, 9_000);
    for (int i = 0; i < 3; i++) c = c.with(List.of(all.get(i)), List.of());
    assertThat(c.count()).isEqualTo(3);
    c = c.with(all.subList(3, all.size()), List.of());
    for (int i = 0; i < all.size(); i++) assertThat(c.feature(i)).isEqualTo(all.get(i));
    assertThat(c.loose().isEmpty()).as("the indexes were made anew").isTrue();
  }

  private static byte[] image(LayerColumns c) {
    java.io.ByteArrayOutputStream out = new java.io.ByteArrayOutputStream();
    ColumnsImage.write(c, b -> out.write(b.array(), b.position(), b.remaining()));
    return out.toByteArray();
  }

  @Test
  void anImageGivesTheSameModelBack() {
    List<Feature> all = features(6, 9_500);
    LayerColumns c =
        columns(all.subList(0, 9_000))
            .with(all.subList(9_000, 9_500), List.of(all.get(4).id(), all.get(5_000).id()));
    LayerColumns back = ColumnsImage.read(java.nio.ByteBuffer.wrap(image(c)));
    assertThat(back.schema()).isEqualTo(c.schema());
    assertThat(back.all()).isEqualTo(c.all());
    for (int i = 0; i < c.rows(); i++) assertThat(back.feature(i)).isEqualTo(c.feature(i));
    Envelope box = new Envelope(2, 5, 50, 51.5);
    assertThat(back.near(box)).isEqualTo(c.near(box)).isNotEmpty();
    assertThat(back.tiles().fullest(4)).isEqualTo(c.tiles().fullest(4));
    LayerColumns next = back.with(List.of(features(7, 1).get(0)), List.of());
    assertThat(next.count()).isEqualTo(c.count() + 1);
    assertThat(image(back)).isEqualTo(image(c));
  }

  /** Any bytes, broken off or changed anywhere, are read as a model or refused, nothing else. */
  @Test
  void aDamagedImageIsRefused() {
    byte[] good = image(columns(features(8, 300)));
    for (int n = 0; n < good.length; n += 1 + good.length / 400) {
      byte[] cut = java.util.Arrays.copyOf(good, n);
      org.assertj.core.api.Assertions.assertThatThrownBy(
              () -> ColumnsImage.read(java.nio.ByteBuffer.wrap(cut)))
          .as("%d of %d bytes", n, good.length)
          .isInstanceOf(IllegalArgumentException.class);
    }
    Random r = new Random(11);
    for (int i = 0; i < 400; i++) {
      byte[] other = good.clone();
      for (int k = 0; k < 3; k++) other[r.nextInt(other.length)] = (byte) r.nextInt(256);
      try {
        ColumnsImage.read(java.nio.ByteBuffer.wrap(other));
      } catch (IllegalArgumentException e) {
        assertThat(e.getMessage()).isNotBlank();
      }
    }
  }

  /** Readers that go through a state see it whole while newer ones are made of it. */
  @Test
  void readersAndAWriterDoNotMeet() throws Exception {
    LayerColumns[] newest = {columns(features(9, 6_000))};
    java.util.concurrent.atomic.AtomicBoolean end = new java.util.concurrent.atomic.AtomicBoolean();
    java.util.concurrent.atomic.AtomicReference<LayerColumns> shared =
        new java.util.concurrent.atomic.AtomicReference<>(newest[0]);
    Thread writer =
        new Thread(
            () -> {
              for (int i = 0; i < 400; i++) {
                LayerColumns c = shared.get();
                List<Feature> now = new ArrayList<>();
                for (int k = 0; k < 5; k++) {
                  Feature f = c.feature((i * 37 + k * 811) % c.rows());
                  now.add(
                      new Feature(
                          f.id(),
                          f.geometry(),
                          Map.of("kind", Value.text("run " + i), "w", Value.of(i)),
                          f.version() + 1));
                }
                shared.set(c.with(now, List.of()));
              }
              end.set(true);
            });
    writer.start();
    while (!end.get()) {
      LayerColumns c = shared.get();
      String first = c.all().stream().mapToObj(c::feature).toList().toString();
      assertThat(c.all().stream().mapToObj(c::feature).toList().toString()).isEqualTo(first);
    }
    writer.join();
    assertThat(shared.get().count()).isEqualTo(6_000);
  }
}
