package org.whinridge.formats.kml;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.value.Value;
import org.whinridge.formats.file.FileNames;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.file.Limits;
import org.whinridge.formats.file.XmlFiles;
import org.whinridge.formats.photos.Pictures;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Shapes;
import org.whinridge.formats.source.Source;
import org.whinridge.formats.source.ZAndM;

/**
 * A KML file (OGC 12-007r2), alone or out of a KMZ with its pictures. Folders become a column.
 * Descriptions in HTML become text; pictures that they show come with the feature.
 */
public final class KmlSource implements Source {
  /** Elements of which nothing is taken, and what they are called. */
  private static final Map<String, String> LEFT_OUT =
      Map.of(
          "GroundOverlay", "file.kml.groundOverlay",
          "ScreenOverlay", "file.kml.screenOverlay",
          "PhotoOverlay", "file.kml.photoOverlay",
          "NetworkLink", "file.kml.networkLink");

  private final String name;
  private final Path file;
  private final Map<String, Path> pictures = new HashMap<>();
  private final SourceLayer layer;

  /** Whether its positions have heights; while it is looked through, they are taken to. */
  private boolean heights = true;

  /**
   * Looks through the file for what it holds beside features.
   *
   * @param pictures files that came with it, by the name that it uses for them
   */
  public KmlSource(String name, Path file, Map<String, Path> pictures)
      throws FileProblem, IOException {
    this.name = name;
    this.file = file;
    pictures.forEach((n, p) -> this.pictures.put(plain(n), p));
    Map<String, Integer> leftOut = new LinkedHashMap<>();
    Set<String> offered = new LinkedHashSet<>(ZAndM.COLUMNS);
    Aside aside = new Aside(offered, leftOut);
    read(f -> aside.heights |= hasHeight(f), aside);
    this.heights = aside.heights;
    // what is a value of its own in one placemark is taken, whatever another says in its text
    offered.removeAll(aside.own);
    List<Said> notes = new ArrayList<>();
    leftOut.forEach(
        (what, n) ->
            notes.add(
                Said.of(
                    what.equals(LEFT_OUT.get("NetworkLink"))
                        ? "file.linkLeftOut"
                        : "file.kmlLeftOut",
                    "what",
                    Said.of(what, "n", n),
                    "n",
                    n)));
    if (aside.remote > 0) notes.add(Said.of("file.picturesOnNetwork", "n", aside.remote));
    if (aside.missing > 0) notes.add(Said.of("file.picturesMissing", "n", aside.missing));
    if (offered.size() > ZAndM.COLUMNS.size())
      notes.add(Said.of("file.descriptionsHoldTablesTheir"));
    if (heights) notes.add(ZAndM.NOTE);
    this.layer = SourceLayer.wgs84(FileNames.stem(name)).noted(notes).withAside(offered);
  }

  /** Many programs write 0 for a height that nobody knows. */
  private static boolean hasHeight(RawFeature f) {
    return ZAndM.COLUMNS.stream()
        .anyMatch(c -> f.properties().get(c) instanceof Value.Num z && z.value() != 0);
  }

  /** What is met beside the features while a file is looked through. */
  private static final class Aside {
    final Set<String> offered;
    final Map<String, Integer> leftOut;
    final Set<String> own = new HashSet<>();
    int remote;
    int missing;
    boolean heights;

    Aside(Set<String> offered, Map<String, Integer> leftOut) {
      this.offered = offered;
      this.leftOut = leftOut;
    }
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
    return read(sink, new Aside(new LinkedHashSet<>(), new LinkedHashMap<>()));
  }

  private int read(Sink sink, Aside aside) throws FileProblem, IOException {
    try (InputStream in = new BufferedInputStream(Files.newInputStream(file), 1 << 16)) {
      XMLStreamReader x = XmlFiles.open(in);
      Deque<String> folders = new ArrayDeque<>();
      int n = 0;
      while (x.hasNext()) {
        int e = x.next();
        if (e == XMLStreamReader.END_ELEMENT && x.getLocalName().equals("Folder")) folders.poll();
        if (e != XMLStreamReader.START_ELEMENT) continue;
        String tag = x.getLocalName();
        if (LEFT_OUT.containsKey(tag)) {
          aside.leftOut.merge(LEFT_OUT.get(tag), 1, Integer::sum);
          XmlFiles.skip(x);
          continue;
        }
        switch (tag) {
          case "Folder" -> folders.push("");
          case "name" -> {
            if (!folders.isEmpty() && folders.peek().isEmpty()) {
              folders.pop();
              folders.push(XmlFiles.text(x));
            }
          }
          case "Style", "StyleMap", "Schema" -> XmlFiles.skip(x);
          case "Placemark" -> {
            Limits.features(++n);
            sink.take(placemark(x, n, path(folders), aside));
          }
          default -> {}
        }
      }
      if (n == 0)
        throw new FileProblem(
            aside.leftOut.isEmpty() ? "file.kmlHoldsNoPlacemarks" : "file.kmlHoldsOther",
            "others",
            others(aside));
      return n;
    } catch (XMLStreamException e) {
      throw XmlFiles.problem(e);
    }
  }

