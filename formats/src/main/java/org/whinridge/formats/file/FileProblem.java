package org.whinridge.formats.file;

import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;

/** Why a file can't be read, to be told to whoever brought it: what, and at which place of it. */
public final class FileProblem extends Exception {
  private static final long serialVersionUID = 1;

  private final transient Said said;

  /** With what is to be told. */
  public FileProblem(Said said) {
    super(said.toString());
    this.said = said;
  }

  /** With a text of the catalogue; names and values by turns. */
  public FileProblem(String key, Object... args) {
    this(Said.of(key, args));
  }

  /** The same, by reason of another. */
  public FileProblem because(Throwable cause) {
    initCause(cause);
    return this;
  }

  /** What is to be told. */
  public Said said() {
    return said;
  }

  /** What is to be told of a failure with a file: its own words, or its message as it stands. */
  public static Said said(Throwable e) {
    if (e instanceof CantWrite w) return w.said();
    return e instanceof FileProblem p ? p.said : Unfit.said(e);
  }
}
