package org.whinridge.formats.file;

import org.whinridge.core.said.Said;

/** What a file may hold at most; beyond, it is refused with a message. */
public final class Limits {
  /** Features in one layer. */
  public static final int FEATURES = 2_000_000;

  /** Columns of a layer, properties of a feature. */
  public static final int COLUMNS = 500;

  /** Characters of one text. */
  public static final int TEXT = 1_000_000;

  /** Positions of one geometry. */
  public static final int POSITIONS = 5_000_000;

  /** Bytes that an archive may expand to. */
  public static final long EXPANDED = 4_000_000_000L;

  /** Times that an entry of an archive may be larger than its packed bytes, once beyond 10 MB. */
  public static final int RATIO = 150;

  /** Entries of an archive. */
  public static final int ENTRIES = 20_000;

  private Limits() {}

  /** Counts a feature against the limit. */
  public static void features(int count) throws FileProblem {
    if (count > FEATURES) throw new FileProblem("file.fileHoldsMoreThan", "most", FEATURES);
  }

  /** Holds columns against the limit. */
  public static void columns(int count, Said where) throws FileProblem {
    if (count > COLUMNS)
      throw new FileProblem(
          "file.columnsAtMostCan", "where", where, "count", count, "columns", COLUMNS);
  }

  /** A text cut to a length for a message. */
  public static String cut(String s, int most) {
    return s.length() <= most ? s : s.substring(0, most) + "…";
  }
}
