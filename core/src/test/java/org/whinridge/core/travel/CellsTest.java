package org.whinridge.core.travel;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.GeometryJson;

class CellsTest {
  private static List<Feature> random(int n) {
    Random r = new Random(3);
    List<Feature> out = new ArrayList<>();
    for (int i = 0; i < n; i++)
      out.add(
          new Feature(
              "f" + i,
              Optional.of(
                  GeometryJson.WGS84.createPoint(
                      new Coordinate(-10 + r.nextDouble(), 57 + r.nextDouble()))),
              Map.of(),
              1));
    return out;
  }

  @Test
  void eachFeatureIsInOneCellAndWithinItsBox() {
    List<Feature> all = random(2345);
    all.add(new Feature("nowhere", Optional.empty(), Map.of(), 1));
    List<Cells.Cell> cells = Cells.of(all, 100);
    assertThat(cells).hasSizeBetween(24, 30);
    assertThat(cells.stream().flatMap(c -> c.features().stream()).map(Feature::id))
        .doesNotHaveDuplicates()
        .hasSize(2345);
    for (Cells.Cell c : cells) {
      assertThat(c.features()).hasSizeBetween(1, 100);
      for (Feature f : c.features())
        assertThat(c.box().covers(f.geometry().orElseThrow().getCoordinate())).isTrue();
    }
    assertThat(Cells.of(all, 100)).isEqualTo(cells);
  }

  /** A place has few cells around it: that is what they are for. */
  @Test
  void aPlaceMeetsFewCells() {
    List<Cells.Cell> cells = Cells.of(random(10_000), 100);
    Envelope here = new Envelope(-9.51, -9.49, 57.49, 57.51);
    assertThat(cells.stream().filter(c -> c.box().intersects(here)).count()).isBetween(1L, 6L);
  }

  @Test
  void nothingHasNoCellsAndOneFeatureHasOne() {
    assertThat(Cells.of(List.of(), 10)).isEmpty();
    assertThat(Cells.of(random(1), 10)).hasSize(1);
    assertThat(Cells.of(random(11), 10)).hasSize(2);
  }
}
