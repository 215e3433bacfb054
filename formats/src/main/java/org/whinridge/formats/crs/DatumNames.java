package org.whinridge.formats.crs;

import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/**
 * Which geographic systems a datum's name means, by the tables that proj4j-epsg ships: EPSG's own
 * names, and those that .prj files have for them.
 */
final class DatumNames {
  private static final Map<String, List<Integer>> DATUMS = new HashMap<>();
  private static final Map<Integer, List<Integer>> SYSTEMS = new HashMap<>();

  private DatumNames() {}

  static {
    for (CSVRecord r : table("gdal_datum.csv")) {
      if (!r.get("DATUM_TYPE").contains("geodetic")) continue;
      int code = Integer.parseInt(r.get("DATUM_CODE"));
      put(DATUMS, Epsg.simple(r.get("DATUM_NAME")), code);
      put(DATUMS, Epsg.simple(r.get("ESRI_DATUM_NAME")), code);
    }
    for (CSVRecord r : table("gcs.csv")) {
      if (r.get("DEPRECATED").equals("1")) continue;
      int system = Integer.parseInt(r.get("COORD_REF_SYS_CODE"));
      for (String column : List.of("DATUM_CODE", "GREENWICH_DATUM"))
        if (!r.get(column).isEmpty()) put(SYSTEMS, Integer.parseInt(r.get(column)), system);
    }
  }

  private static <K> void put(Map<K, List<Integer>> map, K key, int value) {
    List<Integer> l = map.computeIfAbsent(key, k -> new ArrayList<>());
    if (!key.equals("") && !l.contains(value)) l.add(value);
  }

  static List<CSVRecord> table(String name) {
    try (Reader in =
            new InputStreamReader(
                CoordinateSystems.resource("/proj4/" + name), StandardCharsets.UTF_8);
        CSVParser p =
            CSVParser.builder()
                .setReader(in)
                .setFormat(CSVFormat.DEFAULT.builder().setHeader().setSkipHeaderRecord(true).get())
                .get()) {
      return p.getRecords();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Codes of the geographic systems on the datum with a name, at Greenwich or elsewhere. */
  static List<Integer> systems(String datum) {
    List<Integer> out = new ArrayList<>();
    for (int d : DATUMS.getOrDefault(Epsg.simple(datum), List.of()))
      for (int s : SYSTEMS.getOrDefault(d, List.of())) if (!out.contains(s)) out.add(s);
    return out;
  }
}
