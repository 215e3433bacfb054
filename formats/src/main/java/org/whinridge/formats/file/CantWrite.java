package org.whinridge.formats.file;

import java.io.IOException;
import org.whinridge.core.said.Said;

/** Why features can't be written into a file, to be told to whoever asked for it. */
public final class CantWrite extends IOException {
  private static final long serialVersionUID = 1;

  private final transient Said said;

  /** With a text of the catalogue; names and values by turns. */
  public CantWrite(String key, Object... args) {
    super(key);
    said = Said.of(key, args);
  }

  /** The same, by reason of another. */
  public CantWrite because(Throwable cause) {
    initCause(cause);
    return this;
  }

  /** What is to be told. */
  public Said said() {
    return said;
  }
}
