package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.List;
import java.util.UUID;
import org.whinridge.app.shell.Refusal;

/**
 * A hand-in, or a part of one, as a device sent it.
 *
 * @param visits each to be read by itself, so that one never holds up the others
 */
record SentHandIn(UUID id, String device, String deviceId, List<JsonValue> visits) {
  private static final int MOST_VISITS = 500;

  /** Reads it, or refuses it as a whole. */
  static SentHandIn read(JsonObject o) {
    UUID id = Sent.uuid(o, "id").orElseThrow(() -> Refusal.refused("refused.handInNoId"));
    JsonValue list = o.get("visits");
    if (list == null || !list.isArray()) throw Refusal.refused("refused.handInNoVisits");
    if (list.asArray().size() > MOST_VISITS)
      throw Refusal.refused("refused.tooManyVisits", "most", MOST_VISITS);
    return new SentHandIn(
        id,
        Sent.cut(Sent.text(o, "device"), 80),
        Sent.cut(Sent.text(o, "deviceId"), 40),
        list.asArray().values());
  }

  /** The id that a visit came with, whatever it is; "" for none. */
  static String idOf(JsonValue visit) {
    return visit.isObject() ? Sent.cut(Sent.text(visit.asObject(), "id"), 40) : "";
  }
}
