package org.whinridge.core.read;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;

class InViewTest {
  private static Feature at(Geometry g) {
    return new Feature(UUID.randomUUID().toString(), Optional.ofNullable(g), Map.of(), 1);
  }

  private static LayerColumns some(int n, Random r) {
    List<Feature> all = new ArrayList<>();
    for (int i = 0; i < n; i++) all.add(at(some(r)));
    return LayerColumns.of(new Schema(GeometryKind.POINT, List.of(), "", List.of()), all);
  }

  private static Geometry some(Random r) {
    Coordinate c = new Coordinate(-10.5 + r.nextDouble(), 57.5 + r.nextDouble());
    return switch (r.nextInt(5)) {
      case 0 -> GeometryJson.WGS84.createPoint(c).buffer(0.05, 2);
      case 1 ->
          GeometryJson.WGS84.createLineString(
              new Coordinate[] {c, new Coordinate(c.x + 0.1, c.y - 0.1)});
      case 2 -> null;
      default -> GeometryJson.WGS84.createPoint(c);
    };
  }

  /** Beside the index: every row's box looked at, with changes after the index was made. */
  @Test
  void boxesFindWhatLiesInThem() {
    Random r = new Random(6);
    LayerColumns layer = some(800, r);
    for (int i = 0; i < 60; i++) {
      int row = r.nextInt(800);
      if (i % 3 == 0) layer = layer.with(List.of(), List.of(layer.id(row)));
      else if (i % 3 == 1 && layer.has(row))
        layer =
            layer.with(
                List.of(new Feature(layer.id(row), Optional.ofNullable(some(r)), Map.of(), 2)),
                List.of());
      else layer = layer.with(List.of(at(some(r))), List.of());
    }
    assertThat(layer.loose().isEmpty()).isFalse();
    BitSet only = new BitSet();
    for (int i = 0; i < layer.rows(); i++) if (i % 7 != 0) only.set(i);
    for (int run = 0; run < 200; run++) {
      double x = -10.6 + r.nextDouble();
      double y = 57.4 + r.nextDouble();
      Envelope box = new Envelope(x, x + r.nextDouble() * 0.5, y, y + r.nextDouble() * 0.5);
      BitSet wanted = run % 2 == 0 ? null : only;
      List<Integer> brute = new ArrayList<>();
      for (int row = 0; row < layer.rows(); row++)
        if (layer.has(row)
            && (wanted == null || wanted.get(row))
            && layer.geometry(row).filter(g -> g.getEnvelopeInternal().intersects(box)).isPresent())
          brute.add(row);
      assertThat(InView.rows(layer, box, wanted, 10_000))
          .as("%s", box)
          .containsExactly(brute.stream().mapToInt(i -> i).toArray());
      assertThat(InView.rows(layer, box, wanted, 5).length).isEqualTo(Math.min(6, brute.size()));
    }
  }

  @Test
  void theIndexesAreMadeAnewAfterManyChanges() {
    Random r = new Random(8);
    LayerColumns layer = some(10, r);
    for (int i = 0; i < 25; i++) {
      List<Feature> more = new ArrayList<>();
      for (int k = 0; k < 100; k++)
        more.add(at(GeometryJson.WGS84.createPoint(new Coordinate(r.nextDouble(), 1))));
      layer = layer.with(more, List.of());
    }
    assertThat(layer.loose().cardinality()).isLessThan(2_000);
    assertThat(InView.rows(layer, new Envelope(0, 1, 0, 2), null, 5000)).hasSize(2500);
  }
}
