package org.whinridge.app.round;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.whinridge.core.travel.PackPart;

/**
 * How large a pack is, and of what.
 *
 * @param bytes in all
 */
public record PackSize(long bytes, List<Of> parts) {
  /**
   * What is told of some of it.
   *
   * @param name of the layer, form or basemap; "" for none
   * @param n how many things there are in it; 0 for what is not counted
   * @param of how many there are at the office; 0 for what is not told
   * @param cut whether more lies around than is taken along
   */
  public record Of(PackPart part, String name, long bytes, int n, int of, boolean cut) {
    /** What is not counted. */
    public static Of one(PackPart part, String name, long bytes) {
      return new Of(part, name, bytes, 0, 0, false);
    }

    private Of and(Of more) {
      return new Of(
          part, name, bytes + more.bytes, n + more.n, Math.max(of, more.of), cut || more.cut);
    }
  }

  /** What is of one kind and name is told as one. */
  public static List<Of> together(List<Of> all) {
    Map<List<Object>, Of> out = new LinkedHashMap<>();
    for (Of o : all) out.merge(List.of(o.part, o.name), o, Of::and);
    return List.copyOf(out.values());
  }
}
