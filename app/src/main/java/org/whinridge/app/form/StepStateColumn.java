package org.whinridge.app.form;

import jakarta.persistence.AttributeConverter;
import jakarta.persistence.Converter;
import org.whinridge.core.form.edit.StepState;

/** States are stored by their words. */
@Converter(autoApply = true)
class StepStateColumn implements AttributeConverter<StepState, String> {
  @Override
  public String convertToDatabaseColumn(StepState state) {
    return state == null ? null : state.id();
  }

  @Override
  public StepState convertToEntityAttribute(String word) {
    return word == null ? null : StepState.of(word).orElseThrow();
  }
}
