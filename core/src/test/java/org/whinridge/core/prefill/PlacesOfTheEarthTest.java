package org.whinridge.core.prefill;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import net.sf.geographiclib.Geodesic;
import net.sf.geographiclib.GeodesicData;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKTReader;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.Alongside;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.place.LocalPlane;

/**
 * Look-ups wherever on the earth: at the date line, at high latitudes, at the poles. The other side
 * is a plain loop with GeographicLib (C. F. F. Karney 2013) over every feature.
 */
class PlacesOfTheEarthTest {
  private static final LookUp.Several ONE = LookUp.Several.SMALLEST;

  private static Geometry wkt(String s) {
    try {
      return new WKTReader(GeometryJson.WGS84).read(s);
    } catch (ParseException e) {
      throw new IllegalArgumentException(e);
    }
  }

  private static Feature feature(String id, Geometry g) {
    return new Feature(id, Optional.of(g), Map.of(), 1);
  }

  private static Geometry point(double x, double y) {
    return GeometryJson.WGS84.createPoint(new Coordinate(x, y));
  }

  private static String found(LookupResult r) {
    return r instanceof LookupResult.Found f
        ? f.hits().stream().map(h -> h.feature().id()).collect(Collectors.joining(" "))
        : "none";
  }

  /** The features of a list, found by looking at each. */
  private record Listed(List<Feature> all) implements PlaceSource {
    @Override
    public int size() {
      return all.size();
    }

    @Override
    public Envelope extent() {
      Envelope out = new Envelope();
      for (Feature f : all) out.expandToInclude(f.geometry().get().getEnvelopeInternal());
      return out.isNull() ? null : out;
    }

    @Override
    public int[] near(Envelope box) {
      return IntStream.range(0, all.size())
          .filter(i -> all.get(i).geometry().get().getEnvelopeInternal().intersects(box))
          .toArray();
    }

    @Override
    public Feature feature(int number) {
      return all.get(number);
    }
  }

  private static final Schema ANY = new Schema(GeometryKind.POLYGON, List.of(), "", List.of());

  /** What lies beyond the part of a layer that is at hand could be nearer, or one more. */
  @Test
  void aPartOfALayerTellsOnlyWhatItCanKnow() {
    Envelope part = new Envelope(0, 0.02, 0, 0.02);
    PlaceIndex index = new PlaceIndex(ANY, List.of(feature("a", point(0.01, 0.012))), part);
    Geometry middle = point(0.01, 0.01);
    Geometry edge = point(0.0199, 0.01);
    Geometry beyond = point(0.021, 0.01);
    LookUp near = lookUp(LookUp.How.NEAREST, 5000);
    assertThat(found(index.lookUp(near, middle, f -> true))).as("221 m away").isEqualTo("a");
    assertThat(index.lookUp(near, middle, f -> false)).isInstanceOf(LookupResult.NotAtHand.class);
    assertThat(index.lookUp(near, edge, f -> true)).isInstanceOf(LookupResult.NotAtHand.class);
    assertThat(index.lookUp(lookUp(LookUp.How.NEAREST, 10), edge, f -> true))
        .isInstanceOf(LookupResult.NoMatch.class);
    LookUp around = lookUp(LookUp.How.AROUND, 5000);
    assertThat(index.lookUp(around, middle, f -> true)).isInstanceOf(LookupResult.NotAtHand.class);
    assertThat(found(index.lookUp(lookUp(LookUp.How.AROUND, 300), middle, f -> true)))
        .isEqualTo("a");
    assertThat(index.containing(middle.getCoordinate())).isInstanceOf(LookupResult.NoMatch.class);
    assertThat(index.containing(beyond.getCoordinate())).isInstanceOf(LookupResult.NotAtHand.class);
    assertThat(new PlaceIndex(ANY, List.of(), part).containing(beyond.getCoordinate()))
        .isInstanceOf(LookupResult.NotAtHand.class);
  }

