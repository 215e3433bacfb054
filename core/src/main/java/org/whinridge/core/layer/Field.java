package org.whinridge.core.layer;

import com.eclipsesource.json.JsonObject;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * A column of a layer's schema.
 *
 * @param name storage name: letters, digits, underscore, not starting with a digit, at most 63
 *     characters
 * @param label what people read
 * @param length the longest text in characters; 0 for no limit
 * @param unit the unit of a number, such as mm; "" for none
 * @param nullable whether it may be empty
 * @param unique whether two features must not share a value
 * @param codes the code list, in order; empty for free values
 * @param officeOnly whether it never travels to a device
 * @param decimals places shown of a decimal number, 0 to 12; -1 for as many as it has
 * @param start what a new feature begins with
 * @param hint a line of help for whoever fills it
 * @param codesFrom where the code list is kept in step with
 * @param readOnly whether it is shown and never changed by hand; its default fills it, and a
 *     formula that reads the place follows when the feature is moved
 * @param codesFound whether the code list was only made from the values that stood there, so that
 *     two of its codes may be two spellings of one; not when a person or a file stated it
 */
public record Field(
    String name,
    String label,
    FieldType type,
    int length,
    String unit,
    boolean nullable,
    boolean unique,
    List<Code> codes,
    boolean officeOnly,
    int decimals,
    Start start,
    String hint,
    Optional<CodesFrom> codesFrom,
    boolean readOnly,
    boolean codesFound) {
  public Field {
    if (!isName(name)) throw new Unfit("schema.fieldName", "name", name);
    codes = List.copyOf(codes);
    codesFound = codesFound && !codes.isEmpty();
  }

  /** A field without the finer points: no decimals set, no start, no hint. */
  public Field(
      String name,
      String label,
      FieldType type,
      int length,
      String unit,
      boolean nullable,
      boolean unique,
      List<Code> codes,
      boolean officeOnly) {
    this(
        name,
        label,
        type,
        length,
        unit,
        nullable,
        unique,
        codes,
        officeOnly,
        -1,
        Start.NOTHING,
        "",
        Optional.empty(),
        false,
        false);
  }

  /** A free field without limits. */
  public static Field of(String name, String label, FieldType type) {
    return new Field(name, label, type, 0, "", true, false, List.of(), false);
  }

  /** The field with a unit. */
  public Field in(String newUnit) {
    return copy(json().set("unit", newUnit));
  }

  /** The field with a code list. */
  public Field with(List<Code> newCodes) {
    return copy(json().set("codes", Code.write(newCodes)));
  }

  /** The field with its code list said to be found in the values, or stated. */
  public Field codesFound(boolean found) {
    return copy(json().set("codesFound", found));
  }

  /** The field with a line of help. */
  public Field hinted(String newHint) {
    return copy(json().set("hint", newHint));
  }

  /** The field under another label. */
  public Field labelled(String newLabel) {
    return copy(json().set("label", newLabel));
  }

  /** The field as office only. */
  public Field inOffice() {
    return copy(json().set("officeOnly", true));
  }

  /** The field under another type. */
  public Field as(FieldType newType) {
    return copy(json().set("type", newType.id()));
  }

  private static Field copy(JsonObject changed) {
    return read(changed);
  }

  /** Whether a text can name a field. */
  public static boolean isName(String s) {
    return s.length() <= 63 && s.matches("[A-Za-z_][A-Za-z0-9_]*");
  }

  /**
   * The storage name that a label gives beside others: with "_2", "_3", … where the plain one is
   * taken.
   */
  public static String nameFrom(String label, Collection<String> taken) {
    String base = nameFrom(label);
    String name = base;
    for (int i = 2; taken.contains(name); i++) name = base + "_" + i;
    return name;
  }

  /** A storage name made from a label: "Invert level (m)" gives invert_level_m. */
  public static String nameFrom(String label) {
    String s =
        org.whinridge.core.text.Fold.lower(org.whinridge.core.text.Fold.accents(label))
            .replaceAll("[^a-z0-9]+", "_")
            .replaceAll("^_+|_+$", "");
    if (s.length() > 60) s = s.substring(0, 60);
    return s.isEmpty() ? "field" : s.charAt(0) <= '9' ? "f_" + s : s;
  }

  /**
   * Whether the field can hold the value as it is: its type, whole numbers, length. An empty value
   * always fits here.
   */
  public boolean holds(Value v) {
    return FieldCheck.ofForm(this, v).isEmpty();
  }

  /** Whether it is filled when the feature is made or moved, and never by hand. */
  public boolean fillsItself() {
    return readOnly || type == FieldType.UNIQUE_ID;
  }

  /** The field as one that fills itself and stands read only. */
  public Field readOnlyWith(Start newStart) {
    return copy(json().set("start", newStart.json()).set("readOnly", true));
  }

  /**
   * A value from elsewhere as this field keeps it: text "3" as a number, a number as text. What
   * can't be turned stays as it is, so that none is lost.
   */
  public Value fit(Value v) {
    if (v.isEmpty() || v.type() == type.valueType()) return v;
    if (v instanceof Value.Text t)
      return org.whinridge.core.value.ValueJson.readText(t.value().trim(), type.valueType());
    return type.valueType() == ValueType.TEXT ? Value.text(v.plain()) : v;
  }

  /** The label of a stored value; the value itself when the list does not have it. */
  public String labelOf(Value v) {
    for (Code c : codes) if (c.code().equals(v.plain())) return c.label();
    return v.plain();
  }

  /** The value for people: a code as its label, a number with its unit. */
  public Said shown(Value v) {
    return Shown.of(v, codes, decimals, unit);
  }

  /** The JSON form. */
  public JsonObject json() {
    JsonObject o = new JsonObject().add("name", name).add("label", label).add("type", type.id());
    if (length > 0) o.add("length", length);
    if (!unit.isEmpty()) o.add("unit", unit);
    if (!nullable) o.add("nullable", false);
    if (unique) o.add("unique", true);
    if (!codes.isEmpty()) o.add("codes", Code.write(codes));
    if (officeOnly) o.add("officeOnly", true);
    if (decimals >= 0) o.add("decimals", decimals);
    if (start.json() != null) o.add("start", start.json());
    if (!hint.isEmpty()) o.add("hint", hint);
    codesFrom.ifPresent(c -> o.add("codesFrom", c.json()));
    if (readOnly) o.add("readOnly", true);
    if (codesFound) o.add("codesFound", true);
    return o;
  }

  /** Reads the JSON form; an unknown type is text. */
  public static Field read(JsonObject o) {
    return new Field(
        o.getString("name", ""),
        o.getString("label", o.getString("name", "")),
        FieldType.of(o.getString("type", "text")).orElse(FieldType.TEXT),
        o.getInt("length", 0),
        o.getString("unit", ""),
        o.getBoolean("nullable", true),
        o.getBoolean("unique", false),
        Code.read(o.get("codes")),
        o.getBoolean("officeOnly", false),
        Math.min(12, o.getInt("decimals", -1)),
        Start.read(o.get("start")),
        o.getString("hint", ""),
        CodesFrom.read(o.get("codesFrom")),
        o.getBoolean("readOnly", false),
        o.getBoolean("codesFound", false));
  }
}
