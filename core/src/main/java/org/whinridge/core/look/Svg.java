package org.whinridge.core.look;

import java.util.List;
import org.whinridge.core.text.Numbers;

/** Collects what is drawn as SVG. Hatches are patterns, one for each that differs. */
final class Svg {
  private final Look look;
  private final StringBuilder body = new StringBuilder();
  private final StringBuilder patterns = new StringBuilder();
  private final java.util.Map<String, String> ids = new java.util.LinkedHashMap<>();

  Svg(Look look) {
    this.look = look;
  }

  /** A mark at a place, turned clockwise by degrees. */
  void mark(Symbol.Mark m, double x, double y, double size, double turn) {
    body.append("<g transform=\"translate(")
        .append(Drawing.px(x))
        .append(' ')
        .append(Drawing.px(y))
        .append(')');
    if (turn != 0) body.append(" rotate(").append(Drawing.px(turn)).append(')');
    body.append('"')
        .append(opacity(m.opacity()))
        .append('>')
        .append(Drawing.mark(look, m, size))
        .append("</g>");
  }

  /**
   * A line.
   *
   * @param ticks where arrow heads stand: x, y, degrees clockwise from the right
   */
  void line(Symbol.Stroke s, String path, double width, List<double[]> ticks) {
    body.append("<path d=\"").append(path).append("\" fill=\"none\" stroke=\"").append(s.colour());
    body.append("\" stroke-width=\"")
        .append(Drawing.px(width))
        .append("\" stroke-linejoin=\"round\"");
    body.append(" stroke-linecap=\"")
        .append(
            s.dash() == Symbol.Dash.DOTTED || s.dash() == Symbol.Dash.DASH_DOT ? "round" : "butt")
        .append('"');
    double[] dash = s.dash().px(width);
    if (dash.length > 0) {
      body.append(" stroke-dasharray=\"");
      for (int i = 0; i < dash.length; i++)
        body.append(i == 0 ? "" : " ").append(Drawing.px(dash[i]));
      body.append('"');
    }
    body.append(opacity(s.opacity())).append("/>");
    if (s.ticks())
      for (double[] t : ticks)
        body.append("<g transform=\"translate(")
            .append(Drawing.px(t[0]))
            .append(' ')
            .append(Drawing.px(t[1]))
            .append(") rotate(")
            .append(Drawing.px(t[2]))
            .append(")\"")
            .append(opacity(s.opacity()))
            .append('>')
            .append(Drawing.tick(s, width))
            .append("</g>");
  }

  /** An area; its opacity is that of the ground colour alone. */
  void area(Symbol.Area a, String path) {
    if (!a.colour().isEmpty())
      body.append("<path d=\"")
          .append(path)
          .append("\" fill=\"")
          .append(a.colour())
          .append("\" fill-rule=\"evenodd\"")
          .append(opacity(a.opacity()))
          .append("/>");
    if (a.hatch() != Symbol.Hatch.NONE)
      body.append("<path d=\"")
          .append(path)
          .append("\" fill=\"url(#")
          .append(pattern(a))
          .append(")\" fill-rule=\"evenodd\"/>");
  }

  private String pattern(Symbol.Area a) {
    String drawn =
        "<path d=\""
            + a.hatch().path()
            + "\" fill=\"none\" stroke=\""
            + a.hatchColour()
            + "\" stroke-width=\""
            + Drawing.px(a.hatchWidth())
            + "\" stroke-linecap=\"round\"/>";
    return ids.computeIfAbsent(
        drawn,
        d -> {
          // ids must differ between pictures that stand on one page
          String id =
              "h-"
                  + a.hatch().id()
                  + "-"
                  + a.hatchColour().substring(1)
                  + "-"
                  + Drawing.px(a.hatchWidth()).replace('.', '_');
          patterns
              .append("<pattern id=\"")
              .append(id)
              .append("\" patternUnits=\"userSpaceOnUse\" width=\"8\" height=\"8\">")
              .append(d)
              .append("</pattern>");
          return id;
        });
  }

  private static String opacity(double o) {
    return o >= 1 ? "" : " opacity=\"" + Numbers.plain(Numbers.round(o, 3)) + "\"";
  }

  /** Something else, written by the caller. */
  void add(String svg) {
    body.append(svg);
  }

  /**
   * The picture.
   *
   * @param ground the colour behind; "" for none
   */
  String picture(double width, double height, String ground) {
    return "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\""
        + Drawing.px(width)
        + "\" height=\""
        + Drawing.px(height)
        + "\" viewBox=\"0 0 "
        + Drawing.px(width)
        + " "
        + Drawing.px(height)
        + "\">"
        + (patterns.length() == 0 ? "" : "<defs>" + patterns + "</defs>")
        + (ground.isEmpty() ? "" : "<rect width=\"100%\" height=\"100%\" fill=\"" + ground + "\"/>")
        + body
        + "</svg>";
  }
}
