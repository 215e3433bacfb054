package org.whinridge.core.form.compile;

import java.util.Optional;
import org.whinridge.core.form.QuestionProperty;

/**
 * The part of a form, or of one of its questions or sections, that a problem lies in.
 *
 * @param which which one, where a question has several: a check's number, counted from 1, or a code
 */
public record FormPart(Kind kind, String which) {
  /** The parts there are. */
  public enum Kind {
    FORM("form"),
    NAME("name"),
    NAMED_RULE("rule"),
    RULES("rules"),
    ALLOWED_AREA("allowed area"),
    ROWS("rows"),
    SECTION_ASK_WHEN("section's ask when"),
    BLOCK("block"),
    BLOCK_ASK_WHEN("block's ask when"),
    ASK_WHEN("ask when", QuestionProperty.ASK_WHEN),
    WORK_OUT("work out", QuestionProperty.WORK_OUT),
    CHECK("check", QuestionProperty.CHECKS),
    CHECKS("checks", QuestionProperty.CHECKS),
    CODE("code", QuestionProperty.CODES),
    CODES("codes", QuestionProperty.CODES),
    PREFILL("prefill", QuestionProperty.PREFILL),
    START_VALUE("start value", QuestionProperty.PREFILL),
    LOOK_UP("place look-up"),
    LOOK_UP_FILTER("look-up filter"),
    REFRESH("refresh", QuestionProperty.REFRESH),
    NEEDED("needed", QuestionProperty.NEED),
    LEAST("least", QuestionProperty.LEAST),
    RANGE("range", QuestionProperty.FROM),
    LINK("link", QuestionProperty.LAYER),
    WRITES_TO("writes to", QuestionProperty.WRITES_TO);
    private final String said;
    private final Optional<QuestionProperty> property;

    Kind(String said) {
      this.said = said;
      property = Optional.empty();
    }

    Kind(String said, QuestionProperty property) {
      this.said = said;
      this.property = Optional.of(property);
    }

    /** The property of the question that is to be changed; empty when it is none. */
    public Optional<QuestionProperty> property() {
      return property;
    }
  }

  static FormPart of(Kind kind) {
    return new FormPart(kind, "");
  }

  /** A check, counted from 0. */
  static FormPart check(int index) {
    return new FormPart(Kind.CHECK, String.valueOf(index + 1));
  }

  static FormPart code(String code) {
    return new FormPart(Kind.CODE, code);
  }

  /** The part as people call it: "ask when", "check 2", "code b". */
  @Override
  public String toString() {
    return which.isEmpty() ? kind.said : kind.said + " " + which;
  }
}
