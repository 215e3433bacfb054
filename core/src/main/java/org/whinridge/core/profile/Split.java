package org.whinridge.core.profile;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.said.Unfit;

/**
 * Splits one text into several: at a separator, or by the groups of a pattern. Patterns match in
 * linear time (re2j).
 */
public final class Split {
  /** The most parts that a text is split into; what is left stays in the last one. */
  public static final int MOST_PARTS = 20;

  private final String separator;
  private final Pattern pattern;

  private Split(String separator, Pattern pattern) {
    this.separator = separator;
    this.pattern = pattern;
  }

  /** A split at each separator, which is taken as it is: ";" or " - ". */
  public static Split at(String separator) {
    if (separator.isEmpty()) throw new Unfit("split.noSeparator");
    return new Split(separator, null);
  }

  /**
   * A split by the groups of a pattern that must match somewhere: {@code (\d+) mm, (.*)}.
   *
   * @throws IllegalArgumentException with words for people when the pattern is not sound or has no
   *     group
   */
  public static Split by(String regex) {
    if (regex.length() > 400) throw new Unfit("split.tooLong", "most", 400);
    try {
      Pattern p = Pattern.compile(regex);
      if (p.groupCount() == 0) throw new Unfit("split.noGroup");
      return new Split("", p);
    } catch (PatternSyntaxException e) {
      throw new Unfit("split.unsound", "why", e.getDescription(), "at", e.getPattern()).because(e);
    }
  }

  /**
   * The parts of a text, trimmed; none when a pattern does not match. Nothing of the text is lost
   * by this: the text itself stays where it was.
   */
  public List<String> parts(String text) {
    List<String> out = new ArrayList<>();
    if (pattern != null) {
      Matcher m = pattern.matcher(text);
      if (m.find())
        for (int i = 1; i <= Math.min(MOST_PARTS, m.groupCount()); i++)
          out.add(m.group(i) == null ? "" : m.group(i).strip());
      return out;
    }
    int from = 0;
    for (int at = text.indexOf(separator);
        at >= 0 && out.size() < MOST_PARTS - 1;
        at = text.indexOf(separator, from)) {
      out.add(text.substring(from, at).strip());
      from = at + separator.length();
    }
    out.add(text.substring(from).strip());
    return out;
  }
}
