package org.whinridge.core.visit;

import com.eclipsesource.json.JsonObject;
import java.util.List;
import org.whinridge.core.form.Check;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;

/**
 * Something that is open on a sheet.
 *
 * @param question the question, the list section, or {@link #PLACE}
 * @param row the row's id; "" outside of rows
 * @param kind what people are to do
 * @param reason why it is open
 * @param key names the point among those of the visit, so that a soft one can be confirmed; of a
 *     soft one it holds the values that it was seen with
 */
public record OpenPoint(String question, String row, Kind kind, PointReason reason, String key) {
  /** What a point about the visit's place has for a question. */
  public static final String PLACE = "place";

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

  /**
   * A point that is told with the values it was seen with. A soft one is confirmed for these: they
   * stand in its key, written so that no two lists of values are written alike, and other values
   * ask again.
   */
  static OpenPoint of(
      String question, String row, Kind kind, PointReason reason, List<Value> seenWith) {
    StringBuilder key = new StringBuilder();
    if (!row.isEmpty()) key.append(row).append('/');
    key.append(question).append(':').append(reason.code().id()).append(reason.detail());
    for (Value v : seenWith) key.append(':').append(ValueJson.write(v));
    return new OpenPoint(question, row, kind, reason, key.toString());
  }

  /** A point that nobody can confirm away. */
  static OpenPoint of(String question, String row, Kind kind, PointReason reason) {
    if (kind == Kind.SOFT)
      throw new IllegalArgumentException("a soft point is told with the values it was seen with");
    return of(question, row, kind, reason, List.of());
  }

  /** What to do. */
  public Said message() {
    return reason.message();
  }

  JsonObject json() {
    JsonObject o = new JsonObject().add("question", question);
    if (!row.isEmpty()) o.add("row", row);
    return o.add("kind", kind.id())
        .add("code", reason.code().id())
        .add("key", key)
        .add("message", message().json());
  }
}
