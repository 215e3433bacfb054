package org.whinridge.core.rules;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
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

  private Rules() {}

  /**
   * A rule that was read, or the problems that stopped it. {@code rule} is present exactly when
   * {@code problems} is empty.
   */
  public record Outcome(Optional<Rule> rule, List<RuleProblem> problems) {}

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

  private static Outcome read(String text, Scope scope, ValueType wanted) {
    if (text.length() > MAX_LENGTH)
      return failed(
          new RuleProblem(
              RuleProblem.Kind.TOO_LONG,
              new Span(MAX_LENGTH, text.length()),
              "a rule has at most 4,000 characters; this one has " + text.length(),
              ""));
    Node tree;
    try {
      tree = new Parser(Lexer.tokens(text)).all();
    } catch (RuleSyntax e) {
      return failed(e.problem);
    }
    List<RuleProblem> problems = new ArrayList<>();
    Checker checker = new Checker(scope, problems);
    ValueType type = checker.type(tree);
    if (problems.isEmpty() && !type.fits(wanted))
      problems.add(
          new RuleProblem(
              RuleProblem.Kind.WRONG_TYPE,
              tree.at(),
              "expected " + wanted.said() + ", but this gives " + type.said(),
              ""));
    return problems.isEmpty()
        ? new Outcome(Optional.of(new Rule(text, tree, type, checker.names())), List.of())
        : new Outcome(Optional.empty(), List.copyOf(problems));
  }

  private static Outcome failed(RuleProblem p) {
    return new Outcome(Optional.empty(), List.of(p));
  }
}
