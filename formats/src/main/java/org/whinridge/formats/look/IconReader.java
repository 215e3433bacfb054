package org.whinridge.formats.look;

import java.awt.geom.AffineTransform;
import java.io.ByteArrayInputStream;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.whinridge.core.look.Colour;
import org.whinridge.core.look.Icon;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.text.Numbers;
import org.whinridge.formats.file.FileProblem;

/**
 * Makes an {@link Icon} out of an SVG file (SVG 1.1): its shapes as paths in a square box. Nothing
 * but shapes and plain colours comes through; whatever else the file has is named in the notes.
 */
public final class IconReader {
  /** The largest file, in bytes. */
  public static final int LARGEST = 200_000;

  private static final double BOX = 24;
  private static final int DEEPEST = 40;
  private final List<Icon.Part> parts = new ArrayList<>();
  private final List<Said> notes = new ArrayList<>();
  private AffineTransform toBox;

  /** What stands for a group's children: how they lie, and what they are painted with. */
  private record Style(AffineTransform at, String fill, String stroke, double width) {}

  /**
   * An icon and what was left out of the file.
   *
   * @param notes what was left out; empty when nothing was
   */
  public record Read(Icon icon, List<Said> notes) {}

  private IconReader() {}

  /**
   * Reads an SVG file.
   *
   * @param label the icon's name for people
   * @throws FileProblem when it is no SVG, too large, or has no shape that could be drawn
   */
  public static Read read(byte[] svg, String label) throws FileProblem {
    if (svg.length > LARGEST) throw new FileProblem("file.iconTooLarge", "n", svg.length);
    IconReader r = new IconReader();
    try {
      XMLInputFactory f = XMLInputFactory.newDefaultFactory();
      f.setProperty(XMLInputFactory.SUPPORT_DTD, false);
      f.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
      f.setProperty(XMLInputFactory.IS_REPLACING_ENTITY_REFERENCES, false);
      r.document(f.createXMLStreamReader(new ByteArrayInputStream(svg)));
    } catch (XMLStreamException e) {
      throw new FileProblem(
              "file.svgXml", "line", e.getLocation() == null ? 1 : e.getLocation().getLineNumber())
          .because(e);
    } catch (IllegalArgumentException e) {
      throw new FileProblem("file.svgCantBeIcon", "why", Unfit.said(e)).because(e);
    }
    if (r.parts.isEmpty()) throw new FileProblem("file.svgNoShapeCould");
    return new Read(new Icon(label, BOX, r.parts), List.copyOf(r.notes));
  }

  private void document(XMLStreamReader x) throws XMLStreamException, FileProblem {
    Deque<Style> open = new ArrayDeque<>();
    while (x.hasNext()) {
      int event = x.next();
      if (event == XMLStreamReader.END_ELEMENT) open.pop();
      if (event == XMLStreamReader.DTD) note(Said.of("file.documentType"));
      if (event == XMLStreamReader.ENTITY_REFERENCE) note(Said.of("file.entity"));
      if (event != XMLStreamReader.START_ELEMENT) continue;
      String name = x.getLocalName();
      attributes(x);
      if (open.isEmpty()) {
        if (!name.equals("svg")) throw new FileProblem("file.xmlButNoSvg", "name", cut(name));
        open.push(new Style(box(x), "#000000", Icon.NONE, 1));
        toBox = open.peek().at;
      } else if (name.equals("g") || name.equals("svg") || name.equals("a")) {
        if (open.size() > DEEPEST) throw new FileProblem("file.svgNestedTooDeeply");
        open.push(style(x, open.peek()));
      } else if (List.of("path", "rect", "circle", "ellipse", "line", "polyline", "polygon")
          .contains(name)) {
        Style s = style(x, open.peek());
        shape(name, x, s);
        open.push(s);
      } else {
        if (!List.of("title", "desc", "metadata", "defs").contains(name))
          note(Said.text("“" + cut(name) + "”"));
        skip(x);
      }
    }
  }

  private static void skip(XMLStreamReader x) throws XMLStreamException {
    for (int depth = 1; depth > 0; ) {
      int e = x.next();
      if (e == XMLStreamReader.START_ELEMENT) depth++;
      if (e == XMLStreamReader.END_ELEMENT) depth--;
    }
  }

  private void attributes(XMLStreamReader x) {
    for (int i = 0; i < x.getAttributeCount(); i++) {
      String a = x.getAttributeLocalName(i).toLowerCase(Locale.ROOT);
      if (a.startsWith("on")) note(Said.of("file.script", "a", cut(a)));
      if (a.equals("href")) note(Said.of("file.reference"));
    }
  }

  private void note(Said what) {
    Said n = Said.of("file.wasLeftOut", "what", what);
    if (!notes.contains(n) && notes.size() < 20) notes.add(n);
  }

  private static String cut(String s) {
    return s.substring(0, Math.min(40, s.length()));
  }

  /** From the file's own units into the icon's box, centred. */
  private static AffineTransform box(XMLStreamReader x) {
    double[] v = numbers(attribute(x, "viewBox"));
    double w = v.length == 4 ? v[2] : length(x, "width", BOX);
    double h = v.length == 4 ? v[3] : length(x, "height", BOX);
    if (!(w > 0 && h > 0 && w < 1e6 && h < 1e6)) throw new Unfit("file.sizeNotSize");
    double scale = BOX / Math.max(w, h);
    AffineTransform t = new AffineTransform();
    t.translate((BOX - w * scale) / 2, (BOX - h * scale) / 2);
    t.scale(scale, scale);
    if (v.length == 4) t.translate(-v[0], -v[1]);
    return t;
  }

  private static String attribute(XMLStreamReader x, String name) {
    String s = x.getAttributeValue(null, name);
    return s == null ? "" : s.strip();
  }

