package org.whinridge.app.shell;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.ibm.icu.text.MessageFormat;
import com.ibm.icu.text.NumberFormat;
import com.ibm.icu.util.ULocale;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.format.DateTimeParseException;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.MessageSource;
import org.springframework.context.MessageSourceResolvable;
import org.springframework.context.NoSuchMessageException;
import org.springframework.context.i18n.LocaleContextHolder;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import org.springframework.stereotype.Component;
import org.whinridge.core.said.Said;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * The texts that people read: one file for each language, with patterns of ICU MessageFormat by
 * key. The same files go to the browser. A text is in a language that there is, its plurals follow
 * that language, and its numbers are written in the style of whoever reads.
 */
@Component("messageSource")
public class Catalogue implements MessageSource {
  private static final Logger LOG = LoggerFactory.getLogger(Catalogue.class);

  /** The language of a reader for whom there is no file. */
  static final String USUAL = "en";

  /** Names the kinds of text that only the server tells: pages, findings of files, refusals. */
  private static final String SERVER = "@server";

  private final Map<String, Map<String, String>> languages = new TreeMap<>();
  private final Map<String, Map<Part, String>> hashes = new TreeMap<>();
  private final JsonMapper json;

  /** Who in the browser gets which texts; what only the server tells stays there. */
  enum Part {
    DESK(key -> !key.startsWith("day.")),
    DAY(key -> !key.startsWith("desk."));

    private final Predicate<String> own;

    Part(Predicate<String> own) {
      this.own = own;
    }

    boolean has(String key, Set<String> server) {
      return own.test(key) && !server.contains(key.replaceFirst("\\..*", ""));
    }

    String id() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  Catalogue(JsonMapper json, @Value("${whinridge.messages:}") String folder) throws IOException {
    this.json = json;
    for (Resource r :
        new PathMatchingResourcePatternResolver().getResources("classpath*:messages/*.json"))
      try (InputStream in = r.getInputStream()) {
        add(String.valueOf(r.getFilename()), in.readAllBytes());
      }
    if (!folder.isEmpty())
      try (var all = Files.list(Path.of(folder))) {
        for (Path p : all.filter(f -> f.toString().endsWith(".json")).sorted().toList())
          add(p.getFileName().toString(), Files.readAllBytes(p));
      }
  }

  private void add(String file, byte[] content) {
    String language = file.replaceAll("\\.json$", "");
    Map<String, String> all = json.readValue(content, new TypeReference<>() {});
    languages.put(language, all);
    Map<Part, String> of = new TreeMap<>();
    for (Part p : Part.values())
      of.put(p, Sha256.of(json.writeValueAsBytes(some(all, p))).substring(0, 12));
    hashes.put(language, of);
  }

  private static Map<String, String> some(Map<String, String> all, Part part) {
    Set<String> server = Set.of(all.getOrDefault(SERVER, "").split(" "));
    Map<String, String> out = new LinkedHashMap<>();
    all.forEach(
        (key, text) -> {
          if (part.has(key, server)) out.put(key, text);
        });
    return out;
  }

  /** The language that a reader gets. */
  public String language(Locale reader) {
    String tag = reader.toLanguageTag();
    if (languages.containsKey(tag)) return tag;
    return languages.containsKey(reader.getLanguage()) ? reader.getLanguage() : USUAL;
  }

  /** By what the texts of a part are known; "" for a language that is not there. */
  String hash(Part part, String language) {
    return hashes.getOrDefault(language, Map.of()).getOrDefault(part, "");
  }

  /** What a part of the browser's scripts gets of a language, as JSON. */
  Optional<byte[]> texts(Part part, String language) {
    return Optional.ofNullable(languages.get(language))
        .map(all -> json.writeValueAsString(some(all, part)).getBytes(StandardCharsets.UTF_8));
  }

  /** Where a part of the browser's scripts finds its texts; another address when they change. */
  public String address(String part, Locale reader) {
    Part p = Part.valueOf(part.toUpperCase(Locale.ROOT));
    String language = language(reader);
    return "/messages/" + p.id() + "/" + language + "/" + hashes.get(language).get(p) + ".json";
  }

  /** The key of the word for a state: "handed in" is state.handedIn. */
  public String stateKey(String state) {
    return Said.ofState(state).key();
  }

