package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.Optional;
import java.util.UUID;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;

/** Members of what devices send, whatever they hold. */
final class Sent {
  private Sent() {}

  static String text(JsonObject o, String member) {
    return o.get(member) != null && o.get(member).isString() ? o.get(member).asString() : "";
  }

  static Optional<UUID> uuid(JsonObject o, String member) {
    return uuid(text(o, member));
  }

  /** The id that a text is; empty when it is none. */
  static Optional<UUID> uuid(String s) {
    return s.matches("[0-9a-fA-F]{8}(-[0-9a-fA-F]{4}){3}-[0-9a-fA-F]{12}")
        ? Optional.of(UUID.fromString(s))
        : Optional.empty();
  }

  /** A member that is an object; an empty one when it is none. */
  static JsonObject object(JsonObject o, String member) {
    JsonValue v = o.get(member);
    return v == null || !v.isObject() ? new JsonObject() : v.asObject();
  }

  /** A whole number, 0 when it is missing; {@code said} names it in the refusal. */
  static long whole(JsonObject o, String member, Said said) {
    JsonValue v = o.get(member);
    if (v == null || v.isNull()) return 0;
    if (!v.isNumber() || v.asDouble() != Math.rint(v.asDouble()))
      throw new Unfit("refused.noWholeNumber", "said", said);
    return (long) v.asDouble();
  }

  static String cut(String s, int most) {
    return s.substring(0, Math.min(most, s.length()));
  }
}
