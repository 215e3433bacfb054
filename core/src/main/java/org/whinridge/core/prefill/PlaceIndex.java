package org.whinridge.core.prefill;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygonal;
import org.locationtech.jts.geom.prep.PreparedGeometry;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;
import org.locationtech.jts.index.strtree.STRtree;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;

/**
 * A layer made ready for place look-ups: an STR tree over envelopes, geometries prepared on their
 * first use.
 */
public final class PlaceIndex {
  private static final class Entry {
    final Feature feature;
    PreparedGeometry prepared;
    double areaM2 = -1;

    Entry(Feature feature) {
      this.feature = feature;
    }

    Geometry geometry() {
      return feature.geometry().orElseThrow();
    }

    boolean covers(Point p) {
      if (prepared == null) prepared = PreparedGeometryFactory.prepare(geometry());
      return prepared.covers(p);
    }

    double areaM2() {
      if (areaM2 < 0) areaM2 = Geodesy.areaM2(geometry());
      return areaM2;
    }
  }

  private final STRtree tree = new STRtree();
  private final int size;

  /**
   * An index over the polygons among the features; the others are of no use here and are left out.
   */
  public PlaceIndex(List<Feature> features) {
    int n = 0;
    for (Feature f : features)
      if (f.geometry().filter(g -> g instanceof Polygonal && !g.isEmpty()).isPresent()) {
        tree.insert(f.geometry().get().getEnvelopeInternal(), new Entry(f));
        n++;
      }
    size = n;
    if (n > 0) tree.build();
  }

  /** How many polygons it holds. */
  public int size() {
    return size;
  }

  /**
   * The value of {@code field} in the polygon that holds the position. The boundary counts as
   * inside; of several polygons the one with the smallest geodesic area answers, of equal areas the
   * one with the smaller id.
   */
  public LookupResult containing(Coordinate position, String field) {
    if (size == 0) return new LookupResult.NoMatch();
    Point p = GeometryJson.WGS84.createPoint(position);
    List<Entry> hits = new ArrayList<>(2);
    for (Object o : tree.query(new Envelope(position)))
      if (((Entry) o).covers(p)) hits.add((Entry) o);
    if (hits.isEmpty()) return new LookupResult.NoMatch();
    if (hits.size() > 1)
      hits.sort(Comparator.comparingDouble(Entry::areaM2).thenComparing(e -> e.feature.id()));
    Feature f = hits.get(0).feature;
    return new LookupResult.Found(f.value(field), f.id(), f.version(), hits.size() > 1);
  }
}
