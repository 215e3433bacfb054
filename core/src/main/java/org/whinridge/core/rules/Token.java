package org.whinridge.core.rules;

/** One token: kind, meaning (quotes taken off) and place. */
record Token(Kind kind, String text, Span at) {
  enum Kind {
    NUMBER,
    TEXT,
    NAME,
    QUOTED_NAME,
    SIGN,
    END
  }

  /** Whether this is the given keyword; keywords ignore case, quoted names are never keywords. */
  boolean is(String keyword) {
    return kind == Kind.NAME && text.equalsIgnoreCase(keyword);
  }

  boolean sign(String s) {
    return kind == Kind.SIGN && text.equals(s);
  }

  /** The token as a message names it. */
  String said() {
    return kind == Kind.END
        ? "the end"
        : kind == Kind.TEXT ? "the text '" + text + "'" : "‘" + text + "’";
  }
}
