package org.whinridge.formats.file;

import java.util.Locale;

/** Names of files as they are shown; they are never used as paths. */
public final class FileNames {
  private static final int LONGEST = 120;

  private FileNames() {}

  /**
   * The last part of a name, without control characters, at most 120 characters; its ending stays.
   */
  public static String shown(String name) {
    String s = name == null ? "" : name.replaceAll(".*[/\\\\]", "").replaceAll("\\p{Cntrl}", "");
    if (s.isBlank()) return "file";
    if (s.length() <= LONGEST) return s;
    // what kind of file it is, is told by its ending, which stays
    int dot = s.lastIndexOf('.');
    String ending = dot > 0 && s.length() - dot <= 12 ? s.substring(dot) : "";
    return s.substring(0, LONGEST - ending.length()) + ending;
  }

  /** The part before the last dot. */
  public static String stem(String name) {
    String s = shown(name);
    int dot = s.lastIndexOf('.');
    return dot > 0 ? s.substring(0, dot) : s;
  }

  /** The ending after the last dot, in small letters; "" for none. */
  public static String ending(String name) {
    String s = shown(name);
    int dot = s.lastIndexOf('.');
    return dot < 0 ? "" : s.substring(dot + 1).toLowerCase(Locale.ROOT);
  }

  /** A readable title for a name: "tide_flaps-2026.shp" gives "Tide flaps 2026". */
  public static String title(String name) {
    String s = name.replace('_', ' ').replace('-', ' ').strip().replaceAll("\\s+", " ");
    if (s.isEmpty()) return "New layer";
    return s.substring(0, 1).toUpperCase(Locale.ROOT) + s.substring(1, Math.min(100, s.length()));
  }
}
