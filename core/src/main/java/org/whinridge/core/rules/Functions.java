package org.whinridge.core.rules;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.BiPredicate;
import java.util.function.DoubleBinaryOperator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.place.Alongside;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.text.Fold;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Decimals;
import org.whinridge.core.value.IsoTime;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * Every function of the language, with its usage, its types and its meaning. An empty argument
 * gives an empty value unless said.
 */
public final class Functions {
  /**
   * One function. {@code keepsEmpty}: its body sees empty arguments; else they make the result
   * empty.
   */
  public record Function(
      String name,
      String usage,
      List<ValueType> arguments,
      int least,
      int most,
      ValueType result,
      boolean keepsEmpty,
      BiFunction<List<Value>, Situation, Value> body) {
    ValueType argument(int i) {
      return arguments.get(Math.min(i, arguments.size() - 1));
    }

    boolean resultLikeArguments() {
      return name.equals("if") || name.equals("coalesce");
    }

    boolean takesLists() {
      return name.equals("min") || name.equals("max");
    }
  }

  private static final ValueType N = ValueType.NUMBER;
  private static final ValueType T = ValueType.TEXT;
  private static final ValueType D = ValueType.DATE;
  private static final ValueType G = ValueType.GEOMETRY;
  private static final ValueType L = ValueType.LIST;
  private static final ValueType ANY = ValueType.EMPTY;

  /** From the first day of the calendar to its last, and no farther. */
  private static final double MOST_DAYS = 3_652_059;

  private static final Map<String, Function> ALL = new LinkedHashMap<>();

  private Functions() {}

  /** The function of a name, which is in lower case. */
  public static Optional<Function> find(String name) {
    return Optional.ofNullable(ALL.get(name));
  }

  static Collection<String> names() {
    return ALL.keySet();
  }

  static boolean soundPattern(String p) {
    try {
      Pattern.compile(p);
      return true;
    } catch (PatternSyntaxException e) {
      return false;
    }
  }

  private static void add(
      String usage,
      List<ValueType> types,
      int least,
      int most,
      ValueType result,
      boolean keepsEmpty,
      BiFunction<List<Value>, Situation, Value> body) {
    String name = usage.substring(0, usage.indexOf('('));
    ALL.put(name, new Function(name, usage, types, least, most, result, keepsEmpty, body));
  }

  private static void one(
      String usage,
      ValueType in,
      ValueType result,
      java.util.function.Function<Value, Value> body) {
    add(usage, List.of(in), 1, 1, result, false, (a, s) -> body.apply(a.get(0)));
  }

