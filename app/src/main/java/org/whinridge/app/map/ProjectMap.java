package org.whinridge.app.map;

import java.util.List;

/**
 * The project's map: which layers are drawn, from the top down, and over what.
 *
 * @param basemap the id of a basemap
 * @param layers all layers of the project that can be drawn
 * @param revision counts how often it was saved
 */
public record ProjectMap(String basemap, List<Entry> layers, long revision) {
  /**
   * A layer on the map.
   *
   * @param id the layer's id
   * @param name its own name
   * @param shortName what the map's list calls it; "" for its own name
   * @param opacity 0 to 1
   */
  public record Entry(String id, String name, String shortName, boolean on, double opacity) {
    /** What people read. */
    public String said() {
      return shortName.isEmpty() ? name : shortName;
    }
  }
}
