package org.whinridge.core.rules;

import org.whinridge.core.said.Said;

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
  Said said() {
    return kind == Kind.END
        ? Said.of("rule.token.end")
        : kind == Kind.TEXT
            ? Said.of("rule.token.text", "text", text)
            : Said.text("‘" + text + "’");
  }
}
