package org.whinridge.core.said;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonObject.Member;
import com.eclipsesource.json.JsonValue;
import com.eclipsesource.json.ParseException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.whinridge.core.text.Fold;
import org.whinridge.core.text.Numbers;

/**
 * Something to be told to a person: the key of a text in the catalogue, and what is put into it.
 * The words stand in the catalogue alone; whoever shows it finds them in the reader's language.
 *
 * @param key the text's key; "" for what is told as it stands, such as the label of a question
 * @param args by name, in order: texts, numbers ({@link Double}), others of these
 */
public record Said(String key, Map<String, Object> args) implements java.io.Serializable {
  /** Nothing to be told. */
  public static final Said NONE = text("");

  /** The member of the JSON form with the key. */
  private static final String SAY = "say";

  /** How the JSON form begins. */
  private static final String IN_TEXT = "{\"say\":";

  private static final String WITH = "with";
  private static final String TEXT = "text";

  public Said {
    args = Collections.unmodifiableMap(new LinkedHashMap<>(args));
  }

  /**
   * A text of the catalogue.
   *
   * @param args names and values by turns; texts, numbers, others of these
   */
  public static Said of(String key, Object... args) {
    Map<String, Object> named = new LinkedHashMap<>();
    for (int i = 0; i + 1 < args.length; i += 2) {
      Object v = args[i + 1];
      named.put((String) args[i], v instanceof Said s && !s.isText() ? s : plain(v));
    }
    return new Said(key, named);
  }

  /** A number, or a text; what is no number that can be written is a dash. */
  private static Object plain(Object v) {
    if (!(v instanceof Number n)) return String.valueOf(v);
    double d = n.doubleValue();
    return Double.isNaN(d) || Double.isInfinite(d) ? "–" : (Object) d;
  }

  /** What is told as it stands: a label, a code, what somebody wrote. */
  public static Said text(String text) {
    return new Said("", Map.of(TEXT, text));
  }

  /** The word for a state of the job: "handed in" is state.handedIn. */
  public static Said ofState(String id) {
    StringBuilder key = new StringBuilder("state.");
    for (String word : id.split(" "))
      key.append(key.length() == 6 ? word : Fold.upper(word.substring(0, 1)) + word.substring(1));
    return of(key.toString());
  }

  /** A number with all its digits. */
  public static Said number(double n) {
    return of("number.exact", "n", n);
  }

  /** A number with all its digits, as text where it is no number of its own. */
  public static Said number(String n) {
    return Numbers.read(n).isPresent() ? number(Numbers.read(n).getAsDouble()) : text(n);
  }

  /**
   * A number with as many decimals as its field or question has.
   *
   * @param decimals 0 to 12; the number is rounded to them, halves away from zero
   */
  public static Said fixed(double n, int decimals) {
    return of("style.fixed", "n", Numbers.round(n, decimals), "decimals", decimals);
  }

  /** A date without time and without zone. */
  public static Said day(LocalDate day) {
    return of("style.day", "day", day.toString());
  }

  /** A moment, told in the reader's time zone. */
  public static Said moment(Instant at) {
    return of("style.moment", "at", at.toString());
  }

  /**
   * Several things in a row: "a, b or c".
   *
   * @param last the key of the text that joins the last two, {@code a} and {@code b}
   */
  public static Said row(List<Said> items, String last) {
    return row(items, "list.then", last);
  }

  /** Several things in a row, the same between all of them. */
  public static Said inARow(List<Said> items, String between) {
    return items.isEmpty() ? NONE : joined(items, between);
  }

  /** Several things in a row, all but the last two joined by the first text. */
  public static Said row(List<Said> items, String first, String last) {
    if (items.isEmpty()) return NONE;
    int n = items.size() - 1;
    return n == 0
        ? items.get(0)
        : of(last, "a", joined(items.subList(0, n), first), "b", items.get(n));
  }

