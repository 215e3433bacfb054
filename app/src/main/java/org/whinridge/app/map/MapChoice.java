package org.whinridge.app.map;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;

/**
 * What somebody chose for the project's map, as it is sent and kept.
 *
 * @param basemap the id of a basemap; one that is not there stands for the first that is
 * @param layers from the top down
 * @param revision the map that was seen; null when nobody looked before
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record MapChoice(
    @Size(max = 60, message = "is longer than 60 characters") String basemap,
    @NotNull(message = "is missing") @Size(max = 500, message = "has more than 500 layers") @Valid
        List<@NotNull(message = "is no layer") @Valid Entry> layers,
    Long revision) {

  /**
   * A layer on the map; what is not said is as it usually is.
   *
   * @param shortName what the map's list calls it; "" for its own name
   * @param opacity 0 to 1
   */
  @JsonIgnoreProperties(ignoreUnknown = true)
  public record Entry(
      @NotNull(message = "is missing") @Size(max = 60, message = "is no id") String id,
      @Size(max = 40, message = "is longer than 40 characters") String shortName,
      Boolean on,
      @DecimalMin(value = "0", message = "is less than 0")
          @DecimalMax(value = "1", message = "is more than 1")
          Double opacity) {
    public Entry {
      shortName = shortName == null ? "" : shortName.strip();
      on = on == null || on;
      opacity = opacity == null ? 1 : opacity;
    }
  }

  public MapChoice {
    basemap = basemap == null ? "" : basemap;
  }

  /** Nothing chosen yet. */
  static MapChoice none() {
    return new MapChoice("", List.of(), null);
  }
}
