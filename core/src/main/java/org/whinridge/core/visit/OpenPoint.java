package org.whinridge.core.visit;

import com.eclipsesource.json.JsonObject;
import org.whinridge.core.form.Check;

/**
 * Something that is open on a sheet.
 *
 * @param question the question, the list section, or "place"
 * @param row the row's id; "" outside of rows
 * @param key names the point among those of its question, so that a soft one can be confirmed
 * @param message what to do, in words
 */
public record OpenPoint(String question, String row, Kind kind, String key, String message) {
  /** To mend (firm), to fill (needed, wanted), to look at (soft). */
  public enum Kind {
    FIRM("firm", true),
    NEEDED("needed", true),
    SOFT("soft", true),
    WANTED("wanted", false);
    private final String id;
    private final boolean holdsBack;

    Kind(String id, boolean holdsBack) {
      this.id = id;
      this.holdsBack = holdsBack;
    }

    /** The word in data. */
    public String id() {
      return id;
    }

    /** Whether the visit can't be complete while this is open. */
    public boolean holdsBack() {
      return holdsBack;
    }

    static Kind of(Check.Weight weight) {
      return weight == Check.Weight.FIRM ? FIRM : SOFT;
    }
  }

  JsonObject json() {
    JsonObject o = new JsonObject().add("question", question);
    if (!row.isEmpty()) o.add("row", row);
    return o.add("kind", kind.id()).add("key", key).add("message", message);
  }
}
