package org.whinridge.core.form.compile;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import org.whinridge.core.form.Form;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.rules.Completion;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.RuleProblem;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.saying.CqlJson;
import org.whinridge.core.rules.saying.Operand;
import org.whinridge.core.rules.saying.Sentence;
import org.whinridge.core.rules.saying.SentenceParts;
import org.whinridge.core.value.ValueType;

/**
 * A place of a form where a rule can stand, as its author's screen needs it: a rule as text, as a
 * sentence, as parts to edit; what can be picked and what could be written there.
 */
public final class RulePlace {
  private final Form form;
  private final FormScope scope;

  /**
   * A place of a form.
   *
   * @param list the list section in which rules stand there; "" outside of lists
   */
  public RulePlace(Form form, Schema schema, String list) {
    this.form = form;
    this.scope = new FormScope(form, schema, list);
  }

  /**
   * Reads a rule where it stands.
   *
   * @param type the kind of value wanted, {@link ValueType#EMPTY} for any
   * @return {text, sentence, parts and operand (each null when it is none), json} of a sound rule,
   *     else {problems: [{kind, from, to, message, fix}]}
   */
  public JsonObject view(String text, ValueType type) {
    Rules.Outcome o = Rules.formula(text, scope, type);
    JsonObject out = new JsonObject();
    JsonArray problems = new JsonArray();
    for (RuleProblem p : o.problems())
      problems.add(
          new JsonObject()
              .add("kind", p.kind().name())
              .add("from", p.at().from())
              .add("to", p.at().to())
              .add("message", p.message().json())
              .add("fix", p.fix()));
    if (o.rule().isEmpty()) return out.add("problems", problems);
    Rule rule = o.rule().get();
    JsonValue parts = SentenceParts.of(rule).<JsonValue>map(SentenceParts::json).orElse(Json.NULL);
    JsonValue operand = Operand.of(rule.tree()).<JsonValue>map(Operand::json).orElse(Json.NULL);
    return out.add("text", rule.canonical())
        .add("sentence", Sentence.of(rule, scope).json())
        .add("parts", parts)
        .add("operand", operand)
        .add("json", Json.parse(CqlJson.write(rule)));
  }

  /**
   * All that can be picked.
   *
   * @return {names: [{name, label, type, group, unit?, codes?: [{code, label}]}], comparisons:
   *     [{id, said, takes, plain: [types], coded: [types]}], operands: [{id, said, names, takes,
   *     gives}]}; types in lower case, "" for any; groups are question, list, rule, before, last,
   *     visit
   */
  public JsonObject choices() {
    return RuleChoices.of(form, scope);
  }

  /**
   * What could be written at a place of a rule's text, see {@link Completion}.
   *
   * @param at how many characters stand before the cursor
   * @return {from, to, options: [{kind, text, label}]}
   */
  public JsonObject completion(String text, int at) {
    Completion.Offer offer = Completion.of(text, at, scope);
    JsonArray options = new JsonArray();
    for (Completion.Option o : offer.options())
      options.add(
          new JsonObject()
              .add("kind", o.kind().id())
              .add("text", o.text())
              .add("label", o.label().json()));
    return new JsonObject().add("from", offer.from()).add("to", offer.to()).add("options", options);
  }
}
