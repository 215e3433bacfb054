package org.whinridge.app.daybook;

import jakarta.persistence.AttributeConverter;
import jakarta.persistence.Converter;
import org.whinridge.core.visit.VisitState;

/** States are stored by their words. */
@Converter(autoApply = true)
class VisitStateColumn implements AttributeConverter<VisitState, String> {
  @Override
  public String convertToDatabaseColumn(VisitState state) {
    return state == null ? null : state.id();
  }

  @Override
  public VisitState convertToEntityAttribute(String word) {
    return word == null ? null : VisitState.of(word).orElseThrow();
  }
}
