package org.whinridge.app.round;

import jakarta.persistence.AttributeConverter;
import jakarta.persistence.Converter;
import org.whinridge.core.round.StopState;

/** States are stored by their words. */
@Converter(autoApply = true)
class StopStateColumn implements AttributeConverter<StopState, String> {
  @Override
  public String convertToDatabaseColumn(StopState state) {
    return state == null ? null : state.id();
  }

  @Override
  public StopState convertToEntityAttribute(String word) {
    return word == null ? null : StopState.of(word).orElseThrow();
  }
}
