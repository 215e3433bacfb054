package org.whinridge.core.look;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.read.Clock;

/**
 * Features drawn by a look as one SVG picture, for cards and documents. East and north are scaled
 * alike at the middle latitude.
 */
public final class Picture {
  private static final int MOST_POINTS_OF_A_LINE = 400;
  private final ReadyLook ready;
  private final double width;
  private final double height;
  private final double scale;
  private final double squeeze;
  private final Coordinate middle;
  private final double symbols;

  /**
   * A picture of an extent.
   *
   * @param extent degrees; empty for nothing
   * @param width pixels
   * @param height pixels
   * @param symbols the size of symbols and widths against those on the map: 1 for the same
   */
  public Picture(ReadyLook ready, Envelope extent, double width, double height, double symbols) {
    this.ready = ready;
    this.width = width;
    this.height = height;
    this.symbols = symbols;
    double margin = 10;
    middle = extent.isNull() ? new Coordinate() : extent.centre();
    squeeze = Math.cos(Math.toRadians(middle.y));
    scale =
        Math.min(
            (width - 2 * margin) / Math.max(1e-9, extent.getWidth() * squeeze),
            (height - 2 * margin) / Math.max(1e-9, extent.getHeight()));
  }

  /** The picture; features are drawn entry by entry, so that the legend's later ones are on top. */
  public String svg(List<Feature> features, Clock clock, String ground) {
    Svg svg = new Svg(ready.look());
    List<Drawn> drawn = new ArrayList<>();
    for (Feature f : features) drawn.add(ready.draw(f, clock));
    for (int e = -1; e < ready.other(); e++) {
      int entry = e < 0 ? ready.other() : e;
      for (int i = 0; i < features.size(); i++) {
        Drawn d = drawn.get(i);
        for (int c : d.entries())
          if (c == entry) features.get(i).geometry().ifPresent(g -> draw(svg, g, entry, d));
      }
    }
    return svg.picture(width, height, ground);
  }

  private void draw(Svg svg, Geometry g, int entry, Drawn d) {
    for (Symbol s : ready.entries().get(entry).stack()) {
      if (!s.suits(ready.schema().kind())) continue;
      if (s instanceof Symbol.Mark m)
        for (Coordinate c : anchors(g))
          svg.mark(m, x(c), y(c), symbols * size(m.size(), d), turn(m, d));
      else if (s instanceof Symbol.Area a) svg.area(a, path(g));
      else {
        Symbol.Stroke l = (Symbol.Stroke) s;
        svg.line(l, path(g), symbols * size(l.width(), d), ticks(g));
      }
    }
  }

  private double size(Size s, Drawn d) {
    return s.varies() ? d.sizes()[ready.sizes().indexOf(s)] : s.px();
  }

  private double turn(Symbol.Mark m, Drawn d) {
    int i = ready.turns().indexOf(m.turnBy());
    return i < 0 ? 0 : d.turns()[i];
  }

  private static List<Coordinate> anchors(Geometry g) {
    if (g.getDimension() == 0) return List.of(g.getCoordinates());
    return List.of(Geodesy.anchor(g.getNumGeometries() == 1 ? g.getGeometryN(0) : g));
  }

  private double x(Coordinate c) {
    return width / 2 + (c.x - middle.x) * squeeze * scale;
  }

  private double y(Coordinate c) {
    return height / 2 - (c.y - middle.y) * scale;
  }

  private String path(Geometry g) {
    StringBuilder b = new StringBuilder();
    for (int i = 0; i < g.getNumGeometries(); i++) {
      if (g.getGeometryN(i) instanceof LineString l) line(l, false, b);
      else if (g.getGeometryN(i) instanceof Polygon p) {
        line(p.getExteriorRing(), true, b);
        for (int k = 0; k < p.getNumInteriorRing(); k++) line(p.getInteriorRingN(k), true, b);
      }
    }
    return b.toString();
  }

  private void line(LineString l, boolean closed, StringBuilder b) {
    int step = Math.max(1, l.getNumPoints() / MOST_POINTS_OF_A_LINE);
    int last = l.getNumPoints() - 1;
    for (int k = 0; k <= last; k = k == last ? last + 1 : Math.min(last, k + step)) {
      Coordinate c = l.getCoordinateN(k);
      b.append(k == 0 ? 'M' : 'L').append(Drawing.px(x(c))).append(' ').append(Drawing.px(y(c)));
    }
    if (closed) b.append('Z');
  }

  /** One arrow head in the middle of each line. */
  private List<double[]> ticks(Geometry g) {
    List<double[]> out = new ArrayList<>();
    for (int i = 0; i < g.getNumGeometries(); i++)
      if (g.getGeometryN(i) instanceof LineString l && l.getNumPoints() > 1) {
        int k = Math.max(1, l.getNumPoints() / 2);
        Coordinate a = l.getCoordinateN(k - 1);
        Coordinate b = l.getCoordinateN(k);
        out.add(
            new double[] {
              (x(a) + x(b)) / 2,
              (y(a) + y(b)) / 2,
              Math.toDegrees(Math.atan2(y(b) - y(a), x(b) - x(a)))
            });
      }
    return out;
  }
}
