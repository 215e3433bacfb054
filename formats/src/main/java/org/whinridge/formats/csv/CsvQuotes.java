package org.whinridge.formats.csv;

import java.io.IOException;
import java.io.Reader;

/**
 * Whether the quotation marks of a CSV file are sound (RFC 4180, section 2.5 to 2.7): one that is
 * opened and never closed would swallow all rows to the next one, or to the end.
 *
 * @param line the first line, from 1, on which a quotation mark opens what does not end soundly; 0
 *     when all are sound
 */
record CsvQuotes(int line) {
  /** A text may have so many lines before a mark that ends it unsoundly counts as swallowing. */
  private static final int LINES = 1;

  boolean areSound() {
    return line == 0;
  }

  /** Looks through a whole file. */
  static CsvQuotes of(Reader in, char delimiter) throws IOException {
    int line = 1;
    int opened = 0;
    boolean quoted = false;
    boolean start = true;
    int c = in.read();
    while (c >= 0) {
      if (quoted) {
        if (c == '\n') line++;
        else if (c == '"') {
          int next = in.read();
          if (next == '"') {
            c = in.read();
            continue;
          }
          boolean ends = next < 0 || next == delimiter || next == '\n' || next == '\r';
          // a mark within a text of one line is sloppy, but swallows nothing
          if (!ends && line - opened >= LINES) return new CsvQuotes(opened);
          quoted = false;
          start = false;
          c = next;
          continue;
        }
      } else if (c == '"' && start) {
        quoted = true;
        opened = line;
      } else {
        start = c == delimiter || c == '\n' || c == '\r';
        if (c == '\n') line++;
      }
      c = in.read();
    }
    return new CsvQuotes(quoted ? opened : 0);
  }
}
