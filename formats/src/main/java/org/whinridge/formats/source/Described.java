package org.whinridge.formats.source;

import java.util.List;
import java.util.Optional;
import org.whinridge.core.layer.Field;

/**
 * What a file itself says of a layer's fields, so that nothing needs to be guessed.
 *
 * @param fields with their labels, units and code lists; those of the file's columns by storage
 *     name
 * @param look how it is drawn, as the application writes it; "" for nothing
 * @param tagField the field that is painted on the asset; "" when the file does not say
 * @param captionFields the fields that name a feature; none when the file does not say
 */
public record Described(
    List<Field> fields, String look, String tagField, List<String> captionFields) {
  /** The field of a column. */
  public Optional<Field> field(String name) {
    return fields.stream().filter(f -> f.name().equalsIgnoreCase(name)).findFirst();
  }
}
