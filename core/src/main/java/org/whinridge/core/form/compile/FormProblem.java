package org.whinridge.core.form.compile;

import com.eclipsesource.json.JsonObject;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.whinridge.core.form.QuestionProperty;
import org.whinridge.core.rules.RuleProblem;

/**
 * Something wrong with a draft, or something that its author should know.
 *
 * @param question the question, section, list or named rule; "" for the form as a whole
 * @param part what of it
 * @param reason what it is
 * @param arguments what the reason is about, in the order of its text: what was found and, where
 *     there is such a thing, what was expected
 * @param rule the problem in a rule's text, with its place and cure, when it lies in one
 */
public record FormProblem(
    String question,
    FormPart part,
    Reason reason,
    List<String> arguments,
    Optional<RuleProblem> rule) {
  /** All that can be wrong with a form, or be worth knowing. */
  public enum Reason {
    NOT_A_FORM("{0}"),
    RULE("{0}"),
    NAME("{0}"),
    NAME_TWICE("two things of this form are called ‘{0}’"),
    NO_QUESTION("a form needs at least one question"),
    NO_ALLOWED_LAYER("choose the layer of the allowed area"),
    RULE_EMPTY("a named rule needs a condition"),
    ROWS_TURNED("the least rows are more than the most"),
    BLOCK_UNNAMED("a block needs a name of its own"),
    BLOCK_UNKNOWN("the section has no block ‘{0}’"),
    LIST_ASKED_BY_ROW("whether a list is asked can't depend on one of its rows"),
    NOT_WORKED_OUT("this kind of question can't be worked out"),
    NO_SOURCE("there is no source that could always give the value"),
    CHECK_EMPTY("a check needs a condition"),
    MESSAGE_OF_OTHER_RULE("its message was written for an earlier rule: {0}"),
    DEVICE_ITEM_UNKNOWN("a device does not know ‘{0}’"),
    LOOK_UP_UNKNOWN("there is no look-up ‘{0}’"),
    LOOK_UP_UNSET("choose the layer and the field to look up"),
    LOOK_UP_FIELD_UNKNOWN("{0} has no field ‘{1}’"),
    LOOK_UP_UNBOUNDED("say how far away the nearest may be, in metres"),
    LAYER_GONE("the layer {0} is not in this project"),
    OFFICE_ONLY_OUTDOORS("this rule runs outdoors, but ‘{0}’ is office only and does not travel"),
    CIRCLE("these questions depend on each other in a circle: {0}"),
    OFFICE_ONLY_NEEDED("an office only question can't be needed: nobody outdoors could answer it"),
    NO_CODES("a choice needs codes to choose from"),
    LEAST_OVER_MOST("the least, {0}, is more than the most, {1}"),
    RANGE_TURNED("the range ends before it begins"),
    LINK_UNSET("choose the layer that this question links to"),
    FIELD_UNKNOWN("the layer has no field ‘{0}’"),
    FIELD_IN_LIST("a list has many rows, which one field can't hold; keep them on the visit"),
    FIELD_TAKEN("‘{0}’ already writes to the field {1}"),
    FIELD_OF_OTHER_TYPE("the field {0} holds {1}, which this kind of question does not give"),
    FIELD_FILLS_ITSELF(
        "the field {0} fills itself, so that nothing written to it would be taken; make the question read only"),
    CODES_NOT_IN_FIELD("the field {0} does not have the code {1}"),
    CODES_NOT_OFFERED("the field also has the code {0}, which this question does not offer"),
    NEVER_ASKED("this can never hold, so the question is never asked"),
    CHECK_NEVER_MET("no answer of this question can ever meet this check"),
    CHECKS_NEVER_MET("no answer of this question can ever meet all its checks");
    private final String text;

    Reason(String text) {
      this.text = text;
    }

    /** The word in data. */
    public String id() {
      return name().toLowerCase(Locale.ROOT);
    }

    private String say(List<String> arguments) {
      StringBuilder b = new StringBuilder();
      for (int i = 0; i < text.length(); i++)
        if (text.charAt(i) != '{') b.append(text.charAt(i));
        else {
          b.append(arguments.get(text.charAt(i + 1) - '0'));
          i += 2;
        }
      return b.toString();
    }
  }

  /** A problem that lies in no rule's text. */
  public static FormProblem of(
      String question, FormPart.Kind part, Reason reason, String... arguments) {
    return of(question, FormPart.of(part), reason, arguments);
  }

  static FormProblem of(String question, FormPart part, Reason reason, String... arguments) {
    return new FormProblem(question, part, reason, List.of(arguments), Optional.empty());
  }

  static FormProblem of(String question, FormPart part, RuleProblem rule) {
    return new FormProblem(question, part, Reason.RULE, List.of(rule.message()), Optional.of(rule));
  }

  /** What it is, in words. */
  public String message() {
    return reason.say(arguments);
  }

  /**
   * The JSON form, with the question's property that is to be changed and the place in the rule's
   * text, where there are such.
   */
  public JsonObject json() {
    JsonObject o =
        new JsonObject()
            .add("question", question)
            .add("part", part.toString())
            .add("code", reason.id())
            .add("message", message());
    part.kind().property().map(QuestionProperty::id).ifPresent(p -> o.add("property", p));
    if (part.kind() == FormPart.Kind.CHECK) o.add("index", Integer.parseInt(part.which()) - 1);
    rule.ifPresent(r -> o.add("from", r.at().from()).add("to", r.at().to()).add("fix", r.fix()));
    return o;
  }
}
