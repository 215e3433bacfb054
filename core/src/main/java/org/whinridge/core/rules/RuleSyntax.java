package org.whinridge.core.rules;

/**
 * Carries a problem from the depth of lexer or parser to {@link Rules}, which turns it into a
 * result.
 */
final class RuleSyntax extends RuntimeException {
  private static final long serialVersionUID = 1;
  final transient RuleProblem problem;

  RuleSyntax(RuleProblem problem) {
    super(problem.message());
    this.problem = problem;
  }
}
