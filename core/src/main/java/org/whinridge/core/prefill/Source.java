package org.whinridge.core.prefill;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.said.Unfit;

/** One source in a question's prefill chain. The first source that gives a value wins. */
public sealed interface Source {
  /** The field of the feature itself that the question writes to. */
  record Asset() implements Source {}

  /**
   * What the last accepted visit of the same feature answered, if it is at most that many days old;
   * 0 for any age.
   */
  record LastVisit(int mostDays) implements Source {}

  /**
   * Something of another layer by the visit's place.
   *
   * @param shared the name of a look-up of the form that several questions share; "" for one of its
   *     own
   * @param own the look-up of its own, when it has one
   */
  record Place(String shared, Optional<LookUp> own, LookUpValue take) implements Source {}

  /** Something the device knows: person, device, date, time, position, accuracy and so on. */
  record Device(String item) implements Source {}

  /** A value written in the form, as JSON text. */
  record Fixed(String json) implements Source {}

  /** A start value worked out by a formula, CQL2 Text. */
  record WorkedOut(String formula) implements Source {}

  /** The items that a device source can give. */
  List<String> DEVICE_ITEMS =
      List.of(
          "person",
          "device",
          "date",
          "time",
          "moment",
          "position",
          "accuracy",
          "height",
          "bearing",
          "easting",
          "northing");

  /** The JSON form of a chain. */
  static JsonArray write(List<Source> chain) {
    JsonArray a = new JsonArray();
    for (Source s : chain) a.add(one(s));
    return a;
  }

  private static JsonObject one(Source s) {
    if (s instanceof LastVisit v)
      return new JsonObject().add("from", "last visit").add("mostDays", v.mostDays());
    if (s instanceof Place p) {
      JsonObject o = new JsonObject().add("from", "place");
      if (!p.shared().isEmpty()) o.add("lookUp", p.shared());
      p.own().ifPresent(l -> l.json().forEach(m -> o.add(m.getName(), m.getValue())));
      if (!p.take().field().isEmpty()) o.add("field", p.take().field());
      if (p.take().measure() != LookUpValue.Measure.VALUE) o.add("take", p.take().measure().id());
      return o;
    }
    if (s instanceof Device d) return new JsonObject().add("from", "device").add("item", d.item());
    if (s instanceof Fixed f)
      return new JsonObject().add("from", "fixed").add("value", Json.parse(f.json()));
    if (s instanceof WorkedOut w)
      return new JsonObject().add("from", "worked out").add("formula", w.formula());
    return new JsonObject().add("from", "asset");
  }

  /**
   * Reads a chain.
   *
   * @throws IllegalArgumentException with a sentence for people when a source is not known
   */
  static List<Source> read(JsonValue json) {
    List<Source> out = new ArrayList<>();
    if (json == null) return out;
    for (JsonValue v : json.asArray()) {
      JsonObject o = v.asObject();
      String from = o.getString("from", "");
      switch (from) {
        case "asset":
          out.add(new Asset());
          break;
        case "last visit":
          out.add(new LastVisit(o.getInt("mostDays", 0)));
          break;
        case "place":
          out.add(place(o));
          break;
        case "device":
          out.add(new Device(o.getString("item", "")));
          break;
        case "fixed":
          out.add(new Fixed(String.valueOf(o.get("value"))));
          break;
        case "worked out":
          out.add(new WorkedOut(o.getString("formula", "")));
          break;
        default:
          throw new Unfit("form.noSource", "from", from);
      }
    }
    return List.copyOf(out);
  }

  private static Place place(JsonObject o) {
    String take = o.getString("take", "value");
    String shared = o.getString("lookUp", "");
    return new Place(
        shared,
        shared.isEmpty() ? Optional.of(LookUp.read(o)) : Optional.empty(),
        new LookUpValue(
            o.getString("field", ""),
            LookUpValue.Measure.of(take)
                .orElseThrow(() -> new Unfit("form.noTake", "take", take))));
  }
}
