package org.whinridge.core.prefill;

import java.util.ArrayList;
import java.util.Collection;
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
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.geom.util.GeometryFixer;
import org.locationtech.jts.index.strtree.STRtree;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.Alongside;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.LocalPlane;
import org.whinridge.core.place.PlaneNearest;
import org.whinridge.core.place.Reach;

/**
 * A layer made ready for place look-ups: an STR tree over envelopes, geometries prepared on their
 * first use; a large layer has an index of its own, see {@link PlaceSource}. The place looked up
 * may be a point, a line or an area.
 */
public final class PlaceIndex {
  /** What the plane finds this close to the best is measured exactly. */
  private static final double PLANE_ERROR = 1.005;

  /** Distances that differ by less, in metres, are one: geodesics are exact to some nanometres. */
  private static final double TIE_M = 1e-6;

  private static final class Entry {
    final Feature feature;
    private final Geometry geometry;
    private Geometry sound;
    private PreparedGeometry prepared;
    private double areaM2 = -1;

    Entry(Feature feature, Geometry geometry) {
      this.feature = feature;
      this.geometry = geometry;
    }

    /** The geometry as something that has an inside. */
    Geometry sound() {
      if (sound == null) sound = PlaceIndex.sound(geometry);
      return sound;
    }

    PreparedGeometry prepared() {
      if (prepared == null) prepared = PreparedGeometryFactory.prepare(sound());
      return prepared;
    }

    double areaM2() {
      if (areaM2 < 0) areaM2 = Geodesy.areaM2(sound());
      return areaM2;
    }
  }

  /** Finds the features whose boxes meet a box. */
  private interface Finder {
    Collection<Entry> in(Envelope box);
  }

  private final Optional<Schema> schema;
  private final Finder finder;
  private final Envelope extent;
  private final int size;

  /** Where all features of the layer are at hand. */
  private final Optional<Envelope> complete;

  /** An index over the features that have a place, of a layer with that schema. */
  public PlaceIndex(Schema schema, List<Feature> features) {
    this(Optional.of(schema), features, Optional.empty());
  }

  /**
   * The same of a part of a layer: what would need more of it is not told.
   *
   * @param complete the box in degrees of which all features are there; nothing beyond it is known
   */
  public PlaceIndex(Schema schema, List<Feature> features, Envelope complete) {
    this(Optional.of(schema), features, Optional.of(complete));
  }

  /** An index over the features that have a place; filters can't be read without a schema. */
  public PlaceIndex(List<Feature> features) {
    this(Optional.empty(), features, Optional.empty());
  }

  private PlaceIndex(Optional<Schema> schema, List<Feature> features, Optional<Envelope> complete) {
    this.schema = schema;
    this.complete = complete;
    STRtree tree = new STRtree();
    int n = 0;
    for (Feature f : features) {
      Geometry g = f.geometry().orElse(null);
      if (g == null || g.isEmpty()) continue;
      tree.insert(g.getEnvelopeInternal(), new Entry(f, g));
      n++;
    }
    size = n;
    if (n > 0) tree.build();
    extent = n > 0 ? (Envelope) tree.getRoot().getBounds() : null;
    finder = box -> found(tree, box);
  }

  @SuppressWarnings("unchecked") // the tree's lists are raw; only entries go into it
  private static List<Entry> found(STRtree tree, Envelope box) {
    return (List<Entry>) tree.query(box);
  }

  /** An index over a layer that finds its features itself; for one run, in one thread. */
  public PlaceIndex(Schema schema, PlaceSource layer) {
    this.schema = Optional.of(schema);
    complete = Optional.empty();
    extent = layer.extent();
    size = extent == null ? 0 : layer.size();
    finder = new OfSource(layer);
  }

  /** Keeps what was found last, since the places of a run often lie beside each other. */
  private static final class OfSource implements Finder {
    private static final int KEPT = 4000;
    private final PlaceSource layer;
    private final Map<Integer, Entry> kept = new LinkedHashMap<>();

    OfSource(PlaceSource layer) {
      this.layer = layer;
    }

    @Override
    public Collection<Entry> in(Envelope box) {
      List<Entry> out = new ArrayList<>();
      for (int n : layer.near(box)) {
        Entry e = kept.get(n);
        if (e == null) {
          Feature f = layer.feature(n);
          Geometry g = f.geometry().orElse(null);
          if (g == null || g.isEmpty()) continue;
          if (kept.size() == KEPT) kept.clear();
          kept.put(n, e = new Entry(f, g));
        }
        out.add(e);
      }
      return out;
    }
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
    return lookUp(LookUp.containing("", ""), GeometryJson.WGS84.createPoint(position), f -> true)
        instanceof LookupResult.Found;
  }

  /** The value of {@code field} in the polygon that holds the position: its look-up in short. */
  public LookupResult containing(Coordinate position) {
    return lookUp(LookUp.containing("", ""), GeometryJson.WGS84.createPoint(position), f -> true);
  }

