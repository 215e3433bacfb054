package org.whinridge.core.read;

import org.whinridge.core.value.Value;

/** The values of one field over all rows. */
public sealed interface Column permits NumberColumn, DictionaryColumn {
  /** The value of a row. */
  Value value(int row);

  /** Puts a value into a row; the row after the last one grows the column. */
  void set(int row, Value v);

  /** Memory taken, in bytes, estimated. */
  long bytes();

  /** Gives back memory that was only needed while the column grew. */
  void trim(int rows);
}
