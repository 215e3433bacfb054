package org.whinridge.engine;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import org.whinridge.core.said.English;

/**
 * The lines kind ⇥ input ⇥ result of golden/*.tsv. They were made by core on the JVM and read by a
 * person; where a result is a number of geometry, 1e-9 relative is one and the same, everything
 * else is exact.
 */
final class GoldenVectors {
  private static final Set<String> MEASURES =
      Set.of("length", "area", "distance", "bearing", "easting", "northing");

  /** The files: the first thread through everything, then one for each part of core. */
  static final List<String> FILES =
      List.of(
          "thread.tsv",
          "language.tsv",
          "forms.tsv",
          "prefill.tsv",
          "maps.tsv",
          "travel.tsv",
          "meaning.tsv",
          "lines.tsv",
          "workshop.tsv");

  record Vector(String kind, String input, String result) {
    /**
     * Whether a result is this vector's, at the tolerance of its kind. What is told stands here in
     * English.
     */
    boolean agrees(String other) {
      if (result.equals(English.inText(other))) return true;
      if (!MEASURES.contains(kind)) return false;
      double a = Double.parseDouble(result);
      double b = Double.parseDouble(other);
      return Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a));
    }
  }

  private GoldenVectors() {}

  /** The input with @name replaced by what a "define" line says it is. */
  static String whole(String input, Map<String, String> defined) {
    String s = input;
    for (Map.Entry<String, String> d : defined.entrySet())
      s = s.replaceAll(d.getKey() + "(?![a-z_])", Matcher.quoteReplacement(d.getValue()));
    return s;
  }

  static List<Vector> all() throws IOException {
    List<Vector> out = new ArrayList<>();
    Map<String, String> defined = new LinkedHashMap<>();
    for (String file : FILES)
      try (InputStream in = GoldenVectors.class.getResourceAsStream("/golden/" + file)) {
        new String(in.readAllBytes(), StandardCharsets.UTF_8)
            .lines()
            .filter(l -> !l.isBlank())
            .map(l -> l.split("\t", -1))
            .forEach(
                p -> {
                  if (p[0].equals("define")) defined.put(p[1], p[2]);
                  else out.add(new Vector(p[0], whole(p[1], defined), p[2]));
                });
      }
    return out;
  }
}
