package org.whinridge.core.rules;

import org.whinridge.core.said.Said;

/**
 * Something wrong with a rule.
 *
 * @param kind what sort of problem
 * @param at the characters concerned
 * @param message what is wrong, what was expected and what was found, to be told
 * @param fix a text that could stand at that place instead; "" when none is likely
 */
public record RuleProblem(Kind kind, Span at, Said message, String fix) {
  /** The sorts of problem. */
  public enum Kind {
    TOO_LONG,
    TOO_DEEP,
    BAD_CHARACTER,
    OPEN_QUOTE,
    EXPECTED_OTHER,
    BAD_LITERAL,
    UNKNOWN_NAME,
    UNKNOWN_FUNCTION,
    ARGUMENTS,
    WRONG_TYPE,
    UNKNOWN_CODE,
    BAD_PATTERN,
    /** A comparison with an empty text, which is unknown whatever the other side is. */
    NEVER_TRUE
  }
}
