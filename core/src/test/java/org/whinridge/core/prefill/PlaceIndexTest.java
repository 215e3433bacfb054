package org.whinridge.core.prefill;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.value.Value;

class PlaceIndexTest {
  private static Feature circle(int id, double x, double y, double r) {
    Geometry g = GeometryJson.WGS84.createPoint(new Coordinate(x, y)).buffer(r);
    return new Feature("f" + id, Optional.of(g), Map.of("n", Value.of(id)), 1);
  }

  /**
   * The index against a plain look at every polygon with JTS, on 400 random circles and 2,000
   * random positions.
   */
  @Test
  void agreesWithLookingAtEveryPolygon() {
    Random random = new Random(11);
    List<Feature> all = new ArrayList<>();
    for (int i = 0; i < 400; i++)
      all.add(
          circle(
              i,
              random.nextDouble() * 10,
              random.nextDouble() * 10,
              0.05 + random.nextDouble() * 0.6));
    PlaceIndex index = new PlaceIndex(all);
    for (int k = 0; k < 2000; k++) {
      Coordinate c = new Coordinate(random.nextDouble() * 10, random.nextDouble() * 10);
      List<Feature> holding =
          all.stream()
              .filter(f -> f.geometry().get().covers(GeometryJson.WGS84.createPoint(c)))
              .toList();
      LookupResult r = index.containing(c);
      if (holding.isEmpty()) assertThat(r).isInstanceOf(LookupResult.NoMatch.class);
      else
        assertThat(r)
            .isInstanceOfSatisfying(
                LookupResult.Found.class,
                f -> {
                  assertThat(f.several()).isEqualTo(holding.size() > 1);
                  double smallest =
                      holding.stream()
                          .mapToDouble(
                              h -> org.whinridge.core.place.Geodesy.areaM2(h.geometry().get()))
                          .min()
                          .orElseThrow();
                  assertThat(
                          org.whinridge.core.place.Geodesy.areaM2(
                              all.get((int) ((Value.Num) LookUpValue.of("n").from(f)).value())
                                  .geometry()
                                  .get()))
                      .isEqualTo(smallest);
                });
    }
  }

  @Test
  void pointsLinesAndTablesAreNoPolygonsAndAnEmptyLayerAnswersNothing() {
    PlaceIndex index =
        new PlaceIndex(
            List.of(
                new Feature(
                    "p",
                    Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(0, 0))),
                    Map.of(),
                    1),
                new Feature("t", Optional.empty(), Map.of(), 1)));
    assertThat(index.size()).as("the table's row has no place").isEqualTo(1);
    assertThat(index.containing(new Coordinate(0, 0))).isInstanceOf(LookupResult.NoMatch.class);
  }
}
