package org.whinridge.core.look;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.List;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.text.Numbers;

/**
 * The instructions by which everybody draws a look: for maps as JSON ({@link #plan}), for legends,
 * cards and documents as SVG. A mark's picture is the same SVG text in both.
 */
public final class Drawing {
  /** The width of a legend's symbol in pixels. */
  public static final int LEGEND_WIDTH = 40;

  private static final Icon DISC = Icons.of("disc").orElseThrow();

  /** An arrow head along a line to the right, for a line of one pixel; grows with the width. */
  static final String TICK = "M-1.6 -2.6L2.2 0L-1.6 2.6";

  private Drawing() {}

  static String px(double d) {
    return Numbers.plain(Numbers.round(d, 2));
  }

  /** A mark around the origin at a size, upright. */
  static String mark(Look look, Symbol.Mark m, double size) {
    Icon icon = look.icon(m.icon()).orElse(DISC);
    double scale = size / icon.box();
    return "<g transform=\"scale("
        + Numbers.plain(Numbers.round(scale, 4))
        + ") translate("
        + px(-icon.box() / 2)
        + " "
        + px(-icon.box() / 2)
        + ")\">"
        + icon.svg(m.colour(), m.outline(), scale == 0 ? 0 : 2 * m.outlineWidth() / scale)
        + "</g>";
  }

  /** A picture of a square around the origin. */
  private static String picture(double side, String body) {
    String half = px(-side / 2);
    String whole = px(side);
    return "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"%s\" height=\"%s\" viewBox=\"%h %h %s %s\">"
            .replace("%s", whole)
            .replace("%h", half)
        + body
        + "</svg>";
  }

  /** A mark as a picture of its own, for maps; {@code side} pixels wide, the mark in its middle. */
  public static String markPicture(Look look, Symbol.Mark m, double size, double side) {
    return picture(side, mark(look, m, size));
  }

  /** The arrow head of a line. */
  static String tick(Symbol.Stroke s, double width) {
    return "<path d=\""
        + TICK
        + "\" transform=\"scale("
        + px(Math.max(1.6, width))
        + ")\" fill=\"none\" stroke=\""
        + s.colour()
        + "\" stroke-width=\"0.8\"/>";
  }

  /** The arrow head of a line as a picture of its own, pointing to the right. */
  public static String tickPicture(Symbol.Stroke s, double width) {
    return picture(8 * Math.max(1.6, width), tick(s, width));
  }

  /** The largest size that a size can take. */
  public static double largest(Size s) {
    return s.varies() ? Math.max(s.px(), Math.max(s.small(), s.large())) : s.px();
  }

  /** The instructions for a map: entries with what is drawn, in the order of the legend. */
  public static JsonObject plan(ReadyLook ready) {
    Look look = ready.look();
    JsonArray entries = new JsonArray();
    for (LookClass c : ready.entries()) {
      JsonArray draws = new JsonArray();
      for (Symbol s : c.stack())
        if (s.suits(ready.schema().kind())) draws.add(instruction(ready, s));
      entries.add(
          new JsonObject()
              .add("label", c.label())
              .add("draws", draws)
              .add("symbol", legend(look, c.stack(), ready.schema().kind()))
              .add(
                  "preset",
                  ready
                      .schema()
                      .writeValues(
                          c.presetValues(
                              ready.schema(), look.by() == Look.By.CODE ? look.field() : ""))));
    }
    return new JsonObject()
        .add("by", look.by().id())
        .add("kind", ready.schema().kind().id())
        .add("entries", entries)
        .add("labelPx", look.label().px())
        .add("labelFarthest", look.label().farthest())
        .add("nearest", look.nearest())
        .add("farthest", look.farthest());
  }

  private static JsonObject instruction(ReadyLook ready, Symbol s) {
    if (s instanceof Symbol.Mark m) {
      double size = largest(m.size());
      double side = size + 2 * m.outlineWidth() + 4;
      return new JsonObject()
          .add("draw", "mark")
          .add("svg", markPicture(ready.look(), m, size, side))
          .add("colour", m.colour())
          .add("size", size)
          .add("sizeBy", ready.sizes().indexOf(m.size()))
          .add("turnBy", ready.turns().indexOf(m.turnBy()))
          .add("opacity", m.opacity());
    }
    if (s instanceof Symbol.Stroke l) {
      JsonObject o =
          new JsonObject()
              .add("draw", "line")
              .add("colour", l.colour())
              .add("width", largest(l.width()))
              .add("widthBy", ready.sizes().indexOf(l.width()))
              .add("dash", Json.array(l.dash().px(largest(l.width()))))
              .add("opacity", l.opacity());
      if (l.ticks()) {
        o.add("tick", tickPicture(l, largest(l.width())));
      }
      return o;
    }
    Symbol.Area a = (Symbol.Area) s;
    return new JsonObject()
        .add("draw", "area")
        .add("colour", a.colour())
        .add("opacity", a.opacity())
        .add("hatch", a.hatch().path())
        .add("hatchColour", a.hatchColour())
        .add("hatchWidth", a.hatchWidth())
        .add("tile", Symbol.Hatch.TILE);
  }

  /** The height of a stack's legend symbol in pixels. */
  static int legendHeight(List<Symbol> stack) {
    double most = 20;
    for (Symbol s : stack)
      if (s instanceof Symbol.Mark m)
        most = Math.max(most, largest(m.size()) + 2 * m.outlineWidth());
    return (int) Math.ceil(Math.min(60, most + 4));
  }

  /** A stack as the symbol of a legend: an SVG picture. */
  public static String legend(Look look, List<Symbol> stack, GeometryKind kind) {
    int h = legendHeight(stack);
    double y = h / 2.0;
    Svg svg = new Svg(look);
    for (Symbol s : stack) {
      if (!s.suits(kind)) continue;
      if (s instanceof Symbol.Mark m) svg.mark(m, LEGEND_WIDTH / 2.0, y, largest(m.size()), 0);
      else if (kind == GeometryKind.LINE)
        svg.line(
            (Symbol.Stroke) s,
            "M3 " + px(y) + "H37",
            largest(((Symbol.Stroke) s).width()),
            List.of(new double[] {20, y, 0}));
      else {
        String box = "M3 3H37V" + (h - 3) + "H3Z";
        if (s instanceof Symbol.Area a) svg.area(a, box);
        else svg.line((Symbol.Stroke) s, box, largest(((Symbol.Stroke) s).width()), List.of());
      }
    }
    return svg.picture(LEGEND_WIDTH, h, "");
  }
}