  /**
   * A text with its arguments put in.
   *
   * @param args names and values by turns; numbers, texts
   * @throws NoSuchMessageException when no file has the key
   */
  public String say(Locale reader, String key, Object... args) {
    String language = language(reader);
    String text = languages.get(language).get(key);
    if (text == null) text = languages.get(USUAL).get(key);
    if (text == null) throw new NoSuchMessageException(key, reader);
    Map<String, Object> named = new LinkedHashMap<>();
    for (int i = 0; i + 1 < args.length; i += 2)
      named.put(
          String.valueOf(args[i]), args[i + 1] instanceof Said s ? say(reader, s) : args[i + 1]);
    return format(text, language, ReadersChoice.style(reader), named);
  }

  /** What is told, in the words of whoever asks now. */
  public String say(Said said) {
    return say(LocaleContextHolder.getLocale(), said);
  }

  /**
   * What is told, in a reader's words. A key that no file has, or that has other arguments now than
   * when it was kept, is told as it stands: one old entry must not take the page away.
   */
  public String say(Locale reader, Said said) {
    if (said.isText()) return said.toString();
    if (!languages.get(USUAL).containsKey(said.key())) return said.toString();
    try {
      return inWords(reader, said);
    } catch (IllegalArgumentException | DateTimeParseException | ClassCastException e) {
      LOG.warn("the arguments do not fit the text: {}", said, e);
      return said.toString();
    }
  }

  private String inWords(Locale reader, Said said) {
    Map<String, Object> own = Styles.in(reader, said.key(), said.args());
    Object[] args = new Object[2 * own.size()];
    int i = 0;
    for (Map.Entry<String, Object> e : own.entrySet()) {
      args[i++] = e.getKey();
      args[i++] = e.getValue() instanceof Said s ? say(reader, s) : e.getValue();
    }
    return say(reader, said.key(), args);
  }

  /** A document of core with all that is told in it in words. */
  public JsonValue worded(JsonValue json) {
    if (Said.isSaid(json) && languages.get(USUAL).containsKey(Said.read(json).key()))
      return Json.value(say(Said.read(json)));
    if (json.isArray()) {
      JsonArray out = new JsonArray();
      for (JsonValue v : json.asArray()) out.add(worded(v));
      return out;
    }
    if (!json.isObject()) return json;
    JsonObject out = new JsonObject();
    for (JsonObject.Member m : json.asObject()) out.add(m.getName(), worded(m.getValue()));
    return out;
  }

  /** Patterns that were read, by language and text; there are as many as the files have. */
  private static final Map<String, MessageFormat> READ = new ConcurrentHashMap<>();

  static String format(String text, String language, Locale style, Map<String, Object> args) {
    if (text.indexOf('{') < 0 && text.indexOf('\'') < 0) return text;
    MessageFormat format =
        (MessageFormat)
            READ.computeIfAbsent(
                    language + " " + text,
                    k -> new MessageFormat(NumbersApart.of(text), ULocale.forLanguageTag(language)))
                .clone();
    Map<String, Object> all = new LinkedHashMap<>(args);
    args.forEach(
        (name, value) -> {
          if (!(value instanceof Number n)) return;
          all.put(NumbersApart.said(name), NumberFormat.getInstance(style).format(n));
          all.put(NumbersApart.share(name), NumberFormat.getPercentInstance(style).format(n));
          all.put(NumbersApart.exact(name), exact(style).format(n));
        });
    return format.format(all);
  }

  /** All digits and no groups, as in a box. */
  private static NumberFormat exact(Locale style) {
    NumberFormat f = NumberFormat.getInstance(style);
    f.setMaximumFractionDigits(20);
    f.setGroupingUsed(false);
    return f;
  }

  @Override
  public String getMessage(String key, Object[] args, String usual, Locale reader) {
    try {
      return getMessage(key, args, reader);
    } catch (NoSuchMessageException e) {
      return usual;
    }
  }

  @Override
  public String getMessage(String key, Object[] args, Locale reader) {
    return say(reader, key, args == null ? new Object[0] : args);
  }

  @Override
  public String getMessage(MessageSourceResolvable asked, Locale reader) {
    for (String key : asked.getCodes() == null ? new String[0] : asked.getCodes())
      if (languages.get(USUAL).containsKey(key))
        return getMessage(key, asked.getArguments(), reader);
    if (asked.getDefaultMessage() != null) return asked.getDefaultMessage();
    throw new NoSuchMessageException(String.valueOf(asked), reader);
  }
}
