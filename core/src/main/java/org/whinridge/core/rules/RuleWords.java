package org.whinridge.core.rules;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * The words of a rule's text by their kind, for a screen that colours them while they are typed.
 */
public final class RuleWords {
  /** The words of the language that no name can be without quotes. */
  static final List<String> KEYWORDS =
      List.of("AND", "OR", "NOT", "LIKE", "BETWEEN", "IN", "IS", "NULL", "DIV", "TRUE", "FALSE");

  private RuleWords() {}

  /** The kinds of words. */
  public enum Kind {
    NAME,
    FUNCTION,
    KEYWORD,
    TEXT,
    NUMBER,
    SIGN,
    /** From the first character that can't be read to the end. */
    UNREAD;

    /** The word in data. */
    public String id() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** A word and where it stands. */
  public record Word(Kind kind, Span at) {}

  /** The words of a text in their order; also of one that is no rule yet. */
  public static List<Word> of(String text) {
    List<Word> out = new ArrayList<>();
    List<Token> tokens;
    int unread = text.length();
    try {
      tokens = Lexer.tokens(text);
    } catch (RuleSyntax e) {
      unread = Math.min(e.problem.at().from(), text.length());
      tokens = readable(text.substring(0, unread));
    }
    for (int i = 0; i < tokens.size() - 1; i++)
      out.add(new Word(kind(tokens.get(i), tokens.get(i + 1)), tokens.get(i).at()));
    if (unread < text.length()) out.add(new Word(Kind.UNREAD, new Span(unread, text.length())));
    return out;
  }

  private static List<Token> readable(String text) {
    try {
      return Lexer.tokens(text);
    } catch (RuleSyntax e) {
      return List.of(); // the whole of it is shown as it is
    }
  }

  private static Kind kind(Token t, Token next) {
    return switch (t.kind()) {
      case NUMBER -> Kind.NUMBER;
      case TEXT -> Kind.TEXT;
      case QUOTED_NAME -> Kind.NAME;
      case NAME -> isKeyword(t.text()) ? Kind.KEYWORD : next.sign("(") ? Kind.FUNCTION : Kind.NAME;
      default -> Kind.SIGN;
    };
  }

  static boolean isKeyword(String word) {
    return KEYWORDS.contains(word.toUpperCase(Locale.ROOT));
  }
}
