package org.whinridge.core.said;

/** An input that can't be taken as it is, with what is to be told of it. */
public class Unfit extends IllegalArgumentException {
  private static final long serialVersionUID = 1;

  private final transient Said said;

  /** With what is to be told. */
  public Unfit(Said said) {
    super(said.toString());
    this.said = said;
  }

  /** With a text of the catalogue; names and values by turns. */
  public Unfit(String key, Object... args) {
    this(Said.of(key, args));
  }

  /** The same, by reason of another. */
  public Unfit because(Throwable cause) {
    initCause(cause);
    return this;
  }

  /** What is to be told of a failure: its own words, or its message as it stands. */
  public static Said said(Throwable e) {
    return e instanceof Unfit u ? u.said : Said.text(String.valueOf(e.getMessage()));
  }

  /** What is to be told. */
  public Said said() {
    return said;
  }
}
