package org.whinridge.core.rules;

import java.util.Set;
import java.util.function.ToIntFunction;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/** A rule that was read and checked. Immutable; may be evaluated any number of times. */
public final class Rule {
  private final String text;
  private final Node tree;
  private final ValueType type;
  private final Set<String> names;
  private final Evaluator.Step steps;

  Rule(String text, Node tree, ValueType type, Set<String> names) {
    this(text, tree, type, names, Evaluator.of(tree, n -> -1));
  }

  private Rule(String text, Node tree, ValueType type, Set<String> names, Evaluator.Step steps) {
    this.steps = steps;
    this.text = text;
    this.tree = tree;
    this.type = type;
    this.names = names;
  }

  /** The rule as it was written. */
  public String text() {
    return text;
  }

  /** The tree. */
  public Node tree() {
    return tree;
  }

  /** The type of what it gives. */
  public ValueType type() {
    return type;
  }

  /** The names it reads, in the order of their first use. */
  public Set<String> names() {
    return names;
  }

  /** The rule in canonical CQL2 Text; reading that gives the same tree. */
  public String canonical() {
    return Printer.print(tree);
  }

  /**
   * The value; {@link Value#EMPTY} for unknown, for division by zero and for anything not finite.
   */
  public Value evaluate(Situation situation) {
    return steps.in(situation);
  }

  /** A part of a rule's tree made ready, for whoever evaluates the parts apart. */
  public interface Part {
    /** The part's value. */
    Value evaluate(Situation situation);
  }

  /** A part of this rule's tree made ready. */
  public Part part(Node node) {
    return Evaluator.of(node, n -> -1)::in;
  }

  /**
   * The same rule asking {@link Situation#slot} for the names that {@code slots} gives a slot, 0 or
   * more; the others by name. For whoever evaluates the same rules very often.
   */
  public Rule bound(ToIntFunction<String> slots) {
    return new Rule(text, tree, type, names, Evaluator.of(tree, slots));
  }

  /** Whether the rule says yes; unknown counts as no, as for ask when and filters. */
  public boolean holds(Situation situation) {
    return evaluate(situation).equals(Value.YES);
  }

  /** Whether the rule does not say no; unknown counts as yes, as for checks. */
  public boolean isNotBroken(Situation situation) {
    return !evaluate(situation).equals(Value.NO);
  }
}
