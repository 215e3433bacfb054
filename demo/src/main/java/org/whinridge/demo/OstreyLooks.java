package org.whinridge.demo;

import com.eclipsesource.json.Json;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.whinridge.core.look.Breaks;
import org.whinridge.core.look.Colour;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.LookClass;
import org.whinridge.core.look.Ramp;
import org.whinridge.core.look.Size;
import org.whinridge.core.look.Symbol;

/** How the demo's layers are drawn: what is worst stands out, the rest stays calm. */
public final class OstreyLooks {
  private static final String INK = "#1f2a30";
  private static final String PAPER = "#fbf9f3";

  private OstreyLooks() {}

  private static Symbol.Stroke line(String colour, double width) {
    return new Symbol.Stroke(colour, Size.of(width), Symbol.Dash.SOLID, false, 1);
  }

  private static Look byCode(
      String field, String ramp, List<LookClass> classes, LookClass other, Look.Label label) {
    return new Look(
        Look.By.CODE,
        field,
        Breaks.Method.EQUAL,
        ramp,
        false,
        classes,
        other,
        label,
        0,
        0,
        Map.of());
  }

  /** Structures by kind, each turned to where its water goes. */
  public static Look structures() {
    String[][] kinds = {
      {"outfall", "Outfall", "outfall", "#1d4f78"},
      {"tide_flap", "Tide flap", "flap", "#2c8064"},
      {"sluice", "Sluice", "gate", "#6b3f1d"},
      {"penstock", "Penstock", "screw", "#4d2a66"},
      {"weir", "Weir", "weir", "#3c4f5a"},
      {"pump", "Pump", "pump", "#8a2f1f"}
    };
    List<LookClass> out = new ArrayList<>();
    for (String[] k : kinds)
      out.add(
          LookClass.ofCode(k[1], k[0], List.of(mark(k[2], k[3], 15, "bearing_deg")))
              .with(
                  k[0].equals("tide_flap")
                      ? Json.parse("{\"material\":\"Cast iron\",\"owner\":\"OLWB\"}").asObject()
                      : Json.parse("{\"owner\":\"OLWB\"}").asObject()));
    return byCode(
        "kind",
        "assorted",
        out,
        LookClass.plain("Kind not known", List.of(mark("disc", "#5c6a72", 11, ""))),
        new Look.Label("{tag}", 12, 9_000));
  }

  private static Symbol.Mark mark(String icon, String colour, double size, String turnBy) {
    return new Symbol.Mark(icon, colour, Size.of(size), PAPER, 1.6, turnBy, 1);
  }

  /** Banks and drains by condition: the worse, the wider and the darker. */
  public static Look lines() {
    double[] widths = {2, 2.4, 3, 5, 7.5};
    String[] labels = {"1 very good", "2 good", "3 fair", "4 poor", "5 very poor"};
    List<Colour> colours = Ramp.WORN.colours(5);
    List<LookClass> out = new ArrayList<>();
    for (int i = 0; i < 5; i++)
      out.add(
          LookClass.ofCode(
              labels[i],
              String.valueOf(i + 1),
              List.of(line(INK, widths[i] + 1.6), line(colours.get(i).hex(), widths[i]))));
    return byCode(
        "condition",
        "worn",
        out,
        LookClass.plain(
            "Never graded",
            List.of(new Symbol.Stroke("#6d7a80", Size.of(2), Symbol.Dash.DASHED, false, 1))),
        new Look.Label("{ref}", 12, 30_000));
  }

  /** Washlands by habitat. */
  public static Look washlands() {
    return byCode(
        "habitat",
        "assorted",
        List.of(
            habitat("Wet grassland", "WG", "#7fa65a", Symbol.Hatch.DOTS),
            habitat("Reedbed", "RB", "#c9a227", Symbol.Hatch.REEDS),
            habitat("Salt marsh", "SM", "#b685bd", Symbol.Hatch.LEVEL),
            habitat("Open water", "OW", "#4f93b8", Symbol.Hatch.WAVES),
            habitat("Carr and fen", "CF", "#2c8064", Symbol.Hatch.RISING)),
        LookClass.plain(
            "Habitat not known",
            Look.plainStack(org.whinridge.core.place.GeometryKind.POLYGON, "#5c6a72")),
        new Look.Label("{name}", 12, 40_000));
  }

  private static LookClass habitat(String label, String code, String colour, Symbol.Hatch hatch) {
    return LookClass.ofCode(
        label,
        code,
        List.of(
            new Symbol.Area(colour, 0.55, hatch, "#2f3d33", 1),
            new Symbol.Stroke("#2f3d33", Size.of(1.4), Symbol.Dash.SOLID, false, 1)));
  }

  /** Beats: no more than their edges and names. */
  public static Look beats() {
    return Look.one(
            List.of(new Symbol.Stroke("#6b3f1d", Size.of(2), Symbol.Dash.DASH_DOT, false, 0.8)))
        .with(new Look.Label("{beat}", 13, 0));
  }

  /** Soil units by soil. */
  public static Look soils() {
    String[][] soils = {
      {"PT", "Peat", "#6b4a2f"},
      {"CL", "Marine clay", "#7b93a3"},
      {"SL", "Silt loam", "#c2a878"},
      {"SD", "Blown sand", "#ecd98f"},
      {"TL", "Till", "#a8705a"}
    };
    List<LookClass> out = new ArrayList<>();
    for (String[] s : soils)
      out.add(
          LookClass.ofCode(
              s[1],
              s[0],
              List.of(
                  new Symbol.Area(s[2], 0.6, Symbol.Hatch.NONE, INK, 1),
                  new Symbol.Stroke("#4d3f33", Size.of(0.8), Symbol.Dash.SOLID, false, 0.9))));
    return byCode(
        "soil", "assorted", out, LookClass.plain("Soil not known", List.of()), Look.Label.NONE);
  }

  /** Marker posts, with their chainage when seen from near. */
  public static Look posts() {
    Look posts =
        Look.one(List.of(new Symbol.Mark("post", INK, Size.of(11), PAPER, 1, "", 1)))
            .with(new Look.Label("{chainage_m}", 11, 6_000));
    return new Look(
        posts.by(),
        "",
        posts.method(),
        "",
        false,
        List.of(),
        posts.other(),
        posts.label(),
        0,
        60_000,
        Map.of());
  }
}
