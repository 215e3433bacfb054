package org.whinridge.core.form.compile;

import com.eclipsesource.json.JsonObject;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.whinridge.core.form.QuestionProperty;
import org.whinridge.core.rules.RuleProblem;
import org.whinridge.core.said.Said;

/**
 * Something wrong with a draft, or something that its author should know.
 *
 * @param question the question, section, list or named rule; "" for the form as a whole
 * @param part what of it
 * @param reason what it is
 * @param arguments what the reason is about, {@code a} and {@code b} of its text: what was found
 *     and, where there is such a thing, what was expected
 * @param rule the problem in a rule's text, with its place and cure, when it lies in one
 */
public record FormProblem(
    String question,
    FormPart part,
    Reason reason,
    List<Object> arguments,
    Optional<RuleProblem> rule) {
  /** All that can be wrong with a form, or be worth knowing. */
  public enum Reason {
    NOT_A_FORM,
    RULE,
    NAME,
    NAME_TWICE,
    NO_QUESTION,
    NO_ALLOWED_LAYER,
    RULE_EMPTY,
    ROWS_TURNED,
    BLOCK_UNNAMED,
    BLOCK_UNKNOWN,
    LIST_ASKED_BY_ROW,
    NOT_WORKED_OUT,
    NO_SOURCE,
    CHECK_EMPTY,
    MESSAGE_OF_OTHER_RULE,
    MESSAGE_NAME_UNKNOWN,
    DEVICE_ITEM_UNKNOWN,
    LOOK_UP_UNKNOWN,
    LOOK_UP_UNSET,
    LOOK_UP_FIELD_UNKNOWN,
    LOOK_UP_UNBOUNDED,
    LAYER_GONE,
    OFFICE_ONLY_OUTDOORS,
    CIRCLE,
    OFFICE_ONLY_NEEDED,
    NO_CODES,
    LEAST_OVER_MOST,
    RANGE_TURNED,
    LINK_UNSET,
    FIELD_UNKNOWN,
    FIELD_IN_LIST,
    FIELD_TAKEN,
    FIELD_OF_OTHER_TYPE,
    FIELD_FILLS_ITSELF,
    CODES_NOT_IN_FIELD,
    CODES_NOT_OFFERED,
    NEVER_ASKED,
    CHECK_NEVER_MET,
    CHECKS_NEVER_MET;

    /** The word in data. */
    public String id() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** A problem that lies in no rule's text. */
  public static FormProblem of(
      String question, FormPart.Kind part, Reason reason, Object... arguments) {
    return of(question, FormPart.of(part), reason, arguments);
  }

  static FormProblem of(String question, FormPart part, Reason reason, Object... arguments) {
    return new FormProblem(question, part, reason, List.of(arguments), Optional.empty());
  }

  static FormProblem of(String question, FormPart part, RuleProblem rule) {
    return new FormProblem(question, part, Reason.RULE, List.of(rule.message()), Optional.of(rule));
  }

  /** What it is, to be told to the form's author. */
  public Said message() {
    if (rule.isPresent()) return rule.get().message();
    String key = "formProblem." + reason.name();
    if (arguments.isEmpty()) return Said.of(key);
    return arguments.size() == 1
        ? Said.of(key, "a", arguments.get(0))
        : Said.of(key, "a", arguments.get(0), "b", arguments.get(1));
  }

  /**
   * The JSON form, with the question's property that is to be changed and the place in the rule's
   * text, where there are such.
   */
  public JsonObject json() {
    JsonObject o =
        new JsonObject()
            .add("question", question)
            .add("part", part.said().json())
            .add("code", reason.id())
            .add("message", message().json());
    part.kind().property().map(QuestionProperty::id).ifPresent(p -> o.add("property", p));
    if (part.kind() == FormPart.Kind.CHECK) o.add("index", Integer.parseInt(part.which()) - 1);
    rule.ifPresent(r -> o.add("from", r.at().from()).add("to", r.at().to()).add("fix", r.fix()));
    return o;
  }
}
