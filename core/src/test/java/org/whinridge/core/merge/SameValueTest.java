package org.whinridge.core.merge;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/** The notion of "the same" of merges, updates and claims. */
class SameValueTest {
  private static Value list(String... codes) {
    List<Value> out = new ArrayList<>();
    for (String c : codes) out.add(new Value.Text(c));
    return new Value.Many(out);
  }

  private static boolean same(ValueType type, Value a, Value b) {
    SameValue s = new SameValue(type, false, 8);
    assertThat(s.test(b, a)).as("both ways").isEqualTo(s.test(a, b));
    return s.test(a, b);
  }

  @Test
  void whatLooksAlikeIsOne() {
    assertThat(same(ValueType.TEXT, Value.text("Brick "), Value.text("Brick"))).isTrue();
    assertThat(same(ValueType.TEXT, Value.text("Brick"), Value.text("brick"))).isFalse();
    assertThat(same(ValueType.TEXT, Value.text("Saint-Élan"), Value.text("Saint-E\u0301lan")))
        .isTrue();
    assertThat(same(ValueType.TEXT, Value.text("\u00a0"), Value.EMPTY)).isTrue();
    assertThat(same(ValueType.NUMBER, Value.text("1"), Value.of(1))).isTrue();
    assertThat(same(ValueType.NUMBER, Value.text("1.0"), Value.text("1"))).isTrue();
    assertThat(same(ValueType.TEXT, Value.text("1.0"), Value.text("1"))).isFalse();
    assertThat(same(ValueType.TEXT, Value.of(7), Value.text("7"))).isTrue();
    assertThat(same(ValueType.YES_NO, Value.text("yes"), Value.YES)).isTrue();
    assertThat(same(ValueType.NUMBER, Value.text("about 1"), Value.of(1))).isFalse();
  }

  @Test
  void manyCodesAreASetAndRanksAList() {
    assertThat(same(ValueType.LIST, list("a", "b"), list("b", "a"))).isTrue();
    assertThat(same(ValueType.LIST, list(" a"), list("a"))).isTrue();
    assertThat(same(ValueType.LIST, list("a", ""), list("a"))).isTrue();
    assertThat(same(ValueType.LIST, Value.text("a"), list("a"))).isTrue();
    assertThat(same(ValueType.LIST, list(""), Value.EMPTY)).isTrue();
    SameValue ranked = new SameValue(ValueType.LIST, true, 8);
    assertThat(ranked.test(list("a", "b", "c"), list("c", "b", "a"))).isFalse();
    assertThat(ranked.test(list("a", " b"), list("a", "b"))).isTrue();
    Merge.Result r =
        Merge.threeWay(
            Map.of("r", list("a", "b", "c")),
            Map.of("r", list("a", "b", "c")),
            Map.of("r", list("c", "b", "a")),
            f -> ranked);
    assertThat(r.writes()).containsEntry("r", list("c", "b", "a"));
  }

  /**
   * 10,000 merges of fields of every kind, each side written in another way that means the same, or
   * changed: what came out against what the table says of what was meant. Printed: merges wrong.
   */
  @Test
  void tenThousandMergesComeOutAsMeant() {
    Random random = new Random(90210);
    int wrong = 0;
    StringBuilder first = new StringBuilder();
    for (int i = 0; i < 10_000; i++) {
      int kind = random.nextInt(7);
      int b = random.nextInt(3);
      int l = random.nextInt(3);
      int m = random.nextInt(3);
      Merge.Outcome meant =
          l == b
              ? m == b ? Merge.Outcome.UNCHANGED : Merge.Outcome.WRITTEN
              : m == b
                  ? Merge.Outcome.LAYER_KEPT
                  : m == l ? Merge.Outcome.AGREED : Merge.Outcome.CLASH;
      Value base = written(kind, b, random);
      Value layer = written(kind, l, random);
      Value mine = written(kind, m, random);
      Merge.Result r =
          Merge.threeWay(
              Map.of("x", base),
              Map.of("x", layer),
              Map.of("x", mine),
              f -> new SameValue(TYPES[kind], kind == 3, 8));
      Merge.Outcome got =
          r.fields().isEmpty() ? Merge.Outcome.UNCHANGED : r.fields().get(0).outcome();
      if (got != meant && wrong++ < 5)
        first.append(base).append(" | ").append(layer).append(" | ").append(mine).append('\n');
    }
    System.out.println("merges wrong: " + wrong + " of 10,000");
    assertThat(wrong).as(first.toString()).isZero();
  }

