package org.whinridge.core.prefill;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import net.sf.geographiclib.Geodesic;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;

/** Look-ups by place against GeographicLib and a plain look at every feature. */
class LookUpTest {
  private static final Random RANDOM = new Random(29);

  private static Feature feature(String id, String geometry, Object... values) {
    Map<String, Value> v = new java.util.LinkedHashMap<>();
    for (int i = 0; i < values.length; i += 2)
      v.put(
          (String) values[i],
          values[i + 1] instanceof Number n
              ? Value.of(n.doubleValue())
              : Value.text((String) values[i + 1]));
    return new Feature(id, GeometryJson.parse(geometry), v, 1);
  }

  private static Geometry point(double x, double y) {
    return GeometryJson.WGS84.createPoint(new Coordinate(x, y));
  }

  private static LookUp near(double metres) {
    return new LookUp("l", "Posts", LookUp.How.NEAREST, metres, "", LookUp.Several.SMALLEST);
  }

  private static double geodesic(Coordinate a, Coordinate b) {
    return Geodesic.WGS84.Inverse(a.y, a.x, b.y, b.x).s12;
  }

  @Test
  void theNearestPointIsTheOneThatGeographicLibFindsNearest() {
    List<Feature> posts = new ArrayList<>();
    for (int i = 0; i < 3000; i++)
      posts.add(
          new Feature(
              "p" + i,
              Optional.of(point(-10.5 + RANDOM.nextDouble(), 57.5 + RANDOM.nextDouble())),
              Map.of(),
              1));
    PlaceIndex index = new PlaceIndex(posts);
    for (int k = 0; k < 500; k++) {
      Coordinate at =
          new Coordinate(-10.7 + 1.4 * RANDOM.nextDouble(), 57.3 + 1.4 * RANDOM.nextDouble());
      double within = 200 + RANDOM.nextInt(20_000);
      Comparator<Feature> byDistance =
          Comparator.comparingDouble(f -> geodesic(at, f.geometry().get().getCoordinate()));
      Feature best = posts.stream().min(byDistance.thenComparing(Feature::id)).orElseThrow();
      double bestM = geodesic(at, best.geometry().get().getCoordinate());
      LookupResult r = index.lookUp(near(within), point(at.x, at.y), f -> true);
      if (bestM > within) assertThat(r).isInstanceOf(LookupResult.NoMatch.class);
      else
        assertThat(((LookupResult.Found) r).hits().get(0))
            .satisfies(
                h -> {
                  assertThat(h.feature().id()).isEqualTo(best.id());
                  assertThat(h.distanceM()).isCloseTo(bestM, within(1e-6));
                });
    }
  }

  @Test
  void ofEquallyNearFeaturesTheSmallerIdAnswersAndFiltersCount() {
    PlaceIndex index =
        new PlaceIndex(
            List.of(
                feature("b", "{\"type\":\"Point\",\"coordinates\":[0,0.001]}", "n", 2),
                feature("a", "{\"type\":\"Point\",\"coordinates\":[0,-0.001]}", "n", 1),
                feature("c", "{\"type\":\"Point\",\"coordinates\":[0,0.002]}", "n", 3)));
    LookupResult.Found found = (LookupResult.Found) index.lookUp(near(500), point(0, 0), f -> true);
    assertThat(found.hits().get(0).feature().id()).isEqualTo("a");
    assertThat(LookUpValue.of("n").from(found)).isEqualTo(Value.of(1));
    LookupResult.Found filtered =
        (LookupResult.Found)
            index.lookUp(near(500), point(0, 0), f -> f.value("n").equals(Value.of(3)));
    assertThat(filtered.hits().get(0).feature().id()).isEqualTo("c");
    assertThat(index.lookUp(near(100), point(0, 0), f -> true))
        .as("110.6 m away")
        .isInstanceOf(LookupResult.NoMatch.class);
  }