  static {
    add(
        "if(condition, then, else)",
        List.of(ValueType.YES_NO, ANY),
        3,
        3,
        ANY,
        true,
        (a, s) -> a.get(0).equals(Value.YES) ? a.get(1) : a.get(2));
    add(
        "coalesce(a, b, …)",
        List.of(ANY),
        1,
        20,
        ANY,
        true,
        (a, s) -> a.stream().filter(v -> !v.isEmpty()).findFirst().orElse(Value.EMPTY));
    one("abs(number)", N, N, v -> Value.of(Math.abs(num(v))));
    one("floor(number)", N, N, v -> Value.of(Math.floor(num(v))));
    one("ceil(number)", N, N, v -> Value.of(Math.ceil(num(v))));
    one("sqrt(number)", N, N, v -> Value.of(Math.sqrt(num(v))));
    add(
        "round(number, digits)",
        List.of(N, N),
        1,
        2,
        N,
        false,
        (a, s) -> {
          double digits = a.size() < 2 ? 0 : num(a.get(1));
          return digits < -12 || digits > 12 || digits != Math.floor(digits)
              ? Value.EMPTY
              : Value.of(Numbers.round(num(a.get(0)), (int) digits));
        });
    add("min(a, b, …)", List.of(N), 1, 20, N, true, (a, s) -> fold(a, Math::min));
    add("max(a, b, …)", List.of(N), 1, 20, N, true, (a, s) -> fold(a, Math::max));
    add("count(list)", List.of(L), 1, 1, N, true, (a, s) -> Value.of(filled(a.get(0)).size()));
    add("sum(list)", List.of(L), 1, 1, N, true, (a, s) -> fold(a, Decimals::add));
    add(
        "mean(list)",
        List.of(L),
        1,
        1,
        N,
        true,
        (a, s) -> {
          int n = filled(a.get(0)).size();
          return n == 0 ? Value.EMPTY : Value.of(num(fold(a, Decimals::add)) / n);
        });
    add(
        "joined(list, separator)",
        List.of(L, T),
        1,
        2,
        T,
        false,
        (a, s) -> {
          List<String> parts = new ArrayList<>();
          for (Value v : filled(a.get(0))) parts.add(v.plain());
          return Value.text(String.join(a.size() > 1 ? a.get(1).plain() : ", ", parts));
        });
    one("upper(text)", T, T, v -> Value.text(Fold.upper(v.plain())));
    one("lower(text)", T, T, v -> Value.text(Fold.lower(v.plain())));
    one("trim(text)", T, T, v -> Value.text(v.plain().trim()));
    one("length(text)", T, N, v -> Value.of(v.plain().codePointCount(0, v.plain().length())));
    add(
        "concat(a, b, …)",
        List.of(ANY),
        1,
        20,
        T,
        true,
        (a, s) -> {
          StringBuilder b = new StringBuilder();
          for (Value v : a) b.append(v.plain());
          return Value.text(b.toString());
        });
    add(
        "substr(text, from, count)",
        List.of(T, N, N),
        2,
        3,
        T,
        false,
        (a, s) -> {
          int[] t = a.get(0).plain().codePoints().toArray();
          double from = Math.max(1, num(a.get(1)));
          double to = a.size() < 3 ? t.length + 1.0 : num(a.get(1)) + num(a.get(2));
          int first = (int) from - 1;
          return from > t.length || to <= from
              ? Value.EMPTY
              : Value.text(new String(t, first, (int) Math.min(t.length, to - 1) - first));
        });
    add(
        "matches(text, pattern)",
        List.of(T, T),
        2,
        2,
        ValueType.YES_NO,
        false,
        (a, s) ->
            soundPattern(a.get(1).plain())
                ? Value.of(Pattern.matches(a.get(1).plain(), a.get(0).plain()))
                : Value.EMPTY);
    add("today()", List.of(ANY), 0, 0, D, true, (a, s) -> new Value.Day(s.today()));
    add(
        "now()",
        List.of(ANY),
        0,
        0,
        ValueType.DATE_TIME,
        true,
        (a, s) -> new Value.Moment(s.now()));
    add(
        "days_between(from, to)",
        List.of(D, D),
        2,
        2,
        N,
        false,
        (a, s) -> Value.of(ChronoUnit.DAYS.between(day(a.get(0)), day(a.get(1)))));
    add(
        "years_between(from, to)",
        List.of(D, D),
        2,
        2,
        N,
        false,
        (a, s) -> Value.of(ChronoUnit.YEARS.between(day(a.get(0)), day(a.get(1)))));
    add(
        "add_days(date, days)",
        List.of(D, N),
        2,
        2,
        D,
        false,
        (a, s) -> {
          double days = num(a.get(1));
          if (Math.abs(days) > MOST_DAYS) return Value.EMPTY;
          return IsoTime.ofEpochDay(day(a.get(0)).toEpochDay() + (long) days)
              .<Value>map(Value.Day::new)
              .orElse(Value.EMPTY);
        });
    one("year(date)", D, N, v -> Value.of(day(v).getYear()));
    one("month(date)", D, N, v -> Value.of(day(v).getMonthValue()));
    one("day(date)", D, N, v -> Value.of(day(v).getDayOfMonth()));
    add(
        "label(question)",
        List.of(ANY),
        1,
        1,
        T,
        false,
        (a, s) -> Value.text(a.get(0).plain())); // the evaluator looks the label up
    one("length_m(geometry)", G, N, v -> Value.of(Geodesy.lengthM(geo(v))));
    one("area_m2(geometry)", G, N, v -> Value.of(Geodesy.areaM2(geo(v))));
    one("area_ha(geometry)", G, N, v -> Value.of(Geodesy.areaM2(geo(v)) / 10000));
    one("longitude(geometry)", G, N, v -> Value.of(at(v).x));
    one("latitude(geometry)", G, N, v -> Value.of(at(v).y));
    add(
        "easting(geometry)",
        List.of(G),
        1,
        1,
        N,
        false,
        (a, s) -> s.project(at(a.get(0))).map(c -> Value.of(c.x)).orElse(Value.EMPTY));
    add(
        "northing(geometry)",
        List.of(G),
        1,
        1,
        N,
        false,
        (a, s) -> s.project(at(a.get(0))).map(c -> Value.of(c.y)).orElse(Value.EMPTY));
    add(
        "distance_m(a, b)",
        List.of(G, G),
        2,
        2,
        N,
        false,
        (a, s) -> Value.of(Geodesy.distanceM(at(a.get(0)), at(a.get(1)))));
    add(
        "bearing_deg(a, b)",
        List.of(G, G),
        2,
        2,
        N,
        false,
        (a, s) -> Value.of(Geodesy.bearingDeg(at(a.get(0)), at(a.get(1)))));
    add(
        "chainage_m(line, point)",
        List.of(G, G),
        2,
        2,
        N,
        false,
        (a, s) ->
            Alongside.of(geo(a.get(0)), at(a.get(1)))
                .<Value>map(x -> Value.of(x.chainageM()))
                .orElse(Value.EMPTY));
    add(
        "INTERVAL(start, end)",
        List.of(ANY, ANY),
        2,
        2,
        ValueType.INTERVAL,
        false,
        (a, s) -> Temporal.interval(a));
    for (String name : Temporal.names())
      add(
          name + "(a, b)",
          List.of(ANY, ANY),
          2,
          2,
          ValueType.YES_NO,
          false,
          (a, s) -> Temporal.relate(name, a.get(0), a.get(1)));
    one("CASEI(text)", T, T, v -> Value.text(Fold.cases(v.plain())));
    one("ACCENTI(text)", T, T, v -> Value.text(Fold.accents(v.plain())));
    for (String name : Spatial.names())
      add(
          name + "(a, b)",
          List.of(G, G),
          2,
          2,
          ValueType.YES_NO,
          false,
          (a, s) -> Spatial.relate(name, geo(a.get(0)), geo(a.get(1))));
    array("A_EQUALS", (a, b) -> set(a).equals(set(b)));
    array("A_CONTAINS", (a, b) -> set(a).containsAll(set(b)));
    array("A_CONTAINEDBY", (a, b) -> set(b).containsAll(set(a)));
    array("A_OVERLAPS", (a, b) -> set(a).stream().anyMatch(set(b)::contains));
  }