  /** A presentation attribute, or the same in the style attribute, which comes first. */
  private static String paint(XMLStreamReader x, String name) {
    for (String rule : attribute(x, "style").split(";")) {
      int colon = rule.indexOf(':');
      if (colon > 0 && rule.substring(0, colon).strip().equals(name))
        return rule.substring(colon + 1).strip();
    }
    return attribute(x, name);
  }

  private Style style(XMLStreamReader x, Style above) {
    AffineTransform at = new AffineTransform(above.at);
    at.concatenate(transform(attribute(x, "transform")));
    double width = length(paint(x, "stroke-width"), above.width);
    return new Style(
        at, colour(paint(x, "fill"), above.fill), colour(paint(x, "stroke"), above.stroke), width);
  }

  /** Black, currentColor and what is unknown take the symbol's colour; other colours stay. */
  private String colour(String s, String otherwise) {
    if (s.isEmpty() || s.equals("inherit")) return otherwise;
    if (s.equals("none") || s.equals("transparent")) return Icon.NONE;
    if (s.startsWith("url")) note(Said.of("file.fillReference"));
    if (s.equals("white")) return "#ffffff";
    return Colour.read(s.toLowerCase(Locale.ROOT)).map(Colour::hex).orElse("#000000");
  }

  private static AffineTransform transform(String s) {
    AffineTransform t = new AffineTransform();
    int at = 0;
    while (at < s.length()) {
      int open = s.indexOf('(', at);
      int close = open < 0 ? -1 : s.indexOf(')', open);
      if (close < 0) break;
      double[] n = numbers(s.substring(open + 1, close));
      switch (s.substring(at, open).replace(',', ' ').strip()) {
        case "translate" -> t.translate(n[0], n.length > 1 ? n[1] : 0);
        case "scale" -> t.scale(n[0], n.length > 1 ? n[1] : n[0]);
        case "rotate" -> {
          if (n.length > 2) t.rotate(Math.toRadians(n[0]), n[1], n[2]);
          else t.rotate(Math.toRadians(n[0]));
        }
        case "matrix" -> t.concatenate(new AffineTransform(n));
        case "skewX" -> t.shear(Math.tan(Math.toRadians(n[0])), 0);
        case "skewY" -> t.shear(0, Math.tan(Math.toRadians(n[0])));
        default -> throw new Unfit("file.transformUnknown");
      }
      at = close + 1;
    }
    return t;
  }

  private static double[] numbers(String s) {
    String[] parts = s.strip().split("[\\s,]+");
    double[] out = new double[s.isBlank() ? 0 : parts.length];
    for (int i = 0; i < out.length; i++) out[i] = length(parts[i], Double.NaN);
    for (double d : out)
      if (Double.isNaN(d)) throw new Unfit("file.noRowOfNumbers", "text", cut(s));
    return out;
  }

  private static double length(XMLStreamReader x, String name, double otherwise) {
    return length(attribute(x, name), otherwise);
  }

  private static double length(String s, double otherwise) {
    return Numbers.read(s.replaceAll("(px|pt|mm|em)$", "")).orElse(otherwise);
  }

  private void shape(String name, XMLStreamReader x, Style s) {
    double rx = length(x, name.equals("circle") ? "r" : "rx", 0);
    double ry = name.equals("ellipse") ? length(x, "ry", 0) : rx;
    double cx = length(x, "cx", 0);
    double cy = length(x, "cy", 0);
    double left = length(x, "x", 0);
    double top = length(x, "y", 0);
    double w = length(x, "width", 0);
    double h = length(x, "height", 0);
    String d =
        switch (name) {
          case "path" -> attribute(x, "d");
          case "rect" ->
              w > 0 && h > 0 ? "M" + left + " " + top + "h" + w + "v" + h + "h" + -w + "z" : "";
          case "line" ->
              "M"
                  + length(x, "x1", 0)
                  + " "
                  + length(x, "y1", 0)
                  + "L"
                  + length(x, "x2", 0)
                  + " "
                  + length(x, "y2", 0);
          case "circle", "ellipse" ->
              rx > 0 && ry > 0
                  ? "M" + (cx - rx) + " " + cy + "a" + rx + " " + ry + " 0 1 0 " + 2 * rx + " 0a"
                      + rx + " " + ry + " 0 1 0 " + -2 * rx + " 0z"
                  : "";
          default -> {
            double[] n = numbers(attribute(x, "points"));
            StringBuilder b = new StringBuilder();
            for (int i = 0; i + 1 < n.length; i += 2)
              b.append(i == 0 ? "M" : "L").append(n[i]).append(' ').append(n[i + 1]);
            yield b + (name.equals("polygon") && n.length > 1 ? "z" : "");
          }
        };
    if (d.isEmpty()) return;
    if (!Icon.isPath(d))
      throw new Unfit(
          d.length() > Icon.LONGEST_PATH
              ? Said.of("file.pathTooLong", "n", d.length())
              : Said.of("file.noPathData"));
    if (s.fill.equals(Icon.NONE) && s.stroke.equals(Icon.NONE)) return;
    String moved = PathMover.move(d, s.at);
    double scale = Math.sqrt(Math.abs(s.at.getDeterminant()));
    parts.add(
        new Icon.Part(
            moved,
            own(s.fill),
            own(s.stroke),
            s.stroke.equals(Icon.NONE) ? 0 : Math.min(BOX, s.width * scale)));
    if (parts.size() > Icon.MOST_PARTS)
      throw new Unfit("file.tooManyShapes", "most", Icon.MOST_PARTS);
  }

  private static String own(String colour) {
    return colour.equals("#000000") ? Icon.OF_SYMBOL : colour;
  }
}