  @Test
  void alongTheNearestLineTellsChainageOffsetAndSide() {
    PlaceIndex index =
        new PlaceIndex(
            List.of(
                feature(
                    "bank",
                    "{\"type\":\"LineString\",\"coordinates\":[[-10.3,57.9],[-10.3,57.91],[-10.28,57.91]]}",
                    "ref",
                    "B-1"),
                feature(
                    "far", "{\"type\":\"LineString\",\"coordinates\":[[-9,57.9],[-9,57.91]]}")));
    LookUp along = new LookUp("l", "Banks", LookUp.How.ALONG, 100, "", LookUp.Several.SMALLEST);
    Coordinate at = new Coordinate(-10.3005, 57.905);
    LookupResult.Found f = (LookupResult.Found) index.lookUp(along, point(at.x, at.y), x -> true);
    double chainage =
        ((Value.Num) new LookUpValue("", LookUpValue.Measure.CHAINAGE).from(f)).value();
    double offset = ((Value.Num) new LookUpValue("", LookUpValue.Measure.OFFSET).from(f)).value();
    // half of the first leg, which runs due north; both ends by GeographicLib
    assertThat(chainage)
        .isCloseTo(
            geodesic(new Coordinate(-10.3, 57.9), new Coordinate(-10.3, 57.905)), within(0.01));
    assertThat(offset).isCloseTo(geodesic(at, new Coordinate(-10.3, 57.905)), within(0.01));
    assertThat(new LookUpValue("", LookUpValue.Measure.SIDE).from(f))
        .as("west of a line to the north")
        .isEqualTo(Value.text("left"));
    f = (LookupResult.Found) index.lookUp(along, point(-10.29, 57.9098), x -> true);
    assertThat(new LookUpValue("", LookUpValue.Measure.SIDE).from(f))
        .as("south of a line to the east")
        .isEqualTo(Value.text("right"));
    assertThat(((Value.Num) new LookUpValue("", LookUpValue.Measure.CHAINAGE).from(f)).value())
        .isCloseTo(
            geodesic(new Coordinate(-10.3, 57.9), new Coordinate(-10.3, 57.91))
                + geodesic(new Coordinate(-10.3, 57.91), new Coordinate(-10.29, 57.91)),
            within(0.01));
    assertThat(index.lookUp(along, point(-10.2, 57.9), x -> true))
        .isInstanceOf(LookupResult.NoMatch.class);
  }

  @Test
  void whatLiesAroundIsSummedUp() {
    List<Feature> all = new ArrayList<>();
    for (int i = 0; i < 2000; i++)
      all.add(
          new Feature(
              "p" + i,
              Optional.of(point(0.1 * RANDOM.nextDouble(), 0.1 * RANDOM.nextDouble())),
              Map.of("n", Value.of(i), "kind", Value.text(i % 3 == 0 ? "weir" : "flap")),
              1));
    PlaceIndex index = new PlaceIndex(all);
    LookUp around = new LookUp("l", "L", LookUp.How.AROUND, 1500, "", LookUp.Several.SMALLEST);
    Coordinate at = new Coordinate(0.05, 0.05);
    List<Feature> within =
        all.stream().filter(f -> geodesic(at, f.geometry().get().getCoordinate()) <= 1500).toList();
    LookupResult.Found f = (LookupResult.Found) index.lookUp(around, point(at.x, at.y), x -> true);
    assertThat(f.hits()).hasSameSizeAs(within);
    double[] numbers =
        within.stream().mapToDouble(x -> ((Value.Num) x.value("n")).value()).toArray();
    var stats = java.util.Arrays.stream(numbers).summaryStatistics();
    assertThat(new LookUpValue("", LookUpValue.Measure.COUNT).from(f))
        .isEqualTo(Value.of(within.size()));
    assertThat(new LookUpValue("n", LookUpValue.Measure.SUM).from(f))
        .isEqualTo(Value.of(stats.getSum()));
    assertThat(new LookUpValue("n", LookUpValue.Measure.MIN).from(f))
        .isEqualTo(Value.of(stats.getMin()));
    assertThat(new LookUpValue("n", LookUpValue.Measure.MAX).from(f))
        .isEqualTo(Value.of(stats.getMax()));
    assertThat(((Value.Num) new LookUpValue("n", LookUpValue.Measure.MEAN).from(f)).value())
        .isCloseTo(stats.getAverage(), within(1e-9));
    assertThat(new LookUpValue("kind", LookUpValue.Measure.MOST_FREQUENT).from(f))
        .isEqualTo(Value.text("flap"));
    assertThat(((Value.Many) new LookUpValue("kind", LookUpValue.Measure.LIST).from(f)).values())
        .containsExactlyInAnyOrder(Value.text("flap"), Value.text("weir"));
  }

