package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonObject;
import java.util.Optional;
import java.util.UUID;

/** Members of what devices send, whatever they hold. */
final class Sent {
  private Sent() {}

  static String text(JsonObject o, String member) {
    return o.get(member) != null && o.get(member).isString() ? o.get(member).asString() : "";
  }

  static Optional<UUID> uuid(JsonObject o, String member) {
    String s = text(o, member);
    return s.matches("[0-9a-fA-F]{8}(-[0-9a-fA-F]{4}){3}-[0-9a-fA-F]{12}")
        ? Optional.of(UUID.fromString(s))
        : Optional.empty();
  }

  static String cut(String s, int most) {
    return s.substring(0, Math.min(most, s.length()));
  }
}
