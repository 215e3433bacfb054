package org.whinridge.formats.source;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryCollection;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;

/** Geometries put together and taken apart by kind. */
public final class Shapes {
  private Shapes() {}

  /** Several geometries as one: multi-part when they are of one kind, else a collection. */
  public static Geometry together(List<Geometry> parts) {
    return GeometryJson.WGS84.buildGeometry(singles(parts));
  }

  private static List<Geometry> singles(List<Geometry> parts) {
    List<Geometry> out = new ArrayList<>();
    for (Geometry p : parts)
      if (p instanceof GeometryCollection c)
        for (int i = 0; i < c.getNumGeometries(); i++)
          out.addAll(singles(List.of(c.getGeometryN(i))));
      else if (!p.isEmpty()) out.add(p);
    return out;
  }

  /** A geometry by the kinds it has; one entry unless it is a collection of several kinds. */
  public static Map<GeometryKind, Geometry> byKind(Geometry g) {
    Map<GeometryKind, Geometry> out = new EnumMap<>(GeometryKind.class);
    if (GeometryKind.of(g).isPresent()) {
      out.put(GeometryKind.of(g).get(), g);
      return out;
    }
    Map<GeometryKind, List<Geometry>> parts = new EnumMap<>(GeometryKind.class);
    for (Geometry p : singles(List.of(g)))
      GeometryKind.of(p).ifPresent(k -> parts.computeIfAbsent(k, x -> new ArrayList<>()).add(p));
    parts.forEach((k, list) -> out.put(k, GeometryJson.WGS84.buildGeometry(list)));
    return out;
  }

  /** A feature's geometry by the kinds it has, those left out whose coordinates are no numbers. */
  public static Map<GeometryKind, Geometry> usable(Optional<Geometry> g) {
    Map<GeometryKind, Geometry> out = g.map(Shapes::byKind).orElse(Map.of());
    for (Geometry x : out.values())
      if (!Double.isFinite(
          x.getEnvelopeInternal().getWidth() + x.getEnvelopeInternal().getHeight()))
        return Map.of();
    return out;
  }
}
