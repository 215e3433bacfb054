package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.ibm.icu.text.MessagePattern;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.whinridge.app.shell.CatalogueAccess;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.look.Breaks;
import org.whinridge.core.look.Look;
import org.whinridge.core.place.Repair;
import org.whinridge.core.profile.CodeProposal;
import org.whinridge.formats.out.OutColumns;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * The catalogue: each text is one and the same on the server (ICU4J) and in the browser
 * (intl-messageformat), whatever style its numbers are written in; none is left over.
 */
class CatalogueTest {
  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final Path FILE = Path.of("src/main/resources/messages/en.json");
  private static final List<String> STYLES = List.of("en", "de", "fr", "hi");
  private static final List<Object> NUMBERS = List.of(0, 1, 2, 1234, 0.5);

  private record Asked(String text, Map<String, Object> args, String style) {}

  private static Map<String, String> texts() throws IOException {
    return JSON.readValue(
        Files.readString(FILE), new TypeReference<LinkedHashMap<String, String>>() {});
  }

  /** Which arguments a text has, and which of them are numbers. */
  private static Map<String, Boolean> arguments(String text) {
    MessagePattern p = new MessagePattern(text);
    Map<String, Boolean> out = new LinkedHashMap<>();
    for (int i = 0; i < p.countParts(); i++) {
      MessagePattern.Part part = p.getPart(i);
      if (part.getType() != MessagePattern.Part.Type.ARG_START) continue;
      boolean number =
          part.getArgType().hasPluralStyle() || part.getArgType() == MessagePattern.ArgType.SIMPLE;
      out.merge(p.getSubstring(p.getPart(i + 1)), number, Boolean::logicalOr);
    }
    return out;
  }

  private static List<Asked> asked() throws IOException {
    List<Asked> out = new ArrayList<>();
    int turn = 0;
    for (String text : texts().values())
      for (Object n : NUMBERS) {
        Map<String, Object> args = new LinkedHashMap<>();
        arguments(text).forEach((name, number) -> args.put(name, number ? n : "x’s " + name));
        out.add(new Asked(text, args, STYLES.get(turn++ % STYLES.size())));
      }
    return out;
  }

  @Test
  void aTextIsTheSameOnBothSides() throws Exception {
    List<Asked> all = asked();
    StringBuilder lines = new StringBuilder();
    for (Asked a : all) lines.append(JSON.writeValueAsString(a)).append('\n');
    Process node =
        new ProcessBuilder("node", "check/messages.mjs")
            .directory(Path.of("src/main/frontend").toFile())
            .redirectError(ProcessBuilder.Redirect.INHERIT)
            .start();
    try (var in = node.getOutputStream()) {
      in.write(lines.toString().getBytes(StandardCharsets.UTF_8));
    }
    List<String> theirs =
        new String(node.getInputStream().readAllBytes(), StandardCharsets.UTF_8).lines().toList();
    assertThat(node.waitFor()).isZero();
    assertThat(theirs).hasSameSizeAs(all);
    List<String> unlike = new ArrayList<>();
    for (int i = 0; i < all.size(); i++) {
      Asked a = all.get(i);
      String ours = CatalogueAccess.format(a.text(), Locale.forLanguageTag(a.style()), a.args());
      String browser = JSON.readValue(theirs.get(i), String.class);
      if (!ours.equals(browser)) unlike.add(a + ": " + ours + " / " + browser);
    }
    System.out.println(all.size() + " texts made on both sides, " + unlike.size() + " unlike");
    assertThat(unlike).isEmpty();
  }

  /** All that may name a text: scripts, pages, and the classes of the server. */
  private static String sources() throws IOException {
    StringBuilder all = new StringBuilder();
    for (String folder :
        List.of("src/main/frontend/src", "src/main/resources/templates", "src/main/java"))
      try (Stream<Path> files = Files.walk(Path.of(folder))) {
        for (Path p : files.filter(Files::isRegularFile).toList()) all.append(Files.readString(p));
      }
    return all.toString();
  }

  @Test
  void noTextIsLeftOver() throws Exception {
    String sources = sources();
    assertThat(texts().keySet())
        .filteredOn(key -> !sources.contains(key))
        // these are put together of a word and what it is of
        .filteredOn(key -> !key.startsWith("page.station.") && !key.startsWith("state."))
        .filteredOn(key -> LISTS.keySet().stream().noneMatch(l -> key.startsWith(l + ".")))
        .isEmpty();
  }

  private static List<String> names(Enum<?>[] all) {
    return Stream.of(all).map(Enum::name).toList();
  }

  /** Closed lists of the job, each with the ids that pages put behind its key. */
  private static final Map<String, List<String>> LISTS =
      Map.of(
          "fieldType", Stream.of(FieldType.values()).map(FieldType::id).toList(),
          "lookBy", Stream.of(Look.By.values()).map(Look.By::id).toList(),
          "breaks", Stream.of(Breaks.Method.values()).map(Breaks.Method::id).toList(),
          "repair", Stream.of(Repair.values()).map(Repair::id).toList(),
          "proposal", names(CodeProposal.values()),
          "codesAs", names(OutColumns.Codes.values()),
          "fate", List.of("OPEN", "READ_AGAIN", "GIVEN", "PUT_AWAY"),
          "format", List.of("GPKG", "SHP", "GEOJSON", "KML", "CSV", "XLSX"),
          "fact", List.of("least", "firstQuarter", "middle", "lastQuarter", "greatest", "mean"));

  @Test
  void eachOfAClosedListHasItsWord() throws Exception {
    for (Map.Entry<String, List<String>> list : LISTS.entrySet())
      assertThat(texts().keySet().stream().filter(k -> k.startsWith(list.getKey() + ".")))
          .containsExactlyInAnyOrderElementsOf(
              list.getValue().stream().map(id -> list.getKey() + "." + id).toList());
  }

  /** A text that a template asks for, with what it gives for its arguments. */
  private static final Pattern ASKED =
      Pattern.compile("#\\{([a-z][\\w.-]+)(\\((?:[^()]|\\([^()]*\\))*\\))?}");

  @Test
  void pagesGiveEachTextItsArguments() throws Exception {
    Map<String, String> texts = texts();
    List<String> without = new ArrayList<>();
    try (Stream<Path> files = Files.list(Path.of("src/main/resources/templates"))) {
      for (Path p : files.toList()) {
        Matcher m = ASKED.matcher(Files.readString(p));
        while (m.find()) {
          String key = m.group(1);
          String given = String.valueOf(m.group(2));
          if (!texts.containsKey(key)) without.add(p.getFileName() + ": there is no " + key);
          else
            arguments(texts.get(key)).keySet().stream()
                .filter(name -> !given.contains("'" + name + "',"))
                .forEach(name -> without.add(p.getFileName() + ": " + key + " without " + name));
        }
      }
    }
    assertThat(without).isEmpty();
  }

  @Test
  void pagesSayNothingOfTheirOwn() throws Exception {
    List<String> own = new ArrayList<>();
    try (Stream<Path> files = Files.list(Path.of("src/main/resources/templates"))) {
      for (Path p : files.toList())
        own.addAll(PageTexts.ofTheirOwn(p.getFileName().toString(), Files.readString(p)));
    }
    assertThat(own).isEmpty();
  }
}
