package org.whinridge.core.form.compile;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import org.whinridge.core.form.Form;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.RuleProblem;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.rules.saying.CqlJson;
import org.whinridge.core.rules.saying.Sentence;
import org.whinridge.core.rules.saying.SentenceParts;
import org.whinridge.core.value.ValueType;

/** A rule of a form as its author's screen needs it: as text, as a sentence, as parts to edit. */
public final class RuleView {
  private RuleView() {}

  /**
   * Reads a rule where it stands.
   *
   * @param list the list section in which it stands; "" outside of lists
   * @param type the kind of value wanted, {@link ValueType#EMPTY} for any
   * @return {text, sentence, parts (or null when it is too rich), json} of a sound rule, else
   *     {problems: [{kind, from, to, message, fix}]}
   */
  public static JsonObject of(Form form, Schema schema, String list, String text, ValueType type) {
    Scope scope = new FormScope(form, schema, list);
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
    return out.add("text", rule.canonical())
        .add("sentence", Sentence.of(rule, scope).json())
        .add("parts", parts)
        .add("json", Json.parse(CqlJson.write(rule)));
  }
}
