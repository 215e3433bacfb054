package org.whinridge.formats.out;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.value.Value;

/**
 * The columns that a layer has in a file: plain field names, with codes, labels or both. Writers
 * ask for a feature's values by them, so that all formats agree.
 */
public final class OutColumns {
  /** What stands in the column of a field with a code list. */
  public enum Codes {
    /** The stored code. */
    CODES("codes"),
    /** The label that people read. */
    LABELS("labels"),
    /** The code under the field's name, the label beside it under name_label. */
    BOTH("codes and labels");
    private final String said;

    Codes(String said) {
      this.said = said;
    }

    /** The words for people. */
    public String said() {
      return said;
    }

    /** The choice with that name; codes for any other text. */
    public static Codes of(String name) {
      for (Codes c : values()) if (c.name().equalsIgnoreCase(name)) return c;
      return CODES;
    }
  }

  /**
   * A column.
   *
   * @param name the field's storage name, or that and _label
   * @param field the field it comes from
   * @param label whether it has the labels
   */
  public record Column(String name, Field field, boolean label) {
    /** The type of what stands in it: text for labels and lists. */
    public FieldType type() {
      return label ? FieldType.TEXT : field.type();
    }

    /** The value of a feature in this column. */
    public Value of(Feature f) {
      Value v = f.value(field.name());
      if (!label || v.isEmpty()) return v;
      if (!(v instanceof Value.Many m)) return Value.text(field.labelOf(v));
      return Value.many(m.values().stream().map(x -> Value.text(field.labelOf(x))).toList());
    }
  }

  private OutColumns() {}

  /** The columns of a schema. */
  public static List<Column> of(Schema schema, Codes codes) {
    List<Column> out = new ArrayList<>();
    Set<String> names = new TreeSet<>();
    schema.fields().forEach(f -> names.add(f.name()));
    for (Field f : schema.fields()) {
      boolean coded = !f.codes().isEmpty();
      out.add(new Column(f.name(), f, coded && codes == Codes.LABELS));
      if (!coded || codes != Codes.BOTH) continue;
      String name = f.name() + "_label";
      for (int i = 2; !names.add(name); i++) name = f.name() + "_label_" + i;
      out.add(new Column(name, f, true));
    }
    return out;
  }

  /** A value as text without a risk: moments in UTC, lists joined by "; ", dates as in ISO 8601. */
  public static String text(Value v) {
    if (!(v instanceof Value.Many m)) return v.plain();
    return String.join("; ", m.values().stream().map(Value::plain).toList());
  }
}