  /** Looks up what belongs to a place, among the features that {@code filter} lets through. */
  public LookupResult lookUp(LookUp lookUp, Geometry place, Predicate<Feature> filter) {
    if (place.isEmpty()) return new LookupResult.NoMatch();
    LookupResult r = size == 0 ? new LookupResult.NoMatch() : found(lookUp, sound(place), filter);
    return isKnown(place, lookedThrough(lookUp, r)) ? r : new LookupResult.NotAtHand();
  }

  /** How far around a place all must be known for an outcome to be sure, in metres. */
  private static double lookedThrough(LookUp lookUp, LookupResult r) {
    boolean one = lookUp.how() == LookUp.How.NEAREST || lookUp.how() == LookUp.How.ALONG;
    return one && r instanceof LookupResult.Found f
        ? f.hits().get(0).distanceM()
        : lookUp.withinM();
  }

  private boolean isKnown(Geometry place, double metres) {
    if (complete.isEmpty()) return true;
    for (Envelope box : Reach.boxes(place.getEnvelopeInternal(), metres))
      if (!complete.get().covers(box)) return false;
    return true;
  }

  private LookupResult found(LookUp lookUp, Geometry sound, Predicate<Feature> filter) {
    switch (lookUp.how()) {
      case CONTAINING:
        return containing(lookUp, sound, filter);
      case AROUND:
        return around(lookUp, sound, filter);
      default:
        return nearest(lookUp, sound, filter);
    }
  }

  /** An area that crosses itself has no sound inside: it is taken as the parts that it encloses. */
  private static Geometry sound(Geometry g) {
    return !(g instanceof Polygonal) || g.isValid() ? g : GeometryFixer.fix(g);
  }

  /** The features whose boxes meet these, each once. */
  private Collection<Entry> in(List<Envelope> boxes) {
    if (boxes.size() == 1) return finder.in(boxes.get(0));
    Map<String, Entry> out = new LinkedHashMap<>();
    for (Envelope box : boxes) for (Entry e : finder.in(box)) out.putIfAbsent(e.feature.id(), e);
    return out.values();
  }

  /** The place, and where it touches the date line also as it stands on the other side of it. */
  private static List<Geometry> bothSides(Geometry place) {
    Envelope box = place.getEnvelopeInternal();
    double by = box.getMaxX() == 180 ? -360 : box.getMinX() == -180 ? 360 : 0;
    return by == 0
        ? List.of(place)
        : List.of(place, AffineTransformation.translationInstance(by, 0).transform(place));
  }

