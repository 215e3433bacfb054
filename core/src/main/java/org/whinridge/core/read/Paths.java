package org.whinridge.core.read;

/** Takes the parts of a geometry as bare coordinates. The arrays are used again after each call. */
public interface Paths {
  /** What a part is. */
  enum Part {
    POINT,
    LINE,
    /** The outside of a polygon; its holes follow. */
    SHELL,
    HOLE
  }

  /**
   * One part.
   *
   * @param xs longitudes in degrees; only the first {@code n} count
   * @param ys latitudes in degrees
   */
  void part(Part what, double[] xs, double[] ys, int n);
}
