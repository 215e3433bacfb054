package org.whinridge.formats.gpx;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.formats.file.FileNames;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.file.Limits;
import org.whinridge.formats.file.XmlFiles;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Source;
import org.whinridge.formats.source.ZAndM;

/** A GPX 1.1 file: waypoints as points; routes, and tracks with their segments, as lines. */
public final class GpxSource implements Source {
  private static final Map<String, String> LAYERS =
      Map.of("wpt", "waypoints", "rte", "routes", "trk", "tracks");
  private static final List<String> NUMBERS =
      List.of("ele", "magvar", "geoidheight", "sat", "hdop", "vdop", "pdop", "number");
  private static final Said OF_POINTS = Said.of("file.valuesOfPoints");
  private final String name;
  private final Path file;
  private final Map<SourceLayer, String> layers = new LinkedHashMap<>();

  /** Reads what the file says of itself. */
  public GpxSource(String name, Path file) throws FileProblem, IOException {
    this.name = name;
    this.file = file;
    Map<String, Integer> counts = new LinkedHashMap<>();
    Set<String> ofPoints = new LinkedHashSet<>();
    read(
        (x, kind) -> {
          counts.merge(kind, 1, Integer::sum);
          if (hasMoreOfPoints(x)) ofPoints.add(kind);
        });
    for (String kind : List.of("wpt", "rte", "trk"))
      if (counts.containsKey(kind))
        layers.put(
            SourceLayer.wgs84(FileNames.stem(name) + " " + LAYERS.get(kind))
                .noted(ofPoints.contains(kind) ? List.of(OF_POINTS) : List.of())
                .withAside(ZAndM.COLUMNS),
            kind);
    if (layers.isEmpty()) throw new FileProblem("file.gpxHoldsNoWaypoints");
  }

  /**
   * Reads an item to its end: whether single points of it have more than place, height and time.
   */
  private static boolean hasMoreOfPoints(XMLStreamReader x) throws XMLStreamException {
    boolean more = false;
    boolean point = false;
    int depth = 1;
    while (depth > 0) {
      int e = x.next();
      if (e == XMLStreamReader.END_ELEMENT) depth--;
      if (e != XMLStreamReader.START_ELEMENT) continue;
      depth++;
      String tag = x.getLocalName();
      if (tag.equals("trkpt") || tag.equals("rtept")) point = true;
      else if (point && !List.of("ele", "time", "trkseg", "trkpt").contains(tag)) more = true;
    }
    return more;
  }

  private interface Item {
    void at(XMLStreamReader x, String kind) throws XMLStreamException, FileProblem;
  }

