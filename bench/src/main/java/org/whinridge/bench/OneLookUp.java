package org.whinridge.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.prep.PreparedGeometry;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;
import org.locationtech.jts.index.strtree.ItemDistance;
import org.locationtech.jts.index.strtree.STRtree;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.prefill.LookupResult;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.value.Value;

/**
 * One place look-up in 100,000 polygons of 33 corners, against a plain STRtree with prepared
 * geometries.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class OneLookUp {
  private static final int POLYGONS = 100_000;
  private final List<Coordinate> places = new ArrayList<>();
  private static final LookUp NEAREST =
      new LookUp("p", "Posts", LookUp.How.NEAREST, 2000, "", LookUp.Several.SMALLEST);
  private static final ItemDistance PLANAR =
      (a, b) -> ((Point) a.getItem()).distance((Point) b.getItem());
  private final STRtree points = new STRtree();
  private PlaceIndex posts;
  private PlaceIndex atOnePlace;
  private final List<Coordinate> same = new ArrayList<>();
  private PlaceIndex index;
  private STRtree tree;
  private int n;

  /** A jittered field of discs that touch and overlap a little. */
  @Setup
  public void layer() {
    Random random = new Random(1);
    List<Feature> features = new ArrayList<>();
    tree = new STRtree();
    int side = (int) Math.ceil(Math.sqrt(POLYGONS));
    for (int i = 0; i < POLYGONS; i++) {
      Geometry g =
          GeometryJson.WGS84
              .createPoint(new Coordinate(-10.3 + i % side * 0.001, 57.85 + i / side * 0.0005))
              .buffer(0.00035 + random.nextDouble() * 0.0001);
      features.add(new Feature("f" + i, Optional.of(g), Map.of("code", Value.text("c" + i)), 1));
      tree.insert(g.getEnvelopeInternal(), PreparedGeometryFactory.prepare(g));
    }
    index = new PlaceIndex(features);
    tree.build();
    List<Feature> near = new ArrayList<>();
    for (int i = 0; i < POLYGONS; i++) {
      Point p =
          GeometryJson.WGS84.createPoint(
              new Coordinate(
                  -10.3 + random.nextDouble() * side * 0.001,
                  57.85 + random.nextDouble() * side * 0.0005));
      near.add(new Feature("p" + i, Optional.of(p), Map.of(), 1));
      points.insert(p.getEnvelopeInternal(), p);
    }
    posts = new PlaceIndex(near);
    List<Feature> stacked = new ArrayList<>();
    for (int i = 0; i < 5000; i++) {
      same.add(new Coordinate(-10.2, 57.9));
      stacked.add(
          new Feature(
              "s" + i, Optional.of(GeometryJson.WGS84.createPoint(same.get(i))), Map.of(), 1));
    }
    atOnePlace = new PlaceIndex(stacked);
    points.build();
    for (int i = 0; i < 4096; i++)
      places.add(
          new Coordinate(
              -10.3 + random.nextDouble() * side * 0.001,
              57.85 + random.nextDouble() * side * 0.0005));
  }

  /** Whinridge's look-up. */
  @Benchmark
  public LookupResult lookUp() {
    return index.containing(places.get(n++ & 4095));
  }

  /** Whinridge's nearest post within 2 km, geodesic. */
  @Benchmark
  public LookupResult nearest() {
    return posts.lookUp(NEAREST, GeometryJson.WGS84.createPoint(places.get(n++ & 4095)), f -> true);
  }

  /** Whinridge's nearest of 5,000 posts that all stand at one position. */
  @Benchmark
  public LookupResult nearestOfIdentical() {
    double d = (n++ & 1023) * 1e-6;
    return atOnePlace.lookUp(
        NEAREST, GeometryJson.WGS84.createPoint(new Coordinate(-10.2 + d, 57.9 + d)), f -> true);
  }

  /** The baseline: a bare walk over the same 5,000, the geodesic solved for each. */
  @Benchmark
  public double plainNearestOfIdentical() {
    double d = (n++ & 1023) * 1e-6;
    Coordinate at = new Coordinate(-10.2 + d, 57.9 + d);
    double least = Double.MAX_VALUE;
    for (Coordinate c : same) least = Math.min(least, Geodesy.distanceM(at, c));
    return least;
  }

  /** The baseline: the nearest of the same points by JTS, planar in degrees. */
  @Benchmark
  public Object plainNearest() {
    Point p = GeometryJson.WGS84.createPoint(places.get(n++ & 4095));
    return points.nearestNeighbour(p.getEnvelopeInternal(), p, PLANAR);
  }

  /** The baseline. */
  @Benchmark
  public Object plain() {
    Coordinate c = places.get(n++ & 4095);
    Point p = GeometryJson.WGS84.createPoint(c);
    for (Object o : tree.query(new Envelope(c))) if (((PreparedGeometry) o).covers(p)) return o;
    return null;
  }
}
