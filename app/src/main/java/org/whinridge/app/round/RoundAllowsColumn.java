package org.whinridge.app.round;

import jakarta.persistence.AttributeConverter;
import jakarta.persistence.Converter;
import org.whinridge.core.round.RoundAllows;

/** What a round allows is stored by its word. */
@Converter(autoApply = true)
class RoundAllowsColumn implements AttributeConverter<RoundAllows, String> {
  @Override
  public String convertToDatabaseColumn(RoundAllows allows) {
    return allows == null ? null : allows.id();
  }

  @Override
  public RoundAllows convertToEntityAttribute(String word) {
    return word == null ? null : RoundAllows.of(word).orElseThrow();
  }
}
