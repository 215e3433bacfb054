package org.whinridge.core.prefill;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygonal;
import org.locationtech.jts.geom.prep.PreparedGeometry;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;
import org.locationtech.jts.index.strtree.STRtree;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.Alongside;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.LocalPlane;
import org.whinridge.core.place.PlaneNearest;

/**
 * A layer made ready for place look-ups: an STR tree over envelopes, geometries prepared on their
 * first use. The place looked up may be a point, a line or an area.
 */
public final class PlaceIndex {
  /** The plane is good to a thousandth; what lies this close to the best is measured exactly. */
  private static final double PLANE_ERROR = 1.002;

  private static final class Entry {
    final Feature feature;
    final Geometry geometry;
    PreparedGeometry prepared;
    double areaM2 = -1;

    Entry(Feature feature, Geometry geometry) {
      this.feature = feature;
      this.geometry = geometry;
    }

    PreparedGeometry prepared() {
      if (prepared == null) prepared = PreparedGeometryFactory.prepare(geometry);
      return prepared;
    }

    double areaM2() {
      if (areaM2 < 0) areaM2 = Geodesy.areaM2(geometry);
      return areaM2;
    }
  }

  private final Optional<Schema> schema;
  private final STRtree tree = new STRtree();
  private final int size;

  /** An index over the features that have a place, of a layer with that schema. */
  public PlaceIndex(Schema schema, List<Feature> features) {
    this(Optional.of(schema), features);
  }

  /** An index over the features that have a place; filters can't be read without a schema. */
  public PlaceIndex(List<Feature> features) {
    this(Optional.empty(), features);
  }

  private PlaceIndex(Optional<Schema> schema, List<Feature> features) {
    this.schema = schema;
    int n = 0;
    for (Feature f : features) {
      Geometry g = f.geometry().orElse(null);
      if (g == null || g.isEmpty()) continue;
      tree.insert(g.getEnvelopeInternal(), new Entry(f, g));
      n++;
    }
    size = n;
    if (n > 0) tree.build();
  }

  /** How many features it holds. */
  public int size() {
    return size;
  }

  /** The layer's schema, when it is known. */
  public Optional<Schema> schema() {
    return schema;
  }

  /** Whether some polygon holds the position; the boundary counts as inside. */
  public boolean holds(Coordinate position) {
    return look(LookUp.containing("", ""), GeometryJson.WGS84.createPoint(position), f -> true)
        instanceof LookupResult.Found;
  }

  /** The value of {@code field} in the polygon that holds the position: its look-up in short. */
  public LookupResult containing(Coordinate position) {
    return look(LookUp.containing("", ""), GeometryJson.WGS84.createPoint(position), f -> true);
  }

  /** Looks up what belongs to a place, among the features that {@code filter} lets through. */
  public LookupResult look(LookUp lookUp, Geometry place, Predicate<Feature> filter) {
    if (size == 0 || place.isEmpty()) return new LookupResult.NoMatch();
    switch (lookUp.how()) {
      case CONTAINING:
        return containing(lookUp, place, filter);
      case AROUND:
        return around(lookUp, place, filter);
      default:
        return nearest(lookUp, place, filter);
    }
  }

  /**
   * Polygons that cover the whole place come first, by area and id; of a line or an area that none
   * covers, the polygon with the largest part of it answers.
   */
  private LookupResult containing(LookUp lookUp, Geometry place, Predicate<Feature> filter) {
    List<Entry> hits = new ArrayList<>(2);
    List<Entry> touched = new ArrayList<>(2);
    for (Object o : tree.query(place.getEnvelopeInternal())) {
      Entry e = (Entry) o;
      if (!(e.geometry instanceof Polygonal) || !filter.test(e.feature)) continue;
      if (e.prepared().covers(place)) hits.add(e);
      else if (!(place instanceof Point) && e.prepared().intersects(place)) touched.add(e);
    }
    if (hits.isEmpty() && !touched.isEmpty()) hits.addAll(byShare(touched, place));
    else if (hits.size() > 1)
      hits.sort(Comparator.comparingDouble(Entry::areaM2).thenComparing(e -> e.feature.id()));
    if (hits.isEmpty()) return new LookupResult.NoMatch();
    boolean all = lookUp.several() == LookUp.Several.LIST && hits.size() > 1;
    List<LookupResult.Hit> found = new ArrayList<>();
    for (Entry e : all ? hits : hits.subList(0, 1)) found.add(hit(e, 0));
    return new LookupResult.Found(found, all, hits.size() > 1);
  }

  /** The largest part first; of equal parts the smaller id. Areas that only touch are left out. */
  private static List<Entry> byShare(List<Entry> touched, Geometry place) {
    record Part(Entry entry, double size) {}
    List<Part> parts = new ArrayList<>();
    for (Entry e : touched) {
      Geometry part = e.geometry.intersection(place);
      double size = place instanceof Polygonal ? Geodesy.areaM2(part) : Geodesy.lengthM(part);
      if (size > 0) parts.add(new Part(e, size));
    }
    parts.sort(
        Comparator.comparingDouble((Part p) -> -p.size).thenComparing(p -> p.entry.feature.id()));
    return parts.stream().map(Part::entry).toList();
  }