  private static Said others(Aside aside) {
    List<Said> out = new ArrayList<>();
    aside.leftOut.forEach((what, n) -> out.add(Said.of(what, "n", n)));
    return Said.row(out, "list.and");
  }

  /** All folders that a placemark lies in, the outermost first. */
  private static String path(Deque<String> folders) {
    StringBuilder out = new StringBuilder();
    folders
        .descendingIterator()
        .forEachRemaining(
            f -> {
              if (!f.isEmpty()) out.append(out.length() == 0 ? "" : " / ").append(f);
            });
    return out.toString();
  }

  private RawFeature placemark(XMLStreamReader x, int n, String folder, Aside aside)
      throws XMLStreamException, FileProblem, IOException {
    int line = x.getLocation().getLineNumber();
    Map<String, Value> values = new LinkedHashMap<>();
    Map<String, String> table = new LinkedHashMap<>();
    List<Path> shown = new ArrayList<>();
    List<Geometry> shapes = new ArrayList<>();
    Said problem = Said.NONE;
    int depth = 1;
    while (depth > 0) {
      int e = x.next();
      if (e == XMLStreamReader.END_ELEMENT) depth--;
      if (e != XMLStreamReader.START_ELEMENT) continue;
      switch (x.getLocalName()) {
        case "name" -> put(values, "name", XmlFiles.text(x));
        case "description" -> {
          KmlDescription d = KmlDescription.of(XmlFiles.text(x));
          for (String p : d.pictures()) picture(p, shown, aside, true);
          table.putAll(d.table());
          put(values, "description", d.text());
        }
        case "address", "phoneNumber", "when", "begin", "end" ->
            put(values, x.getLocalName(), XmlFiles.text(x));
        case "Data" -> {
          String key = String.valueOf(x.getAttributeValue(null, "name"));
          String text = data(x);
          picture(text, shown, aside, false);
          put(values, key, text);
        }
        case "SimpleData" -> {
          String key = String.valueOf(x.getAttributeValue(null, "name"));
          String text = XmlFiles.text(x);
          picture(text, shown, aside, false);
          put(values, key, text);
        }
        case "Point", "LineString", "Polygon", "LinearRing", "Track", "MultiTrack" -> {
          try {
            KmlShapes.read(x).ifPresent(shapes::add);
          } catch (IllegalArgumentException bad) {
            problem = Said.of("file.placemarkLine", "n", n, "line", line, "why", Unfit.said(bad));
          }
        }
        case "Style", "StyleMap", "LookAt", "Camera", "Region" -> XmlFiles.skip(x);
        default -> depth++;
      }
    }
    if (!folder.isEmpty()) put(values, "folder", folder);
    aside.own.addAll(values.keySet());
    table.forEach(
        (k, v) -> {
          if (!values.containsKey(k)) {
            put(values, k, v);
            aside.offered.add(k);
          }
        });
    if (heights) for (Geometry g : shapes) ZAndM.put(g, values);
    if (values.size() > Limits.COLUMNS)
      Limits.columns(values.size(), Said.of("file.where.placemark", "n", n));
    Optional<Geometry> g =
        shapes.isEmpty()
            ? Optional.empty()
            : Optional.of(shapes.size() == 1 ? shapes.get(0) : Shapes.together(shapes));
    return new RawFeature(n, g, values, problem, List.copyOf(shown));
  }

  /** The value of a Data element; the name that it shows for it is none. */
  private static String data(XMLStreamReader x) throws XMLStreamException, FileProblem {
    String value = "";
    int depth = 1;
    while (depth > 0) {
      int e = x.next();
      if (e == XMLStreamReader.END_ELEMENT) depth--;
      if (e != XMLStreamReader.START_ELEMENT) continue;
      if (x.getLocalName().equals("value")) value = XmlFiles.text(x);
      else XmlFiles.skip(x);
    }
    return value;
  }

  private static void put(Map<String, Value> values, String key, String text) {
    if (!text.isEmpty()) values.put(key, Value.text(Limits.cut(text, Limits.TEXT)));
  }

  /** {@code surely}: whether the reference is to a picture, not a text that may be one. */
  private void picture(String reference, List<Path> shown, Aside aside, boolean surely)
      throws IOException {
    if (reference.matches("(?i)(https?|ftp):.{1,2000}")) {
      if (surely) aside.remote++;
      return;
    }
    Path p = reference.length() > 500 ? null : pictures.get(plain(reference));
    Optional<Path> photo = p == null ? Optional.empty() : Pictures.photo(p);
    if (photo.isEmpty() && surely) aside.missing++;
    if (photo.isPresent() && !shown.contains(photo.get()) && shown.size() < 100)
      shown.add(photo.get());
  }

  /** A reference without escapes, as names of files in an archive are compared. */
  private static String plain(String reference) {
    String s = reference.strip().replace('\\', '/').replaceFirst("^(\\./|file:/*)+", "");
    if (s.indexOf('%') >= 0)
      try {
        s = URLDecoder.decode(s.replace("+", "%2B"), StandardCharsets.UTF_8);
      } catch (IllegalArgumentException e) {
        return s.toLowerCase(Locale.ROOT); // a per cent sign in a name
      }
    return s.toLowerCase(Locale.ROOT);
  }
}
