package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import net.sf.geographiclib.Geodesic;
import net.sf.geographiclib.PolygonArea;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;

/**
 * Areas of cells of the H3 grid (npm h3-js), which come with the library's own areas on a sphere of
 * 6,371,007.180918475 m. On that sphere GeographicLib agrees with them; on the ellipsoid Whinridge
 * agrees with GeographicLib, and differs from the sphere by less than one part in a hundred.
 */
class CellAreasTest {
  private static final double RADIUS_M = 6_371_007.180918475;

  private record Cell(double areaM2, Coordinate[] ring) {
    double area(Geodesic on) {
      PolygonArea a = new PolygonArea(on, false);
      for (int i = 0; i < ring.length - 1; i++) a.AddPoint(ring[i].y, ring[i].x);
      return Math.abs(a.Compute(false, true).area);
    }
  }

  @Test
  void areasOfCellsAgree() throws Exception {
    List<Cell> cells = cells();
    assertThat(cells).hasSizeGreaterThan(400);
    Geodesic sphere = new Geodesic(RADIUS_M, 0);
    for (Cell c : cells) {
      // H3 adds up spherical triangles; small ones lose digits
      assertThat(c.area(sphere) / c.areaM2).isCloseTo(1, within(1e-6));
      double ours = Geodesy.areaM2(GeometryJson.WGS84.createPolygon(c.ring));
      assertThat(ours / c.area(Geodesic.WGS84)).isCloseTo(1, within(1e-9));
      assertThat(ours / c.areaM2).isCloseTo(1, within(0.01));
    }
  }

  private static List<Cell> cells() throws Exception {
    Process p =
        new ProcessBuilder("node", "check/h3.mjs")
            .directory(Path.of("src/main/frontend").toFile())
            .redirectError(ProcessBuilder.Redirect.INHERIT)
            .start();
    String out = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(p.waitFor()).as("node's exit code").isZero();
    List<Cell> cells = new ArrayList<>();
    for (String line : out.lines().toList()) {
      String[] n = line.split(" ");
      Coordinate[] ring = new Coordinate[(n.length - 1) / 2 + 1];
      for (int i = 0; i < ring.length - 1; i++)
        ring[i] =
            new Coordinate(Double.parseDouble(n[1 + 2 * i]), Double.parseDouble(n[2 + 2 * i]));
      ring[ring.length - 1] = ring[0];
      cells.add(new Cell(Double.parseDouble(n[0]) * 1e6, ring));
    }
    return cells;
  }
}
