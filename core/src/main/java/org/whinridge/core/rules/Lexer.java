package org.whinridge.core.rules;

import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Blanks;

/** Text to tokens. Stops at the first character that can't begin a token. */
final class Lexer {
  /** Quotes as documents have them. */
  private static final String CURLY = "‘’‚‛“”„‟«»`´";

  private final String s;
  private int i;
  private final List<Token> out = new ArrayList<>();

  private Lexer(String s) {
    this.s = s;
  }

  static List<Token> tokens(String text) {
    return new Lexer(text).run();
  }

  private List<Token> run() {
    while (true) {
      while (i < s.length() && Blanks.isBlank(s.charAt(i))) i++;
      if (i >= s.length()) {
        out.add(new Token(Token.Kind.END, "", new Span(s.length(), s.length())));
        return out;
      }
      next();
    }
  }

  private void next() {
    int from = i;
    char c = s.charAt(i);
    if (c == '\'') add(Token.Kind.TEXT, quoted('\''), from);
    else if (c == '"') add(Token.Kind.QUOTED_NAME, quoted('"'), from);
    else if (digit(c) || (c == '.' && i + 1 < s.length() && digit(s.charAt(i + 1)))) {
      number();
      add(Token.Kind.NUMBER, s.substring(from, i), from);
    } else if (begins(s.codePointAt(i))) {
      while (i < s.length() && (goesOn(s.codePointAt(i)) || dotInName()))
        i += Character.charCount(s.codePointAt(i));
      add(Token.Kind.NAME, s.substring(from, i), from);
    } else {
      String two = i + 1 < s.length() ? s.substring(i, i + 2) : "";
      if (two.equals("<>") || two.equals("<=") || two.equals(">=")) i += 2;
      else if ("=<>+-*/%^(),".indexOf(c) >= 0) i++;
      else throw stranger(two);
      add(Token.Kind.SIGN, s.substring(from, i), from);
    }
  }

  /** What can't begin anything, with its cure where it is known. */
  private RuleSyntax stranger(String two) {
    char c = s.charAt(i);
    int opening = CURLY.indexOf(c);
    if (two.equals("!=")) return bad(i + 2, "rule.notEqual", "<>");
    if (opening >= 0) {
      int close = i + 1;
      while (close < s.length() && CURLY.indexOf(s.charAt(close)) < 0) close++;
      boolean closed = close < s.length();
      int to = closed ? close + 1 : i + 1;
      return bad(
          to,
          "rule.straightQuotes",
          closed ? "'" + s.substring(i + 1, close).replace("'", "''") + "'" : "'");
    }
    int known = "≤≥≠−–×·÷".indexOf(c);
    if (known < 0) return bad(i + Character.charCount(s.codePointAt(i)), "rule.stranger", "");
    String fix = List.of("<=", ">=", "<>", "-", "-", "*", "*", "/").get(known);
    return bad(i + 1, "rule.writtenOtherwise", fix);
  }

  private RuleSyntax bad(int to, String key, String fix) {
    return new RuleSyntax(
        new RuleProblem(
            RuleProblem.Kind.BAD_CHARACTER,
            new Span(i, to),
            Said.of(key, "found", s.substring(i, to), "fix", fix),
            fix));
  }

  /** A dot goes on with a name when something that can stand in one follows it. */
  private boolean dotInName() {
    return s.charAt(i) == '.' && i + 1 < s.length() && goesOn(s.codePointAt(i + 1));
  }

  // The standard's grammar (identifierStart, identifierPart) takes the characters that XML takes
  // in names; here: letters of every script, and after the first also digits and combining marks.

  private static boolean begins(int c) {
    return Character.isLetter(c) || c == '_' || c == ':';
  }

  private static boolean goesOn(int c) {
    int t = Character.getType(c);
    return begins(c)
        || Character.isDigit(c)
        || t == Character.NON_SPACING_MARK
        || t == Character.COMBINING_SPACING_MARK;
  }

  private void number() {
    while (i < s.length() && (digit(s.charAt(i)) || s.charAt(i) == '.')) i++;
    if (i < s.length() && (s.charAt(i) == 'e' || s.charAt(i) == 'E')) {
      int mark = i++;
      if (i < s.length() && (s.charAt(i) == '+' || s.charAt(i) == '-')) i++;
      if (i >= s.length() || !digit(s.charAt(i))) i = mark;
      while (i < s.length() && digit(s.charAt(i))) i++;
    }
  }

  private String quoted(char quote) {
    int from = i++;
    StringBuilder b = new StringBuilder();
    while (i < s.length()) {
      char c = s.charAt(i++);
      if (c != quote) b.append(c);
      else if (i < s.length() && s.charAt(i) == quote) {
        b.append(quote);
        i++;
      } else if (quote == '\'' && escaped()) throw doubled();
      else return b.toString();
    }
    throw new RuleSyntax(
        new RuleProblem(
            RuleProblem.Kind.OPEN_QUOTE,
            new Span(from, s.length()),
            Said.of("rule.openQuote"),
            s.substring(from) + quote));
  }

  /** Whether a quote just read was meant as part of the text: \' with letters right behind it. */
  private boolean escaped() {
    return i >= 2 && s.charAt(i - 2) == '\\' && i < s.length() && begins(s.codePointAt(i));
  }

  private RuleSyntax doubled() {
    return new RuleSyntax(
        new RuleProblem(
            RuleProblem.Kind.BAD_CHARACTER,
            new Span(i - 2, i),
            Said.of("rule.doubledQuote"),
            "''"));
  }

  private static boolean digit(char c) {
    return c >= '0' && c <= '9';
  }

  private void add(Token.Kind kind, String text, int from) {
    out.add(new Token(kind, text, new Span(from, i)));
  }
}