  private static void array(String name, BiPredicate<Value, Value> test) {
    // an array of one code in brackets, ('a'), parses as a bracket, so single values are taken as
    // lists of one
    add(
        name + "(a, b)",
        List.of(ANY, ANY),
        2,
        2,
        ValueType.YES_NO,
        false,
        (a, s) -> Value.of(test.test(a.get(0), a.get(1))));
  }

  private static java.util.Set<Value> set(Value v) {
    return new LinkedHashSet<>(filled(v));
  }

  /** The filled members of a list; a single value is a list of one. */
  static List<Value> filled(Value v) {
    if (v instanceof Value.Many m) return m.values().stream().filter(x -> !x.isEmpty()).toList();
    return v.isEmpty() ? List.of() : List.of(v);
  }

  private static Value fold(List<Value> arguments, DoubleBinaryOperator op) {
    Double acc = null;
    for (Value a : arguments)
      for (Value v : filled(a))
        if (v instanceof Value.Num n)
          acc = acc == null ? n.value() : op.applyAsDouble(acc, n.value());
    return acc == null ? Value.EMPTY : Value.of(acc);
  }

  private static double num(Value v) {
    return v instanceof Value.Num n ? n.value() : Double.NaN;
  }

  private static LocalDate day(Value v) {
    return ((Value.Day) v).value();
  }

  private static Geometry geo(Value v) {
    return ((Value.Place) v).geometry();
  }

  private static Coordinate at(Value v) {
    return Geodesy.anchor(geo(v));
  }
}
