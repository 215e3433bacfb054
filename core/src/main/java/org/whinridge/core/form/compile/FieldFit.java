package org.whinridge.core.form.compile;

import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;

/** Whether a field can hold what a question is answered with. */
public final class FieldFit {
  private FieldFit() {}

  /** Whether it can. @param schema the field's, by which a choice knows what its codes are */
  public static boolean fits(Question q, Field field, Schema schema) {
    FieldType t = field.type();
    if (t.valueType() != q.valueType(schema)) return false;
    if (t == FieldType.WHOLE)
      return q.type() != QuestionType.DECIMAL && q.type() != QuestionType.DURATION
          || q.decimals() == 0;
    if (t == FieldType.TIME) return q.type() == QuestionType.TIME;
    return t != FieldType.CODES || q.type().hasCodes();
  }
}
