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
    @Size(max = 60, message = "border.isLongerThan60Characters") String basemap,
    @NotNull(message = "border.isMissing")
        @Size(max = 500, message = "border.hasMoreThan500Layers")
        @Valid
        List<@NotNull(message = "border.isNoLayer") @Valid Entry> layers,
    Long revision) {

  /**
   * A layer on the map; what is not said is as it usually is.
   *
   * @param shortName what the map's list calls it; "" for its own name
   * @param opacity 0 to 1
   */
  @JsonIgnoreProperties(ignoreUnknown = true)
  public record Entry(
      @NotNull(message = "border.isMissing") @Size(max = 60, message = "border.isNoId") String id,
      @Size(max = 40, message = "border.isLongerThan40Characters") String shortName,
      Boolean on,
      @DecimalMin(value = "0", message = "border.isLessThan0")
          @DecimalMax(value = "1", message = "border.isMoreThan1")
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
