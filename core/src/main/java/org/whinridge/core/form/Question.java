package org.whinridge.core.form;

import com.eclipsesource.json.JsonObject;
import java.util.List;
import java.util.OptionalDouble;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.layer.Shown;
import org.whinridge.core.merge.SameValue;
import org.whinridge.core.place.SamePlace;
import org.whinridge.core.prefill.Refresh;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * One line of a sheet.
 *
 * @param name unique in the form; the field's name where it writes to one
 * @param texts its label, hint and placeholder
 * @param limits what an answer may measure
 * @param need whether an empty answer holds the visit back, is only told, or is nothing
 * @param hand who may change it and when
 * @param wire what it does to the layer
 * @param codes the codes offered, in order; {@link Code#fitsWhen} is a rule of the form
 * @param logic when it is asked, what must hold, how it is worked out
 * @param prefill sources of the first value, in order
 * @param refresh when the first value is looked for again
 * @param layout how it is laid out
 */
public record Question(
    String name,
    Texts texts,
    QuestionType type,
    Limits limits,
    Need need,
    Hand hand,
    Wire wire,
    List<Code> codes,
    Logic logic,
    List<Source> prefill,
    Refresh refresh,
    Layout layout) {
  /** What an empty answer means. */
  public enum Need {
    NEEDED,
    WANTED,
    FREE;

    /** The word in data. */
    public String id() {
      return this == NEEDED ? "needed" : this == WANTED ? "wanted" : "free";
    }

    static Need of(String id) {
      return id.equals("needed") ? NEEDED : id.equals("wanted") ? WANTED : FREE;
    }
  }

  /** What becomes of the layer's value when the question is not asked. */
  public enum NotAsked {
    LEFT,
    EMPTIED
  }

  /**
   * Who may change an answer.
   *
   * @param readOnly never by hand
   * @param lockOnRevisit open for a new feature, read only for an existing one
   * @param officeOnly never travels; answered at the desk
   */
  public record Hand(boolean readOnly, boolean lockOnRevisit, boolean officeOnly) {
    /** Anybody, any time. */
    public static final Hand FREE = new Hand(false, false, false);
  }

  /**
   * What a question does to the layer.
   *
   * @param writesTo the layer field that it writes to; "" when it is kept on the visit
   * @param notAsked what becomes of the layer's value when it is not asked
   * @param unique whether two features must not share an answer
   * @param keepOnAsset whether its photos show on the feature too
   * @param layer the layer that a link points into; "" for none
   */
  public record Wire(
      String writesTo, NotAsked notAsked, boolean unique, boolean keepOnAsset, String layer) {
    /** Kept on the visit. */
    public static final Wire VISIT = to("");

    /** Writes to a field. */
    public static Wire to(String field) {
      return new Wire(field, NotAsked.LEFT, false, false, "");
    }
  }

  /**
   * The rules of a question, CQL2 Text.
   *
   * @param askWhen the condition under which it is asked; "" for always
   * @param workOut the formula that gives the value; "" when people answer
   * @param checks conditions that must hold
   */
  public record Logic(String askWhen, String workOut, List<Check> checks) {
    /** No rules. */
    public static final Logic NONE = new Logic("", "", List.of());

    public Logic {
      checks = List.copyOf(checks);
    }
  }

  /**
   * How a question is laid out; the words mean the same on every screen and on paper.
   *
   * @param as one of {@link #WAYS}; "" for what suits its type, see {@link QuestionType#ways}
   * @param half whether it takes half of the width
   * @param picture the id of its reference picture, or of the picture to look at; "" for none
   * @param block the block of its section that it stands in; "" for none
   */
  public record Layout(String as, boolean half, String picture, String block) {
    /** The words for {@code as}. */
    public static final List<String> WAYS =
        List.of("", "buttons", "list", "side by side", "compact", "bar", "stepper");

    /** Nothing particular. */
    public static final Layout PLAIN = new Layout("", false, "", "");

    public Layout {
      if (!WAYS.contains(as)) throw new Unfit("form.noLayout", "as", as);
    }
  }

  public Question {
    codes = List.copyOf(codes);
    prefill = List.copyOf(prefill);
  }

  /** A plain question that is kept on the visit. */
  public static Question of(String name, String label, QuestionType type) {
    return new Question(
        name,
        Texts.of("label", label),
        type,
        Limits.NONE,
        Need.FREE,
        Hand.FREE,
        Wire.VISIT,
        List.of(),
        Logic.NONE,
        List.of(),
        Refresh.ONCE,
        Layout.PLAIN);
  }

  /**
   * A question for a field, prefilled from the asset; a unique field is locked on revisit, one that
   * fills itself is read only and hinders nobody by being empty.
   */
  public static Question forField(Field f) {
    return new Question(
        f.name(),
        Texts.of("label", f.label(), "hint", f.hint()),
        QuestionType.forField(f.type(), !f.codes().isEmpty()),
        new Limits(
            f.unit(), f.decimals(), OptionalDouble.empty(), OptionalDouble.empty(), 0, 0, 0, 0),
        f.nullable() || f.fillsItself() ? Need.FREE : Need.NEEDED,
        new Hand(f.fillsItself(), f.unique(), f.officeOnly()),
        new Wire(f.name(), NotAsked.LEFT, f.unique(), false, ""),
        f.codes(),
        Logic.NONE,
        List.of(new Source.Asset()),
        Refresh.ONCE,
        Layout.PLAIN);
  }

  /** What people read before the answer. */
  public String label() {
    return texts.get("label");
  }

  /** A line of help. */
  public String hint() {
    return texts.get("hint");
  }

  /** The unit of a number; "" for none. */
  public String unit() {
    return limits.unit();
  }

  /** Decimals kept; -1 for as given. */
  public int decimals() {
    return limits.decimals();
  }

  /** Whether it never travels. */
  public boolean officeOnly() {
    return hand.officeOnly();
  }

  /** The layer field that it writes to; "" for none. */
  public String writesTo() {
    return wire.writesTo();
  }

  /** Whether a formula gives the value. */
  public boolean isWorkedOut() {
    return !logic.workOut().isEmpty();
  }

  /** The question writing to another field; "" for kept on the visit. */
  public Question writingTo(String field) {
    return with(
        new Wire(field, wire.notAsked(), wire.unique(), wire.keepOnAsset(), wire.layer()), prefill);
  }

  /** The question with other sources of its first value. */
  public Question beginningWith(List<Source> sources) {
    return with(wire, sources);
  }

  private Question with(Wire newWire, List<Source> sources) {
    return new Question(
        name, texts, type, limits, need, hand, newWire, codes, logic, sources, refresh, layout);
  }

  /** The question in another language, as far as it has texts in it. */
  public Question in(String language) {
    return new Question(
        name,
        texts.in(language),
        type,
        limits,
        need,
        hand,
        wire,
        codes.stream().map(c -> c.in(language)).toList(),
        new Logic(
            logic.askWhen(),
            logic.workOut(),
            logic.checks().stream().map(c -> c.in(language)).toList()),
        prefill,
        refresh,
        layout);
  }

  /**
   * The kind of value of an answer: a choice that writes to a number field answers with numbers.
   */
  public ValueType valueType(Schema schema) {
    if (type == QuestionType.CHOICE || type == QuestionType.GRADE)
      return schema.field(writesTo()).map(f -> f.type().valueType()).orElse(ValueType.TEXT);
    return type.valueType();
  }

  /** When two values of the field that it writes to are one. */
  public SameValue same(Schema schema) {
    return SameValue.of(schema.field(writesTo()), SamePlace.DECIMALS)
        .ranked(type == QuestionType.RANKED);
  }

  /**
   * What a source or a formula gave, as this question keeps it: a whole number without decimals.
   */
  public Value given(Value v) {
    return v instanceof Value.Num n && type.isWhole()
        ? Value.of(Numbers.round(n.value(), 0))
        : kept(v);
  }

  /** The answer as this question keeps it: rounded to its decimals, trimmed. */
  public Value kept(Value v) {
    if (v instanceof Value.Num n && decimals() >= 0)
      return Value.of(Numbers.round(n.value(), decimals()));
    return v instanceof Value.Text t ? Value.text(t.value().trim()) : v;
  }

  /** The answer for people: a code by its label, a number with its unit. */
  public Said shown(Value v) {
    return type == QuestionType.DURATION && v instanceof Value.Num n
        ? Shown.minutes(n.value())
        : Shown.of(v, codes, decimals(), unit());
  }

  /** The label of a code; the value itself when the list does not have it. */
  public String labelOf(Value v) {
    String plain = v.plain();
    for (Code c : codes) if (c.code().equals(plain)) return c.label();
    return plain;
  }

  /** The JSON form; members that have their usual value are left out. */
  public JsonObject json() {
    return QuestionParts.write(this);
  }

  /**
   * Reads the JSON form.
   *
   * @throws IllegalArgumentException with a sentence for people when a number is out of range or
   *     the type is not known
   */
  public static Question read(JsonObject o) {
    return QuestionParts.read(o);
  }
}
