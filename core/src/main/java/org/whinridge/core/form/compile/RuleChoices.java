package org.whinridge.core.form.compile;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.Locale;
import org.whinridge.core.form.Form;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.rules.saying.Operand;
import org.whinridge.core.rules.saying.SentenceParts;
import org.whinridge.core.value.ValueType;

/** What pickers of a rule can offer at a place of a form. */
final class RuleChoices {
  private RuleChoices() {}

  /** Where a name comes from. */
  enum Group {
    /** A question of the form, or of the same row. */
    QUESTION,
    /** A column of a list, over all its rows; or the list itself. */
    LIST,
    /** A named rule. */
    RULE,
    /** What the layer held when the visit began. */
    BEFORE,
    /** What the last visit found. */
    LAST,
    /** The place, the fix, the device, the visit. */
    VISIT;

    /** The word in data. */
    String id() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  static JsonObject of(Form form, FormScope scope) {
    JsonArray names = new JsonArray();
    for (String name : scope.names())
      names.add(name(scope.find(name).orElseThrow(), group(form, name)));
    JsonArray comparisons = new JsonArray();
    for (SentenceParts.Comparison c : SentenceParts.Comparison.values())
      comparisons.add(
          new JsonObject()
              .add("id", c.id())
              .add("said", c.said().json())
              .add("takes", c.takes())
              .add("plain", types(c, false))
              .add("coded", types(c, true)));
    JsonArray operands = new JsonArray();
    for (Operand.Kind k : Operand.Kind.values())
      operands.add(
          new JsonObject()
              .add("id", k.id())
              .add("said", k.said().json())
              .add("names", k.names())
              .add("takes", word(k.takes()))
              .add("gives", word(k.gives())));
    return new JsonObject()
        .add("names", names)
        .add("comparisons", comparisons)
        .add("operands", operands);
  }

  private static JsonObject name(Scope.Known k, Group group) {
    JsonObject o =
        new JsonObject()
            .add("name", k.name())
            .add("label", k.label().json())
            .add("type", word(k.type()))
            .add("group", group.id());
    if (!k.unit().isEmpty()) o.add("unit", k.unit());
    if (k.codes().isEmpty()) return o;
    JsonArray codes = new JsonArray();
    for (Scope.CodeLabel c : k.codes())
      codes.add(new JsonObject().add("code", c.code()).add("label", c.label()));
    return o.add("codes", codes);
  }

  private static Group group(Form form, String name) {
    if (name.startsWith("before.")) return Group.BEFORE;
    if (name.startsWith("last.")) return Group.LAST;
    if (FormScope.VISIT.contains(name)) return Group.VISIT;
    if (form.rules().stream().anyMatch(r -> r.name().equals(name))) return Group.RULE;
    String first = name.contains(".") ? name.substring(0, name.indexOf('.')) : name;
    boolean ofList = form.sections().stream().anyMatch(s -> s.isList() && s.name().equals(first));
    return ofList ? Group.LIST : Group.QUESTION;
  }

  private static JsonArray types(SentenceParts.Comparison c, boolean coded) {
    JsonArray out = new JsonArray();
    for (ValueType t : ValueType.values())
      if (t != ValueType.EMPTY && c.fits(t, coded)) out.add(word(t));
    return out;
  }

  private static String word(ValueType t) {
    return t == ValueType.EMPTY ? "" : t.name().toLowerCase(Locale.ROOT);
  }
}
