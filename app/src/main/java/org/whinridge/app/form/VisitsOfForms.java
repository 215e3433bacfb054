package org.whinridge.app.form;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.whinridge.app.layer.Layer;

/** Which visits there are of a form, told by the module that keeps them. */
public interface VisitsOfForms {
  /**
   * The visits of each form that began at a moment or after it, whatever became of them; a form
   * without any is not told.
   */
  Map<UUID, Long> since(Collection<UUID> forms, Instant from);

  /**
   * What the last accepted visit of each feature answered, as far as it goes outdoors: the members
   * {@code last} and {@code lastDay} of a start. A feature that was not visited is not told.
   */
  Map<UUID, JsonObject> last(FormDraft draft, Layer layer, Collection<UUID> features);

  /**
   * A visit that was filled with a form and came in.
   *
   * @param feature what it was made on, a GeoJSON feature; null for a new one
   * @param start with what it was begun
   * @param saved what was done, for core's {@code Filling}
   * @param open what was open when it was handed in
   */
  record Received(
      UUID id,
      String person,
      Instant endedAt,
      JsonValue feature,
      JsonObject start,
      JsonObject saved,
      JsonArray open) {}

  /** How many visits were filled with a form and wait or are accepted. */
  long count(UUID form);

  /**
   * These visits, the newest first.
   *
   * @param below the one below which to go on; empty for the beginning
   */
  List<Received> received(UUID form, Optional<UUID> below, int most);

  /** One of a form's visits by its id, whatever became of it. */
  Optional<Received> received(UUID form, UUID visit);
}
