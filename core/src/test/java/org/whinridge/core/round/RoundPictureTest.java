package org.whinridge.core.round;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;

class RoundPictureTest {
  private static RoundPicture.Drawn draw(List<Coordinate> stops) {
    return RoundPicture.draw(new RoundPicture.Of(stops, null, List.of()), 600, 400).orElseThrow();
  }

  private static List<double[]> circles(String svg) {
    List<double[]> out = new ArrayList<>();
    for (String part : svg.split("<circle cx=\""))
      if (!part.startsWith("<svg")) {
        String[] q = part.split("\"");
        out.add(new double[] {Double.parseDouble(q[0]), Double.parseDouble(q[2])});
      }
    return out;
  }

  /** Places lie as far from each other as the scale bar says, north up and east right. */
  @Test
  void placesLieTrueToTheScaleBar() {
    Coordinate a = new Coordinate(-10.2, 57.9);
    Coordinate b = new Coordinate(-10.1, 57.95);
    RoundPicture.Drawn d = draw(List.of(a, b));
    List<double[]> at = circles(d.svg());
    double px = Math.hypot(at.get(1)[0] - at.get(0)[0], at.get(1)[1] - at.get(0)[1]);
    assertThat(px * d.barM() / d.barPx())
        .isCloseTo(Geodesy.distanceM(a, b), org.assertj.core.data.Percentage.withPercentage(0.5));
    assertThat(at.get(1)[0]).isGreaterThan(at.get(0)[0]);
    assertThat(at.get(1)[1]).isLessThan(at.get(0)[1]);
    for (double[] c : at) {
      assertThat(c[0]).isBetween(20.0, 580.0);
      assertThat(c[1]).isBetween(20.0, 380.0);
    }
  }

  /** A stop without a place keeps its number; over the date line nothing is torn apart. */
  @Test
  void numbersStayAndTheDateLineIsNone() {
    RoundPicture.Drawn d =
        draw(Arrays.asList(new Coordinate(179.99, -17), null, new Coordinate(-179.99, -17)));
    assertThat(d.svg()).contains(">1</text>").contains(">3</text>").doesNotContain(">2</text>");
    assertThat(d.barM()).isLessThan(5000);
  }

  @Test
  void anAreaIsDrawnWithoutStops() {
    var area =
        GeometryJson.parse(
                "{\"type\":\"Polygon\",\"coordinates\":[[[-10.2,57.9],[-10.1,57.9],[-10.1,57.95],[-10.2,57.9]]]}")
            .orElseThrow();
    assertThat(RoundPicture.draw(new RoundPicture.Of(List.of(), area, List.of()), 600, 400))
        .hasValueSatisfying(d -> assertThat(d.svg()).contains("stroke-dasharray"));
    assertThat(RoundPicture.draw(new RoundPicture.Of(List.of(), null, List.of()), 600, 400))
        .isEmpty();
    assertThat(
            RoundPicture.draw(
                new RoundPicture.Of(Arrays.asList((Coordinate) null), null, List.of()), 600, 400))
        .isEmpty();
  }
}
