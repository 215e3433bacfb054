package org.whinridge.core.read;

import org.whinridge.core.value.Value;

/** The values of one field over all rows, as they were when the read model was made. */
public sealed interface Column permits NumberColumn, DictionaryColumn {
  /** The value of a row. */
  Value value(int row);

  /** Memory taken by so many rows, in bytes, estimated. */
  long bytes(int rows);
}
