package org.whinridge.formats.kml;

import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Optional;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygon;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.formats.out.LayerWriter;
import org.whinridge.formats.out.OutColumns;
import org.whinridge.formats.out.OutLayer;

/** Writes layers as folders of a KML file (OGC 12-007r2); always WGS 84. */
public final class KmlWriter implements AutoCloseable {
  private final XMLStreamWriter x;

  /** Begins a file. */
  public KmlWriter(OutputStream out, String name) throws IOException {
    try {
      x = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(out, "UTF-8");
      x.writeStartDocument("UTF-8", "1.0");
      x.writeStartElement("kml");
      x.writeDefaultNamespace("http://www.opengis.net/kml/2.2");
      x.writeStartElement("Document");
      element("name", name);
    } catch (XMLStreamException e) {
      throw new IOException(e);
    }
  }

  /** Begins a folder; end it before the next one. */
  public LayerWriter layer(OutLayer layer) throws IOException {
    try {
      x.writeStartElement("Folder");
      element("name", layer.name());
    } catch (XMLStreamException e) {
      throw new IOException(e);
    }
    List<OutColumns.Column> columns = layer.columns();
    return new LayerWriter() {
      @Override
      public void add(Feature f) throws IOException {
        try {
          placemark(layer, columns, f);
        } catch (XMLStreamException e) {
          throw new IOException(e);
        }
      }

      @Override
      public void close() throws IOException {
        try {
          x.writeEndElement();
        } catch (XMLStreamException e) {
          throw new IOException(e);
        }
      }
    };
  }

  /** Text without the characters that XML 1.0 can't have. */
  private static String clean(String s) {
    return s.replaceAll(
        "[^\\x09\\x0A\\x0D\\x20-\\uD7FF\\uE000-\\uFFFD\\x{10000}-\\x{10FFFF}]", "\uFFFD");
  }

  private void element(String tag, String text) throws XMLStreamException {
    x.writeStartElement(tag);
    x.writeCharacters(clean(text));
    x.writeEndElement();
  }

  private void placemark(OutLayer layer, List<OutColumns.Column> columns, Feature f)
      throws XMLStreamException, IOException {
    x.writeStartElement("Placemark");
    element("name", layer.schema().caption(f.values()));
    x.writeStartElement("ExtendedData");
    for (OutColumns.Column c : columns) {
      Value v = c.of(f);
      if (v.isEmpty()) continue;
      x.writeStartElement("Data");
      x.writeAttribute("name", c.name());
      element("value", OutColumns.text(v));
      x.writeEndElement();
    }
    x.writeEndElement();
    Optional<Geometry> g = f.geometry().filter(s -> !s.isEmpty());
    if (g.isPresent()) shape(g.get());
    x.writeEndElement();
    x.writeCharacters("\n");
  }

  private void shape(Geometry g) throws XMLStreamException {
    if (g instanceof Point || g instanceof LineString)
      line(g instanceof Point ? "Point" : "LineString", g);
    else if (g instanceof Polygon p) {
      x.writeStartElement("Polygon");
      x.writeStartElement("outerBoundaryIs");
      line("LinearRing", p.getExteriorRing());
      x.writeEndElement();
      for (int i = 0; i < p.getNumInteriorRing(); i++) {
        x.writeStartElement("innerBoundaryIs");
        line("LinearRing", p.getInteriorRingN(i));
        x.writeEndElement();
      }
      x.writeEndElement();
    } else {
      x.writeStartElement("MultiGeometry");
      for (int i = 0; i < g.getNumGeometries(); i++) shape(g.getGeometryN(i));
      x.writeEndElement();
    }
  }

  private void line(String tag, Geometry g) throws XMLStreamException {
    x.writeStartElement(tag);
    StringBuilder b = new StringBuilder();
    for (Coordinate c : g.getCoordinates())
      b.append(b.length() == 0 ? "" : " ")
          .append(Numbers.plain(c.x))
          .append(',')
          .append(Numbers.plain(c.y));
    element("coordinates", b.toString());
    x.writeEndElement();
  }

  @Override
  public void close() throws IOException {
    try {
      x.writeEndElement();
      x.writeEndElement();
      x.writeEndDocument();
      x.flush();
    } catch (XMLStreamException e) {
      throw new IOException(e);
    }
  }
}