  /** The first of several things, and how many more there are. */
  public static Said some(List<Said> items, int most) {
    if (items.size() <= most) return inARow(items, "list.then");
    Said first = inARow(items.subList(0, most), "list.then");
    return of("list.andMore", "a", first, "n", items.size() - most);
  }

  /** Joined by halves, so that a long row is not nested as deeply as it is long. */
  private static Said joined(List<Said> items, String key) {
    int n = items.size();
    return n == 1
        ? items.get(0)
        : of(
            key,
            "a",
            joined(items.subList(0, n / 2), key),
            "b",
            joined(items.subList(n / 2, n), key));
  }

  /** Whether it is told as it stands, whatever the language. */
  public boolean isText() {
    return key.isEmpty();
  }

  /** Whether nothing is told. */
  public boolean isEmpty() {
    return isText() && toString().isEmpty();
  }

  /** The same with each text that is put into it cut to a length, in characters. */
  public Said cut(int most) {
    Map<String, Object> out = new LinkedHashMap<>();
    args.forEach(
        (name, v) ->
            out.put(
                name,
                v instanceof Said s
                    ? s.cut(most)
                    : v instanceof String t && t.length() > most
                        ? t.substring(0, most - 1) + "…"
                        : v));
    return new Said(key, out);
  }

  /** The JSON form: a text as it stands as a string, another as {say: key, with: {…}}. */
  public JsonValue json() {
    if (isText()) return com.eclipsesource.json.Json.value(toString());
    JsonObject o = new JsonObject().add(SAY, key);
    if (args.isEmpty()) return o;
    JsonObject with = new JsonObject();
    args.forEach(
        (name, v) ->
            with.add(
                name,
                v instanceof Said s
                    ? s.json()
                    : v instanceof Double d
                        ? Numbers.json(d)
                        : com.eclipsesource.json.Json.value((String) v)));
    return o.add(WITH, with);
  }

  /**
   * Whether this has the JSON form of a text of the catalogue. Values of a layer with a field named
   * "say" may look so too: whoever puts documents into words asks the catalogue for the key.
   */
  public static boolean isSaid(JsonValue json) {
    if (!json.isObject()) return false;
    JsonObject o = json.asObject();
    if (o.get(SAY) == null || !o.get(SAY).isString()) return false;
    JsonValue with = o.get(WITH);
    return with == null ? o.size() == 1 : o.size() == 2 && with.isObject();
  }

  /** Reads the JSON form; what is none of it is nothing. */
  public static Said read(JsonValue json) {
    if (json == null || json.isNull()) return NONE;
    if (json.isString()) return text(json.asString());
    if (!isSaid(json)) return NONE;
    Map<String, Object> args = new LinkedHashMap<>();
    JsonValue with = json.asObject().get(WITH);
    if (with != null && with.isObject())
      for (Member m : with.asObject()) {
        JsonValue v = m.getValue();
        args.put(
            m.getName(),
            v.isString() ? v.asString() : v.isNumber() ? (Object) v.asDouble() : read(v));
      }
    return new Said(json.asObject().getString(SAY, ""), args);
  }

  /**
   * The form within plain text: a text as it stands, another in its JSON form. Somebody's own words
   * that look like the JSON form are wrapped in one, so that they don't come back as a key.
   */
  public String inText() {
    String s = toString();
    return isText() && s.startsWith(IN_TEXT)
        ? new JsonObject().add(SAY, "").add(WITH, new JsonObject().add(TEXT, s)).toString()
        : s;
  }

  /** From the form within plain text. */
  public static Said ofText(String s) {
    if (!s.startsWith(IN_TEXT)) return text(s);
    try {
      Said said = read(com.eclipsesource.json.Json.parse(s));
      return said.isEmpty() ? text(s) : said;
    } catch (ParseException e) {
      return text(s); // somebody's own words that begin so
    }
  }

  /** What is told as it stands; of another its JSON form, for logs and tests. */
  @Override
  public String toString() {
    return isText() ? String.valueOf(args.getOrDefault(TEXT, "")) : json().toString();
  }
}
