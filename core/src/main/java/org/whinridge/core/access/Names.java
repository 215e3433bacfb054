package org.whinridge.core.access;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.text.Composed;

/** Names of people, as they are typed or pasted. */
public final class Names {
  /** The most characters of one. */
  public static final int LONGEST = 40;

  private Names() {}

  /** A name as it is kept: composed, without blanks at its ends; empty when it may not be one. */
  public static Optional<String> of(String typed) {
    String name = Composed.of(typed).strip().replaceAll("\\s+", " ");
    boolean fits =
        !name.isEmpty()
            && name.length() <= LONGEST
            && name.chars().noneMatch(Character::isISOControl);
    return fits ? Optional.of(name) : Optional.empty();
  }

  /** The parts of a pasted text: one on each line, or parted by commas, semicolons or tabs. */
  public static List<String> pasted(String text) {
    List<String> out = new ArrayList<>();
    for (String part : text.split("[\\n\\r,;\\t]+"))
      if (!part.isBlank() && !out.contains(part.strip())) out.add(part.strip());
    return out;
  }
}
