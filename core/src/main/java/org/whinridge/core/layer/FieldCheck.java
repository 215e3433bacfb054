package org.whinridge.core.layer;

import java.time.DateTimeException;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiPredicate;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * What a field allows: the one check that drawing, typing, tidying, importing and reviewing ask
 * before a value is written, and by which values that stand already are told.
 */
public final class FieldCheck {
  private FieldCheck() {}

  /** What can keep a value from a field. */
  public enum Kind {
    /** It is of another type: "abc" in a number. */
    TYPE,
    /** A whole number is wanted: 3.7. */
    WHOLE,
    /** It is no time of day: 25:99. */
    TIME,
    /** The text is longer than the field. */
    LENGTH,
    /** The field may not be empty. */
    NEEDED,
    /** It is not in the code list. */
    NOT_LISTED,
    /** Its code is not offered any more. */
    RETIRED,
    /** Another feature has the value, and the field is unique. */
    TAKEN,
    /** The field is filled by itself and not by hand. */
    READ_ONLY
  }

  /**
   * A value that a field does not allow.
   *
   * @param field the field's storage name
   * @param message what is wrong and what would be right
   */
  public record Fault(String field, Kind kind, Said message) {}

  /**
   * What keeps a value from being kept in the form of the field's type: its type, whole numbers,
   * times, length. Empty for an empty value.
   */
  public static Optional<Fault> ofForm(Field f, Value v) {
    if (v.isEmpty()) return Optional.empty();
    boolean number = f.type() == FieldType.CODE && v.type() == ValueType.NUMBER;
    if (v.type() != f.type().valueType() && !number) return fault(f, Kind.TYPE, isNot(f, v));
    if (f.type() == FieldType.WHOLE
        && !(v instanceof Value.Num n && n.value() == Math.floor(n.value())))
      return fault(f, Kind.WHOLE, isNot(f, v));
    if (f.type() == FieldType.TIME && !isTime(v.plain())) return fault(f, Kind.TIME, isNot(f, v));
    if (f.length() == 0) return Optional.empty(); // the text of a number costs time
    int length = v.plain().length();
    return length > f.length()
        ? fault(f, Kind.LENGTH, Said.of("fieldFault.length", "most", f.length(), "n", length))
        : Optional.empty();
  }

  /**
   * What keeps a value from being written into the field, but for other features. What stood there
   * before may always stay, so that an unlisted or retired code hinders no other change.
   *
   * @param before the value that stood there; empty for a new feature
   */
  public static Optional<Fault> of(Field f, Value v, Value before) {
    if (v.equals(before) && !v.isEmpty()) return Optional.empty();
    if (v.isEmpty())
      return f.nullable() || f.type() == FieldType.UNIQUE_ID
          ? Optional.empty()
          : fault(f, Kind.NEEDED, Said.of("fieldFault.needed"));
    Optional<Fault> form = ofForm(f, v);
    return form.isPresent() ? form : codes(f, v, before);
  }

  private static Optional<Fault> codes(Field f, Value v, Value before) {
    if (f.codes().isEmpty()) return Optional.empty();
    List<Value> stood = parts(before);
    for (Value one : parts(v)) {
      if (stood.contains(one)) continue;
      Code code = code(f, one.plain());
      if (code == null)
        return fault(f, Kind.NOT_LISTED, Said.of("fieldFault.notListed", "value", one.said()));
      if (code.retired())
        return fault(f, Kind.RETIRED, Said.of("fieldFault.retired", "label", code.label()));
    }
    return Optional.empty();
  }

  private static Code code(Field f, String stored) {
    for (Code c : f.codes()) if (c.code().equals(stored)) return c;
    return null;
  }

  private static List<Value> parts(Value v) {
    return v instanceof Value.Many m ? m.values() : List.of(v);
  }

  /**
   * What keeps values from being written into a feature by hand.
   *
   * @param set the values by field, those that are not among them stay
   * @param before the feature as it is; empty for a new one, whose other fields are looked at, too
   * @param taken whether another feature has the value in the field
   */
  public static List<Fault> of(
      Schema schema,
      Map<String, Value> set,
      Optional<Feature> before,
      BiPredicate<Field, Value> taken) {
    List<Fault> out = new ArrayList<>();
    for (Field f : schema.fields()) {
      if (before.isPresent() && !set.containsKey(f.name())) continue;
      Value v = set.getOrDefault(f.name(), Value.EMPTY);
      Value was = before.map(x -> x.value(f.name())).orElse(Value.EMPTY);
      Optional<Fault> fault = of(f, v, was);
      if (fault.isEmpty() && f.unique() && !v.isEmpty() && !v.equals(was) && taken.test(f, v))
        fault = fault(f, Kind.TAKEN, Said.of("fieldFault.taken", "value", v.said()));
      fault.ifPresent(out::add);
    }
    return out;
  }

  /** The fields among these that people may not fill by hand, since they fill themselves. */
  public static List<Fault> byHand(Schema schema, Map<String, Value> set) {
    List<Fault> out = new ArrayList<>();
    for (Field f : schema.fields())
      if (set.containsKey(f.name()) && f.fillsItself())
        fault(f, Kind.READ_ONLY, Said.of("fieldFault.readOnly")).ifPresent(out::add);
    return out;
  }

  /** A value as people type it into a field, in the form that the field keeps. */
  public static Value typed(Field f, String text) {
    String s = text.strip();
    if (s.isEmpty()) return Value.EMPTY;
    if (f.type().valueType() == ValueType.NUMBER) s = s.replace('\u2212', '-');
    return Reading.PLAIN.read(Value.text(s), f.type());
  }

  private static Said isNot(Field f, Value v) {
    Said wanted = Said.of("fieldWants." + f.type().id());
    return Said.of("fieldFault.isNot", "value", v.said(), "wanted", wanted);
  }

  private static boolean isTime(String s) {
    try {
      LocalTime.parse(s);
      return true;
    } catch (DateTimeException e) {
      return false;
    }
  }

  private static Optional<Fault> fault(Field f, Kind kind, Said message) {
    return Optional.of(new Fault(f.name(), kind, message));
  }
}
