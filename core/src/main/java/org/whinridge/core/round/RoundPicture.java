package org.whinridge.core.round;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Lineal;
import org.locationtech.jts.geom.Polygonal;
import org.whinridge.core.place.LocalPlane;
import org.whinridge.core.text.Numbers;

/**
 * A round as a picture to be printed: the ground, the way through the stops as a line, each stop
 * with its number. North is up, on the plane around the middle of it all.
 */
public final class RoundPicture {
  /** Beyond so many stops each is a dot without its number, since numbers would hide each other. */
  private static final int MOST_NUMBERED = 150;

  private static final double MARGIN = 24;
  private static final double LEAST_M = 200;
  private static final double[] STEPS = {1, 2, 5};

  /** A shape of the ground, in degrees; what it is chooses how it is drawn. */
  public record Ground(String what, Geometry shape) {}

  /**
   * What is drawn.
   *
   * @param stops in their order, in degrees; null for one without a place, which keeps its number
   * @param area where more may be visited, in degrees; null for none
   */
  public record Of(List<Coordinate> stops, Geometry area, List<Ground> ground) {}

  /**
   * The picture, and its scale bar.
   *
   * @param svg an SVG document
   * @param barM how many metres its scale bar is long
   * @param barPx how long it is drawn
   */
  public record Drawn(String svg, double barM, double barPx) {}

  private final Of of;
  private final double width;
  private final double height;
  private final LocalPlane plane;
  private final double perMetre;
  private final Envelope box = new Envelope();
  private final StringBuilder out = new StringBuilder(8192);

  private RoundPicture(Of of, double width, double height) {
    this.of = of;
    this.width = width;
    this.height = height;
    Coordinate first = middle();
    plane = new LocalPlane(first);
    for (Coordinate c : places()) box.expandToInclude(plane.flat(c.x, c.y));
    double least = LEAST_M / 2;
    Coordinate centre = box.centre();
    box.expandToInclude(centre.x - least, centre.y - least);
    box.expandToInclude(centre.x + least, centre.y + least);
    perMetre =
        Math.min((width - 2 * MARGIN) / box.getWidth(), (height - 2 * MARGIN) / box.getHeight());
  }

  /**
   * Draws it, so many pixels wide and high; empty when nothing of it has a place.
   *
   * @throws IllegalArgumentException for a size below 100 pixels
   */
  public static java.util.Optional<Drawn> draw(Of of, double width, double height) {
    if (width < 100 || height < 100) throw new IllegalArgumentException("too small to be drawn");
    if (of.stops.stream().allMatch(java.util.Objects::isNull) && of.area == null)
      return java.util.Optional.empty();
    return java.util.Optional.of(new RoundPicture(of, width, height).drawn());
  }

  /** A spot near the middle, whichever side of 180 degrees the rest is. */
  private Coordinate middle() {
    Coordinate first = places().get(0);
    LocalPlane around = new LocalPlane(first);
    Envelope e = new Envelope();
    for (Coordinate c : places()) e.expandToInclude(around.flat(c.x, c.y));
    // a place in the middle of them, as good as any: the nearest to the centre of their box
    Coordinate best = first;
    for (Coordinate c : places())
      if (around.flat(c.x, c.y).distance(e.centre())
          < around.flat(best.x, best.y).distance(e.centre())) best = c;
    return best;
  }

  private List<Coordinate> places() {
    List<Coordinate> all = new ArrayList<>();
    for (Coordinate c : of.stops) if (c != null) all.add(c);
    if (of.area != null) all.addAll(List.of(of.area.getCoordinates()));
    return all;
  }

