package org.whinridge.app.layer;

import java.util.List;
import java.util.Locale;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.GeometryKind;

/** A layer drawn small from its real geometry, for its card. */
final class LayerShape {
  private static final double WIDTH = 360;
  private static final double HEIGHT = 120;
  private static final double MARGIN = 10;

  private LayerShape() {}

  /**
   * An SVG picture of some features; east and north are scaled alike at the extent's middle
   * latitude.
   */
  static String svg(Layer layer, List<Feature> some) {
    StringBuilder d = new StringBuilder();
    Envelope e = layer.extent().orElse(new Envelope());
    double squeeze = e.isNull() ? 1 : Math.cos(Math.toRadians(e.centre().y));
    double scale =
        Math.min(
            (WIDTH - 2 * MARGIN) / Math.max(1e-9, e.getWidth() * squeeze),
            (HEIGHT - 2 * MARGIN) / Math.max(1e-9, e.getHeight()));
    for (Feature f : some)
      f.geometry().ifPresent(g -> path(g, e.centre(), scale, squeeze, layer.schema().kind(), d));
    boolean area = layer.schema().kind() == GeometryKind.POLYGON;
    return "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 360 120\"><rect width=\"360\" height=\"120\" fill=\"#f5f3ea\"/><path d=\""
        + d
        + "\" fill=\""
        + (area ? "#e0dfd2" : "none")
        + "\" stroke=\"#3c4f5a\" stroke-width=\""
        + (layer.schema().kind() == GeometryKind.POINT ? "3.4" : "1.2")
        + "\" stroke-linecap=\"round\" stroke-linejoin=\"round\"/></svg>";
  }

  private static void path(
      Geometry g,
      Coordinate middle,
      double scale,
      double squeeze,
      GeometryKind kind,
      StringBuilder d) {
    for (int i = 0; i < g.getNumGeometries(); i++) {
      Coordinate[] cs = g.getGeometryN(i).getCoordinates();
      int step = Math.max(1, cs.length / 80);
      for (int k = 0; k < cs.length; k += step) {
        double x = WIDTH / 2 + (cs[k].x - middle.x) * squeeze * scale;
        double y = HEIGHT / 2 - (cs[k].y - middle.y) * scale;
        d.append(k == 0 ? 'M' : 'L').append(String.format(Locale.ROOT, "%.1f %.1f", x, y));
      }
      if (kind == GeometryKind.POINT) d.append("h0");
      if (kind == GeometryKind.POLYGON) d.append('z');
    }
  }
}
