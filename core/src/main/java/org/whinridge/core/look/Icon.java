package org.whinridge.core.look;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.text.Numbers;

/**
 * A small drawing for a point: paths in a square box, its middle on the feature, north up. Holds
 * nothing but path data and colours, so that none can carry a script or an outside reference.
 *
 * @param label the name that somebody gave it; "" for one that every look has
 * @param box the length of the box's side; paths run from 0 to this
 * @param parts drawn one over the other
 */
public record Icon(String label, double box, List<Part> parts) {
  /** The longest path, in characters. */
  public static final int LONGEST_PATH = 20_000;

  /** The most parts. */
  public static final int MOST_PARTS = 60;

  /** What a part is painted with. */
  public static final String OF_SYMBOL = "colour";

  public static final String OF_OUTLINE = "outline";
  public static final String NONE = "none";

  /**
   * One path.
   *
   * @param path SVG path data (SVG 1.1, clause 8.3)
   * @param fill {@link #OF_SYMBOL}, {@link #OF_OUTLINE}, {@link #NONE} or #rrggbb
   * @param stroke the same for its line
   * @param width of the line, in the box's units
   */
  public record Part(String path, String fill, String stroke, double width) {
    public Part {
      if (!isPath(path)) throw new IllegalArgumentException("not path data");
      if (!isPaint(fill) || !isPaint(stroke)) throw new IllegalArgumentException("not a paint");
      if (!(width >= 0 && width < 1e6)) throw new IllegalArgumentException("not a width");
    }
  }

  public Icon {
    if (!(box > 0 && box < 1e6)) throw new IllegalArgumentException("an icon needs a box");
    if (parts.size() > MOST_PARTS) throw new IllegalArgumentException("too many parts");
    parts = List.copyOf(parts);
  }

  /** Whether a text is path data: its letters, digits and signs alone, not too long. */
  public static boolean isPath(String s) {
    if (s.isEmpty() || s.length() > LONGEST_PATH || "Mm".indexOf(s.charAt(0)) < 0) return false;
    for (int i = 0; i < s.length(); i++)
      if ("MmLlHhVvCcSsQqTtAaZz0123456789.,-+eE \n\t".indexOf(s.charAt(i)) < 0) return false;
    return true;
  }

  private static boolean isPaint(String s) {
    return s.equals(OF_SYMBOL)
        || s.equals(OF_OUTLINE)
        || s.equals(NONE)
        || Colour.read(s).isPresent();
  }

  /**
   * The icon as an SVG element's content.
   *
   * @param colour for what takes the symbol's colour
   * @param outline for what takes the outline's; empty leaves it out
   * @param outlineWidth in the box's units, both sides together
   */
  String svg(String colour, String outline, double outlineWidth) {
    StringBuilder b = new StringBuilder();
    // all outlines lie below, so that none cuts into the part beside it
    if (!outline.isEmpty() && outlineWidth > 0)
      for (Part p : parts)
        if (p.fill.equals(OF_SYMBOL) || p.stroke.equals(OF_SYMBOL))
          path(
              b,
              p.path,
              NONE,
              outline,
              p.stroke.equals(NONE) ? outlineWidth : p.width + outlineWidth);
    for (Part p : parts)
      path(b, p.path, paint(p.fill, colour, outline), paint(p.stroke, colour, outline), p.width);
    return b.toString();
  }

  private static void path(StringBuilder b, String d, String fill, String stroke, double width) {
    b.append("<path d=\"").append(d).append("\" fill=\"").append(fill).append('"');
    if (!stroke.equals(NONE) && width > 0)
      b.append(" stroke=\"")
          .append(stroke)
          .append("\" stroke-width=\"")
          .append(Numbers.plain(Numbers.round(width, 3)))
          .append("\" stroke-linejoin=\"round\" stroke-linecap=\"round\"");
    b.append("/>");
  }

  private static String paint(String paint, String colour, String outline) {
    if (paint.equals(OF_SYMBOL)) return colour;
    if (paint.equals(OF_OUTLINE)) return outline.isEmpty() ? NONE : outline;
    return paint;
  }

  /** The JSON form. */
  public JsonObject json() {
    JsonArray ps = new JsonArray();
    for (Part p : parts)
      ps.add(
          new JsonObject()
              .add("path", p.path)
              .add("fill", p.fill)
              .add("stroke", p.stroke)
              .add("width", p.width));
    return new JsonObject().add("label", label).add("box", box).add("parts", ps);
  }

  /** Reads the JSON form; empty when it is not one, or holds more than an icon may. */
  public static Optional<Icon> read(JsonValue v) {
    try {
      JsonObject o = v.asObject();
      List<Part> parts = new ArrayList<>();
      for (JsonValue p : o.get("parts").asArray())
        parts.add(
            new Part(
                p.asObject().getString("path", ""),
                p.asObject().getString("fill", OF_SYMBOL),
                p.asObject().getString("stroke", NONE),
                p.asObject().getDouble("width", 0)));
      return Optional.of(new Icon(o.getString("label", ""), o.getDouble("box", 0), parts));
    } catch (IllegalArgumentException | UnsupportedOperationException | NullPointerException e) {
      return Optional.empty(); // whoever reads the look tells that the icon is not one
    }
  }
}
