package org.whinridge.core.form.compile;

import java.util.Optional;
import org.whinridge.core.form.QuestionProperty;
import org.whinridge.core.said.Said;

/**
 * The part of a form, or of one of its questions or sections, that a problem lies in.
 *
 * @param which which one, where a question has several: a check's number, counted from 1, or a code
 */
public record FormPart(Kind kind, String which) {
  /** The parts there are. */
  public enum Kind {
    FORM,
    NAME,
    NAMED_RULE,
    RULES,
    ALLOWED_AREA,
    ROWS,
    SECTION_ASK_WHEN,
    BLOCK,
    BLOCK_ASK_WHEN,
    ASK_WHEN(QuestionProperty.ASK_WHEN),
    WORK_OUT(QuestionProperty.WORK_OUT),
    CHECK(QuestionProperty.CHECKS),
    CHECKS(QuestionProperty.CHECKS),
    CODE(QuestionProperty.CODES),
    CODES(QuestionProperty.CODES),
    PREFILL(QuestionProperty.PREFILL),
    START_VALUE(QuestionProperty.PREFILL),
    LOOK_UP,
    LOOK_UP_FILTER,
    REFRESH(QuestionProperty.REFRESH),
    NEEDED(QuestionProperty.NEED),
    LEAST(QuestionProperty.LEAST),
    RANGE(QuestionProperty.FROM),
    LINK(QuestionProperty.LAYER),
    WRITES_TO(QuestionProperty.WRITES_TO);
    private final Optional<QuestionProperty> property;

    Kind() {
      property = Optional.empty();
    }

    Kind(QuestionProperty property) {
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
  public Said said() {
    Said of = Said.of("formPart." + kind.name());
    return which.isEmpty() ? of : Said.of("formPart.which", "part", of, "which", which);
  }
}