  /**
   * Polygons that cover the whole place come first, by area and id; of a line or an area that none
   * covers, the polygon with the largest part of it answers.
   */
  private LookupResult containing(LookUp lookUp, Geometry place, Predicate<Feature> filter) {
    List<Entry> hits = new ArrayList<>(2);
    List<Entry> touched = new ArrayList<>(2);
    List<Geometry> sides = bothSides(place);
    List<Envelope> boxes = new ArrayList<>(2);
    for (Geometry side : sides) boxes.add(side.getEnvelopeInternal());
    for (Entry e : in(boxes)) {
      if (!(e.sound() instanceof Polygonal) || !filter.test(e.feature)) continue;
      if (covers(e, sides)) hits.add(e);
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

  private static boolean covers(Entry e, List<Geometry> sides) {
    for (Geometry side : sides) if (e.prepared().covers(side)) return true;
    return false;
  }

  /** The largest part first; of equal parts the smaller id. Areas that only touch are left out. */
  private static List<Entry> byShare(List<Entry> touched, Geometry place) {
    record Part(Entry entry, double size) {}
    List<Part> parts = new ArrayList<>();
    for (Entry e : touched) {
      Geometry part = e.sound().intersection(place);
      double size = place instanceof Polygonal ? Geodesy.areaM2(part) : Geodesy.lengthM(part);
      if (size > 0) parts.add(new Part(e, size));
    }
    parts.sort(
        Comparator.comparingDouble((Part p) -> -p.size).thenComparing(p -> p.entry.feature.id()));
    return parts.stream().map(Part::entry).toList();
  }

  private LookupResult around(LookUp lookUp, Geometry place, Predicate<Feature> filter) {
    Distance from = new Distance(place);
    List<LookupResult.Hit> hits = new ArrayList<>();
    for (Entry e : in(from.boxes(lookUp.withinM()))) {
      if (!filter.test(e.feature)) continue;
      if (from.touches(e)) hits.add(hit(e, 0));
      else if (lookUp.withinM() > 0 && from.to(e) <= lookUp.withinM() * PLANE_ERROR) {
        double d = from.exact(e);
        if (d <= lookUp.withinM()) hits.add(hit(e, d));
      }
    }
    if (hits.isEmpty()) return new LookupResult.NoMatch();
    hits.sort(
        Comparator.comparingDouble((LookupResult.Hit h) -> Math.rint(h.distanceM() / TIE_M))
            .thenComparing(h -> h.feature().id()));
    return new LookupResult.Found(hits, true, false);
  }

  private record Near(Entry entry, double distanceM) {}

  /** The nearest by geodesic distance, ties by id; looked for in growing boxes. */
  private LookupResult nearest(LookUp lookUp, Geometry place, Predicate<Feature> filter) {
    Distance from = new Distance(place);
    boolean lines = lookUp.how() == LookUp.How.ALONG;
    double most = lookUp.withinM();
    for (double reach = Math.min(most, firstReachM()); ; reach = Math.min(most, reach * 4)) {
      List<Near> near = new ArrayList<>();
      double best = Double.MAX_VALUE;
      for (Entry e : in(from.boxes(reach))) {
        if (lines && e.geometry.getDimension() < 1 || !filter.test(e.feature)) continue;
        if (!from.isQuick(e) && from.atLeast(e) > best * PLANE_ERROR + TIE_M) continue;
        double d = from.to(e);
        if (d > best * PLANE_ERROR + TIE_M) continue;
        near.add(new Near(e, d));
        best = Math.min(best, d);
      }
      // what lies farther than the box may hide something nearer outside of it
      if (best * PLANE_ERROR <= reach || reach >= most)
        return measured(lookUp, place, from, near, best);
    }
  }

  private LookupResult measured(
      LookUp lookUp, Geometry place, Distance from, List<Near> near, double best) {
    List<Near> exact = new ArrayList<>();
    double least = Double.MAX_VALUE;
    for (Near n : near) {
      if (n.distanceM > best * PLANE_ERROR + TIE_M) continue;
      double d = from.exact(n.entry);
      if (d <= lookUp.withinM()) exact.add(new Near(n.entry, d));
      least = Math.min(least, d);
    }
    Near chosen = null;
    for (Near n : exact)
      if (n.distanceM <= least + TIE_M
          && (chosen == null || n.entry.feature.id().compareTo(chosen.entry.feature.id()) < 0))
        chosen = n;
    if (chosen == null) return new LookupResult.NoMatch();
    Optional<Alongside> along =
        lookUp.how() == LookUp.How.ALONG
            ? Alongside.of(chosen.entry.geometry, Geodesy.anchor(place))
            : Optional.empty();
    return new LookupResult.Found(
        List.of(new LookupResult.Hit(chosen.entry.feature, chosen.distanceM, along)), false, false);
  }

  /** A reach within which, were the features spread evenly, about two would lie. */
  private double firstReachM() {
    double degreeM = 111_000;
    double aside = degreeM * Math.cos(Math.toRadians(extent.centre().y));
    return Math.max(1, Math.sqrt(extent.getWidth() * aside * extent.getHeight() * degreeM / size));
  }

  private static LookupResult.Hit hit(Entry e, double distanceM) {
    return new LookupResult.Hit(e.feature, distanceM, Optional.empty());
  }

  /** Distances from one place: quick ones on its plane, exact ones by geodesic. */
  private static final class Distance {
    private final Geometry place;
    private final List<PreparedGeometry> sides;
    private final boolean point;
    private final LocalPlane plane;
    private final PlaneNearest shapes;
    private final Map<Coordinate, Double> solved = new LinkedHashMap<>();

    /** Many features often stand at one position: it is laid on the plane once. */
    private double lastX = Double.NaN;

    private double lastY;
    private double lastM;

    Distance(Geometry place) {
      this.place = place;
      sides = bothSides(place).stream().map(PreparedGeometryFactory::prepare).toList();
      point = place instanceof Point;
      plane = new LocalPlane(place.getEnvelopeInternal().centre());
      shapes = new PlaneNearest(plane);
    }

    List<Envelope> boxes(double metres) {
      return Reach.boxes(place.getEnvelopeInternal(), metres);
    }

    /** Whether the distance is as cheap as an estimate of it. */
    boolean isQuick(Entry e) {
      return point && e.geometry instanceof Point;
    }

    double atLeast(Entry e) {
      return Reach.atLeastM(place.getEnvelopeInternal(), e.geometry.getEnvelopeInternal());
    }

    boolean touches(Entry e) {
      for (PreparedGeometry side : sides) if (side.intersects(e.sound())) return true;
      return false;
    }

    double to(Entry e) {
      if (!point || !(e.geometry instanceof Point p)) return shapes.distance(place, e.geometry);
      if (p.getX() == lastX && p.getY() == lastY) return lastM;
      Coordinate c = plane.flat(p.getX(), p.getY());
      lastX = p.getX();
      lastY = p.getY();
      lastM = Math.sqrt(c.x * c.x + c.y * c.y);
      return lastM;
    }

    /** Many features often stand at one position: the geodesic is solved once for each. */
    double exact(Entry e) {
      if (point && e.geometry instanceof Point p)
        return solved.computeIfAbsent(
            p.getCoordinate(), c -> Geodesy.distanceM(place.getCoordinate(), c));
      if (touches(e)) return 0;
      Coordinate[] pair = shapes.pair(place, e.geometry);
      return Geodesy.distanceM(pair[0], pair[1]);
    }
  }
}
