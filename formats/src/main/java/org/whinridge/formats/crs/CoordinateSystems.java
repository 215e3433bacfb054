package org.whinridge.formats.crs;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.locationtech.jts.geom.Envelope;
import org.opengis.referencing.crs.CoordinateReferenceSystem;
import org.whinridge.core.place.AreaOfUse;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.Utm;

/** Coordinate systems of files: those of the EPSG dataset, and those that a text describes. */
public final class CoordinateSystems {
  /** A system that can be chosen: its EPSG number, its name, and where it is meant to be used. */
  public record Choice(int epsg, String name, Optional<AreaOfUse> area) {}

  private static final Pattern LINE = Pattern.compile("<(\\d+)>\\s*(.*?)\\s*<>.*");
  private static final Map<Integer, Optional<CoordinateSystem>> READ = new ConcurrentHashMap<>();

  private CoordinateSystems() {}

  static InputStream resource(String name) {
    InputStream in = CoordinateSystems.class.getResourceAsStream(name);
    if (in == null)
      throw new IllegalStateException("proj4j-epsg is not on the class path: " + name);
    return in;
  }

  /** Where the dataset's database writes its log, which nobody reads; called by its name. */
  public static OutputStream unread() {
    return OutputStream.nullOutputStream();
  }

  /** Opens the dataset ahead of the first question, which takes some seconds. */
  public static void open() {
    epsg(32631);
    Epsg.names();
  }

  /** The system with that EPSG number; empty when it is not known or can't be computed with. */
  public static Optional<CoordinateSystem> epsg(int code) {
    if (code == 4326) return Optional.of(CoordinateSystem.wgs84());
    Optional<CoordinateSystem> known = READ.get(code);
    if (known != null) return known;
    // not computeIfAbsent: one system may be read in the course of another
    known = read(code);
    READ.put(code, known);
    return known;
  }

  private static Optional<CoordinateSystem> read(int code) {
    String parameters = Parameters.ALL.getOrDefault(code, "");
    Optional<CoordinateReferenceSystem> s = Epsg.system(code);
    Optional<CoordinateSystem> out =
        s.flatMap(x -> GeodeticSystem.of("EPSG:" + code, x.getName().getCode(), parameters, x));
    if (out.isPresent() || parameters.isEmpty()) return out;
    // projections and shifts that the library does not have
    String name = Epsg.names().getOrDefault(code, "EPSG:" + code);
    Optional<CoordinateSystem> parts = ByParts.of(code, name, parameters);
    return parts.isPresent() ? parts : CoordinateSystem.of("EPSG:" + code, name, parameters);
  }

  /**
   * The system with that EPSG number as core computes with it, on the device too: a project's own
   * must be one of these. Empty when core can't.
   */
  public static Optional<CoordinateSystem> own(int code) {
    if (code == 4326) return Optional.of(CoordinateSystem.wgs84());
    String parameters = Parameters.ALL.getOrDefault(code, "");
    return parameters.isEmpty()
        ? Optional.empty()
        : CoordinateSystem.of(
            "EPSG:" + code, Epsg.names().getOrDefault(code, "EPSG:" + code), parameters);
  }

  /** As {@link #find}, of those that a project may have. */
  public static List<Choice> findOwn(String asked, int most) {
    return find(asked, Integer.MAX_VALUE).stream()
        .filter(c -> own(c.epsg()).isPresent())
        .limit(most)
        .toList();
  }

  /**
   * The systems that are usual at a place and that a project may have: UTM on WGS 84, then those
   * made for surveys and maps there, the ones for the smallest area first.
   *
   * @param lon longitude on WGS 84, -180 to 180
   * @param lat latitude, -90 to 90
   */
  public static List<Choice> at(double lon, double lat, int most) {
    List<Choice> out = new ArrayList<>();
    Utm.at(lon, lat)
        .ifPresent(s -> out.add(choice(Integer.parseInt(s.code().substring("EPSG:".length())))));
    AreasOfUse.surveyedAt(lon, lat).stream()
        .filter(code -> out.stream().noneMatch(c -> c.epsg() == code))
        .filter(code -> own(code).isPresent())
        .limit(Math.max(0, most - out.size()))
        .forEach(code -> out.add(choice(code)));
    return List.copyOf(out);
  }

  private static Choice choice(int code) {
    return new Choice(code, Epsg.names().getOrDefault(code, "EPSG:" + code), AreasOfUse.of(code));
  }

  /**
   * The system with the operation that is best for where data lie; the same for those of which
   * there is one.
   *
   * @param own the box around the data in the system's coordinates
   */
  public static CoordinateSystem over(CoordinateSystem s, Envelope own) {
    return s instanceof GeodeticSystem g ? g.over(own) : s;
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
   * Systems whose number begins with, or whose name or area of use holds, all the words asked for;
   * those whose name holds them first, WGS 84 and ETRS89 before others, then the shortest names, at
   * most {@code most}.
   */
  public static List<Choice> find(String asked, int most) {
    String[] words = asked.toLowerCase(Locale.ROOT).strip().split("[\\s:]+");
    List<Choice> out = new ArrayList<>();
    Set<Integer> byName = new HashSet<>();
    Epsg.names()
        .forEach(
            (code, full) -> {
              Optional<AreaOfUse> area = AreasOfUse.of(code);
              if (holds(words, code, full)) byName.add(code);
              else if (!holds(words, code, full + " " + area.map(AreaOfUse::name).orElse("")))
                return;
              out.add(new Choice(code, full, area));
            });
    out.sort(
        Comparator.comparing((Choice c) -> !String.valueOf(c.epsg()).equals(asked.strip()))
            .thenComparing(c -> !byName.contains(c.epsg()))
            .thenComparing(c -> !c.name().startsWith("WGS 84"))
            .thenComparing(c -> !c.name().startsWith("ETRS89"))
            .thenComparingInt(c -> c.name().length())
            .thenComparingInt(Choice::epsg));
    return List.copyOf(out.subList(0, Math.min(most, out.size())));
  }

  private static boolean holds(String[] words, int code, String text) {
    String low = text.toLowerCase(Locale.ROOT);
    for (String w : words)
      if (!w.equals("epsg") && !low.contains(w) && !String.valueOf(code).startsWith(w))
        return false;
    return true;
  }

  /**
   * The system that a well-known text describes (WKT 1 of OGC 01-009, as .prj files have it, or WKT
   * 2 of OGC 18-010r7): by code, name and numbers, see {@link WktSystem}.
   */
  public static Optional<CoordinateSystem> wkt(String text) {
    return WktSystem.of(text);
  }

  /** The well-known text (WKT 1) of a system for a .prj file; empty when the list has none. */
  public static Optional<String> text(CoordinateSystem s) {
    if (!s.code().startsWith("EPSG:")) return Optional.empty();
    return text(Integer.parseInt(s.code().substring(5)));
  }

  static Optional<String> text(int code) {
    return Optional.ofNullable(Texts.ALL.getProperty(String.valueOf(code)));
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

  /** Definitions as proj parameters, out of the list that ships with proj4j-epsg. */
  private static final class Parameters {
    static final Map<Integer, String> ALL = new TreeMap<>();

    static {
      try (BufferedReader in =
          new BufferedReader(
              new InputStreamReader(resource("/proj4/nad/epsg"), StandardCharsets.ISO_8859_1))) {
        for (String line = in.readLine(); line != null; line = in.readLine()) {
          Matcher m = LINE.matcher(line);
          if (m.matches()) ALL.put(Integer.valueOf(m.group(1)), m.group(2));
        }
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
  }
}
