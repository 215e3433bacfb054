package org.whinridge.core.profile;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;

/** Proposes stored codes for labels: as they are, 1 2 3…, or short words. */
public enum CodeProposal {
  /** The label itself is stored. */
  SAME("as they are"),
  /** 1, 2, 3… in the order given. */
  NUMBERS("1, 2, 3…"),
  /** Small letters without accents, underscores for gaps, at most 20 characters, none twice. */
  SHORT_WORDS("short words");
  private final String said;

  CodeProposal(String said) {
    this.said = said;
  }

  /** The words for people. */
  public String said() {
    return said;
  }

  /** Codes for the labels, in their order; blank labels and repeated ones are left out. */
  public List<Code> codes(List<String> labels) {
    List<Code> out = new ArrayList<>();
    Set<String> used = new TreeSet<>();
    Set<String> seen = new TreeSet<>();
    for (String l : labels) {
      String label = l.strip();
      if (label.isEmpty() || !seen.add(label)) continue;
      String code =
          this == SAME
              ? label
              : this == NUMBERS ? String.valueOf(out.size() + 1) : word(label, used);
      used.add(code);
      out.add(Code.of(code, label));
    }
    return out;
  }

  private static String word(String label, Set<String> used) {
    String full = Field.nameFrom(label);
    String s = full.substring(0, Math.min(20, full.length()));
    String code = s;
    for (int i = 2; used.contains(code); i++) code = s + "_" + i;
    return code;
  }

  /**
   * Codes out of pasted lines: "code, label" or "code; label" or tab between; a line without a mark
   * is a label whose code this proposes.
   */
  public List<Code> pasted(String text) {
    List<String> plain = new ArrayList<>();
    List<Code> pairs = new ArrayList<>();
    for (String line : text.split("\\R")) {
      if (line.isBlank()) continue;
      String[] p = line.split("\t|;|,", 2);
      if (p.length == 2 && !p[0].isBlank() && !p[1].isBlank())
        pairs.add(Code.of(bare(p[0]), bare(p[1])));
      else plain.add(bare(line));
    }
    if (!plain.isEmpty() && !pairs.isEmpty())
      for (Code c : pairs) plain.add(c.label().isEmpty() ? c.code() : c.label());
    return plain.isEmpty()
        ? distinct(pairs)
        : pairs.isEmpty() ? codes(plain) : merged(plain, pairs);
  }

  private List<Code> merged(List<String> labels, List<Code> pairs) {
    List<Code> out = new ArrayList<>(pairs);
    for (Code c : codes(labels))
      if (pairs.stream().noneMatch(p -> p.label().equals(c.label()))) out.add(c);
    return distinct(out);
  }

  private static String bare(String s) {
    String t = s.strip();
    return t.length() > 1 && t.startsWith("\"") && t.endsWith("\"")
        ? t.substring(1, t.length() - 1).replace("\"\"", "\"").strip()
        : t;
  }

  private static List<Code> distinct(List<Code> codes) {
    List<Code> out = new ArrayList<>();
    Set<String> seen = new TreeSet<>();
    for (Code c : codes) if (!c.code().isEmpty() && seen.add(c.code())) out.add(c);
    return out;
  }
}
