package org.whinridge.app.form;

import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.whinridge.core.form.Form;
import org.whinridge.core.said.Said;

/**
 * A form as it is being drafted.
 *
 * @param layer the layer that it is on; empty as long as it was not made
 * @param changedBy who changed it last; "" when nobody knows any more
 * @param edition the newest published number, 0 for none
 * @param retired since when it is not used for new rounds
 * @param trouble why it can't be edited or published here, as when a newer version made it
 */
public record FormDraft(
    UUID id,
    UUID projectId,
    Optional<UUID> layer,
    Form form,
    long revision,
    Instant changedAt,
    String changedBy,
    int edition,
    Optional<Instant> retired,
    Optional<Said> trouble) {
  /** The layer, for a form that has editions and therefore one. */
  public UUID layerId() {
    return layer.orElseThrow(() -> new IllegalStateException("the form has no layer yet"));
  }

  /** Whether new rounds can take it out. */
  public boolean isInUse() {
    return edition > 0 && retired.isEmpty();
  }
}
