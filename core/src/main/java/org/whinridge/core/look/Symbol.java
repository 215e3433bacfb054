package org.whinridge.core.look;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.Optional;
import org.whinridge.core.place.GeometryKind;

/** One drawing of a stack of symbols. Colours are #rrggbb, sizes pixels, opacities 0 to 1. */
public sealed interface Symbol {
  /** How much it covers: 0 to 1. */
  double opacity();

  /** The fields whose values turn or size it. */
  default java.util.List<String> fields() {
    java.util.List<String> out = new java.util.ArrayList<>();
    if (this instanceof Mark m && !m.turnBy.isEmpty()) out.add(m.turnBy);
    if (this instanceof Mark m && m.size.varies()) out.add(m.size.field());
    if (this instanceof Stroke s && s.width.varies()) out.add(s.width.field());
    return out;
  }

  /**
   * An icon on a point, on the middle of a line or inside an area.
   *
   * @param icon an id of {@link Icons} or of the look's own icons
   * @param outline "" for none
   * @param outlineWidth pixels
   * @param turnBy the field with a bearing in degrees, clockwise from north; "" for none
   */
  record Mark(
      String icon,
      String colour,
      Size size,
      String outline,
      double outlineWidth,
      String turnBy,
      double opacity)
      implements Symbol {}

  /** How a line is broken up. */
  enum Dash {
    SOLID("solid"),
    DASHED("dashed", 3, 2),
    DOTTED("dotted", 0.1, 2),
    DASH_DOT("dash-dot", 4, 2, 0.1, 2);
    private final String id;
    private final double[] widths;

    Dash(String id, double... widths) {
      this.id = id;
      this.widths = widths;
    }

    /** The word in data. */
    public String id() {
      return id;
    }

    /** Lengths on and off in pixels for a line's width; dots are round ends of no length. */
    public double[] px(double width) {
      double[] out = new double[widths.length];
      for (int i = 0; i < out.length; i++) out[i] = widths[i] * Math.max(1.5, width);
      return out;
    }

    static Dash of(String id) {
      for (Dash d : values()) if (d.id.equals(id)) return d;
      return SOLID;
    }
  }

  /**
   * A line, or the edge of an area.
   *
   * @param ticks whether small arrow heads show the direction in which it was drawn
   */
  record Stroke(String colour, Size width, Dash dash, boolean ticks, double opacity)
      implements Symbol {}

  /** The lines in an area's fill. */
  enum Hatch {
    NONE("none", ""),
    RISING("rising", "M-2 10L10 -2M-2 2L2 -2M6 10L10 6"),
    FALLING("falling", "M-2 -2L10 10M-2 6L2 10M6 -2L10 2"),
    CROSSED("crossed", "M-2 10L10 -2M-2 2L2 -2M6 10L10 6M-2 -2L10 10M-2 6L2 10M6 -2L10 2"),
    LEVEL("level", "M-1 4H9"),
    DOTS("dots", "M1.4 2H2.6M5.4 6H6.6"),
    REEDS("reeds", "M2 7V2.5M0.7 5L2 7L3.3 5M6 3.2V-1M6 11.2V7M4.7 1.2L6 3.2L7.3 1.2"),
    WAVES("waves", "M-2 4C-0.5 2.4 0.5 2.4 2 4S4.5 5.6 6 4S8.5 2.4 10 4");
    private final String id;
    private final String path;

    Hatch(String id, String path) {
      this.id = id;
      this.path = path;
    }

    /** The word in data. */
    public String id() {
      return id;
    }

    /** SVG path data in a tile of {@link #TILE} by {@link #TILE}, which repeats. */
    public String path() {
      return path;
    }

    /** The side of the tile in pixels. */
    public static final int TILE = 8;

    static Hatch of(String id) {
      for (Hatch h : values()) if (h.id.equals(id)) return h;
      return NONE;
    }
  }

  /**
   * An area.
   *
   * @param colour "" for no ground colour
   * @param hatchColour the colour of the hatch, {@code hatchWidth} pixels wide
   */
  record Area(String colour, double opacity, Hatch hatch, String hatchColour, double hatchWidth)
      implements Symbol {}

  /** The JSON form. */
  default JsonObject json() {
    if (this instanceof Mark m)
      return new JsonObject()
          .add("draw", "mark")
          .add("icon", m.icon)
          .add("colour", m.colour)
          .add("size", m.size.json())
          .add("outline", m.outline)
          .add("outlineWidth", m.outlineWidth)
          .add("turnBy", m.turnBy)
          .add("opacity", m.opacity);
    if (this instanceof Stroke s)
      return new JsonObject()
          .add("draw", "line")
          .add("colour", s.colour)
          .add("width", s.width.json())
          .add("dash", s.dash.id)
          .add("ticks", s.ticks)
          .add("opacity", s.opacity);
    Area a = (Area) this;
    return new JsonObject()
        .add("draw", "area")
        .add("colour", a.colour)
        .add("opacity", a.opacity)
        .add("hatch", a.hatch.id)
        .add("hatchColour", a.hatchColour)
        .add("hatchWidth", a.hatchWidth);
  }

  /** Reads the JSON form; what is missing or wrong is as usual. Empty for an unknown drawing. */
  static Optional<Symbol> read(JsonValue v) {
    if (!v.isObject()) return Optional.empty();
    JsonObject o = v.asObject();
    double opacity = Math.max(0, Math.min(1, Members.number(o, "opacity", 1)));
    return switch (Members.text(o, "draw", "")) {
      case "mark" ->
          Optional.of(
              new Mark(
                  Members.text(o, "icon", "disc"),
                  Members.colour(o, "colour", SLATE),
                  Size.read(o.get("size"), 12),
                  Members.colour(o, "outline", ""),
                  width(o, "outlineWidth", 1.2, 12),
                  Members.text(o, "turnBy", ""),
                  opacity));
      case "line" ->
          Optional.of(
              new Stroke(
                  Members.colour(o, "colour", SLATE),
                  Size.read(o.get("width"), 2),
                  Dash.of(Members.text(o, "dash", "")),
                  Members.yes(o, "ticks", false),
                  opacity));
      case "area" ->
          Optional.of(
              new Area(
                  Members.colour(o, "colour", ""),
                  opacity,
                  Hatch.of(Members.text(o, "hatch", "")),
                  Members.colour(o, "hatchColour", SLATE),
                  width(o, "hatchWidth", 1.2, 4)));
      default -> Optional.empty();
    };
  }

  private static double width(JsonObject o, String name, double otherwise, double most) {
    return Math.max(0, Math.min(most, Members.number(o, name, otherwise)));
  }

  /** The colour of what has none chosen. */
  String SLATE = "#3c4f5a";

  /** Whether it can be seen on features of a kind. */
  default boolean suits(GeometryKind kind) {
    return this instanceof Mark
        || kind == GeometryKind.POLYGON
        || kind == GeometryKind.LINE && this instanceof Stroke;
  }
}