  @Test
  void aLineOrAnAreaBelongsToThePolygonWithItsLargestPart() {
    String west = "{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[1,0],[1,1],[0,1],[0,0]]]}";
    String east = "{\"type\":\"Polygon\",\"coordinates\":[[[1,0],[3,0],[3,1],[1,1],[1,0]]]}";
    PlaceIndex index = new PlaceIndex(List.of(feature("w", west), feature("e", east)));
    Geometry line =
        GeometryJson.parse("{\"type\":\"LineString\",\"coordinates\":[[0.8,0.5],[2,0.5]]}")
            .orElseThrow();
    LookUp holds = LookUp.containing("l", "L");
    assertThat(
            ((LookupResult.Found) index.lookUp(holds, line, x -> true))
                .hits()
                .get(0)
                .feature()
                .id())
        .isEqualTo("e");
    Geometry area =
        GeometryJson.parse(
                "{\"type\":\"Polygon\",\"coordinates\":[[[0.2,0.2],[1.1,0.2],[1.1,0.4],[0.2,0.2]]]}")
            .orElseThrow();
    LookupResult.Found f = (LookupResult.Found) index.lookUp(holds, area, x -> true);
    assertThat(f.hits().get(0).feature().id()).isEqualTo("w");
    assertThat(f.several()).isTrue();
    LookUp touched = new LookUp("l", "L", LookUp.How.AROUND, 0, "", LookUp.Several.SMALLEST);
    assertThat(((LookupResult.Found) index.lookUp(touched, line, x -> true)).hits()).hasSize(2);
  }

  @Test
  void severalPolygonsAreListedSmallestFirstWhenTheFormSaysSo() {
    String small = "{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[1,0],[1,1],[0,1],[0,0]]]}";
    String large = "{\"type\":\"Polygon\",\"coordinates\":[[[-1,-1],[2,-1],[2,2],[-1,2],[-1,-1]]]}";
    PlaceIndex index =
        new PlaceIndex(List.of(feature("b", large, "s", "peat"), feature("a", small, "s", "clay")));
    LookUp all = new LookUp("l", "L", LookUp.How.CONTAINING, 0, "", LookUp.Several.LIST);
    LookupResult.Found f = (LookupResult.Found) index.lookUp(all, point(0.5, 0.5), x -> true);
    assertThat(LookUpValue.of("s").from(f).plain()).isEqualTo("clay, peat");
    assertThat(new LookUpValue("", LookUpValue.Measure.FEATURE).from(f)).isEqualTo(Value.text("a"));
  }

  /** The layers of a project that may be looked up, and how; tables have no places. */
  @Test
  void everyKindOfLayerWithPlacesHasItsUsualLookUp() {
    assertThat(LookUp.usual("l", "L", GeometryKind.POLYGON).orElseThrow().how())
        .isEqualTo(LookUp.How.CONTAINING);
    for (GeometryKind k : List.of(GeometryKind.POINT, GeometryKind.LINE))
      assertThat(LookUp.usual("l", "L", k).orElseThrow().how()).isEqualTo(LookUp.How.NEAREST);
    assertThat(LookUp.usual("l", "L", GeometryKind.TABLE)).isEmpty();
  }
}
