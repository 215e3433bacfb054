package org.whinridge.core.rules;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Fold;

/**
 * What could be written where the cursor stands in the text of a rule: codes of the question that
 * is compared, names by name or label, functions, words of the language.
 */
public final class Completion {
  /** How many are offered at most. */
  public static final int MOST = 12;

  private Completion() {}

  /** The kinds of what is offered. */
  public enum Kind {
    CODE,
    NAME,
    FUNCTION,
    WORD;

    /** The word in data. */
    public String id() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /**
   * One that is offered.
   *
   * @param text what would be written
   * @param label what it is: the label of a code or name, how a function is used
   */
  public record Option(Kind kind, String text, Said label) {}

  /**
   * What is offered, and the characters that it would replace.
   *
   * @param from where what is being written begins
   * @param to where it ends, behind the last character
   */
  public record Offer(int from, int to, List<Option> options) {}

  private record Ranked(Option option, int rank) {}

  /**
   * What could be written at a place.
   *
   * @param at how many characters stand before the cursor
   */
  public static Offer of(String text, int at, Scope scope) {
    if (at < 0 || at > text.length() || text.length() > Rules.MAX_LENGTH)
      return new Offer(0, 0, List.of());
    int quote = openQuote(text, at);
    if (quote >= 0) {
      int to = at < text.length() && text.charAt(at) == '\'' ? at + 1 : at;
      return offer(
          quote, to, codes(text.substring(0, quote), text.substring(quote + 1, at), scope));
    }
    int from = at;
    while (from > 0 && isWord(text.charAt(from - 1))) from--;
    int to = at;
    while (to < text.length() && isWord(text.charAt(to))) to++;
    String typed = text.substring(from, at);
    List<Ranked> all = new ArrayList<>(codes(text.substring(0, from), typed, scope));
    for (String name : scope.names()) {
      Scope.Known known = scope.find(name).orElseThrow();
      int rank = rank(typed, name, known.label());
      // before.x and last.x come after what is asked now
      int aside = typed.contains(".") || !name.contains(".") ? 0 : 3;
      if (rank >= 0) add(all, Kind.NAME, printed(name), known.label(), 10 + aside + rank);
    }
    if (!typed.isEmpty()) words(all, typed);
    return offer(from, to, all);
  }

  private static Offer offer(int from, int to, List<Ranked> all) {
    List<Option> best =
        all.stream()
            .sorted(Comparator.comparingInt(Ranked::rank))
            .limit(MOST)
            .map(Ranked::option)
            .toList();
    return new Offer(from, to, best);
  }

  private static void words(List<Ranked> all, String typed) {
    String low = typed.toLowerCase(Locale.ROOT);
    for (String f : Functions.names())
      if (f.startsWith(low)) {
        String usage = Functions.find(f).orElseThrow().usage();
        add(all, Kind.FUNCTION, f + "(", Said.text(usage), 20);
      }
    for (String w : RuleWords.KEYWORDS)
      if (w.toLowerCase(Locale.ROOT).startsWith(low)) add(all, Kind.WORD, w, Said.text(w), 15);
  }

  private static void add(List<Ranked> all, Kind kind, String text, Said label, int rank) {
    all.add(new Ranked(new Option(kind, text, label), rank));
  }

  /** 0 for a name that begins like it, 1 for a label, 2 for what has it within; -1 for neither. */
  private static int rank(String typed, String name, Said label) {
    String t = Fold.lower(typed);
    String n = Fold.lower(name);
    String l = Fold.lower(label.toString());
    if (n.startsWith(t)) return 0;
    if (l.startsWith(t)) return 1;
    return n.contains(t) || l.contains(t) ? 2 : -1;
  }

  private static List<Ranked> codes(String before, String typed, Scope scope) {
    List<Ranked> out = new ArrayList<>();
    for (Scope.CodeLabel c : compared(before, scope).map(Scope.Known::codes).orElse(List.of())) {
      int rank = rank(typed, c.code(), Said.text(c.label()));
      String text = "'" + c.code().replace("'", "''") + "'";
      if (rank >= 0) add(out, Kind.CODE, text, Said.text(c.label()), rank);
    }
    return out;
  }

  /**
   * The name whose codes a text goes on with: the one before {@code =}, {@code <>} or {@code IN (},
   * or the first argument of an array function.
   */
  private static Optional<Scope.Known> compared(String before, Scope scope) {
    List<Token> tokens;
    try {
      tokens = Lexer.tokens(before);
    } catch (RuleSyntax e) {
      return Optional.empty(); // what stands before can't be read: nothing is known of it
    }
    int i = tokens.size() - 2;
    boolean within = false;
    while (i >= 0 && (tokens.get(i).kind() == Token.Kind.TEXT || isListed(tokens.get(i)))) {
      within |= tokens.get(i).sign("(");
      i--;
    }
    if (i < 0) return Optional.empty();
    Token t = tokens.get(i);
    if (t.sign("=") || t.sign("<>") || (within && t.is("IN"))) {
      i--;
      if (i >= 0 && tokens.get(i).is("NOT")) i--;
    } else if (!within
        || i < 2
        || !tokens.get(i - 2).text().toUpperCase(Locale.ROOT).startsWith("A_"))
      return Optional.empty();
    if (i < 0) return Optional.empty();
    Token name = tokens.get(i);
    boolean named = name.kind() == Token.Kind.NAME || name.kind() == Token.Kind.QUOTED_NAME;
    return named ? scope.find(name.text()) : Optional.empty();
  }

  private static boolean isListed(Token t) {
    return t.sign("(") || t.sign(",");
  }

  /** Where a text was opened that is not closed before the cursor; -1 for none. */
  private static int openQuote(String text, int at) {
    int open = -1;
    boolean name = false;
    for (int i = 0; i < at; i++) {
      char c = text.charAt(i);
      if (c == '"' && open < 0) name = !name;
      if (c == '\'' && !name) open = open < 0 ? i : -1;
    }
    return open;
  }

  private static boolean isWord(char c) {
    return Character.isLetterOrDigit(c) || c == '_' || c == '.';
  }

  private static String printed(String name) {
    return Printer.print(new Node.Name(name, new Span(0, 0)));
  }
}
