package org.whinridge.formats.kml;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.LinearRing;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.text.Numbers;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.file.Limits;
import org.whinridge.formats.file.XmlFiles;

/** Geometries of KML, with the heights of their positions. */
final class KmlShapes {
  private KmlShapes() {}

  /**
   * The geometry of the element at the reader's place, whose end is reached after this.
   *
   * @throws IllegalArgumentException with a sentence part for people
   */
  static Optional<Geometry> read(XMLStreamReader x) throws XMLStreamException, FileProblem {
    String kind = x.getLocalName();
    List<List<Coordinate>> rings = new ArrayList<>();
    List<Coordinate> track = new ArrayList<>();
    Said problem = Said.NONE;
    int depth = 1;
    while (depth > 0) {
      int e = x.next();
      if (e == XMLStreamReader.END_ELEMENT) {
        if (x.getLocalName().equals("Track") && !track.isEmpty()) {
          rings.add(track);
          track = new ArrayList<>();
        }
        depth--;
      }
      if (e != XMLStreamReader.START_ELEMENT) continue;
      try {
        if (x.getLocalName().equals("coordinates")) rings.add(positions(XmlFiles.text(x)));
        else if (x.getLocalName().equals("coord"))
          track.addAll(positions(XmlFiles.text(x).replaceAll("\\s+", ",")));
        else depth++;
      } catch (IllegalArgumentException bad) {
        problem = Unfit.said(bad);
      }
    }
    if (!problem.isEmpty()) throw new Unfit(problem);
    if (rings.isEmpty() || rings.get(0).isEmpty()) return Optional.empty();
    return Optional.of(shape(kind, rings));
  }

  private static Geometry shape(String kind, List<List<Coordinate>> rings) {
    switch (kind) {
      case "Point":
        return GeometryJson.WGS84.createPoint(rings.get(0).get(0));
      case "Polygon", "LinearRing":
        LinearRing[] holes = new LinearRing[rings.size() - 1];
        for (int i = 0; i < holes.length; i++) holes[i] = ring(rings.get(i + 1));
        return GeometryJson.WGS84.createPolygon(ring(rings.get(0)), holes);
      default:
        LineString[] lines =
            rings.stream()
                .filter(r -> r.size() > 1)
                .map(r -> GeometryJson.WGS84.createLineString(r.toArray(new Coordinate[0])))
                .toArray(LineString[]::new);
        if (lines.length == 0) throw new Unfit("file.lineSinglePosition");
        return lines.length == 1 ? lines[0] : GeometryJson.WGS84.createMultiLineString(lines);
    }
  }

  private static LinearRing ring(List<Coordinate> c) {
    if (c.size() > 2 && !c.get(0).equals2D(c.get(c.size() - 1)))
      throw new Unfit("file.ringPolygonNotClosed");
    if (c.size() < 4) throw new Unfit("file.ringPolygonFewerThan");
    return GeometryJson.WGS84.createLinearRing(c.toArray(new Coordinate[0]));
  }

  private static List<Coordinate> positions(String text) throws FileProblem {
    List<Coordinate> out = new ArrayList<>();
    for (String tuple : text.replaceAll("\\s*,\\s*", ",").split("\\s+")) {
      if (tuple.isEmpty()) continue;
      String[] p = tuple.split(",");
      var lon = Numbers.read(p[0]);
      var lat = p.length < 2 ? java.util.OptionalDouble.empty() : Numbers.read(p[1]);
      if (lon.isEmpty() || lat.isEmpty())
        throw new Unfit("file.noPosition", "text", Limits.cut(tuple, 40));
      var z = p.length < 3 ? java.util.OptionalDouble.empty() : Numbers.read(p[2]);
      out.add(
          z.isEmpty()
              ? new Coordinate(lon.getAsDouble(), lat.getAsDouble())
              : new Coordinate(lon.getAsDouble(), lat.getAsDouble(), z.getAsDouble()));
      if (out.size() > Limits.POSITIONS) throw new FileProblem("file.geometryMoreThanPositions");
    }
    return out;
  }
}
