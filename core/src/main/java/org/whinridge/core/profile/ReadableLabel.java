package org.whinridge.core.profile;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.whinridge.core.text.Blanks;
import org.whinridge.core.text.Fold;

/**
 * A readable label for a column of a file, with the unit that its name ends in: "WidthMm" gives
 * "Width" in mm, "KindOfGate" gives "Kind of gate". A last word that was cut with its name, as
 * Shapefiles cut at ten characters, is completed from common words, as a proposal with a question
 * mark: "LastInspec" gives "Last inspected?".
 *
 * @param label at most 80 characters
 * @param unit "" when the name ends in none
 */
public record ReadableLabel(String label, String unit) {
  /** The length at which Shapefiles cut a name. */
  private static final int CUT = 10;

  private static final int LONGEST = 80;

  /** Units that names end in, as they are written. Common practice, no source. */
  private static final Map<String, String> UNITS =
      Map.ofEntries(
          Map.entry("mm", "mm"),
          Map.entry("cm", "cm"),
          Map.entry("m", "m"),
          Map.entry("km", "km"),
          Map.entry("ha", "ha"),
          Map.entry("m2", "m²"),
          Map.entry("m3", "m³"),
          Map.entry("sqm", "m²"),
          Map.entry("kg", "kg"),
          Map.entry("kv", "kV"),
          Map.entry("kw", "kW"),
          Map.entry("pct", "%"),
          Map.entry("percent", "%"),
          Map.entry("deg", "°"),
          Map.entry("bar", "bar"),
          Map.entry("yr", "years"));

  /** Common words of inspection layers, the likelier first. Common practice, no source. */
  public static final List<String> WORDS =
      List.of(
          "inspected",
          "inspection",
          "condition",
          "reference",
          "description",
          "material",
          "diameter",
          "installed",
          "maintained",
          "maintenance",
          "comments",
          "remarks",
          "location",
          "latitude",
          "longitude",
          "easting",
          "northing",
          "elevation",
          "height",
          "length",
          "width",
          "depth",
          "number",
          "category",
          "priority",
          "required",
          "accessible",
          "structure",
          "direction",
          "distance",
          "capacity",
          "pressure",
          "surface",
          "identifier",
          "manufacturer",
          "replaced",
          "repaired",
          "updated",
          "created",
          "modified",
          "surveyed",
          "visited",
          "checked",
          "cleaned",
          "painted",
          "planted",
          "owner",
          "ownership",
          "address",
          "street",
          "status",
          "quality",
          "quantity",
          "vegetation",
          "foundation",
          "construction",
          "constructed",
          "registered",
          "operator",
          "temperature",
          "clearance",
          "responsible",
          "name",
          "type");

  /**
   * The label for a column.
   *
   * @param source the column's own name
   * @param number whether its values are numbers, so that a last word may be their unit
   * @param more words of the house beside {@link #WORDS}, the likelier first, in small letters
   */
  public static ReadableLabel of(String source, boolean number, List<String> more) {
    String name = Blanks.strip(source);
    String unit = "";
    List<String> words = words(name);
    if (number && words.size() > 1) {
      String last = Fold.lower(words.get(words.size() - 1)).replaceAll("[()\\[\\]]", "");
      unit = UNITS.getOrDefault(last, "");
      if (!unit.isEmpty()) words.remove(words.size() - 1);
    }
    if (words.isEmpty()) return new ReadableLabel("Field", unit);
    boolean cut = unit.isEmpty() && name.length() == CUT && completed(words, more);
    String label = String.join(" ", words);
    label = Fold.upper(label.substring(0, 1)) + label.substring(1) + (cut ? "?" : "");
    return new ReadableLabel(label.substring(0, Math.min(LONGEST, label.length())), unit);
  }

  /** Completes the last word when a common one begins so. */
  private static boolean completed(List<String> words, List<String> more) {
    String last = words.get(words.size() - 1);
    String small = Fold.lower(last);
    if (small.length() < 3 || more.contains(small) || WORDS.contains(small)) return false;
    List<String> all = new ArrayList<>(more);
    all.addAll(WORDS);
    for (String w : all)
      if (w.length() > small.length() && w.startsWith(small)) {
        words.set(words.size() - 1, w);
        return true;
      }
    return false;
  }

  /**
   * The words of a name: parted at underscores, blanks, and where a capital follows a small letter.
   * Words of capitals alone stay (GPS, ID), others become small, so that the label reads as a text.
   */
  private static List<String> words(String name) {
    List<String> out = new ArrayList<>();
    StringBuilder word = new StringBuilder();
    boolean camel = name.indexOf(' ') < 0;
    for (int i = 0; i < name.length(); i++) {
      char c = name.charAt(i);
      boolean gap = c == '_' || Character.isWhitespace(c);
      boolean begins =
          camel
              && i > 0
              && Character.isUpperCase(c)
              && (Character.isLowerCase(name.charAt(i - 1))
                  || i + 1 < name.length()
                      && Character.isUpperCase(name.charAt(i - 1))
                      && Character.isLowerCase(name.charAt(i + 1)));
      if ((gap || begins) && word.length() > 0) {
        out.add(word.toString());
        word.setLength(0);
      }
      if (!gap) word.append(c);
    }
    if (word.length() > 0) out.add(word.toString());
    // a file that writes all its names in capitals means nothing by them
    boolean capitals =
        name.equals(Fold.upper(name)) && out.stream().anyMatch(w -> w.matches("\\p{L}{4,}"));
    if (capitals || camel && out.size() > 1)
      out.replaceAll(
          w -> !capitals && w.length() > 1 && w.equals(Fold.upper(w)) ? w : Fold.lower(w));
    return out;
  }
}