  private static final ValueType[] TYPES = {
    ValueType.TEXT,
    ValueType.NUMBER,
    ValueType.LIST,
    ValueType.LIST,
    ValueType.EMPTY,
    ValueType.EMPTY,
    ValueType.EMPTY
  };

  /** One of three meanings of a kind, written in one of several ways. */
  private static Value written(int kind, int meaning, Random random) {
    boolean other = random.nextBoolean();
    switch (kind) {
      case 0:
        return Value.text(
            new String[][] {{"Élan", "E\u0301lan "}, {"Elan", " Elan"}, {"", "\u00a0"}}
                [meaning][other ? 1 : 0]);
      case 1:
        return meaning == 2 ? Value.EMPTY : other ? Value.text(" " + meaning) : Value.of(meaning);
      case 2:
        {
          List<String> codes =
              new ArrayList<>(
                  List.of(List.of("a", "b"), List.of("a", "b", "c"), List.of("c")).get(meaning));
          if (other) {
            Collections.shuffle(codes, random);
            codes.add("");
          }
          return list(codes.toArray(new String[0]));
        }
      case 3:
        {
          String[] codes = new String[][] {{"a", "b"}, {"b", "a"}, {"a"}}[meaning];
          return other ? list(" " + codes[0], codes.length > 1 ? codes[1] : "") : list(codes);
        }
      case 4:
        return new Value.Place(rings(meaning, random));
      case 5:
        return new Value.Place(lines(meaning, other));
      default:
        return new Value.Place(
            GeometryJson.WGS84.createPoint(
                new Coordinate(meaning == 0 ? other ? 180 : -180 : meaning, 5)));
    }
  }

  /** A polygon with a hole, the hole as a part, or without it; begun and wound in some way. */
  private static Geometry rings(int meaning, Random random) {
    Polygon outer = polygon(0, 10, random);
    Polygon inner = polygon(3, 2, random);
    if (meaning == 0)
      return GeometryJson.WGS84.createPolygon(
          outer.getExteriorRing(),
          new org.locationtech.jts.geom.LinearRing[] {inner.getExteriorRing()});
    if (meaning == 1) return GeometryJson.WGS84.createMultiPolygon(new Polygon[] {outer, inner});
    return random.nextBoolean()
        ? outer
        : GeometryJson.WGS84.createMultiPolygon(new Polygon[] {outer});
  }

  private static Polygon polygon(double from, double size, Random random) {
    List<Coordinate> c = new ArrayList<>();
    double[][] corners = {{0, 0}, {1, 0}, {1, 1}, {0, 1}};
    int begin = random.nextInt(4);
    boolean middle = random.nextBoolean();
    for (int i = 0; i < 4; i++) {
      double[] p = corners[(begin + i) % 4];
      double[] q = corners[(begin + i + 1) % 4];
      c.add(new Coordinate(from + p[0] * size, from + p[1] * size));
      if (middle && i == 1)
        c.add(new Coordinate(from + (p[0] + q[0]) / 2 * size, from + (p[1] + q[1]) / 2 * size));
    }
    c.add(c.get(0));
    if (random.nextBoolean()) Collections.reverse(c);
    return GeometryJson.WGS84.createPolygon(c.toArray(new Coordinate[0]));
  }

  /** One line, the same in two parts, or turned round. */
  private static Geometry lines(int meaning, boolean other) {
    Coordinate a = new Coordinate(0, 0);
    Coordinate b = new Coordinate(1, 1);
    Coordinate c = new Coordinate(2, 0);
    if (meaning == 1)
      return GeometryJson.WGS84.createMultiLineString(
          new LineString[] {
            GeometryJson.WGS84.createLineString(new Coordinate[] {a, b}),
            GeometryJson.WGS84.createLineString(new Coordinate[] {b, c})
          });
    LineString l =
        GeometryJson.WGS84.createLineString(
            other
                ? new Coordinate[] {a, new Coordinate(0.5, 0.5), b, c}
                : new Coordinate[] {a, b, c});
    return meaning == 2 ? l.reverse() : l;
  }
}
