package org.whinridge.core.access;

import org.whinridge.core.text.Fold;

/** The name of a project in addresses: small letters without accents, digits and dashes. */
public final class ProjectKey {
  /** The most characters. */
  public static final int MOST = 40;

  private ProjectKey() {}

  /** Whether it may be one: 1 to 40 of a to z, 0 to 9 and dashes, a letter first, no dash last. */
  public static boolean isOne(String key) {
    return key.length() <= MOST && key.matches("[a-z](?:[a-z0-9-]*[a-z0-9])?");
  }

  /** The key that a project's name gives; "project" where nothing of it can stand in one. */
  public static String from(String name) {
    StringBuilder b = new StringBuilder();
    for (char c : Fold.lower(Fold.accents(name)).toCharArray())
      if (c >= 'a' && c <= 'z' || c >= '0' && c <= '9' && b.length() > 0) b.append(c);
      else if (b.length() > 0 && b.charAt(b.length() - 1) != '-') b.append('-');
    while (b.length() > MOST || b.length() > 0 && b.charAt(b.length() - 1) == '-')
      b.setLength(b.length() - 1);
    return b.length() == 0 ? "project" : b.toString();
  }
}
