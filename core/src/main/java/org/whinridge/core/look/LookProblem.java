package org.whinridge.core.look;

import com.eclipsesource.json.JsonObject;
import org.whinridge.core.said.Said;

/**
 * Something about a look that can't be drawn as it is meant; the rest is drawn.
 *
 * @param entry the place of the legend entry; -1 for the look as a whole
 * @param message what is wrong and how it is drawn instead
 * @param from the first character concerned of the entry's rule; -1 when it is not about the rule
 * @param to the character after the last
 */
public record LookProblem(int entry, Said message, int from, int to) {
  static LookProblem about(int entry, Said message) {
    return new LookProblem(entry, message, -1, -1);
  }

  /** The JSON form. */
  public JsonObject json() {
    JsonObject o = new JsonObject().add("entry", entry).add("message", message.json());
    if (from >= 0) o.add("from", from).add("to", to);
    return o;
  }
}
