package org.whinridge.core.rules;

/** A place in a rule's text: from (inclusive) to (exclusive), counted in characters from 0. */
public record Span(int from, int to) {
  /** The smallest span over both. */
  public Span to(Span end) {
    return new Span(Math.min(from, end.from), Math.max(to, end.to));
  }
}
