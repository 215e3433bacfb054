package org.whinridge.core.form.compile;

import com.eclipsesource.json.JsonObject;
import java.util.Optional;
import org.whinridge.core.rules.RuleProblem;

/**
 * Something wrong with a draft, or something that its author should know: the question or section,
 * its part ("ask when", "check 1", …), and what it is.
 */
public record FormProblem(
    String question, String part, String message, Optional<RuleProblem> rule) {
  /** A problem that lies in no rule's text. */
  static FormProblem of(String question, String part, String message) {
    return new FormProblem(question, part, message, Optional.empty());
  }

  /** The JSON form, with the place in the rule's text when there is one. */
  public JsonObject json() {
    JsonObject o =
        new JsonObject().add("question", question).add("part", part).add("message", message);
    rule.ifPresent(r -> o.add("from", r.at().from()).add("to", r.at().to()).add("fix", r.fix()));
    return o;
  }
}
