package org.whinridge.core.look;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.eclipsesource.json.ParseException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.text.Word;

/**
 * How a layer is drawn: data, saved with the layer.
 *
 * @param by what sorts features into classes
 * @param field by code and by class: the field that is read; "" otherwise
 * @param method by class: how the breaks were found, kept for the editor
 * @param ramp the id of the {@link Ramp} that the colours were taken from, kept for the editor
 * @param all by rule: whether every class that holds is drawn, or the first alone
 * @param classes in the legend's order; where features lie on each other, later ones are on top
 * @param other what fits nowhere
 * @param label what is written beside features
 * @param nearest the scale's denominator down to which it is drawn (1:500 is 500); 0 for any
 * @param farthest the denominator up to which it is drawn; 0 for any
 * @param icons own icons, by the id under which symbols name them
 */
public record Look(
    By by,
    String field,
    Breaks.Method method,
    String ramp,
    boolean all,
    List<LookClass> classes,
    LookClass other,
    Label label,
    double nearest,
    double farthest,
    Map<String, Icon> icons) {
  /** The most classes. */
  public static final int MOST_CLASSES = 200;

  /** The most own icons. */
  public static final int MOST_ICONS = 40;

  /** The longest look, in characters of its JSON. */
  public static final int LONGEST = 2_000_000;

  /** What sorts features into classes. */
  public enum By implements Word {
    ONE("one"),
    CODE("code"),
    CLASS("class"),
    RULE("rule");
    private final String id;

    By(String id) {
      this.id = id;
    }

    /** The word in data. */
    @Override
    public String id() {
      return id;
    }

    /** The way with that word. */
    public static Optional<By> of(String id) {
      return Word.of(values(), id);
    }
  }

  /**
   * What is written beside features.
   *
   * @param template text in which {field} is replaced by the value as people read it; "" for none
   * @param px the letters' height
   * @param farthest the scale's denominator up to which it is written; 0 for any
   */
  public record Label(String template, double px, double farthest) {
    /** Nothing is written. */
    public static final Label NONE = new Label("", 12, 0);
  }

  public Look {
    classes = List.copyOf(classes);
    icons = Collections.unmodifiableMap(new LinkedHashMap<>(icons));
  }

  /** The names of all fields that it reads: what sorts, rules, labels, turns and sizes. */
  public Set<String> fields() {
    Set<String> out = new LinkedHashSet<>();
    if (by == By.CODE || by == By.CLASS) out.add(field);
    List<LookClass> all = new ArrayList<>(classes);
    all.add(other);
    for (LookClass c : all) {
      if (by == By.RULE && !c.rule().isBlank()) out.addAll(Rules.namesIn(c.rule()));
      c.stack().forEach(s -> out.addAll(s.fields()));
      c.preset().names().forEach(out::add);
    }
    out.addAll(LabelText.names(label.template()));
    return out;
  }

  /** One look for all features. */
  public static Look one(List<Symbol> stack) {
    return new Look(
        By.ONE,
        "",
        Breaks.Method.EQUAL,
        "",
        false,
        List.of(),
        LookClass.plain("", stack),
        Label.NONE,
        0,
        0,
        Map.of());
  }

  /** What a layer has before somebody gives it a look. */
  public static Look plain(GeometryKind kind) {
    return one(plainStack(kind, Symbol.SLATE));
  }

  /** The usual symbols of a kind of geometry in a colour. */
  public static List<Symbol> plainStack(GeometryKind kind, String colour) {
    return switch (kind) {
      case LINE -> List.of(new Symbol.Stroke(colour, Size.of(3), Symbol.Dash.SOLID, false, 1));
      case POLYGON ->
          List.of(
              new Symbol.Area(colour, 0.35, Symbol.Hatch.NONE, Symbol.SLATE, 1.2),
              new Symbol.Stroke(colour, Size.of(1.4), Symbol.Dash.SOLID, false, 1));
      default -> List.of(new Symbol.Mark("disc", colour, Size.of(11), "#fbf9f3", 1.5, "", 1));
    };
  }

  /** The same with other classes. */
  public Look with(List<LookClass> newClasses, LookClass newOther) {
    return new Look(
        by, field, method, ramp, all, newClasses, newOther, label, nearest, farthest, icons);
  }

  /** The same with a label. */
  public Look with(Label newLabel) {
    return new Look(
        by, field, method, ramp, all, classes, other, newLabel, nearest, farthest, icons);
  }

  /** The icon that a symbol names: an own one before the shipped ones. */
  public Optional<Icon> icon(String id) {
    Icon own = icons.get(id);
    return own != null ? Optional.of(own) : Icons.of(id);
  }

  /** The JSON form. */
  public JsonObject json() {
    JsonArray cs = new JsonArray();
    for (LookClass c : classes) cs.add(c.json());
    JsonObject own = new JsonObject();
    icons.forEach((id, i) -> own.add(id, i.json()));
    JsonObject o = new JsonObject().add("look", 1).add("by", by.id);
    if (!field.isEmpty()) o.add("field", field);
    if (by == By.CLASS) o.add("method", method.id());
    if (!ramp.isEmpty()) o.add("ramp", ramp);
    if (all) o.add("all", true);
    o.add("classes", cs)
        .add("other", other.json())
        .add(
            "label",
            new JsonObject()
                .add("template", label.template)
                .add("px", label.px)
                .add("farthest", label.farthest))
        .add("nearest", nearest)
        .add("farthest", farthest);
    if (!icons.isEmpty()) o.add("icons", own);
    return o;
  }

  /**
   * Reads the JSON form. What is missing or of the wrong kind is as usual; what it names is checked
   * by {@link ReadyLook}.
   *
   * @throws IllegalArgumentException with words for people, when it is not a look or too large
   */
  public static Look read(String json) {
    if (json.length() > LONGEST) throw new Unfit("look.tooLong", "most", LONGEST);
    try {
      JsonValue v = Json.parse(json);
      if (!v.isObject() || v.asObject().get("by") == null) throw new Unfit("look.noBy");
      return read(v.asObject());
    } catch (ParseException e) {
      throw new Unfit("look.notJson", "why", e.getMessage()).because(e);
    } catch (RuntimeException e) {
      if (e instanceof IllegalArgumentException) throw e;
      throw new Unfit("look.notALook").because(e); // nested too deeply
    }
  }

  private static Look read(JsonObject o) {
    By by =
        By.of(Members.text(o, "by", ""))
            .orElseThrow(() -> new Unfit("look.by", "by", Members.text(o, "by", "")));
    List<LookClass> classes = new ArrayList<>();
    JsonValue cs = o.get("classes");
    if (cs != null && cs.isArray())
      for (JsonValue c : cs.asArray()) if (c.isObject()) classes.add(LookClass.read(c.asObject()));
    if (classes.size() > MOST_CLASSES)
      throw new Unfit("look.tooMany", "most", MOST_CLASSES, "n", classes.size());
    JsonValue other = o.get("other");
    JsonValue label = o.get("label");
    return new Look(
        by,
        Members.text(o, "field", ""),
        Breaks.Method.of(Members.text(o, "method", "")).orElse(Breaks.Method.EQUAL),
        Members.text(o, "ramp", ""),
        Members.yes(o, "all", false),
        classes,
        other != null && other.isObject()
            ? LookClass.read(other.asObject())
            : LookClass.plain("", List.of()),
        label != null && label.isObject() ? label(label.asObject()) : Label.NONE,
        Math.max(0, Members.number(o, "nearest", 0)),
        Math.max(0, Members.number(o, "farthest", 0)),
        icons(o.get("icons")));
  }

  private static Label label(JsonObject o) {
    String t = Members.text(o, "template", "");
    return new Label(
        t.substring(0, Math.min(300, t.length())),
        Math.max(6, Math.min(40, Members.number(o, "px", 12))),
        Math.max(0, Members.number(o, "farthest", 0)));
  }

  private static Map<String, Icon> icons(JsonValue v) {
    Map<String, Icon> out = new LinkedHashMap<>();
    if (v == null || !v.isObject()) return out;
    for (JsonObject.Member m : v.asObject())
      if (out.size() < MOST_ICONS && m.getName().matches("own-[a-z0-9-]{1,40}"))
        Icon.read(m.getValue()).ifPresent(i -> out.put(m.getName(), i));
    return out;
  }
}
