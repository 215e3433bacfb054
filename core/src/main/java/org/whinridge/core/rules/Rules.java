package org.whinridge.core.rules;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.ValueType;

/**
 * The rules language in one place: read a rule against the names it may use, then ask the {@link
 * Rule}.
 *
 * <p>Source: OGC 21-065, Common Query Language (CQL2) Text, version 1.0, and the functions of
 * {@link Functions}.
 */
public final class Rules {
  /** The longest rule, in characters. */
  public static final int MAX_LENGTH = 4000;

  /** The deepest nesting of a rule. */
  public static final int MAX_DEPTH = 64;

  private Rules() {}

  /**
   * The tree of a text, its names and types not checked.
   *
   * @throws RuleSyntax when the text can't be read
   */
  public static Node tree(String text) {
    return new Parser(Lexer.tokens(text)).all();
  }

  /**
   * A rule that was read, or the problems that stopped it. {@code rule} is present exactly when
   * {@code problems} is empty.
   */
  public record Outcome(Optional<Rule> rule, List<RuleProblem> problems) {
    /** No rule, for one reason. */
    public static Outcome failed(RuleProblem problem) {
      return new Outcome(Optional.empty(), List.of(problem));
    }
  }

  /** Reads a condition: a rule that says yes, no or unknown. */
  public static Outcome condition(String text, Scope scope) {
    return read(text, scope, ValueType.YES_NO);
  }

  /**
   * Reads a formula that gives a value of {@code type}; {@link ValueType#EMPTY} accepts any type.
   */
  public static Outcome formula(String text, Scope scope, ValueType type) {
    return read(text, scope, type);
  }

  /**
   * The text of a rule with a name replaced wherever the rule reads it, alone or behind a prefix
   * ({@code last.silt}, {@code defects.length_m}); everything else stays as it was written. A text
   * that can't be read comes back as it is.
   *
   * @param names old name to new name, whole names as {@link Rule#names} gives them
   */
  public static String rename(String text, UnaryOperator<String> names) {
    if (text.length() > MAX_LENGTH) return text;
    List<Node.Name> found = new ArrayList<>();
    try {
      collect(tree(text), found);
    } catch (RuleSyntax e) {
      return text;
    }
    StringBuilder b = new StringBuilder(text);
    for (int i = found.size() - 1; i >= 0; i--) {
      Node.Name n = found.get(i);
      String to = names.apply(n.name());
      if (!to.equals(n.name()))
        b.replace(n.at().from(), n.at().to(), Printer.print(new Node.Name(to, n.at())));
    }
    return b.toString();
  }

  /** The names that a text reads, whether they are known or not; none when it can't be read. */
  public static Set<String> namesIn(String text) {
    Set<String> out = new LinkedHashSet<>();
    if (text.length() > MAX_LENGTH) return out;
    try {
      List<Node.Name> found = new ArrayList<>();
      collect(tree(text), found);
      for (Node.Name n : found) out.add(n.name());
    } catch (RuleSyntax e) {
      return out; // whoever reads the rule tells what is wrong with it
    }
    return out;
  }

  private static void collect(Node n, List<Node.Name> into) {
    if (n instanceof Node.Name name) into.add(name);
    for (Node part : n.parts()) collect(part, into);
  }

  private static Outcome read(String text, Scope scope, ValueType wanted) {
    if (text.length() > MAX_LENGTH)
      return Outcome.failed(
          new RuleProblem(
              RuleProblem.Kind.TOO_LONG,
              new Span(MAX_LENGTH, text.length()),
              Said.of("rule.tooLong", "most", MAX_LENGTH, "n", text.length()),
              ""));
    Node tree;
    try {
      tree = tree(text);
    } catch (RuleSyntax e) {
      return Outcome.failed(e.problem);
    }
    return checked(text, tree, scope, wanted);
  }

  /** Checks a tree that is there already, read from a text or made of values. */
  static Outcome checked(String text, Node tree, Scope scope, ValueType wanted) {
    List<RuleProblem> problems = new ArrayList<>();
    Checker checker = new Checker(scope, problems);
    ValueType type = checker.type(tree);
    if (problems.isEmpty() && !type.fits(wanted))
      problems.add(
          new RuleProblem(
              RuleProblem.Kind.WRONG_TYPE,
              tree.at(),
              Said.of("rule.givesOther", "wanted", wanted.said(), "found", type.said()),
              ""));
    return problems.isEmpty()
        ? new Outcome(Optional.of(new Rule(text, tree, type, checker.names())), List.of())
        : new Outcome(Optional.empty(), List.copyOf(problems));
  }
}
