package org.whinridge.core.said;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.ibm.icu.text.MessageFormat;
import com.ibm.icu.text.NumberFormat;
import com.ibm.icu.util.ULocale;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.lang.reflect.Method;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import org.assertj.core.api.Assertions;
import org.whinridge.core.text.Numbers;

/** What core tells, in the words of the English catalogue; for tests. */
public final class English {
  private static final JsonObject TEXTS = texts();
  private static final Map<String, MessageFormat> READ = new ConcurrentHashMap<>();

  private English() {}

  private static JsonObject texts() {
    // a module's tests run in its folder
    Path file = Path.of("../app/src/main/resources/messages/en.json");
    try {
      return Json.parse(Files.readString(file)).asObject();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** The text of a key, as it stands in the catalogue. */
  public static String pattern(String key) {
    String text = TEXTS.getString(key, null);
    if (text == null) throw new AssertionError("the catalogue has no text for “" + key + "”");
    return text;
  }

  /** In English. */
  public static String of(Said said) {
    if (said.isText()) return said.toString();
    if (said.key().startsWith("style.")) return plain(said.args());
    Map<String, Object> args = new LinkedHashMap<>();
    said.args().forEach((name, v) -> args.put(name, v instanceof Said s ? of(s) : v));
    MessageFormat format =
        (MessageFormat)
            READ.computeIfAbsent(said.key(), key -> new MessageFormat(exact(key), ULocale.ENGLISH))
                .clone();
    NumberFormat plain = NumberFormat.getInstance(ULocale.ENGLISH);
    plain.setMaximumFractionDigits(20);
    plain.setGroupingUsed(false);
    new LinkedHashMap<>(args)
        .forEach(
            (name, v) -> args.put(name + "_exact", v instanceof Number n ? plain.format(n) : ""));
    return format.format(args);
  }

  /** A value in nobody's style: a decimal point, days and moments as in ISO 8601. */
  private static String plain(Map<String, Object> args) {
    return args.get("n") instanceof Double n
        ? Numbers.fixed(n, ((Double) args.get("decimals")).intValue())
        : (String) args.values().iterator().next();
  }

  private static String exact(String key) {
    return pattern(key).replaceAll("\\{(\\w+), number, exact}", "{$1_exact}");
  }

  /** Several, in English. */
  public static List<String> of(List<Said> all) {
    return all.stream().map(English::of).toList();
  }

  /** The JSON form of something told, in English. */
  public static String of(JsonValue json) {
    return of(Said.read(json));
  }

  /** Of a failure, what is told of it holds this. */
  public static Consumer<Throwable> says(String part) {
    return e -> Assertions.assertThat(of(e)).contains(part);
  }

  /** What a failure tells, in English: its own {@code said()}, or its message as it stands. */
  public static String of(Throwable e) {
    try {
      Method said = e.getClass().getDeclaredMethod("said");
      said.setAccessible(true);
      return of((Said) said.invoke(e));
    } catch (NoSuchMethodException x) {
      return e instanceof Unfit u ? of(u.said()) : String.valueOf(e.getMessage());
    } catch (ReflectiveOperationException x) {
      throw new AssertionError(x);
    }
  }

  /**
   * A text in which what is told stands in its JSON form, in English; within JSON it becomes a JSON
   * string.
   */
  public static String inText(String text) {
    StringBuilder out = new StringBuilder();
    int i = 0;
    for (int at = text.indexOf("{\"say\":"); at >= 0; at = text.indexOf("{\"say\":", i)) {
      int end = end(text, at);
      boolean json = at > 0 && ":,[".indexOf(text.charAt(at - 1)) >= 0;
      String said = of(Json.parse(text.substring(at, end)));
      out.append(text, i, at).append(json ? Json.value(said).toString() : said);
      i = end;
    }
    return out.append(text.substring(i)).toString();
  }

  /** Where the JSON object that begins at a place ends. */
  private static int end(String text, int from) {
    int depth = 0;
    boolean quoted = false;
    for (int i = from; ; i++) {
      char c = text.charAt(i);
      if (quoted && c == '\\') i++;
      else if (c == '"') quoted = !quoted;
      else if (!quoted && c == '{') depth++;
      else if (!quoted && c == '}' && --depth == 0) return i + 1;
    }
  }

  /** A document of core with all that is told in it in English. */
  public static JsonValue worded(JsonValue json) {
    if (Said.isSaid(json)) return Json.value(of(json));
    if (json.isArray()) {
      com.eclipsesource.json.JsonArray out = new com.eclipsesource.json.JsonArray();
      for (JsonValue v : json.asArray()) out.add(worded(v));
      return out;
    }
    if (!json.isObject()) return json;
    JsonObject out = new JsonObject();
    for (JsonObject.Member m : json.asObject()) out.add(m.getName(), worded(m.getValue()));
    return out;
  }
}