  /** Every way to look up, near and far, also over the date line: found as in a whole index. */
  @Test
  void aLargeLayerThatFindsItsFeaturesItselfAnswersAsAWholeOneDoes() {
    Random random = new Random(23);
    List<Feature> all = new ArrayList<>();
    for (int i = 0; i < 600; i++) {
      Geometry p = point(178 + random.nextDouble() * 1.9, random.nextDouble() * 2);
      all.add(feature("f" + i, i % 3 == 0 ? p : p.buffer(random.nextDouble() * 0.05)));
      Geometry west = point(-179.9 + random.nextDouble() * 1.9, random.nextDouble() * 2);
      all.add(feature("w" + i, i % 3 == 0 ? west : west.buffer(random.nextDouble() * 0.05)));
    }
    PlaceIndex whole = new PlaceIndex(ANY, all);
    PlaceIndex large = new PlaceIndex(ANY, new Listed(all));
    assertThat(large.size()).isEqualTo(whole.size());
    int some = 0;
    for (int k = 0; k < 400; k++) {
      double x = 178 + random.nextDouble() * 4;
      Geometry at = point(x > 180 ? x - 360 : x, random.nextDouble() * 2);
      for (LookUp.How how : LookUp.How.values()) {
        LookUp l = lookUp(how, how == LookUp.How.CONTAINING ? 0 : 3000);
        String expected = found(whole.lookUp(l, at, f -> !f.id().endsWith("7")));
        assertThat(found(large.lookUp(l, at, f -> !f.id().endsWith("7")))).isEqualTo(expected);
        if (!expected.equals("none")) some++;
      }
    }
    assertThat(some).isGreaterThan(400);
    assertThat(found(new PlaceIndex(ANY, new Listed(List.of())).containing(new Coordinate(0, 0))))
        .isEqualTo("none");
  }

  private static LookUp lookUp(LookUp.How how, double within) {
    return new LookUp("l", "L", how, within, "", ONE);
  }

  private static double metres(Coordinate a, Coordinate b) {
    return Geodesic.WGS84.Inverse(a.y, a.x, b.y, b.x).s12;
  }

  /** A position some metres away in some direction. */
  private static Coordinate away(Coordinate from, double bearing, double m) {
    GeodesicData d = Geodesic.WGS84.Direct(from.y, from.x, bearing, m);
    return new Coordinate(d.lon2, d.lat2);
  }

  /** 10,000 queries over all latitudes, half of them around the date line. Printed: wrong ones. */
  @Test
  void nearestAndAroundAgreeWithALoopOverAllPointsEverywhere() {
    Random random = new Random(1313);
    int wrong = 0;
    int queries = 0;
    StringBuilder first = new StringBuilder();
    for (int world = 0; world < 100; world++) {
      double lat = -90 + 180 * (world / 99.0);
      double lon = world % 2 == 0 ? 180 : random.nextDouble() * 360 - 180;
      Coordinate middle = new Coordinate(lon, lat);
      List<Feature> all = new ArrayList<>();
      for (int i = 0; i < 150; i++) {
        Coordinate c = away(middle, random.nextDouble() * 360, random.nextDouble() * 150_000);
        all.add(feature("f" + i, point(c.x, c.y)));
      }
      PlaceIndex index = new PlaceIndex(all);
      for (int q = 0; q < 50; q++) {
        Coordinate at = away(middle, random.nextDouble() * 360, random.nextDouble() * 150_000);
        double within = 500 + random.nextDouble() * 49_500;
        List<Feature> near =
            all.stream()
                .filter(f -> metres(at, f.geometry().get().getCoordinate()) <= within)
                .sorted(
                    Comparator.comparingDouble(
                        (Feature f) -> metres(at, f.geometry().get().getCoordinate())))
                .toList();
        String around = near.stream().map(Feature::id).collect(Collectors.joining(" "));
        String nearest = near.isEmpty() ? "none" : near.get(0).id();
        if (around.isEmpty()) around = "none";
        Geometry place = point(at.x, at.y);
        String gotNearest =
            found(index.lookUp(lookUp(LookUp.How.NEAREST, within), place, f -> true));
        String gotAround = found(index.lookUp(lookUp(LookUp.How.AROUND, within), place, f -> true));
        queries += 2;
        if (!gotNearest.equals(nearest)) wrong++;
        if (!gotAround.equals(around)) wrong++;
        if (first.length() < 400 && !(gotNearest + gotAround).equals(nearest + around))
          first.append(at).append(' ').append(within).append(": ").append(gotNearest).append('\n');
      }
    }
    System.out.println("queries wrong: " + wrong + " of " + queries);
    assertThat(queries).isEqualTo(10_000);
    assertThat(wrong).as(first.toString()).isZero();
  }

  /** Lines against the least geodesic distance of many places on them. */
  @Test
  void theDistanceToALineIsGeodesicWhereverItLies() {
    Random random = new Random(77);
    for (int i = 0; i < 300; i++) {
      double lat = random.nextDouble() * 176 - 88;
      Coordinate middle = new Coordinate(i % 2 == 0 ? 180 : random.nextDouble() * 300 - 150, lat);
      Coordinate a = away(middle, random.nextDouble() * 360, random.nextDouble() * 20_000);
      Coordinate b = away(middle, random.nextDouble() * 360, random.nextDouble() * 20_000);
      Coordinate at = away(middle, random.nextDouble() * 360, random.nextDouble() * 15_000);
      double dx =
          b.x - a.x > 180 ? b.x - a.x - 360 : b.x - a.x < -180 ? b.x - a.x + 360 : b.x - a.x;
      double least = Double.MAX_VALUE;
      for (int k = 0; k <= 4000; k++) {
        double t = k / 4000.0;
        least = Math.min(least, metres(at, new Coordinate(a.x + t * dx, a.y + t * (b.y - a.y))));
      }
      Geometry line = GeometryJson.WGS84.createLineString(new Coordinate[] {a, b});
      PlaceIndex index = new PlaceIndex(List.of(feature("l", line)));
      LookupResult r =
          index.lookUp(lookUp(LookUp.How.NEAREST, 50_000), point(at.x, at.y), f -> true);
      assertThat(((LookupResult.Found) r).hits().get(0).distanceM())
          .as("line %d at %s", i, middle)
          .isCloseTo(least, within(Math.max(0.5, least * 1e-4)));
      assertThat(Alongside.of(line, at).orElseThrow().offsetM())
          .as("line %d at %s", i, middle)
          .isCloseTo(least, within(0.5));
    }
  }

