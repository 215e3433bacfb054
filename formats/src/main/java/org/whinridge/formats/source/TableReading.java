package org.whinridge.formats.source;

import java.util.OptionalInt;

/**
 * How a person said that a table is to be read, where what was found is wrong.
 *
 * @param namesRow the row with the names of the columns, from 1; 0 when none has them; empty to
 *     find it
 * @param literalQuotes whether quotation marks are characters like others, so that none begins a
 *     text of several lines
 */
public record TableReading(OptionalInt namesRow, boolean literalQuotes) {
  /** Everything as found. */
  public static final TableReading FOUND = new TableReading(OptionalInt.empty(), false);
}
