package org.whinridge.core.rules;

/**
 * Carries a problem from the depth of lexer or parser to {@link Rules}, which turns it into a
 * result.
 */
public final class RuleSyntax extends RuntimeException {
  private static final long serialVersionUID = 1;

  /** What is wrong, and where. */
  public final transient RuleProblem problem;

  /** What stops the reading of a rule. */
  public RuleSyntax(RuleProblem problem) {
    super(problem.message().toString());
    this.problem = problem;
  }
}
