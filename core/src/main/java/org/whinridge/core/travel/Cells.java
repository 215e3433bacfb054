package org.whinridge.core.travel;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.whinridge.core.layer.Feature;

/**
 * Features packed into cells that lie close together, so that a device reads those around a place
 * and not thousands: sorted into slices from west to east, each from south to north (Sort-Tile-
 * Recursive, S. T. Leutenegger, M. A. Lopez, J. Edgington 1997).
 */
public final class Cells {
  private Cells() {}

  /** Features of one cell, and the box in degrees that holds them. */
  public record Cell(Envelope box, List<Feature> features) {}

  /**
   * The cells of features; those without a place are in none.
   *
   * @param most so many features in a cell, 1 or more
   */
  public static List<Cell> of(List<Feature> features, int most) {
    List<Feature> placed = new ArrayList<>();
    for (Feature f : features)
      if (f.geometry().isPresent() && !f.geometry().get().isEmpty()) placed.add(f);
    int cells = (placed.size() + most - 1) / most;
    int slices = (int) Math.ceil(Math.sqrt(cells));
    List<Cell> out = new ArrayList<>();
    if (cells == 0) return out;
    placed.sort(by(c -> c.x));
    int inSlice = slices == 0 ? 0 : most * ((cells + slices - 1) / slices);
    for (int from = 0; from < placed.size(); from += inSlice) {
      List<Feature> slice =
          new ArrayList<>(placed.subList(from, Math.min(placed.size(), from + inSlice)));
      slice.sort(by(c -> c.y));
      for (int i = 0; i < slice.size(); i += most)
        out.add(cell(List.copyOf(slice.subList(i, Math.min(slice.size(), i + most)))));
    }
    return out;
  }

  private static Comparator<Feature> by(java.util.function.ToDoubleFunction<Coordinate> what) {
    return Comparator.comparingDouble(
            (Feature f) ->
                what.applyAsDouble(f.geometry().orElseThrow().getEnvelopeInternal().centre()))
        .thenComparing(Feature::id);
  }

  private static Cell cell(List<Feature> features) {
    Envelope box = new Envelope();
    for (Feature f : features)
      box.expandToInclude(f.geometry().orElseThrow().getEnvelopeInternal());
    return new Cell(box, features);
  }
}