  private LookupResult around(LookUp lookUp, Geometry place, Predicate<Feature> filter) {
    PreparedGeometry prepared = PreparedGeometryFactory.prepare(place);
    PlaneDistance plane = new PlaneDistance(place);
    List<LookupResult.Hit> hits = new ArrayList<>();
    for (Object o : tree.query(plane.reach(lookUp.withinM()))) {
      Entry e = (Entry) o;
      if (!filter.test(e.feature)) continue;
      if (prepared.intersects(e.geometry)) hits.add(hit(e, 0));
      else if (lookUp.withinM() > 0 && plane.to(e.geometry) <= lookUp.withinM() * PLANE_ERROR) {
        double d = plane.exact(e.geometry);
        if (d <= lookUp.withinM()) hits.add(hit(e, d));
      }
    }
    if (hits.isEmpty()) return new LookupResult.NoMatch();
    hits.sort(
        Comparator.comparingDouble(LookupResult.Hit::distanceM)
            .thenComparing(h -> h.feature().id()));
    return new LookupResult.Found(hits, true, false);
  }

  /** The nearest by geodesic distance, ties by id; looked for in growing boxes. */
  private LookupResult nearest(LookUp lookUp, Geometry place, Predicate<Feature> filter) {
    PlaneDistance plane = new PlaneDistance(place);
    boolean lines = lookUp.how() == LookUp.How.ALONG;
    double most = lookUp.withinM();
    for (double reach = Math.min(most, firstReachM(plane)); ; reach = Math.min(most, reach * 4)) {
      List<Entry> near = new ArrayList<>();
      List<Double> distances = new ArrayList<>();
      double best = Double.MAX_VALUE;
      for (Object o : tree.query(plane.reach(reach))) {
        Entry e = (Entry) o;
        if (lines && e.geometry.getDimension() < 1 || !filter.test(e.feature)) continue;
        double d = plane.to(e.geometry);
        if (d > best * PLANE_ERROR) continue;
        near.add(e);
        distances.add(d);
        best = Math.min(best, d);
      }
      // what lies farther than the box may hide something nearer outside of it
      if (best * PLANE_ERROR <= reach || reach >= most)
        return measured(lookUp, place, plane, near, distances, best);
    }
  }

  private LookupResult measured(
      LookUp lookUp,
      Geometry place,
      PlaneDistance plane,
      List<Entry> near,
      List<Double> distances,
      double best) {
    Entry chosen = null;
    double chosenM = Double.MAX_VALUE;
    for (int i = 0; i < near.size(); i++) {
      if (distances.get(i) > best * PLANE_ERROR) continue;
      double d = plane.exact(near.get(i).geometry);
      boolean nearer =
          d < chosenM
              || (d == chosenM && near.get(i).feature.id().compareTo(chosen.feature.id()) < 0);
      if (d <= lookUp.withinM() && nearer) {
        chosen = near.get(i);
        chosenM = d;
      }
    }
    if (chosen == null) return new LookupResult.NoMatch();
    Optional<Alongside> along =
        lookUp.how() == LookUp.How.ALONG
            ? Alongside.of(chosen.geometry, Geodesy.anchor(place))
            : Optional.empty();
    return new LookupResult.Found(
        List.of(new LookupResult.Hit(chosen.feature, chosenM, along)), false, false);
  }

  /** A box in which, were the features spread evenly, about two would lie. */
  private double firstReachM(PlaneDistance plane) {
    Envelope all = (Envelope) tree.getRoot().getBounds();
    double squareM = plane.squareM(all) / size;
    return Math.max(1, Math.sqrt(squareM));
  }

  private static LookupResult.Hit hit(Entry e, double distanceM) {
    return new LookupResult.Hit(e.feature, distanceM, Optional.empty());
  }

  /** Distances from one place: quick ones on its plane, exact ones by geodesic. */
  private static final class PlaneDistance {
    private final Geometry place;
    private final Envelope box;
    private final boolean point;
    private final LocalPlane plane;
    private final Map<Coordinate, Double> solved = new LinkedHashMap<>();

    PlaneDistance(Geometry place) {
      this.place = place;
      box = place.getEnvelopeInternal();
      point = place instanceof Point;
      plane = new LocalPlane(box.centre());
    }

    Envelope reach(double metres) {
      Envelope e = new Envelope(box);
      double margin = metres * PLANE_ERROR;
      e.expandBy(plane.degreesEast(margin), plane.degreesNorth(margin));
      return e;
    }

    double squareM(Envelope e) {
      return e.getWidth() / plane.degreesEast(1) * (e.getHeight() / plane.degreesNorth(1));
    }

    double to(Geometry g) {
      if (point && g instanceof Point p) return Math.hypot(plane.x(p.getX()), plane.y(p.getY()));
      return new PlaneNearest(plane).distance(place, g);
    }

    /** Many features often stand at one position: the geodesic is solved once for each. */
    double exact(Geometry g) {
      if (point && g instanceof Point p)
        return solved.computeIfAbsent(
            p.getCoordinate(), c -> Geodesy.distanceM(place.getCoordinate(), c));
      if (place.intersects(g)) return 0;
      Coordinate[] pair = new PlaneNearest(plane).pair(place, g);
      return Geodesy.distanceM(pair[0], pair[1]);
    }
  }
}
