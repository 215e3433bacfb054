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
import org.whinridge.core.layer.GeometryKind;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;

class InViewTest {
  private static Feature at(Geometry g) {
    return new Feature(UUID.randomUUID().toString(), Optional.ofNullable(g), Map.of(), 1);
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
    LayerColumns layer = new LayerColumns(new Schema(GeometryKind.POINT, List.of(), "", List.of()));
    for (int i = 0; i < 800; i++) layer.add(at(some(r)));
    layer.tiles();
    for (int i = 0; i < 60; i++) {
      int row = r.nextInt(800);
      if (i % 3 == 0) layer.remove(layer.id(row));
      else if (i % 3 == 1 && layer.has(row))
        layer.patch(new Feature(layer.id(row), Optional.ofNullable(some(r)), Map.of(), 2));
      else layer.patch(at(some(r)));
    }
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
  void theIndexIsMadeAnewAfterManyChanges() {
    Random r = new Random(8);
    LayerColumns layer = new LayerColumns(new Schema(GeometryKind.POINT, List.of(), "", List.of()));
    for (int i = 0; i < 10; i++)
      layer.add(at(GeometryJson.WGS84.createPoint(new Coordinate(r.nextDouble(), 1))));
    layer.tiles();
    long before = layer.changes();
    for (int i = 0; i < 2500; i++)
      layer.patch(at(GeometryJson.WGS84.createPoint(new Coordinate(r.nextDouble(), 1))));
    assertThat(layer.changes()).isGreaterThan(before);
    layer.tiles();
    assertThat(layer.changedTiles().isEmpty()).isTrue();
    assertThat(InView.rows(layer, new Envelope(0, 1, 0, 2), null, 5000)).hasSize(2510);
  }
}
