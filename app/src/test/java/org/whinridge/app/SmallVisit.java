package org.whinridge.app;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.UUID;

/** A visit of a stop of {@link SmallProject} as a device sends it. */
final class SmallVisit {
  private SmallVisit() {}

  /**
   * A visit that sets the notes.
   *
   * @param feature as the pack has it
   */
  static JsonObject of(JsonObject feature, UUID round, String person) {
    return new JsonObject()
        .add("id", UUID.randomUUID().toString())
        .add("round", round.toString())
        .add("edition", 1)
        .add("feature", feature.get("id"))
        .add("startedAt", "2026-05-04T09:00:00Z")
        .add("endedAt", "2026-05-04T09:10:00Z")
        .add(
            "start",
            new JsonObject()
                .add("person", person)
                .add("startedAt", "2026-05-04T09:00:00Z")
                .add("offset", 60)
                .add("edition", 1))
        .add("state", new JsonObject().add("answers", new JsonObject()))
        .add(
            "base",
            new JsonObject()
                .add("version", feature.get("version"))
                .add("values", feature.get("properties"))
                .add("geometry", feature.get("geometry")))
        .add("set", new JsonObject().add("notes", "seen"))
        .add("kept", new JsonObject())
        .add("photos", new JsonArray());
  }
}
