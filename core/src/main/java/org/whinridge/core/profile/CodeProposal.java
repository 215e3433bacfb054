package org.whinridge.core.profile;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.said.Said;

/** Proposes stored codes for labels: as they are, 1 2 3…, or short words. */
public enum CodeProposal {
  /** The label itself is stored. */
  SAME,
  /** 1, 2, 3… in the order given. */
  NUMBERS,
  /** Small letters without accents, underscores for gaps, at most 20 characters, none twice. */
  SHORT_WORDS;

  /** The words for people. */
  public Said said() {
    return Said.of("proposal." + name());
  }

  /** Codes for the labels, in their order; blank labels and repeated ones are left out. */
  public List<Code> codes(List<String> labels) {
    List<Code> out = new ArrayList<>();
    Set<String> used = new TreeSet<>();
    Set<String> seen = new TreeSet<>();
    for (String l : labels) {
      String label = l.strip();
      if (label.isEmpty() || !seen.add(label)) continue;
      String code = codeFor(label, used);
      used.add(code);
      out.add(Code.of(code, label));
    }
    return out;
  }

  /** The code for one more label, other than those that are used. */
  String codeFor(String label, Set<String> used) {
    if (this == NUMBERS) {
      int n = 1;
      while (used.contains(String.valueOf(n))) n++;
      return String.valueOf(n);
    }
    String s = label;
    if (this == SHORT_WORDS) {
      String full = Field.nameFrom(label);
      s = full.substring(0, Math.min(20, full.length()));
    }
    String code = s;
    for (int i = 2; used.contains(code); i++) code = s + "_" + i;
    return code;
  }
}
