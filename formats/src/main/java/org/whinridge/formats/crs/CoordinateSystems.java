package org.whinridge.formats.crs;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.CoordinateSystem;

/** All systems of the EPSG list that ships with proj4j-epsg, and those that a .prj describes. */
public final class CoordinateSystems {
  /** A system that can be chosen: its EPSG number and its name. */
  public record Choice(int epsg, String name) {}

  private static final Pattern LINE = Pattern.compile("<(\\d+)>\\s*(.*?)\\s*<>.*");
  private static final Map<Integer, Known> KNOWN = load();
  private static final Map<String, Integer> BY_NAME = byName();

  private record Known(String name, String parameters) {}

  private CoordinateSystems() {}

  private static InputStream resource(String name) {
    InputStream in = CoordinateSystems.class.getResourceAsStream(name);
    if (in == null)
      throw new IllegalStateException("proj4j-epsg is not on the class path: " + name);
    return in;
  }

  private static Map<Integer, Known> load() {
    Map<Integer, Known> out = new TreeMap<>();
    try (BufferedReader in =
        new BufferedReader(
            new InputStreamReader(resource("/proj4/nad/epsg"), StandardCharsets.ISO_8859_1))) {
      String name = "";
      for (String line = in.readLine(); line != null; line = in.readLine()) {
        Matcher m = LINE.matcher(line);
        if (line.startsWith("#")) name = line.substring(1).strip();
        else if (m.matches()) out.put(Integer.valueOf(m.group(1)), new Known(name, m.group(2)));
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return out;
  }

  private static Map<String, Integer> byName() {
    Map<String, Integer> out = new LinkedHashMap<>();
    KNOWN.forEach((code, k) -> out.putIfAbsent(simple(k.name), code));
    return out;
  }

  /** A name as far as it matters: small letters and digits, years cut to two. */
  static String simple(String name) {
    return name.toLowerCase(Locale.ROOT)
        .replaceFirst("^(gcs|d)_", "")
        .replaceAll("[^a-z0-9]", "")
        .replaceAll("19(\\d\\d)", "$1");
  }

  /** The system with that EPSG number; empty when it is not known or has no definition. */
  public static Optional<CoordinateSystem> epsg(int code) {
    if (code == 4326) return Optional.of(CoordinateSystem.wgs84());
    Known k = KNOWN.get(code);
    return k == null ? Optional.empty() : CoordinateSystem.of("EPSG:" + code, k.name, k.parameters);
  }

  /**
   * The system with a code as it is written: "EPSG:27700", "27700", "urn:ogc:def:crs:EPSG::27700".
   */
  public static Optional<CoordinateSystem> code(String code) {
    if (code.endsWith("CRS84")) return epsg(4326);
    Matcher m =
        Pattern.compile("(?i)(?:.*EPSG:[^:]*:|EPSG:|EPSG/|.*/)?(\\d{4,6})").matcher(code.strip());
    return m.matches() ? epsg(Integer.parseInt(m.group(1))) : Optional.empty();
  }

  /**
   * Systems whose number begins with, or whose name holds, all the words asked for; WGS 84 and
   * ETRS89 first, then the shortest names, at most {@code most}.
   */
  public static List<Choice> find(String asked, int most) {
    String[] words = asked.toLowerCase(Locale.ROOT).strip().split("[\\s:]+");
    List<Choice> out = new ArrayList<>();
    KNOWN.forEach(
        (code, k) -> {
          String name = k.name.toLowerCase(Locale.ROOT);
          for (String w : words)
            if (!w.equals("epsg") && !name.contains(w) && !String.valueOf(code).startsWith(w))
              return;
          out.add(new Choice(code, k.name));
        });
    out.sort(
        java.util.Comparator.comparing(
                (Choice c) -> !String.valueOf(c.epsg()).equals(asked.strip()))
            .thenComparing(c -> !c.name().startsWith("WGS 84"))
            .thenComparing(c -> !c.name().startsWith("ETRS89"))
            .thenComparingInt(c -> c.name().length())
            .thenComparingInt(Choice::epsg));
    return out.subList(0, Math.min(most, out.size()));
  }

  /**
   * The system that a well-known text describes (WKT 1 of OGC 01-009, as .prj files have it, or WKT
   * 2 with an id): by its EPSG authority, else by its name, else by its parameters. A name is only
   * believed when its definition agrees with the parameters written.
   */
  public static Optional<CoordinateSystem> wkt(String text) {
    Optional<Wkt> read = Wkt.parse(text);
    if (read.isEmpty()) return Optional.empty();
    Wkt root = read.get();
    Optional<CoordinateSystem> byCode = root.epsg().flatMap(CoordinateSystems::epsg);
    if (byCode.isPresent()) return byCode;
    Optional<CoordinateSystem> own = WktParameters.of(root);
    if (own.isPresent() && own.get().parameters().equals(WktParameters.WEB_MERCATOR))
      return epsg(3857);
    Optional<CoordinateSystem> named = named(root.name());
    if (named.isPresent() && (own.isEmpty() || agree(named.get(), own.get()))) return named;
    return own;
  }

  private static Optional<CoordinateSystem> named(String name) {
    String s = simple(name);
    if (s.isEmpty()) return Optional.empty();
    Integer code = BY_NAME.get(s);
    if (code == null && s.length() > 10)
      for (Map.Entry<String, Integer> e : BY_NAME.entrySet())
        if (e.getKey().endsWith(s) || e.getKey().startsWith(s)) {
          code = e.getValue();
          break;
        }
    return code == null ? Optional.empty() : epsg(code);
  }

  /**
   * Whether two systems put some positions within 500 m of one another; datum shifts may differ by
   * that much and are then taken from the known one.
   */
  private static boolean agree(CoordinateSystem a, CoordinateSystem b) {
    if (a.isInDegrees() != b.isInDegrees()) return false;
    if (a.isInDegrees()) return true;
    int tried = 0;
    for (double lon = -175; lon <= 175; lon += 5)
      for (double lat = -75; lat <= 75; lat += 15) {
        Optional<Coordinate> p = a.project(new Coordinate(lon, lat));
        Optional<Coordinate> q = b.project(new Coordinate(lon, lat));
        if (p.isEmpty() || q.isEmpty()) continue;
        double size = Math.max(Math.abs(p.get().x), Math.abs(p.get().y));
        if (size > 3e6) continue; // far from where the system is made for
        tried++;
        if (p.get().distance(q.get()) > 500 / metresPerUnit(a)) return false;
      }
    return tried > 0;
  }

  private static double metresPerUnit(CoordinateSystem s) {
    Matcher m = Pattern.compile("\\+to_meter=([0-9.eE-]+)").matcher(s.parameters());
    return m.find()
        ? Double.parseDouble(m.group(1))
        : s.parameters().contains("+units=us-ft") ? 0.3048006096 : 1;
  }

  /**
   * The datum part of the parameters ("+ellps=airy +towgs84=…" or "+datum=OSGB36") of the known
   * geographic system with a datum of that name; empty when none has it.
   */
  static Optional<String> datum(String name) {
    Optional<CoordinateSystem> geographic = named(name);
    if (geographic.isEmpty() || !geographic.get().isInDegrees())
      geographic = DatumNames.of(simple(name));
    return geographic.map(
        g ->
            g.parameters()
                .replaceAll("\\+(proj|no_defs|units|lon_0|lat_0)(=\\S+)?", "")
                .replaceAll("\\s+", " ")
                .strip());
  }

  /** The well-known text (WKT 1) of a system for a .prj file; empty when the list has none. */
  public static Optional<String> text(CoordinateSystem s) {
    if (!s.code().startsWith("EPSG:")) return Optional.empty();
    return Optional.ofNullable(Texts.ALL.getProperty(s.code().substring(5)));
  }

  static Map<Integer, String> texts() {
    Map<Integer, String> out = new TreeMap<>();
    Texts.ALL.forEach(
        (k, v) -> {
          if (k.toString().matches("\\d+")) out.put(Integer.valueOf(k.toString()), v.toString());
        });
    return out;
  }

  /** Whether the system's datum is shifted by an approximation, where a grid would be better. */
  public static boolean isApproximate(CoordinateSystem s) {
    Matcher m = Pattern.compile("\\+towgs84=([-0-9.,]+)").matcher(s.parameters());
    if (s.parameters().contains("+datum="))
      return !s.parameters().contains("+datum=WGS84") && !s.parameters().contains("+datum=NAD83");
    return m.find() && !m.group(1).matches("[-0,.]+");
  }

  /** Loaded at first use: four megabytes of text. */
  private static final class Texts {
    static final Properties ALL = new Properties();

    static {
      try (InputStream in = resource("/proj4/wkt/epsg.properties")) {
        ALL.load(in);
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
  }

  /** Geographic systems by the simple name of their datum, out of the list's texts. */
  private static final class DatumNames {
    private static final Map<String, Integer> CODES = new LinkedHashMap<>();

    static {
      texts()
          .forEach(
              (code, text) -> {
                if (!text.startsWith("GEOGCS")) return;
                Wkt.parse(text)
                    .flatMap(w -> w.child("DATUM"))
                    .ifPresent(d -> CODES.putIfAbsent(simple(d.name()), code));
              });
    }

    static Optional<CoordinateSystem> of(String simple) {
      Integer code = CODES.get(simple);
      return code == null ? Optional.empty() : epsg(code);
    }
  }
}
