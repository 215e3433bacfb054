package org.whinridge.formats;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.value.Value;

/**
 * A KML file (OGC 12-007r2), alone or out of a KMZ with its pictures. Folders become a column.
 * Descriptions in HTML become text; pictures that they show come with the feature.
 */
final class KmlSource implements Source {
  private static final Pattern IMAGE =
      Pattern.compile("(?i)<img[^>]{0,1000}?\\ssrc\\s*=\\s*[\"']([^\"'>]{1,500})[\"']");
  private final String name;
  private final Path file;
  private final Map<String, Path> pictures;
  private final SourceLayer layer;

  /** {@code pictures}: files that came with it, by the name that it uses for them. */
  KmlSource(String name, Path file, Map<String, Path> pictures) {
    this.name = name;
    this.file = file;
    this.pictures = pictures;
    this.layer = SourceLayer.wgs84(FileNames.stem(name));
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public String format() {
    return pictures.isEmpty() ? "KML" : "KMZ";
  }

  @Override
  public List<SourceLayer> layers() {
    return List.of(layer);
  }

  @Override
  public int each(SourceLayer l, Sink sink) throws FileProblem, IOException {
    try (InputStream in = new BufferedInputStream(Files.newInputStream(file), 1 << 16)) {
      XMLStreamReader x = XmlFiles.open(in);
      Deque<String> folders = new ArrayDeque<>();
      int n = 0;
      while (x.hasNext()) {
        int e = x.next();
        if (e == XMLStreamReader.END_ELEMENT && x.getLocalName().equals("Folder")) folders.poll();
        if (e != XMLStreamReader.START_ELEMENT) continue;
        switch (x.getLocalName()) {
          case "Folder" -> folders.push("");
          case "name" -> {
            if (!folders.isEmpty() && folders.peek().isEmpty()) {
              folders.pop();
              folders.push(XmlFiles.text(x));
            }
          }
          case "Style",
              "StyleMap",
              "Schema",
              "NetworkLink",
              "GroundOverlay",
              "ScreenOverlay",
              "PhotoOverlay" ->
              XmlFiles.skip(x);
          case "Placemark" -> {
            Limits.features(++n);
            sink.take(placemark(x, n, folders.isEmpty() ? "" : folders.peek()));
          }
          default -> {}
        }
      }
      if (n == 0) throw new FileProblem("The KML holds no placemarks.");
      return n;
    } catch (XMLStreamException e) {
      throw XmlFiles.problem(e);
    }
  }

  private RawFeature placemark(XMLStreamReader x, int n, String folder)
      throws XMLStreamException, FileProblem {
    int line = x.getLocation().getLineNumber();
    Map<String, Value> values = new LinkedHashMap<>();
    List<Path> shown = new ArrayList<>();
    List<Geometry> shapes = new ArrayList<>();
    String problem = "";
    int depth = 1;
    while (depth > 0) {
      int e = x.next();
      if (e == XMLStreamReader.END_ELEMENT) depth--;
      if (e != XMLStreamReader.START_ELEMENT) continue;
      switch (x.getLocalName()) {
        case "name" -> put(values, "name", XmlFiles.text(x));
        case "description" -> put(values, "description", described(XmlFiles.text(x), shown));
        case "address", "phoneNumber", "when", "begin", "end" ->
            put(values, x.getLocalName(), XmlFiles.text(x));
        case "Data", "SimpleData" -> {
          String key = String.valueOf(x.getAttributeValue(null, "name"));
          String text = XmlFiles.text(x);
          picture(text, shown);
          put(values, key, text);
        }
        case "Point", "LineString", "Polygon", "LinearRing", "Track", "MultiTrack" -> {
          try {
            KmlShapes.read(x).ifPresent(shapes::add);
          } catch (IllegalArgumentException bad) {
            problem = "Placemark " + n + " (line " + line + "): " + bad.getMessage() + ".";
          }
        }
        case "Style", "StyleMap", "LookAt", "Camera", "Region" -> XmlFiles.skip(x);
        default -> depth++;
      }
    }
    if (values.size() > Limits.COLUMNS) Limits.columns(values.size(), "Placemark " + n);
    if (!folder.isEmpty()) put(values, "folder", folder);
    Optional<Geometry> g =
        shapes.isEmpty()
            ? Optional.empty()
            : Optional.of(shapes.size() == 1 ? shapes.get(0) : Shapes.together(shapes));
    return new RawFeature(n, g, values, problem, List.copyOf(shown));
  }

  private static void put(Map<String, Value> values, String key, String text) {
    if (!text.isEmpty()) values.put(key, Value.text(Limits.cut(text, Limits.TEXT)));
  }

  private String described(String html, List<Path> shown) {
    if (html.indexOf('<') < 0) return html;
    Matcher m = IMAGE.matcher(html);
    while (m.find()) picture(m.group(1), shown);
    return without(without(html, "script"), "style")
        .replaceAll("(?i)<(br|/p|/tr|/div|/li)[^>]*>", "\n")
        .replaceAll("<[^>]{0,2000}>", " ")
        .replace("&nbsp;", " ")
        .replace("&lt;", "<")
        .replace("&gt;", ">")
        .replace("&quot;", "\"")
        .replace("&amp;", "&")
        .replaceAll("[ \\t]+", " ")
        .replaceAll("\\s*\\n\\s*", "\n")
        .strip();
  }

  /** The text without elements of a name; in time linear in its length, however it is broken. */
  private static String without(String html, String element) {
    String small = html.toLowerCase(java.util.Locale.ROOT);
    StringBuilder b = new StringBuilder();
    int from = 0;
    for (int at = small.indexOf("<" + element); at >= 0; at = small.indexOf("<" + element, from)) {
      int end = small.indexOf("</" + element, at);
      b.append(html, from, at).append(' ');
      if (end < 0) return b.toString();
      from = end;
    }
    return b.append(html.substring(from)).toString();
  }

  private void picture(String reference, List<Path> shown) {
    Path p = pictures.get(reference.replaceFirst("^\\./", ""));
    if (p != null && !shown.contains(p) && shown.size() < 100) shown.add(p);
  }
}
