package org.whinridge.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.Geodesy;
import org.whinridge.formats.crs.CoordinateSystems;

/**
 * Seeded EPSG codes, by code, by WKT 1, by WKT 1 as Shapefiles carry it, by WKT 2: positions lie
 * where GDAL puts them. Source: GDAL / PROJ (gdal-bin, proj-bin) as independent programs. 30 codes,
 * or as many as {@code -Dwhinridge.systems=300} says.
 */
class SystemsAgainstGdalTest {
  private static final int CODES = Integer.getInteger("whinridge.systems", 30);

  /** Told as not known, a shift is off by hundreds of metres at most. */
  private static final double FAR = 1500;

  private static final long SEED = 20261127;
  private static final Pattern BOX =
      Pattern.compile("BBOX\\[([-\\d.]+),([-\\d.]+),([-\\d.]+),([-\\d.]+)]");

  /** A code as GDAL has it: texts, some positions in its own coordinates and in WGS 84. */
  private record Known(
      int code, Map<String, String> texts, List<Coordinate> own, List<Coordinate> world) {}

  private static List<Integer> codes() throws Exception {
    List<Integer> all = new ArrayList<>();
    for (String kind : List.of("projected", "geographic_2d"))
      for (String line :
          Gdal.run("projinfo", "--list-crs", kind, "--authority", "EPSG").split("\n"))
        if (line.startsWith("EPSG:"))
          all.add(Integer.valueOf(line.substring(5, line.indexOf(' '))));
    Collections.sort(all);
    Collections.shuffle(all, new Random(SEED));
    return all.subList(0, CODES);
  }

  private static Known known(int code) {
    try {
      return asked(code);
    } catch (Exception e) {
      throw new IllegalStateException("EPSG:" + code, e);
    }
  }

  private static Known asked(int code) throws Exception {
    String epsg = "EPSG:" + code;
    Map<String, String> texts = new LinkedHashMap<>();
    texts.put("code", epsg);
    texts.put(
        "WKT 1", Gdal.run("projinfo", epsg, "-o", "WKT1:GDAL", "--single-line", "-q").strip());
    texts.put(".prj", Gdal.run("gdalsrsinfo", "-o", "wkt_esri", "--single-line", epsg).strip());
    texts.put(
        "WKT 2", Gdal.run("projinfo", epsg, "-o", "WKT2:2019", "--single-line", "-q").strip());
    Matcher m = BOX.matcher(texts.get("WKT 2"));
    double[] box = new double[4];
    while (m.find()) for (int i = 0; i < 4; i++) box[i] = Double.parseDouble(m.group(i + 1));
    double east = box[3] < box[1] ? box[3] + 360 : box[3];
    StringBuilder in = new StringBuilder();
    for (double[] f : new double[][] {{.5, .5}, {.3, .3}, {.7, .6}, {.4, .7}, {.6, .35}}) {
      double lon = box[1] + (east - box[1]) * f[0];
      in.append(
          String.format(
              Locale.ROOT,
              "%.10f %.10f%n",
              lon > 180 ? lon - 360 : lon,
              box[0] + (box[2] - box[0]) * f[1]));
    }
    String own =
        Gdal.tried(
                in.toString(), "gdaltransform", "-s_srs", "EPSG:4326", "-t_srs", epsg, "-output_xy")
            .orElse("* *\n".repeat(5));
    List<Coordinate> at = read(own);
    return new Known(code, texts, at, world(epsg, at, isNorthFirst(texts.get("WKT 2"))));
  }

  /** PROJ's best operation; "*" where it has none but a guess without a shift of the datum. */
  private static List<Coordinate> world(String epsg, List<Coordinate> at, boolean northFirst)
      throws Exception {
    StringBuilder in = new StringBuilder();
    if (at.stream().noneMatch(c -> Double.isFinite(c.x))) return at;
    for (Coordinate c : at) in.append(northFirst ? c.y + " " + c.x : c.x + " " + c.y).append('\n');
    String out =
        Gdal.tried(in.toString(), "cs2cs", "--no-ballpark", "-f", "%.10f", epsg, "EPSG:4326")
            .orElse("* *\n".repeat(at.size())); // refused: it has no other at all
    return read(out).stream().map(c -> new Coordinate(c.y, c.x)).toList();
  }

