package org.whinridge.core.profile;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.EditDistance;
import org.whinridge.core.text.Fold;
import org.whinridge.core.text.Numbers;

/**
 * Finds unlike spellings of one value: by a normalised key (case, accents, spaces, marks and the
 * order of words do not count), by edit distance with a threshold that grows with the length, and
 * by abbreviation ("Conc." for "Concrete"). What {@link KeptApart} holds is different, and so are
 * two values that a stated code list both has.
 *
 * <p>Letters changed, left out or put in count only where the rarer spelling is rare beside the
 * other ({@link #isRare}): two values that both are used often are two values. Neighbours swapped
 * always count. Common practice, no source.
 */
public final class NearDuplicates {
  /**
   * The most distinct values that others are compared with letter by letter; the frequent ones
   * first.
   */
  public static final int MOST_COMPARED = 3000;

  /** How many times as often the good spelling must be there. */
  private static final int RARER = 5;

  private NearDuplicates() {}

  /**
   * Spellings that look like one value.
   *
   * @param good the spelling proposed: one of the code list if any, else the most frequent
   * @param values all spellings, the proposed one first, then by falling count
   * @param why why it looks like the first, for each but that one
   */
  public record Group(String good, List<ValueCount> values, List<Said> why) {
    /** How many features would get another spelling. */
    public int touched() {
      return values.stream().skip(1).mapToInt(ValueCount::count).sum();
    }
  }

  /** How far apart two words of that length may be and still be one: 0, 1, 2 or 3 letters. */
  public static int threshold(int length) {
    return length <= 3 ? 0 : length <= 7 ? 1 : length <= 14 ? 2 : 3;
  }

  /** Whether a spelling is so rare beside another that it may be a mistake in writing that one. */
  public static boolean isRare(int count, int beside) {
    return (long) count * RARER <= beside || count == 1 && beside >= 3;
  }

  /** The key that is the same for spellings which differ in case, accents, marks or word order. */
  public static String key(String s) {
    return String.join(" ", new TreeSet<>(KeptApart.words(s)));
  }

  /**
   * The groups, those that touch most features first.
   *
   * @param values distinct values with their counts
   * @param codeList values that a stated code list has, codes and labels; never proposed to become
   *     one another
   */
  public static List<Group> groups(List<ValueCount> values, Set<String> codeList) {
    List<Head> sorted = new ArrayList<>();
    for (ValueCount v : values)
      // numbers are told apart by their value, however they are written
      if (!v.value().isBlank() && Numbers.read(v.value()).isEmpty())
        sorted.add(new Head(v, codeList.contains(v.value())));
    sorted.sort(
        Comparator.comparing((Head h) -> !h.listed)
            .thenComparing(h -> -h.first().count())
            .thenComparing(h -> h.untidy)
            .thenComparing(h -> h.first().value()));
    Heads heads = new Heads();
    List<ValueCount> cutShort = new ArrayList<>();
    for (Head h : sorted) {
      ValueCount v = h.first();
      boolean listed = h.listed;
      Head same = listed ? null : heads.byKey.get(h.key);
      if (same != null) same.take(v, Said.of("alike.same"));
      else if (!listed && isAbbreviation(v)) cutShort.add(v);
      else if (listed || !heads.takeNear(h)) heads.add(h);
    }
    for (ValueCount v : cutShort) abbreviation(v, key(v.value()), heads.all);
    return heads.all.stream()
        .filter(h -> h.values.size() > 1)
        .map(h -> new Group(h.values.get(0).value(), List.copyOf(h.values), List.copyOf(h.why)))
        .sorted(Comparator.comparing((Group g) -> -g.touched()).thenComparing(Group::good))
        .toList();
  }

  private static boolean isAbbreviation(ValueCount v) {
    if (!v.value().strip().endsWith(".")) return false;
    String key = key(v.value());
    return key.length() >= 3 && key.indexOf(' ') < 0;
  }

  /**
   * A word cut short belongs to the one longer word that begins so; of two it may stand for either.
   */
  private static void abbreviation(ValueCount v, String key, List<Head> heads) {
    List<Head> longer =
        heads.stream()
            .filter(h -> h.joined.length() > key.length() && h.joined.startsWith(key))
            .toList();
    if (longer.size() == 1) longer.get(0).take(v, Said.of("alike.abbreviation"));
  }

