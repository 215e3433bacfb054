package org.whinridge.app.layer;

import com.eclipsesource.json.JsonObject;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;

/**
 * What was drawn at the desk, as a page sends it.
 *
 * @param act an id that the page has made; null when it did not. Sent again under the same one,
 *     since the answer was lost, edits are written once
 * @param edits what to write, in this order
 */
@JsonIgnoreProperties(ignoreUnknown = true)
record SentEdits(
    UUID act,
    @NotEmpty(message = "border.hasNothingToWrite")
        @Size(max = MOST, message = "border.hasMoreThan500Features")
        List<@NotNull(message = "border.isNoChange") @Valid One> edits) {
  /** The most features of one saving. */
  static final int MOST = 500;

  /**
   * What becomes of one feature.
   *
   * @param version the version that was seen; of no meaning when it is new
   * @param set values by field name; null for none
   * @param geometry GeoJSON; null to leave it as it is
   * @param like the feature that a new one was split off; null for none
   */
  @JsonIgnoreProperties(ignoreUnknown = true)
  record One(
      @NotNull(message = "border.isMissing") UUID id,
      Boolean isNew,
      Boolean removed,
      Long version,
      JsonObject set,
      JsonObject geometry,
      UUID like) {
    One {
      isNew = isNew != null && isNew;
      removed = removed != null && removed;
      version = version == null ? 0 : version;
    }
  }

  SentEdits {
    act = act == null ? UUID.randomUUID() : act;
  }
}
