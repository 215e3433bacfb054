package org.whinridge.core.profile;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.whinridge.core.layer.Code;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Fold;

/**
 * A code list out of pasted lines or a CSV: "code, label", "code; label" or a tab between; a line
 * without such a mark is a label, for which a code is proposed. Lines of both kinds may be mixed
 * and keep their order, their codes and their labels.
 *
 * @param codes the codes in the order of the lines
 * @param told what was left out, and why, in words: the header, and codes that stand twice
 */
public record PastedCodes(List<Code> codes, List<Said> told) {
  private static final int MOST_TOLD = 20;

  /** Words that head a column of codes or of labels. Common practice, no source. */
  private static final Set<String> HEADS =
      Set.of(
          "code",
          "codes",
          "value",
          "values",
          "key",
          "id",
          "label",
          "labels",
          "name",
          "names",
          "description",
          "text",
          "meaning");

  /** Heads that are hardly a label themselves, for lists of one column. */
  private static final Set<String> SURE_HEADS =
      Set.of("code", "codes", "label", "labels", "value", "values");

  public PastedCodes {
    codes = List.copyOf(codes);
    told = List.copyOf(told);
  }

  private record Line(String code, String label) {
    String shown() {
      return code.isEmpty() ? label : code + ", " + label;
    }
  }

  /**
   * Reads a text.
   *
   * @param how codes for labels without one
   * @param there codes that the list has already; they stay as they are
   */
  public static PastedCodes read(String text, CodeProposal how, List<Code> there) {
    List<Line> lines = new ArrayList<>();
    for (String s : text.split("\r\n|\r|\n")) if (!s.isBlank()) lines.add(line(s));
    List<Said> told = new ArrayList<>();
    if (lines.size() > 1 && isHead(lines.get(0))) {
      Line head = lines.remove(0);
      told.add(Said.of("pasted.header", "line", head.shown()));
    }
    Map<String, Code> out = new LinkedHashMap<>();
    Set<String> used = new TreeSet<>();
    there.forEach(c -> used.add(c.code()));
    lines.forEach(l -> used.add(l.code));
    for (Line l : lines) one(l, how, there, used, out, told);
    return new PastedCodes(List.copyOf(out.values()), told);
  }

  private static void one(
      Line l,
      CodeProposal how,
      List<Code> there,
      Set<String> used,
      Map<String, Code> out,
      List<Said> told) {
    Code same = null;
    for (Code c : there) if (isSame(c, l)) same = c;
    for (Code c : out.values()) if (isSame(c, l)) same = c;
    if (same != null) {
      boolean whole = l.code.isEmpty() || same.label().equals(l.label);
      if (told.size() < MOST_TOLD)
        told.add(
            Said.of(
                whole ? "pasted.thereAlready" : "pasted.codeTaken",
                "line",
                l.shown(),
                "label",
                same.label()));
      return;
    }
    String code = l.code.isEmpty() ? how.codeFor(l.label, used) : l.code;
    used.add(code);
    out.put(code, Code.of(code, l.label));
  }

  private static boolean isSame(Code c, Line l) {
    return l.code.isEmpty() ? c.label().equals(l.label) : c.code().equals(l.code);
  }

  private static Line line(String s) {
    String[] p = s.split("\t|;|,", 2);
    return p.length == 2 && !p[0].isBlank() && !p[1].isBlank()
        ? new Line(bare(p[0]), bare(p[1]))
        : new Line("", bare(s));
  }

  private static boolean isHead(Line l) {
    String label = Fold.lower(l.label);
    return l.code.isEmpty()
        ? SURE_HEADS.contains(label)
        : HEADS.contains(label) && HEADS.contains(Fold.lower(l.code));
  }

  private static String bare(String s) {
    String t = s.strip();
    if (t.startsWith("\uFEFF")) t = t.substring(1).strip();
    return t.length() > 1 && t.startsWith("\"") && t.endsWith("\"")
        ? t.substring(1, t.length() - 1).replace("\"\"", "\"").strip()
        : t;
  }
}
