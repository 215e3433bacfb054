package org.whinridge.core.form;

import com.eclipsesource.json.JsonObject;
import java.util.List;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.value.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * One line of a sheet.
 *
 * @param name unique in the form; the field's name where it writes to one
 * @param decimals decimals shown and kept of a decimal number, 0 to 12; -1 for as given
 * @param need whether an empty answer holds the visit back, is only told, or is nothing
 * @param writesTo the layer field that it writes to; "" when it is kept on the visit
 * @param codes the codes offered, in order
 * @param askWhen the condition under which it is asked, CQL2 Text; "" for always
 * @param notAsked what becomes of the layer's value when it is not asked
 * @param workOut the formula that gives the value, CQL2 Text; "" when people answer
 * @param prefill sources of the first value, in order
 * @param least fewest photos or codes, 0 for any
 * @param most most photos or codes, 0 for any
 */
public record Question(
    String name,
    String label,
    String hint,
    QuestionType type,
    String unit,
    int decimals,
    Need need,
    boolean readOnly,
    boolean lockOnRevisit,
    boolean officeOnly,
    String writesTo,
    List<Code> codes,
    String askWhen,
    NotAsked notAsked,
    String workOut,
    List<Check> checks,
    List<Source> prefill,
    int least,
    int most) {
  /** What an empty answer means. */
  public enum Need {
    NEEDED,
    WANTED,
    FREE;

    /** The word in data. */
    public String id() {
      return this == NEEDED ? "needed" : this == WANTED ? "wanted" : "free";
    }
  }

  /** What becomes of the layer's value when the question is not asked. */
  public enum NotAsked {
    LEFT,
    EMPTIED
  }

  public Question {
    codes = List.copyOf(codes);
    checks = List.copyOf(checks);
    prefill = List.copyOf(prefill);
    if (decimals < -1 || decimals > 12)
      throw new IllegalArgumentException("decimals run from 0 to 12");
    if (least < 0 || most < 0 || least > 100 || most > 100)
      throw new IllegalArgumentException("least and most run from 0 to 100");
  }

  /** A question for a field, prefilled from the asset; a unique field is locked on revisit. */
  public static Question forField(Field f) {
    return new Question(
        f.name(),
        f.label(),
        "",
        QuestionType.forField(f.type(), !f.codes().isEmpty()),
        f.unit(),
        -1,
        f.nullable() ? Need.FREE : Need.NEEDED,
        false,
        f.unique(),
        f.officeOnly(),
        f.name(),
        f.codes(),
        "",
        NotAsked.LEFT,
        "",
        List.of(),
        List.of(new Source.Asset()),
        0,
        0);
  }

  /** Whether a formula gives the value. */
  public boolean isWorkedOut() {
    return !workOut.isEmpty();
  }

  /**
   * The kind of value of an answer: a choice that writes to a number field answers with numbers.
   */
  public ValueType valueType(Schema schema) {
    if (type == QuestionType.CHOICE)
      return schema.field(writesTo).map(f -> f.type().valueType()).orElse(ValueType.TEXT);
    return type.valueType();
  }

  /**
   * An answer for people: a code as its label, a number with its decimals, the unit behind it; ""
   * for none.
   */
  public String shown(Value v) {
    if (v.isEmpty()) return "";
    String s = v.plain();
    if (v instanceof Value.Num n && decimals >= 0) s = Numbers.fixed(n.value(), decimals);
    for (Code c : codes) if (c.code().equals(v.plain())) s = c.label();
    return unit.isEmpty() ? s : s + " " + unit;
  }

  /** The JSON form; members that have their usual value are left out. */
  public JsonObject json() {
    JsonObject o = new JsonObject().add("name", name).add("label", label).add("type", type.id());
    if (!hint.isEmpty()) o.add("hint", hint);
    if (!unit.isEmpty()) o.add("unit", unit);
    if (decimals >= 0) o.add("decimals", decimals);
    if (need != Need.FREE) o.add("need", need.id());
    if (readOnly) o.add("readOnly", true);
    if (lockOnRevisit) o.add("lockOnRevisit", true);
    if (officeOnly) o.add("officeOnly", true);
    if (!writesTo.isEmpty()) o.add("writesTo", writesTo);
    if (!codes.isEmpty()) o.add("codes", Code.write(codes));
    if (!askWhen.isEmpty()) o.add("askWhen", askWhen);
    if (notAsked == NotAsked.EMPTIED) o.add("notAsked", "emptied");
    if (!workOut.isEmpty()) o.add("workOut", workOut);
    if (!checks.isEmpty()) o.add("checks", Check.write(checks));
    if (!prefill.isEmpty()) o.add("prefill", Source.write(prefill));
    if (least > 0) o.add("least", least);
    if (most > 0) o.add("most", most);
    return o;
  }

  /**
   * Reads the JSON form.
   *
   * @throws IllegalArgumentException with a sentence for people when a number is out of range or
   *     the type is not known
   */
  public static Question read(JsonObject o) {
    String type = o.getString("type", "text");
    String need = o.getString("need", "free");
    return new Question(
        o.getString("name", ""),
        o.getString("label", o.getString("name", "")),
        o.getString("hint", ""),
        QuestionType.of(type)
            .orElseThrow(
                () -> new IllegalArgumentException("there is no question type ‘" + type + "’")),
        o.getString("unit", ""),
        o.getInt("decimals", -1),
        need.equals("needed") ? Need.NEEDED : need.equals("wanted") ? Need.WANTED : Need.FREE,
        o.getBoolean("readOnly", false),
        o.getBoolean("lockOnRevisit", false),
        o.getBoolean("officeOnly", false),
        o.getString("writesTo", ""),
        Code.read(o.get("codes")),
        o.getString("askWhen", ""),
        o.getString("notAsked", "left").equals("emptied") ? NotAsked.EMPTIED : NotAsked.LEFT,
        o.getString("workOut", ""),
        Check.read(o.get("checks")),
        Source.read(o.get("prefill")),
        o.getInt("least", 0),
        o.getInt("most", 0));
  }
}