  /**
   * How untidy a spelling is: signs that take no room or only look like blanks, blanks at its ends
   * or doubled, a small letter first, all capitals.
   */
  private static int untidy(String s) {
    int n = s.equals(s.strip()) ? 0 : 4;
    if (s.contains("  ")) n += 2;
    for (int i = 0; i < s.length(); i++)
      if (KeptApart.isUnseen(s.charAt(i))
          || Character.isSpaceChar(s.charAt(i)) && s.charAt(i) != ' ') n += 8;
    if (!s.isEmpty() && Character.isLowerCase(s.charAt(0))) n++;
    return s.length() > 3 && s.equals(Fold.upper(s)) ? n + 1 : n;
  }

  /** The spellings that stand for a value so far. */
  private static final class Heads {
    final List<Head> all = new ArrayList<>();
    final Map<String, Head> byKey = new TreeMap<>();

    /** Those that others are compared with, by length of their letters: few, and the frequent. */
    private final Map<Integer, List<Head>> compared = new TreeMap<>();

    private final Map<String, List<Head>> byLetters = new TreeMap<>();
    private int comparedCount;

    void add(Head h) {
      all.add(h);
      byKey.putIfAbsent(h.key, h);
      byLetters.computeIfAbsent(h.letters(), k -> new ArrayList<>()).add(h);
      if (comparedCount < MOST_COMPARED && (h.listed || h.first().count() >= 3)) {
        comparedCount++;
        compared.computeIfAbsent(h.joined.length(), k -> new ArrayList<>()).add(h);
      }
    }

    /** Gives the value to the nearest spelling that it may be a mistake of, if there is one. */
    boolean takeNear(Head h) {
      Head best = null;
      int least = Integer.MAX_VALUE;
      for (Head other : byLetters.getOrDefault(h.letters(), List.of()))
        if (h.apartFrom(other, 1) == 1 && best == null) {
          best = other;
          least = 1;
        }
      int limit = threshold(h.joined.length());
      for (int length = h.joined.length() - limit; length <= h.joined.length() + limit; length++)
        for (Head other : compared.getOrDefault(length, List.of())) {
          int most = Math.min(least - 1, threshold(Math.min(length, h.joined.length())));
          if (most < 1 || !other.listed && !isRare(h.first().count(), other.first().count()))
            continue;
          int d = h.apartFrom(other, most);
          if (d <= most) {
            best = other;
            least = d;
          }
        }
      if (best != null) best.take(h.first(), Said.of("alike.letters", "n", least));
      return best != null;
    }
  }

  private static final class Head {
    final String key;
    final String fixed;
    final String joined;
    final boolean listed;
    final int untidy;
    final List<String> words;
    final List<ValueCount> values = new ArrayList<>();
    final List<Said> why = new ArrayList<>();
    private final long signs;

    Head(ValueCount first, boolean listed) {
      this.words = KeptApart.letters(first.value());
      this.joined = String.join("", words);
      this.fixed = KeptApart.fixed(first.value());
      this.key = String.join(" ", new TreeSet<>(words)) + fixed;
      this.listed = listed;
      this.untidy = untidy(first.value());
      values.add(first);
      long bits = 0;
      for (int i = 0; i < joined.length(); i++) bits |= 1L << (joined.charAt(i) & 63);
      signs = bits;
    }

    ValueCount first() {
      return values.get(0);
    }

    String letters() {
      char[] c = joined.toCharArray();
      Arrays.sort(c);
      return new String(c) + fixed;
    }

    /** How many letters lie between the two, {@code most + 1} for more or for what is different. */
    int apartFrom(Head other, int most) {
      // each mistake changes two letters of the set at most
      if (Long.bitCount(signs ^ other.signs) > 2 * most || !fixed.equals(other.fixed))
        return most + 1;
      if (words.size() != other.words.size()) {
        int d = EditDistance.between(joined, other.joined, most);
        return d == 0 ? 1 : d;
      }
      int sum = 0;
      for (int i = 0; i < words.size(); i++) {
        String a = words.get(i);
        String b = other.words.get(i);
        if (a.equals(b)) continue;
        int allowed = Math.min(most - sum, threshold(Math.min(a.length(), b.length())));
        int d = allowed < 1 ? 1 : EditDistance.between(a, b, allowed);
        if (d > allowed || KeptApart.words(a, b, d)) return most + 1;
        sum += d;
      }
      return sum == 0 ? most + 1 : sum;
    }

    void take(ValueCount v, Said because) {
      values.add(v);
      why.add(because);
    }
  }
}
