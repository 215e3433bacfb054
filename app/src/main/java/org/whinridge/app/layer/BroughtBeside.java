package org.whinridge.app.layer;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.whinridge.core.said.Said;

/** What files brought for a layer's features without changing the layer itself: past visits. */
public interface BroughtBeside {
  /**
   * What one file brought.
   *
   * @param summary what it is: "12 past visits, import of visits.csv"
   */
  record Brought(UUID id, Instant at, String person, Said summary) {}

  /** All that was brought for a layer, the newest first. */
  List<Brought> broughtTo(UUID layer);

  /**
   * Takes what one file brought for the layer away again, as a whole.
   *
   * @return what is gone
   */
  Said takeAway(UUID layer, UUID id, String person);
}
