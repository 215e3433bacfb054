package org.whinridge.formats.crs;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.apache.commons.csv.CSVRecord;

/** Projected systems by the geographic one they stand on, by the tables that proj4j-epsg ships. */
final class ProjectedCodes {
  private record Row(int code, List<Double> numbers) {}

  private static final Map<Integer, List<Row>> BY_BASE = new HashMap<>();
  private static final Map<Integer, Integer> BASES = new HashMap<>();

  private ProjectedCodes() {}

  static {
    for (CSVRecord r : DatumNames.table("pcs.csv")) {
      if (r.get("DEPRECATED").equals("1") || r.get("SOURCE_GEOGCRS_CODE").isEmpty()) continue;
      BASES.put(
          Integer.valueOf(r.get("COORD_REF_SYS_CODE")),
          Integer.valueOf(r.get("SOURCE_GEOGCRS_CODE")));
      List<Double> numbers = new ArrayList<>();
      boolean whole = true;
      for (int i = 1; i <= 7; i++) {
        String v = r.get("PARAMETER_VALUE_" + i);
        if (v.isEmpty()) continue;
        OptionalDouble n = plain(Double.parseDouble(v), v, r.get("PARAMETER_UOM_" + i));
        n.ifPresent(numbers::add);
        whole &= n.isPresent();
      }
      BY_BASE
          .computeIfAbsent(Integer.valueOf(r.get("SOURCE_GEOGCRS_CODE")), k -> new ArrayList<>())
          .add(new Row(Integer.parseInt(r.get("COORD_REF_SYS_CODE")), whole ? numbers : List.of()));
    }
  }

  /** A value in metres, degrees or as a ratio, by EPSG's code of its unit. */
  private static OptionalDouble plain(double v, String text, String unit) {
    return switch (unit) {
      case "9001", "9102", "9122", "9201" -> OptionalDouble.of(v);
      case "9002" -> OptionalDouble.of(v * 0.3048);
      case "9003" -> OptionalDouble.of(v * 1200 / 3937);
      case "9105" -> OptionalDouble.of(v * 0.9);
      case "9110" -> OptionalDouble.of(sexagesimal(text));
      default -> OptionalDouble.empty();
    };
  }

  /** Degrees of "DDD.MMSSsss". */
  private static double sexagesimal(String text) {
    String s = text.startsWith("-") ? text.substring(1) : text;
    int dot = s.indexOf('.');
    double d = Double.parseDouble(dot < 0 ? s : dot == 0 ? "0" : s.substring(0, dot));
    String f = ((dot < 0 ? "" : s.substring(dot + 1)) + "0000");
    double out =
        d
            + Integer.parseInt(f.substring(0, 2)) / 60.0
            + Double.parseDouble(f.substring(2, 4) + "." + f.substring(4) + "0") / 3600;
    return text.startsWith("-") ? -out : out;
  }

  /** The geographic system that a projected one stands on. */
  static Optional<Integer> base(int code) {
    return Optional.ofNullable(BASES.get(code));
  }

  /** Codes of the systems on a base whose numbers may be those of the signature. */
  static List<Integer> on(int base, Optional<Signature> own) {
    List<Integer> out = new ArrayList<>();
    for (Row r : BY_BASE.getOrDefault(base, List.of()))
      if (own.isPresent() && (r.numbers.isEmpty() || all(own.get().numbers(), r.numbers)))
        out.add(r.code);
    return out;
  }

  private static boolean all(List<Double> wanted, List<Double> there) {
    for (double w : wanted)
      if (there.stream().noneMatch(t -> Math.abs(t - w) <= 1e-7 * Math.max(1, Math.abs(w))))
        return false;
    return true;
  }
}