  private void read(Item item) throws FileProblem, IOException {
    try (InputStream in = new BufferedInputStream(Files.newInputStream(file), 1 << 16)) {
      XMLStreamReader x = XmlFiles.open(in);
      while (x.hasNext())
        if (x.next() == XMLStreamReader.START_ELEMENT && LAYERS.containsKey(x.getLocalName()))
          item.at(x, x.getLocalName());
    } catch (XMLStreamException e) {
      throw XmlFiles.problem(e);
    }
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public String format() {
    return "GPX";
  }

  @Override
  public List<SourceLayer> layers() {
    return List.copyOf(layers.keySet());
  }

  @Override
  public int each(SourceLayer layer, Sink sink) throws FileProblem, IOException {
    String wanted = layers.get(layer);
    int[] n = {0};
    read(
        (x, kind) -> {
          if (!kind.equals(wanted)) {
            XmlFiles.skip(x);
            return;
          }
          Limits.features(++n[0]);
          sink.take(kind.equals("wpt") ? waypoint(x, n[0]) : line(x, n[0], kind));
        });
    return n[0];
  }

  private static RawFeature waypoint(XMLStreamReader x, int n)
      throws XMLStreamException, FileProblem {
    int line = x.getLocation().getLineNumber();
    Optional<Coordinate> at = position(x);
    Map<String, Value> values = new LinkedHashMap<>();
    details(x, values, new ArrayList<>(), new ArrayList<>());
    return at.isPresent()
        ? new RawFeature(n, at.map(GeometryJson.WGS84::createPoint), values)
        : new RawFeature(n, Optional.empty(), values)
            .with(Said.of("file.waypointLineNoPosition", "n", n, "line", line));
  }

  private static Optional<Coordinate> position(XMLStreamReader x) {
    var lon = Numbers.read(String.valueOf(x.getAttributeValue(null, "lon")));
    var lat = Numbers.read(String.valueOf(x.getAttributeValue(null, "lat")));
    return lon.isPresent() && lat.isPresent()
        ? Optional.of(new Coordinate(lon.getAsDouble(), lat.getAsDouble()))
        : Optional.empty();
  }

  private static RawFeature line(XMLStreamReader x, int n, String kind)
      throws XMLStreamException, FileProblem {
    Map<String, Value> values = new LinkedHashMap<>();
    List<List<Coordinate>> segments = new ArrayList<>();
    List<Value> times = new ArrayList<>();
    details(x, values, segments, times);
    if (!times.isEmpty()) {
      values.put("begun", times.get(0));
      values.put("ended", times.get(times.size() - 1));
    }
    LineString[] lines =
        segments.stream()
            .filter(s -> s.size() > 1)
            .map(s -> GeometryJson.WGS84.createLineString(s.toArray(new Coordinate[0])))
            .toArray(LineString[]::new);
    if (lines.length == 0)
      return new RawFeature(n, Optional.empty(), values)
          .with(Said.of(kind.equals("rte") ? "file.shortRoute" : "file.shortTrack", "n", n));
    for (LineString l : lines) ZAndM.put(l, values);
    Geometry g = lines.length == 1 ? lines[0] : GeometryJson.WGS84.createMultiLineString(lines);
    return new RawFeature(n, Optional.of(g), values);
  }

  /** Reads to the end of an item: its own texts, and the points of routes and tracks. */
  private static void details(
      XMLStreamReader x,
      Map<String, Value> values,
      List<List<Coordinate>> segments,
      List<Value> times)
      throws XMLStreamException, FileProblem {
    int depth = 1;
    int points = 0;
    while (depth > 0) {
      int e = x.next();
      if (e == XMLStreamReader.END_ELEMENT) depth--;
      if (e != XMLStreamReader.START_ELEMENT) continue;
      String tag = x.getLocalName();
      switch (tag) {
        case "trkseg" -> {
          segments.add(new ArrayList<>());
          depth++;
        }
        case "trkpt", "rtept" -> {
          if (segments.isEmpty()) segments.add(new ArrayList<>());
          Optional<Coordinate> at = position(x);
          at.ifPresent(segments.get(segments.size() - 1)::add);
          if (++points > Limits.POSITIONS) throw new FileProblem("file.trackMoreThanPositions");
          Map<String, Value> own = new LinkedHashMap<>();
          details(x, own, new ArrayList<>(), new ArrayList<>());
          if (own.containsKey("time")) times.add(own.get("time"));
          if (own.get("ele") instanceof Value.Num z) at.ifPresent(c -> c.setZ(z.value()));
        }
        case "extensions" -> extensions(x, "", values);
        case "link" -> {
          String href = x.getAttributeValue(null, "href");
          XmlFiles.skip(x);
          if (href != null && !href.isBlank())
            values.put("link", Value.text(Limits.cut(href, 2000)));
        }
        default -> {
          String text = XmlFiles.text(x);
          if (!text.isEmpty()) values.put(tag, value(tag, text));
        }
      }
    }
  }

  /**
   * What other programs add: each innermost element is a value under its own name, one that is
   * there already under the names that lead to it.
   */
  private static void extensions(XMLStreamReader x, String path, Map<String, Value> values)
      throws XMLStreamException, FileProblem {
    StringBuilder text = new StringBuilder();
    boolean inner = false;
    while (true) {
      int e = x.next();
      if (e == XMLStreamReader.START_ELEMENT) {
        inner = true;
        if (values.size() >= Limits.COLUMNS) XmlFiles.skip(x);
        else if (path.length() > 400) XmlFiles.skip(x);
        else
          extensions(x, path.isEmpty() ? x.getLocalName() : path + "_" + x.getLocalName(), values);
      } else if (e == XMLStreamReader.END_ELEMENT) {
        String s = text.toString().strip();
        if (inner || path.isEmpty() || s.isEmpty()) return;
        String own = path.substring(path.lastIndexOf('_') + 1);
        values.put(values.containsKey(own) ? path : own, Value.text(Limits.cut(s, Limits.TEXT)));
        return;
      } else if (e == XMLStreamReader.CHARACTERS && text.length() < Limits.TEXT)
        text.append(x.getText());
    }
  }

  private static Value value(String tag, String text) {
    Value v = Value.text(Limits.cut(text, Limits.TEXT));
    if (tag.equals("time")) return Reading.PLAIN.read(v, FieldType.DATE_TIME);
    return NUMBERS.contains(tag) ? Reading.PLAIN.read(v, FieldType.DECIMAL) : v;
  }
}
