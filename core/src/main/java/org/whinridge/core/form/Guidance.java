package org.whinridge.core.form;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.said.Unfit;

/**
 * A document or a text that travels with a form and is read outdoors.
 *
 * @param title what people choose it by
 * @param text what it says; "" for a document
 * @param file the id of the document; "" for a text
 * @param name the document's file name; "" for a text
 */
public record Guidance(String title, String text, String file, String name) {
  /** The most of them that a form has. */
  public static final int MOST = 50;

  /** The longest text, characters. */
  public static final int LONGEST_TEXT = 20_000;

  public Guidance {
    if (title.isBlank()) throw new Unfit("form.guidanceTitle");
    if (text.length() > LONGEST_TEXT) throw new Unfit("form.guidanceLong", "most", LONGEST_TEXT);
  }

  static JsonArray write(List<Guidance> all) {
    JsonArray a = new JsonArray();
    for (Guidance g : all) {
      JsonObject o = new JsonObject().add("title", g.title);
      if (!g.text.isEmpty()) o.add("text", g.text);
      if (!g.file.isEmpty()) o.add("file", g.file).add("name", g.name);
      a.add(o);
    }
    return a;
  }

  /** Reads a list of them; null is an empty list. */
  public static List<Guidance> read(JsonValue v) {
    List<Guidance> out = new ArrayList<>();
    if (v == null || v.isNull()) return out;
    for (JsonValue each : v.asArray()) {
      JsonObject o = each.asObject();
      out.add(
          new Guidance(
              o.getString("title", "").strip(),
              o.getString("text", ""),
              o.getString("file", ""),
              o.getString("name", "")));
    }
    if (out.size() > MOST) throw new Unfit("form.guidanceMany", "most", MOST);
    return out;
  }
}