  private Drawn drawn() {
    out.append("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"").append(px(width));
    out.append("\" height=\"").append(px(height)).append("\" viewBox=\"0 0 ");
    out.append(px(width)).append(' ').append(px(height)).append("\">");
    out.append("<rect width=\"100%\" height=\"100%\" fill=\"#fff\"/>");
    of.ground.forEach(this::ground);
    if (of.area != null)
      path(of.area, "fill=\"none\" stroke=\"#1f2a30\" stroke-width=\"2\" stroke-dasharray=\"3 5\"");
    way();
    stops();
    double barM = bar();
    double barPx = barM * perMetre;
    double y = height - 10;
    out.append("<path d=\"M10 ").append(px(y - 6)).append("v6h").append(px(barPx));
    out.append("v-6\" fill=\"none\" stroke=\"#1f2a30\" stroke-width=\"1.5\"/></svg>");
    return new Drawn(out.toString(), barM, barPx);
  }

  /** A round length that takes about a fifth of the width. */
  private double bar() {
    double most = width / 5 / perMetre;
    double ten = Math.pow(10, Math.floor(Math.log10(most)));
    double best = ten;
    for (double s : STEPS) if (s * ten <= most) best = s * ten;
    return best;
  }

  private Coordinate at(Coordinate degrees) {
    Coordinate m = plane.flat(degrees.x, degrees.y);
    Coordinate c = box.centre();
    return new Coordinate(width / 2 + (m.x - c.x) * perMetre, height / 2 - (m.y - c.y) * perMetre);
  }

  private void ground(Ground g) {
    if (g.shape instanceof Polygonal) {
      String fill =
          g.what.equals("land") ? "#f7f5ee" : g.what.equals("building") ? "#d8d2c4" : "none";
      path(g.shape, "fill=\"" + fill + "\" stroke=\"#b5b5ad\" stroke-width=\"0.8\"");
    } else if (g.shape instanceof Lineal) {
      boolean water = g.what.contains("drain");
      path(
          g.shape,
          "fill=\"none\" stroke=\""
              + (water ? "#7f9fb0" : "#b5b5ad")
              + "\" stroke-width=\""
              + (g.what.equals("road") ? "2.2" : "1.2")
              + "\"");
    }
  }

  /** A shape, as far as it is on the picture. */
  private void path(Geometry g, String look) {
    StringBuilder d = new StringBuilder();
    for (int i = 0; i < g.getNumGeometries(); i++) {
      Geometry part = g.getGeometryN(i);
      if (part instanceof org.locationtech.jts.geom.Polygon p) {
        ring(p.getExteriorRing().getCoordinates(), d);
        for (int h = 0; h < p.getNumInteriorRing(); h++)
          ring(p.getInteriorRingN(h).getCoordinates(), d);
      } else line(part.getCoordinates(), d);
    }
    if (d.length() > 0)
      out.append("<path d=\"")
          .append(d)
          .append("\" fill-rule=\"evenodd\" ")
          .append(look)
          .append("/>");
  }

  private void ring(Coordinate[] all, StringBuilder d) {
    int before = d.length();
    line(all, d);
    if (d.length() > before) d.append('Z');
  }

  private void line(Coordinate[] all, StringBuilder d) {
    Envelope seen = new Envelope(-width, 2 * width, -height, 2 * height);
    Coordinate[] on = new Coordinate[all.length];
    for (int i = 0; i < all.length; i++) on[i] = at(all[i]);
    Envelope e = new Envelope();
    for (Coordinate c : on) e.expandToInclude(c);
    if (!seen.intersects(e)) return;
    for (int i = 0; i < on.length; i++)
      d.append(i == 0 ? 'M' : 'L').append(px(on[i].x)).append(' ').append(px(on[i].y));
  }

  private void way() {
    List<Coordinate> all = new ArrayList<>();
    for (Coordinate c : of.stops) if (c != null) all.add(c);
    if (all.size() < 2) return;
    path(
        new GeometryFactory().createLineString(all.toArray(Coordinate[]::new)),
        "fill=\"none\" stroke=\"#6a3d7c\" stroke-width=\"1.2\" stroke-dasharray=\"2 4\"");
  }

  private void stops() {
    boolean numbered = of.stops.size() <= MOST_NUMBERED;
    for (int i = 0; i < of.stops.size(); i++) {
      if (of.stops.get(i) == null) continue;
      Coordinate c = at(of.stops.get(i));
      out.append("<circle cx=\"").append(px(c.x)).append("\" cy=\"").append(px(c.y));
      out.append(numbered ? "\" r=\"4\"" : "\" r=\"2\"");
      out.append(" fill=\"#fff\" stroke=\"#6a3d7c\" stroke-width=\"1.6\"/>");
      if (!numbered) continue;
      out.append("<text x=\"").append(px(c.x + 6)).append("\" y=\"").append(px(c.y - 5));
      out.append("\" font-size=\"11\" font-weight=\"600\" fill=\"#1f2a30\" stroke=\"#fff\"");
      out.append(" stroke-width=\"3\" paint-order=\"stroke\">").append(i + 1).append("</text>");
    }
  }

  private static String px(double d) {
    return Numbers.plain(Numbers.round(d, 1));
  }
}
