package org.whinridge.core.rules.saying;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Printer;
import org.whinridge.core.rules.Span;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.IsoTime;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * A value that a screen can put together from pickers: one side of a comparison, or a whole formula
 * such as a sum, a share or the days between two dates. What is richer than that is edited as text.
 *
 * @param names the names it is made of, in order, as many as {@link Kind#names} says; "" stands for
 *     today in {@code DAYS} and {@code YEARS}
 * @param by what is added: to the name in {@code SHIFTED}, in days to today in {@code TODAY}; else
 *     0
 * @param digits to how many decimals it is rounded, 0 to 12; -1 for not at all
 * @param value what is written out in {@code VALUE}; else empty
 */
public record Operand(Kind kind, List<String> names, double by, int digits, Value value) {
  /** The shapes that pickers can make. */
  public enum Kind {
    /** A value written out: a text or code, a number, a date, a moment. */
    VALUE(0, 0, ""),
    /** A name alone. */
    NAME(1, 1, ""),
    /** Names added up. */
    SUM(2, 20, ""),
    /** The first less the second. */
    DIFFERENCE(2, 2, ""),
    /** The first times the second. */
    PRODUCT(2, 2, ""),
    /** The first by the second. */
    RATIO(2, 2, ""),
    /** The first in hundredths of the second. */
    SHARE(2, 2, ""),
    /** A name and a number more or less. */
    SHIFTED(1, 1, ""),
    /** All rows of a list's column added up. */
    TOTAL(1, 1, "sum"),
    /** How many rows of a list's column are answered, or codes chosen. */
    COUNT(1, 1, "count"),
    /** The mean over a list's column. */
    MEAN(1, 1, "mean"),
    /** The smallest over a list's column. */
    LEAST(1, 1, "min"),
    /** The largest over a list's column. */
    MOST(1, 1, "max"),
    /** The day of the visit, or some days before or after it. */
    TODAY(0, 0, ""),
    /** The moment of the visit. */
    NOW(0, 0, "now"),
    /** Days from the first date to the second. */
    DAYS(2, 2, "days_between"),
    /** Whole years from the first date to the second. */
    YEARS(2, 2, "years_between"),
    /** The length of a shape, in metres. */
    LENGTH_M(1, 1, "length_m"),
    /** The area of a shape, in square metres. */
    AREA_M2(1, 1, "area_m2"),
    /** The area of a shape, in hectares. */
    AREA_HA(1, 1, "area_ha");

    private final int least;
    private final int most;
    private final String function;

    Kind(int least, int most, String function) {
      this.least = least;
      this.most = most;
      this.function = function;
    }

    /** The word in data: "days". */
    public String id() {
      return name().toLowerCase(Locale.ROOT);
    }

    /** The words for people. */
    public Said said() {
      return Said.of("operand." + name());
    }

    /** How many names it takes at most; 0 for none. */
    public int names() {
      return most;
    }

    /** The type that a name in it must have; empty for any. */
    public ValueType takes() {
      return switch (this) {
        case SUM, DIFFERENCE, PRODUCT, RATIO, SHARE, SHIFTED -> ValueType.NUMBER;
        case TOTAL, COUNT, MEAN, LEAST, MOST -> ValueType.LIST;
        case DAYS, YEARS -> ValueType.DATE;
        case LENGTH_M, AREA_M2, AREA_HA -> ValueType.GEOMETRY;
        default -> ValueType.EMPTY;
      };
    }

    /** The type of what it gives; empty where that is its name's or its value's own. */
    public ValueType gives() {
      return switch (this) {
        case VALUE, NAME -> ValueType.EMPTY;
        case TODAY -> ValueType.DATE;
        case NOW -> ValueType.DATE_TIME;
        default -> ValueType.NUMBER;
      };
    }

    static Optional<Kind> of(String id) {
      for (Kind k : values()) if (k.id().equals(id)) return Optional.of(k);
      return Optional.empty();
    }
  }

  private static final Span NOWHERE = new Span(0, 0);

  public Operand {
    names = List.copyOf(names);
  }

  private Operand(Kind kind, List<String> names) {
    this(kind, names, 0, -1, Value.EMPTY);
  }

  /** A name alone. */
  public static Operand name(String name) {
    return new Operand(Kind.NAME, List.of(name));
  }

  /** A value written out. */
  public static Operand value(Value v) {
    return new Operand(Kind.VALUE, List.of(), 0, -1, v);
  }

  /** What a part of a rule is as an operand; empty when it is too rich. */
  public static Optional<Operand> of(Node n) {
    Optional<Operand> o = shape(n);
    // the same text from the pickers, or it was something else
    return o.filter(x -> Printer.print(x.node()).equals(Printer.print(n)));
  }

  private static Optional<Operand> shape(Node n) {
    if (n instanceof Node.Literal l)
      return l.value() instanceof Value.Place || l.value() instanceof Value.Bool
          ? Optional.empty()
          : Optional.of(value(l.value()));
    if (n instanceof Node.Negate m) return number(m.operand()).map(d -> value(Value.of(-d)));
    if (n instanceof Node.Name m) return Optional.of(name(m.name()));
    if (n instanceof Node.Arithmetic a) return arithmetic(a);
    return n instanceof Node.Call c ? call(c) : Optional.empty();
  }

  private static Optional<Operand> arithmetic(Node.Arithmetic a) {
    Optional<Double> right = number(a.right());
    if (a.left() instanceof Node.Name n && right.isPresent()) {
      if (a.op().equals("+")) return shifted(n, right.get());
      if (a.op().equals("-")) return shifted(n, -right.get());
    }
    if (a.op().equals("/")
        && a.left() instanceof Node.Arithmetic up
        && up.op().equals("*")
        && number(up.left()).equals(Optional.of(100.0)))
      return named(Kind.SHARE, List.of(up.right(), a.right()));
    Kind kind =
        switch (a.op()) {
          case "+" -> Kind.SUM;
          case "-" -> Kind.DIFFERENCE;
          case "*" -> Kind.PRODUCT;
          case "/" -> Kind.RATIO;
          default -> null;
        };
    if (kind == null) return Optional.empty();
    List<Node> sides = new ArrayList<>(List.of(a.right()));
    Node left = a.left();
    while (kind == Kind.SUM && left instanceof Node.Arithmetic x && x.op().equals("+")) {
      sides.add(0, x.right());
      left = x.left();
    }
    sides.add(0, left);
    return named(kind, sides);
  }

  private static Optional<Operand> shifted(Node.Name n, double by) {
    return Optional.of(new Operand(Kind.SHIFTED, List.of(n.name()), by, -1, Value.EMPTY));
  }

  private static Optional<Operand> call(Node.Call c) {
    List<Node> a = c.arguments();
    if (c.function().equals("today")) return Optional.of(new Operand(Kind.TODAY, List.of()));
    if (c.function().equals("add_days") && isToday(a.get(0)) && number(a.get(1)).isPresent())
      return Optional.of(
          new Operand(Kind.TODAY, List.of(), number(a.get(1)).get(), -1, Value.EMPTY));
    if (c.function().equals("round")) {
      Optional<Double> digits = a.size() == 2 ? number(a.get(1)) : Optional.of(0.0);
      return digits
          .filter(d -> d == Math.rint(d) && d >= 0 && d <= 12)
          .flatMap(
              d -> shape(a.get(0)).filter(Operand::isCounted).map(o -> o.rounded(d.intValue())));
    }
    for (Kind k : Kind.values())
      if (!k.function.isEmpty() && k.function.equals(c.function())) return named(k, a);
    return Optional.empty();
  }

  private static boolean isToday(Node n) {
    return n instanceof Node.Call c && c.function().equals("today");
  }

  private static Optional<Double> number(Node n) {
    if (n instanceof Node.Negate m) return number(m.operand()).map(d -> -d);
    return n instanceof Node.Literal l && l.value() instanceof Value.Num d
        ? Optional.of(d.value())
        : Optional.empty();
  }

  private static Optional<Operand> named(Kind kind, List<Node> sides) {
    if (sides.size() < kind.least || sides.size() > kind.most) return Optional.empty();
    boolean dates = kind == Kind.DAYS || kind == Kind.YEARS;
    List<String> names = new ArrayList<>();
    for (Node s : sides) {
      if (s instanceof Node.Name n) names.add(n.name());
      else if (dates && isToday(s)) names.add("");
      else return Optional.empty();
    }
    return Optional.of(new Operand(kind, names));
  }

  /** Whether it is worked out from names, so that it can be rounded. */
  private boolean isCounted() {
    return digits < 0 && kind.gives() == ValueType.NUMBER && kind != Kind.COUNT;
  }

  private Operand rounded(int to) {
    return new Operand(kind, names, by, to, value);
  }

  /** Whether it reads any name; else it is the same at every visit of a day. */
  public boolean reads() {
    return !names.isEmpty();
  }

  /** As a part of a rule. */
  public Node node() {
    Node n = plain();
    return digits < 0 ? n : call("round", n, number(digits));
  }

  private Node plain() {
    return switch (kind) {
      case VALUE -> new Node.Literal(value, NOWHERE);
      case NAME -> one(0);
      case SUM -> sum();
      case DIFFERENCE -> both("-", one(0), one(1));
      case PRODUCT -> both("*", one(0), one(1));
      case RATIO -> both("/", one(0), one(1));
      case SHARE -> both("/", both("*", number(100), one(0)), one(1));
      case SHIFTED -> both(by < 0 ? "-" : "+", one(0), number(Math.abs(by)));
      case TODAY -> by == 0 ? call("today") : call("add_days", call("today"), number(by));
      case NOW -> call("now");
      case DAYS, YEARS -> call(kind.function, one(0), one(1));
      default -> call(kind.function, one(0));
    };
  }

  private Node sum() {
    Node n = one(0);
    for (int i = 1; i < names.size(); i++) n = both("+", n, one(i));
    return n;
  }

  private Node one(int i) {
    return names.get(i).isEmpty() ? call("today") : new Node.Name(names.get(i), NOWHERE);
  }

  private static Node both(String op, Node a, Node b) {
    return new Node.Arithmetic(op, a, b, NOWHERE);
  }

  private static Node number(double d) {
    return new Node.Literal(Value.of(d), NOWHERE);
  }

  private static Node call(String function, Node... arguments) {
    return new Node.Call(function, List.of(arguments), NOWHERE);
  }

  /** The operand as CQL2 Text. */
  public String text() {
    return Printer.print(node());
  }

  /**
   * The JSON form: {kind, names?, by?, digits?, value?}; a date is {"date": …}, as in CQL2 JSON.
   */
  public JsonObject json() {
    JsonObject o = new JsonObject().add("kind", kind.id());
    if (!names.isEmpty()) {
      JsonArray a = new JsonArray();
      names.forEach(a::add);
      o.add("names", a);
    }
    if (by != 0) o.add("by", Numbers.json(by));
    if (digits >= 0) o.add("digits", digits);
    if (kind == Kind.VALUE) o.add("value", written(value));
    return o;
  }

  private static JsonValue written(Value v) {
    if (v instanceof Value.Day) return new JsonObject().add("date", v.plain());
    if (v instanceof Value.Moment) return new JsonObject().add("timestamp", v.plain());
    return v instanceof Value.Num n ? Numbers.json(n.value()) : Json.value(v.plain());
  }

  /**
   * Reads the JSON form.
   *
   * @throws IllegalArgumentException with a sentence for people when the kind is not known, a name
   *     is missing or there are too many, or the value is none
   */
  public static Operand read(JsonValue v) {
    try {
      JsonObject o = v.asObject();
      Kind kind =
          Kind.of(o.getString("kind", ""))
              .orElseThrow(() -> new Unfit("rule.noOperand", "kind", o.getString("kind", "")));
      List<String> names = new ArrayList<>();
      if (o.get("names") != null)
        for (JsonValue n : o.get("names").asArray()) names.add(n.asString());
      boolean dates = kind == Kind.DAYS || kind == Kind.YEARS;
      if (names.size() < kind.least || names.size() > kind.most || !dates && names.contains(""))
        throw new Unfit("rule.takesNames", "kind", kind.said(), "n", kind.least);
      int digits = o.getInt("digits", -1);
      Operand out =
          new Operand(
              kind,
              names,
              kind == Kind.SHIFTED || kind == Kind.TODAY ? finite(o.getDouble("by", 0)) : 0,
              -1,
              kind == Kind.VALUE ? read(o, "value") : Value.EMPTY);
      return digits < 0 || digits > 12 || !out.isCounted() ? out : out.rounded(digits);
    } catch (UnsupportedOperationException | NullPointerException e) {
      throw new Unfit("rule.noParts").because(e);
    }
  }

  private static double finite(double d) {
    if (Double.isNaN(d) || Double.isInfinite(d)) throw new Unfit("rule.noValue");
    return d;
  }

  private static Value read(JsonObject o, String member) {
    JsonValue v = o.get(member);
    if (v.isNumber()) return Value.of(finite(v.asDouble()));
    if (v.isString()) return Value.text(v.asString());
    JsonObject time = v.asObject();
    return IsoTime.date(time.getString("date", ""))
        .<Value>map(Value.Day::new)
        .or(() -> IsoTime.moment(time.getString("timestamp", "")).map(Value.Moment::new))
        .orElseThrow(() -> new Unfit("rule.noValue"));
  }
}
