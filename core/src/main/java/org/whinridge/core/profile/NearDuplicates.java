package org.whinridge.core.profile;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.whinridge.core.value.EditDistance;
import org.whinridge.core.value.Fold;
import org.whinridge.core.value.Numbers;

/**
 * Finds unlike spellings of one value: by a normalised key (case, accents, spaces, marks and the
 * order of words do not count), by edit distance with a threshold that grows with the length, and
 * by abbreviation ("Conc." for "Concrete"). Values that differ in their digits are different
 * things, and so are two values that a published code list both has.
 */
public final class NearDuplicates {
  /**
   * The most distinct values whose spellings are compared pair by pair; the frequent ones first.
   */
  public static final int MOST_COMPARED = 3000;

  private NearDuplicates() {}

  /**
   * Spellings that look like one value.
   *
   * @param good the spelling proposed: one of the code list if any, else the most frequent
   * @param values all spellings, the proposed one first, then by falling count
   * @param why "same letters" or "n letters apart" or "abbreviation" for each but the first
   */
  public record Group(String good, List<ValueCount> values, List<String> why) {}

  /** How far apart two words of that length may be and still be one: 0, 1, 2 or 3 letters. */
  public static int threshold(int length) {
    return length <= 3 ? 0 : length <= 7 ? 1 : length <= 14 ? 2 : 3;
  }

  /** The key that is the same for spellings which differ in case, accents, marks or word order. */
  public static String key(String s) {
    Set<String> words = new TreeSet<>();
    StringBuilder word = new StringBuilder();
    String folded = Fold.lower(Fold.accents(s));
    for (int i = 0; i <= folded.length(); i++) {
      char c = i < folded.length() ? folded.charAt(i) : ' ';
      if (Character.isLetterOrDigit(c)) word.append(c);
      else if (word.length() > 0) {
        words.add(word.toString());
        word.setLength(0);
      }
    }
    return String.join(" ", words);
  }

  /**
   * The groups, those that touch most features first.
   *
   * @param values distinct values with their counts
   * @param codeList values that a published code list has, codes and labels; never proposed to
   *     become one another
   */
  public static List<Group> groups(List<ValueCount> values, Set<String> codeList) {
    List<ValueCount> sorted = new ArrayList<>(values);
    // numbers are told apart by their value, however they are written
    sorted.removeIf(v -> v.value().isBlank() || Numbers.read(v.value()).isPresent());
    sorted.sort(
        Comparator.comparing((ValueCount v) -> !codeList.contains(v.value()))
            .thenComparing(v -> -v.count())
            .thenComparing(v -> untidy(v.value()))
            .thenComparing(ValueCount::value));
    List<Head> heads = new ArrayList<>();
    Map<String, Head> byKey = new TreeMap<>();
    List<ValueCount> cutShort = new ArrayList<>();
    for (ValueCount v : sorted) {
      String key = key(v.value());
      boolean listed = codeList.contains(v.value());
      Head same = key.isEmpty() ? null : byKey.get(key);
      if (!listed && same != null) same.take(v, "same letters");
      else if (!listed && isAbbreviation(v, key)) cutShort.add(v);
      else if (listed || heads.size() >= MOST_COMPARED || !near(v, key, heads)) {
        Head h = new Head(v, key);
        heads.add(h);
        byKey.putIfAbsent(key, h);
      }
    }
    for (ValueCount v : cutShort) abbreviation(v, key(v.value()), heads);
    return heads.stream()
        .filter(h -> h.values.size() > 1)
        .sorted(Comparator.comparing((Head h) -> -h.touched()).thenComparing(h -> h.key))
        .map(h -> new Group(h.values.get(0).value(), List.copyOf(h.values), List.copyOf(h.why)))
        .toList();
  }

  private static boolean near(ValueCount v, String key, List<Head> heads) {
    int limit = threshold(key.length());
    Head best = null;
    int least = limit + 1;
    for (Head h : heads) {
      if (!h.digits.equals(digits(key))) continue;
      int allowed = Math.min(least - 1, threshold(Math.min(key.length(), h.key.length())));
      if (allowed < 1) continue;
      int d = EditDistance.between(key, h.key, allowed);
      if (d <= allowed) {
        best = h;
        least = d;
      }
    }
    if (best != null) {
      best.take(v, least == 1 ? "1 letter apart" : least + " letters apart");
    }
    return best != null;
  }

  private static boolean isAbbreviation(ValueCount v, String key) {
    return v.value().strip().endsWith(".") && key.length() >= 3 && key.indexOf(' ') < 0;
  }

  /**
   * A word cut short belongs to the one longer word that begins so; of two it may stand for either.
   */
  private static void abbreviation(ValueCount v, String key, List<Head> heads) {
    List<Head> longer =
        heads.stream().filter(h -> h.key.length() > key.length() && h.key.startsWith(key)).toList();
    if (longer.size() == 1) longer.get(0).take(v, "abbreviation");
  }

  private static String digits(String s) {
    StringBuilder b = new StringBuilder();
    for (int i = 0; i < s.length(); i++) if (Character.isDigit(s.charAt(i))) b.append(s.charAt(i));
    return b.toString();
  }

  /**
   * How untidy a spelling is: blanks at its ends or doubled, a small letter first, all capitals.
   */
  private static int untidy(String s) {
    int n = s.equals(s.strip()) ? 0 : 4;
    if (s.contains("  ")) n += 2;
    if (!s.isEmpty() && Character.isLowerCase(s.charAt(0))) n++;
    return s.length() > 3 && s.equals(Fold.upper(s)) ? n + 1 : n;
  }

  private static final class Head {
    final String key;
    final String digits;
    final List<ValueCount> values = new ArrayList<>();
    final List<String> why = new ArrayList<>();

    Head(ValueCount first, String key) {
      this.key = key;
      this.digits = digits(key);
      values.add(first);
    }

    void take(ValueCount v, String because) {
      values.add(v);
      why.add(because);
    }

    int touched() {
      int n = 0;
      for (ValueCount v : values.subList(1, values.size())) n += v.count();
      return n;
    }
  }
}