  @Test
  void theDateLineIsNoEdgeOfTheWorld() {
    PlaceIndex index =
        new PlaceIndex(
            List.of(
                feature("over", point(-179.99, 10)),
                feature("far", point(179.9, 10)),
                feature("area", wkt("POLYGON ((-180 0, -179 0, -179 5, -180 5, -180 0))"))));
    Geometry here = point(179.99, 10);
    assertThat(found(index.lookUp(lookUp(LookUp.How.NEAREST, 50_000), here, f -> true)))
        .isEqualTo("over");
    assertThat(found(index.lookUp(lookUp(LookUp.How.AROUND, 3_000), here, f -> true)))
        .isEqualTo("over");
    assertThat(found(index.lookUp(LookUp.containing("l", "L"), point(180, 3), f -> true)))
        .isEqualTo("area");
    assertThat(found(index.lookUp(lookUp(LookUp.How.AROUND, 0), point(180, 3), f -> true)))
        .isEqualTo("area");
    Geometry across = wkt("LINESTRING (179.95 0, -179.95 0)");
    assertThat(Geodesy.lengthM(across)).isCloseTo(11_131.9, within(0.1));
    Alongside half = Alongside.of(across, new Coordinate(180, 0.01)).orElseThrow();
    assertThat(half.chainageM()).isCloseTo(11_131.9 / 2, within(0.1));
    assertThat(half.offsetM()).isCloseTo(1_105.7, within(0.5));
  }

  @Test
  void atThePolesWhatIsEquallyFarGoesById() {
    List<Feature> ring = new ArrayList<>();
    for (int i = 0; i < 12; i++)
      ring.add(feature("p" + (char) ('a' + i), point(i * 30 - 180, 89.9)));
    PlaceIndex index = new PlaceIndex(ring);
    for (double lon = -180; lon <= 180; lon += 45)
      assertThat(found(index.lookUp(lookUp(LookUp.How.NEAREST, 50_000), point(lon, 90), f -> true)))
          .isEqualTo("pa");
    assertThat(found(index.lookUp(lookUp(LookUp.How.AROUND, 12_000), point(0, 90), f -> true)))
        .isEqualTo("pa pb pc pd pe pf pg ph pi pj pk pl");
  }

  @Test
  void anAreaThatCrossesItselfIsLookedUpByThePartsThatItEncloses() {
    PlaceIndex index =
        new PlaceIndex(List.of(feature("bow", wkt("POLYGON ((0 0, 2 2, 2 0, 0 2, 0 0))"))));
    assertThat(found(index.lookUp(LookUp.containing("l", "L"), point(0.2, 1), f -> true)))
        .isEqualTo("bow");
    assertThat(found(index.lookUp(LookUp.containing("l", "L"), point(1, 0.2), f -> true)))
        .isEqualTo("none");
    Geometry bow = wkt("POLYGON ((0.5 0, 3 2, 3 0, 0.5 2, 0.5 0))");
    for (LookUp.How how : LookUp.How.values())
      assertThat(index.lookUp(lookUp(how, 1000), bow, f -> true)).isNotNull();
  }

  /** The plane: back and forth, and how well it keeps distances from its position. */
  @Test
  void thePlaneKeepsDistancesFromItsPosition() {
    Random random = new Random(5);
    for (int i = 0; i < 2000; i++) {
      Coordinate at =
          new Coordinate(random.nextDouble() * 360 - 180, random.nextDouble() * 180 - 90);
      LocalPlane plane = new LocalPlane(at);
      double m = random.nextDouble() * 50_000;
      Coordinate c = away(at, random.nextDouble() * 360, m);
      Coordinate flat = plane.flat(c.x, c.y);
      assertThat(Math.hypot(flat.x, flat.y)).isCloseTo(m, within(m * 4e-3 + 1e-6));
      assertThat(metres(plane.degrees(flat), c)).isLessThan(1e-6);
    }
  }
}
