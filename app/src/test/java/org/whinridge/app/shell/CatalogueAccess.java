package org.whinridge.app.shell;

import java.util.Locale;
import java.util.Map;

/** The server's side of a text, for tests of other packages. */
public final class CatalogueAccess {
  private CatalogueAccess() {}

  /** A pattern with its arguments, in English, numbers in the style of a locale. */
  public static String format(String pattern, Locale style, Map<String, Object> args) {
    return Catalogue.format(pattern, Catalogue.USUAL, style, args);
  }
}
