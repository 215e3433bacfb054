package org.whinridge.core.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKTReader;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * Every function, operator and predicate with odd values, of its own types and of others, as older
 * data may have them: a value comes out, or nothing; nothing is ever thrown.
 */
class OddValuesTest {
  private static final List<Value> ODD = new ArrayList<>();

  private static void place(String wkt) {
    try {
      ODD.add(new Value.Place(new WKTReader(GeometryJson.WGS84).read(wkt)));
    } catch (ParseException e) {
      throw new IllegalArgumentException(e);
    }
  }

  static {
    ODD.add(Value.EMPTY);
    for (double d :
        new double[] {
          0,
          1,
          -1,
          0.5,
          1e15 + 0.3,
          9007199254740993.0,
          1e308,
          -1e308,
          4.9e-324,
          3_652_060,
          13,
          -12.5
        }) ODD.add(new Value.Num(d));
    for (String s :
        new String[] {
          " ",
          "x",
          "it's",
          "𝔘𝔫𝔦",
          "e\u0301",
          "ß",
          "%",
          "\\",
          "[",
          "(?=x)",
          "..",
          "2026-05-04",
          "\u00a0"
        }) ODD.add(new Value.Text(s));
    ODD.add(Value.YES);
    ODD.add(Value.NO);
    for (LocalDate d :
        List.of(
            LocalDate.of(1, 1, 1),
            LocalDate.of(9999, 12, 31),
            LocalDate.of(2024, 2, 29),
            LocalDate.MAX,
            LocalDate.MIN)) ODD.add(new Value.Day(d));
    for (Instant i :
        List.of(Instant.EPOCH, Instant.parse("9999-12-31T23:59:59Z"), Instant.ofEpochSecond(-1)))
      ODD.add(new Value.Moment(i));
    ODD.add(new Value.Interval(Instant.EPOCH, Instant.EPOCH, true));
    ODD.add(new Value.Many(List.of()));
    ODD.add(new Value.Many(List.of(Value.EMPTY, Value.of(1), Value.text("a"))));
    ODD.add(new Value.Many(List.of(Value.of(1e308), Value.of(1e308))));
    place("POINT EMPTY");
    place("POINT (180 90)");
    place("POINT (-180 -90)");
    place("LINESTRING (0 0, 0 0)");
    place("LINESTRING (179.9 0, -179.9 0)");
    place("POLYGON EMPTY");
    place("POLYGON ((0 0, 2 2, 2 0, 0 2, 0 0))");
    place("POLYGON ((0 0, 1 0, 0 0, 0 0))");
    place("MULTIPOLYGON (((0 0, 2 0, 2 2, 0 2, 0 0)), ((1 1, 3 1, 3 3, 1 3, 1 1)))");
    place("GEOMETRYCOLLECTION (POINT (1 1), LINESTRING (0 0, 1 1))");
    place("GEOMETRYCOLLECTION (GEOMETRYCOLLECTION (POINT (1 1)), POLYGON ((0 0, 1 0, 1 1, 0 0)))");
    place("GEOMETRYCOLLECTION EMPTY");
  }

  private final Random random = new Random(4);
  private final Span here = new Span(0, 0);

  private Value odd() {
    return ODD.get(random.nextInt(ODD.size()));
  }

  private Node literal(Value v) {
    return new Node.Literal(v, here);
  }

  private void tried(Node n, String what) {
    try {
      assertThat(Evaluator.of(n, name -> -1).in(new TestNames())).as(what).isNotNull();
    } catch (RuntimeException e) {
      throw new AssertionError(what, e);
    }
  }

  @Test
  void everyFunctionAndPredicateTakesWhatComes() {
    int tried = 0;
    for (String name : Functions.names()) {
      if (name.equals("label")) continue; // takes a name
      Functions.Function f = Functions.find(name).orElseThrow();
      for (int i = 0; i < 3000; i++) {
        int count = f.least() + random.nextInt(Math.min(3, f.most() - f.least() + 1));
        List<Node> args = new ArrayList<>();
        StringBuilder said = new StringBuilder(name);
        for (int k = 0; k < count; k++) {
          Value v = odd();
          ValueType wanted = f.argument(k);
          // mostly of the right type, so that the body is reached
          for (int again = 0; again < 40 && i % 4 != 0 && !v.type().fits(wanted); again++)
            v = odd();
          args.add(literal(v));
          said.append(' ').append(v);
        }
        if (name.equals("matches")
            && args.get(1) instanceof Node.Literal l
            && l.value() instanceof Value.Text p
            && !Functions.soundPattern(p.value())) continue;
        tried(new Node.Call(name, args, here), said.toString());
        tried++;
      }
    }
    assertThat(tried).isGreaterThan(100_000);
  }

  @Test
  void everyOperatorTakesWhatComes() {
    String[] comparisons = {"=", "<>", "<", ">", "<=", ">="};
    String[] arithmetic = {"+", "-", "*", "/", "%", "div", "^"};
    for (int i = 0; i < 60_000; i++) {
      Node a = literal(odd());
      Node b = literal(odd());
      Node c = literal(odd());
      String said = a + " " + b + " " + c;
      tried(new Node.Compare(comparisons[i % 6], a, b, here), said);
      tried(new Node.Arithmetic(arithmetic[i % 7], a, b, here), said);
      tried(new Node.Negate(a, here), said);
      tried(new Node.Between(a, b, c, i % 2 == 0, here), said);
      tried(new Node.In(a, List.of(b, c), i % 2 == 0, here), said);
      tried(new Node.Like(a, b, i % 2 == 0, here), said);
      tried(new Node.Logic(i % 2 == 0, a, b, here), said);
      tried(new Node.Not(a, here), said);
      tried(new Node.IsNull(a, i % 2 == 0, here), said);
      tried(new Node.ListOf(List.of(a, b), here), said);
    }
  }
}
