package org.whinridge.core.rules;

import java.util.ArrayList;
import java.util.List;

/** Text to tokens. Stops at the first character that can't begin a token. */
final class Lexer {
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
      while (i < s.length() && Character.isWhitespace(s.charAt(i))) i++;
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
    } else if (begins(c)) {
      while (i < s.length()
          && (begins(s.charAt(i)) || Character.isDigit(s.charAt(i)) || dotInName())) i++;
      add(Token.Kind.NAME, s.substring(from, i), from);
    } else {
      String two = i + 1 < s.length() ? s.substring(i, i + 2) : "";
      if (two.equals("<>") || two.equals("<=") || two.equals(">=")) i += 2;
      else if ("=<>+-*/%^(),".indexOf(c) >= 0) i++;
      else {
        String fix = two.equals("!=") ? "<>" : "";
        int to = fix.isEmpty() ? i + 1 : i + 2;
        throw new RuleSyntax(
            new RuleProblem(
                RuleProblem.Kind.BAD_CHARACTER,
                new Span(i, to),
                "‘"
                    + s.substring(i, to)
                    + "’ has no meaning in a rule"
                    + (fix.isEmpty() ? "" : "; not equal is written <>"),
                fix));
      }
      add(Token.Kind.SIGN, s.substring(from, i), from);
    }
  }

  private boolean dotInName() {
    return s.charAt(i) == '.' && i + 1 < s.length() && begins(s.charAt(i + 1));
  }

  private static boolean begins(char c) {
    return Character.isLetter(c) || c == '_' || c == ':';
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
      } else return b.toString();
    }
    throw new RuleSyntax(
        new RuleProblem(
            RuleProblem.Kind.OPEN_QUOTE,
            new Span(from, s.length()),
            "the quote that opens here is never closed",
            s.substring(from) + quote));
  }

  private static boolean digit(char c) {
    return c >= '0' && c <= '9';
  }

  private void add(Token.Kind kind, String text, int from) {
    out.add(new Token(kind, text, new Span(from, i)));
  }
}
