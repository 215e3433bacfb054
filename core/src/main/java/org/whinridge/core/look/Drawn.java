package org.whinridge.core.look;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;

/**
 * How one feature is drawn under a {@link ReadyLook}.
 *
 * @param entries the places of its legend entries, the first drawn below; the place after the last
 *     class stands for what fits nowhere
 * @param turns degrees clockwise from north, one for each of the look's fields of bearings
 * @param sizes pixels, one for each of the look's sizes by number
 * @param label what is written beside it; none for nothing
 */
public record Drawn(int[] entries, double[] turns, double[] sizes, Said label) {
  /** The entries as text: "2", or "0,3". */
  public String entriesText() {
    StringBuilder b = new StringBuilder();
    for (int e : entries) b.append(b.length() == 0 ? "" : ",").append(e);
    return b.toString();
  }

  /** The JSON form: c the entries, t the turns, s the sizes, l the label; empty ones left out. */
  public JsonObject json() {
    JsonObject o = new JsonObject().add("c", entriesText());
    if (turns.length > 0) o.add("t", numbers(turns));
    if (sizes.length > 0) o.add("s", numbers(sizes));
    if (!label.isEmpty()) o.add("l", label.inText());
    return o;
  }

  private static JsonArray numbers(double[] ds) {
    JsonArray a = new JsonArray();
    for (double d : ds) a.add(Numbers.round(d, 2));
    return a;
  }
}
