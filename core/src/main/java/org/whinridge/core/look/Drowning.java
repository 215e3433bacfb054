package org.whinridge.core.look;

import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;

/** Finds legend entries that can't be told from the basemap behind them. */
public final class Drowning {
  /** The least contrast of graphics that are needed. Source: WCAG 2.2, success criterion 1.4.11. */
  public static final double LEAST = 3;

  private Drowning() {}

  /**
   * Entries of which no symbol has enough contrast to some of the basemap's colours; entries that
   * draw nothing are left out.
   */
  public static List<LookProblem> of(ReadyLook ready, List<Colour> ground) {
    List<LookProblem> out = new ArrayList<>();
    for (int i = 0; i < ready.entries().size(); i++) {
      List<Symbol> stack = ready.entries().get(i).stack();
      double worst = Double.POSITIVE_INFINITY;
      for (Colour g : ground) worst = Math.min(worst, best(stack, ready.schema().kind(), g));
      if (worst < LEAST && !stack.isEmpty())
        out.add(
            LookProblem.about(
                i,
                Said.of(
                    "lookProblem.drowns",
                    "entry",
                    said(ready, i),
                    "contrast",
                    Numbers.fixed(worst, 1),
                    "least",
                    LEAST)));
    }
    return out;
  }

  private static Said said(ReadyLook ready, int i) {
    String label = ready.entries().get(i).label();
    if (!label.isEmpty()) return Said.text(label);
    return Said.of(ready.look().by() == Look.By.ONE ? "map.allFeatures" : "map.everythingElse");
  }

  private static double best(List<Symbol> stack, GeometryKind kind, Colour ground) {
    double best = 1;
    for (Symbol s : stack) {
      if (!s.suits(kind)) continue;
      if (s instanceof Symbol.Mark m) {
        best = Math.max(best, over(m.colour(), m.opacity(), ground));
        if (m.outlineWidth() > 0) best = Math.max(best, over(m.outline(), m.opacity(), ground));
      } else if (s instanceof Symbol.Stroke l)
        best = Math.max(best, over(l.colour(), l.opacity(), ground));
      else {
        Symbol.Area a = (Symbol.Area) s;
        best = Math.max(best, over(a.colour(), a.opacity(), ground));
        if (a.hatch() != Symbol.Hatch.NONE) best = Math.max(best, over(a.hatchColour(), 1, ground));
      }
    }
    return best;
  }

  /** The contrast of a colour that lets the ground through. */
  private static double over(String hex, double opacity, Colour g) {
    return Colour.read(hex)
        .map(
            c ->
                Colour.contrast(
                    new Colour(
                        mix(c.red(), g.red(), opacity),
                        mix(c.green(), g.green(), opacity),
                        mix(c.blue(), g.blue(), opacity)),
                    g))
        .orElse(1.0);
  }

  private static int mix(int over, int under, double opacity) {
    return (int) Math.floor(over * opacity + under * (1 - opacity) + 0.5);
  }
}
