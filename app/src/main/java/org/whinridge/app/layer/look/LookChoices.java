package org.whinridge.app.layer.look;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.look.Breaks;
import org.whinridge.core.look.Colour;
import org.whinridge.core.look.Drawing;
import org.whinridge.core.look.Icons;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.Ramp;
import org.whinridge.core.look.Size;
import org.whinridge.core.look.Symbol;

/** What the page of looks offers to choose from. */
final class LookChoices {
  private LookChoices() {}

  /** The fields, with what their type allows. */
  static JsonArray fields(Schema schema) {
    JsonArray a = new JsonArray();
    for (Field f : schema.fields()) {
      JsonArray codes = new JsonArray();
      f.codes()
          .forEach(c -> codes.add(new JsonObject().add("code", c.code()).add("label", c.label())));
      a.add(
          new JsonObject()
              .add("name", f.name())
              .add("label", f.label())
              .add("type", f.type().id())
              .add("unit", f.unit())
              .add("codes", codes));
    }
    return a;
  }

  /** The shipped icons, each with its picture. */
  static JsonArray icons() {
    JsonArray a = new JsonArray();
    Look any = Look.one(java.util.List.of());
    for (String id : Icons.ids())
      a.add(
          new JsonObject()
              .add("id", id)
              .add("label", Icons.of(id).orElseThrow().label())
              .add(
                  "svg",
                  Drawing.markPicture(
                      any, new Symbol.Mark(id, "#1f2a30", Size.of(22), "", 0, "", 1), 22, 24)));
    return a;
  }

  /** How features are sorted, and how classes are broken: words in data with their names. */
  static JsonObject ways() {
    JsonArray by = new JsonArray();
    for (Look.By b : Look.By.values()) by.add(new JsonArray().add(b.id()).add(b.label()));
    JsonArray methods = new JsonArray();
    for (Breaks.Method m : Breaks.Method.values())
      methods.add(new JsonArray().add(m.id()).add(m.label()));
    return new JsonObject()
        .add("by", by)
        .add("methods", methods)
        .add("least", Breaks.LEAST)
        .add("most", Breaks.MOST);
  }

  /** The rows of colours. */
  static JsonArray ramps() {
    JsonArray a = new JsonArray();
    for (Ramp r : Ramp.values()) {
      JsonArray colours = new JsonArray();
      for (Colour c : r.colours(r.kind() == Ramp.Kind.CODES ? 8 : 5)) colours.add(c.hex());
      a.add(
          new JsonObject()
              .add("id", r.id())
              .add("label", r.label())
              .add("kind", r.kind().name().toLowerCase(java.util.Locale.ROOT))
              .add("colours", colours));
    }
    return a;
  }
}