  /** What PROJ states for its own operation, in metres. */
  private static double accuracy(String epsg) throws Exception {
    Matcher m =
        Pattern.compile(", ([\\d.]+) m, ")
            .matcher(
                Gdal.tried(
                        "",
                        "projinfo",
                        "-s",
                        epsg,
                        "-t",
                        "EPSG:4326",
                        "--spatial-test",
                        "intersects",
                        "--summary")
                    .orElse(""));
    return m.find() ? Double.parseDouble(m.group(1)) : 0;
  }

  private static boolean isNorthFirst(String wkt2) {
    Matcher m =
        Pattern.compile("AXIS\\[\"[^\"]*\",(\\w+)[,\\]].*?AXIS\\[\"[^\"]*\",(\\w+)[,\\]]")
            .matcher(wkt2);
    String first = "";
    String second = "";
    // the last pair is the system's own; before it stand those of what it is derived from
    while (m.find()) {
      first = m.group(1);
      second = m.group(2);
    }
    return first.equals("north") && second.equals("east");
  }

  private static List<Coordinate> read(String lines) {
    List<Coordinate> out = new ArrayList<>();
    for (String line : lines.strip().split("\n")) {
      String[] xy = line.strip().split("\\s+");
      boolean none = !xy[0].matches("[-+.\\deE]+");
      out.add(
          none
              ? new Coordinate(Double.NaN, Double.NaN)
              : new Coordinate(Double.parseDouble(xy[0]), Double.parseDouble(xy[1])));
    }
    return out;
  }

  private static double worst(CoordinateSystem s, List<Coordinate> own, List<Coordinate> world) {
    double worst = 0;
    for (int i = 0; i < own.size(); i++) {
      if (!Double.isFinite(own.get(i).x) || !Double.isFinite(world.get(i).x)) continue;
      Optional<Coordinate> c = s.unproject(own.get(i));
      worst =
          Math.max(
              worst,
              c.isEmpty() ? Double.POSITIVE_INFINITY : Geodesy.distanceM(c.get(), world.get(i)));
    }
    return worst;
  }

  @Test
  void positionsLieWhereGdalPutsThem() throws Exception {
    List<String> wrong = new ArrayList<>();
    List<String> refused = new ArrayList<>();
    int alone = 0;
    Map<String, int[]> tally = new LinkedHashMap<>();
    // GDAL's programs take longer to start than to answer: they are asked side by side
    List<Known> all = codes().parallelStream().map(SystemsAgainstGdalTest::known).toList();
    for (Known k : all) {
      int code = k.code;
      if (k.world.stream().noneMatch(c -> Double.isFinite(c.x))) {
        alone++;
        continue;
      }
      Envelope box = new Envelope();
      k.own.stream().filter(c -> Double.isFinite(c.x)).forEach(box::expandToInclude);
      for (Map.Entry<String, String> way : k.texts.entrySet()) {
        if (way.getValue().isEmpty() || way.getValue().startsWith("Error"))
          continue; // PROJ can't say it so
        int[] n = tally.computeIfAbsent(way.getKey(), x -> new int[4]);
        Optional<CoordinateSystem> s =
            (way.getKey().equals("code")
                    ? CoordinateSystems.code(way.getValue())
                    : CoordinateSystems.wkt(way.getValue()))
                .map(x -> CoordinateSystems.over(x, box));
        String told = "EPSG:" + code + " by " + way.getKey();
        if (s.isEmpty()) {
          n[3]++;
          refused.add(told);
          continue;
        }
        double off = worst(s.get(), k.own, k.world);
        double stated = s.get().accuracyM().orElse(-1);
        if (off <= 1) n[0]++;
        // two operations: each may be off by what it states
        else if (stated >= 0 && off <= stated + accuracy("EPSG:" + code)) n[1]++;
        else if (stated < 0 && off < FAR) n[2]++;
        else wrong.add(told + ": " + off + " m off, stated " + stated + ", " + s.get().code());
      }
    }
    System.out.println(alone + " codes for which PROJ has no operation there, left out");
    tally.forEach(
        (way, n) ->
            System.out.printf(
                "%s: %d within 1 m, %d within the stated accuracy, %d told as not known, %d refused%n",
                way, n[0], n[1], n[2], n[3]));
    System.out.println("refused: " + refused + "\nfurther off than stated: " + wrong);
    int few = Math.max(4, CODES * 4 / 100); // one code in a hundred, each in four ways
    assertThat(tally.keySet()).containsExactly("code", "WKT 1", ".prj", "WKT 2");
    assertThat(wrong).hasSizeLessThanOrEqualTo(few);
    // what can't be computed is refused by name; few may be
    assertThat(refused).hasSizeLessThanOrEqualTo(2 * few);
  }
}
