package org.whinridge.formats.xlsform;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.whinridge.core.said.Said;

/**
 * The expressions of XLSForm: XPath 1.0 operators and functions, with ${name} for a question and .
 * for the question itself.
 */
sealed interface XPath {
  record Text(String value) implements XPath {}

  record Num(String digits) implements XPath {}

  /** ${name}. */
  record Question(String name) implements XPath {}

  /** The dot. */
  record Self() implements XPath {}

  /** A bare name: in a choice filter, a column of the choices sheet. */
  record Bare(String name) implements XPath {}

  record Binary(String op, XPath left, XPath right) implements XPath {}

  record Minus(XPath of) implements XPath {}

  record Call(String function, List<XPath> arguments) implements XPath {}

  /** Why an expression can't be read or has no counterpart; its message is for people. */
  final class Untranslatable extends Exception {
    private static final long serialVersionUID = 1;

    private final transient Said said;

    Untranslatable(String key, Object... args) {
      super(key);
      said = Said.of(key, args);
    }

    /** Why. */
    Said said() {
      return said;
    }
  }

  /** Reads an expression. */
  static XPath read(String text) throws Untranslatable {
    return new Reader(text).all();
  }

  /**
   * Recursive descent over XPath's precedence: or, and, equality, relation, sum, product, minus.
   */
  final class Reader {
    private static final List<Set<String>> LEVELS =
        List.of(
            Set.of("or"),
            Set.of("and"),
            Set.of("=", "!="),
            Set.of("<", ">", "<=", ">="),
            Set.of("+", "-"),
            Set.of("*", "div", "mod"));
    private final String s;
    private int i;
    private int depth;

    Reader(String s) {
      this.s = s;
    }

    XPath all() throws Untranslatable {
      if (s.length() > 10_000) throw new Untranslatable("sheetTold.expressionTooLong");
      XPath x = level(0);
      blanks();
      if (i < s.length())
        throw new Untranslatable("sheetTold.notUnderstood", "rest", s.substring(i));
      return x;
    }

    private XPath level(int n) throws Untranslatable {
      if (n == LEVELS.size()) return unary();
      XPath left = level(n + 1);
      for (String op = operator(LEVELS.get(n)); op != null; op = operator(LEVELS.get(n)))
        left = new Binary(op, left, level(n + 1));
      return left;
    }

    private String operator(Set<String> ops) {
      blanks();
      for (String op :
          new String[] {
            "<=", ">=", "!=", "and", "or", "div", "mod", "=", "<", ">", "+", "-", "*"
          }) {
        if (!s.startsWith(op, i)) continue;
        boolean word = Character.isLetter(op.charAt(0));
        if (word && i + op.length() < s.length() && nameChar(s.charAt(i + op.length()))) continue;
        if (!ops.contains(op)) return null;
        i += op.length();
        return op;
      }
      return null;
    }

    private XPath unary() throws Untranslatable {
      blanks();
      if (++depth > 60) throw new Untranslatable("sheetTold.expressionNestedTooDeep");
      try {
        if (i < s.length() && s.charAt(i) == '-') {
          i++;
          return new Minus(unary());
        }
        return primary();
      } finally {
        depth--;
      }
    }

    private XPath primary() throws Untranslatable {
      if (i >= s.length()) throw new Untranslatable("sheetTold.expressionEndsTooEarly");
      char c = s.charAt(i);
      if (c == '\'' || c == '"') return new Text(quoted(c));
      if (s.startsWith("${", i)) {
        int end = s.indexOf('}', i);
        if (end < 0) throw new Untranslatable("sheetTold.neverClosed");
        String name = s.substring(i + 2, end).strip();
        i = end + 1;
        return new Question(name);
      }
      if (c >= '0' && c <= '9'
          || c == '.' && i + 1 < s.length() && Character.isDigit(s.charAt(i + 1))) {
        int from = i;
        while (i < s.length() && (Character.isDigit(s.charAt(i)) || s.charAt(i) == '.')) i++;
        return new Num(s.substring(from, i));
      }
      if (c == '.') {
        i++;
        if (i < s.length() && (s.charAt(i) == '.' || s.charAt(i) == '/'))
          throw new Untranslatable("sheetTold.pathsBetweenGroupsHave");
        return new Self();
      }
      if (c == '(') {
        i++;
        XPath inner = level(0);
        close();
        return inner;
      }
      if (!nameChar(c)) throw new Untranslatable("sheetTold.notUnderstood", "rest", s.substring(i));
      int from = i;
      while (i < s.length() && (nameChar(s.charAt(i)) || s.charAt(i) == ':')) i++;
      String name = s.substring(from, i);
      blanks();
      if (i >= s.length() || s.charAt(i) != '(') return new Bare(name);
      i++;
      List<XPath> arguments = new ArrayList<>();
      blanks();
      if (i < s.length() && s.charAt(i) == ')') {
        i++;
        return new Call(name, arguments);
      }
      arguments.add(level(0));
      blanks();
      while (i < s.length() && s.charAt(i) == ',') {
        i++;
        arguments.add(level(0));
        blanks();
      }
      close();
      return new Call(name, arguments);
    }

    private void close() throws Untranslatable {
      blanks();
      if (i >= s.length() || s.charAt(i) != ')')
        throw new Untranslatable("sheetTold.bracketNeverClosed");
      i++;
    }

    private String quoted(char quote) throws Untranslatable {
      int end = s.indexOf(quote, i + 1);
      if (end < 0) throw new Untranslatable("sheetTold.quoteNeverClosed");
      String text = s.substring(i + 1, end);
      i = end + 1;
      return text;
    }

    private static boolean nameChar(char c) {
      return Character.isLetterOrDigit(c) || c == '_' || c == '-';
    }

    private void blanks() {
      while (i < s.length() && Character.isWhitespace(s.charAt(i))) i++;
    }
  }
}
