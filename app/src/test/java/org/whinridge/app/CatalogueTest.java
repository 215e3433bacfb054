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
import org.whinridge.app.daybook.SetAside;
import org.whinridge.app.shell.CatalogueAccess;
import org.whinridge.core.access.AccountState;
import org.whinridge.core.access.DeviceState;
import org.whinridge.core.access.PasswordStrength;
import org.whinridge.core.access.ProjectState;
import org.whinridge.core.access.Right;
import org.whinridge.core.access.Role;
import org.whinridge.core.form.FormSettings;
import org.whinridge.core.form.QuestionProperty;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.compile.FormProblem;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.layer.SchemaChange;
import org.whinridge.core.look.Breaks;
import org.whinridge.core.look.Icons;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.Ramp;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.place.Repair;
import org.whinridge.core.place.Units;
import org.whinridge.core.profile.CodeProposal;
import org.whinridge.core.rules.saying.Operand;
import org.whinridge.core.rules.saying.SentenceParts;
import org.whinridge.core.text.Word;
import org.whinridge.core.value.ValueType;
import org.whinridge.core.visit.Provenance;
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

  private static List<Path> files(String... folders) throws IOException {
    List<Path> out = new ArrayList<>();
    for (String folder : folders)
      try (Stream<Path> files = Files.walk(Path.of(folder))) {
        files.filter(Files::isRegularFile).sorted().forEach(out::add);
      }
    return out;
  }

  private static List<Path> java() throws IOException {
    return files(
        "src/main/java",
        "../core/src/main/java",
        "../formats/src/main/java",
        "../field-engine/src/main/java");
  }

  /** All that may name a text: scripts, pages, and the classes of the server. */
  private static String sources() throws IOException {
    StringBuilder all = new StringBuilder();
    for (Path p : files("src/main/frontend/src", "src/main/resources/templates"))
      all.append(Files.readString(p));
    for (Path p : java()) all.append(Files.readString(p));
    return all.toString();
  }

  @Test
  void noTextIsLeftOver() throws Exception {
    String sources = sources();
    assertThat(texts().keySet())
        .filteredOn(key -> !sources.contains(key))
        .filteredOn(key -> COMPOSED.stream().noneMatch(key::startsWith))
        .filteredOn(key -> LISTS.keySet().stream().noneMatch(l -> key.startsWith(l + ".")))
        .isEmpty();
  }

  private static List<String> names(Enum<?>[] all) {
    return Stream.of(all).map(Enum::name).toList();
  }

  private static List<String> ids(Word[] all) {
    return Stream.of(all).map(Word::id).toList();
  }

  private static final List<String> TEMPLATES =
      List.of("condition", "defects", "site", "count", "sign", "tree");

  /** Closed lists of the job, each with the ids that pages put behind its key. */
  private static final Map<String, List<String>> LISTS =
      Map.ofEntries(
          Map.entry("fieldType", ids(FieldType.values())),
          Map.entry("fieldWants", ids(FieldType.values())),
          Map.entry("lookBy", ids(Look.By.values())),
          Map.entry("breaks", ids(Breaks.Method.values())),
          Map.entry("ramp", ids(Ramp.values())),
          Map.entry("icon", Icons.ids()),
          Map.entry("repair", Stream.of(Repair.values()).map(Repair::id).toList()),
          Map.entry("proposal", names(CodeProposal.values())),
          Map.entry("codesAs", names(OutColumns.Codes.values())),
          Map.entry("account.state", ids(AccountState.values())),
          Map.entry("device.state", ids(DeviceState.values())),
          Map.entry("project.state", ids(ProjectState.values())),
          Map.entry("units", ids(Units.values())),
          Map.entry("questionType", ids(QuestionType.values())),
          Map.entry("questionUse", ids(QuestionType.values())),
          Map.entry("geometryKind", ids(GeometryKind.values())),
          Map.entry("formSetting", FormSettings.SETTINGS),
          Map.entry(
              "questionProperty",
              Stream.of(QuestionProperty.values()).map(QuestionProperty::id).toList()),
          Map.entry("formTemplate", TEMPLATES),
          Map.entry("formTemplateTitle", TEMPLATES),
          Map.entry("password.strength", ids(PasswordStrength.values())),
          Map.entry(
              "mail",
              List.of("confirm.body", "confirm.subject", "password.body", "password.subject")),
          Map.entry("page.project.tab", List.of("about", "people", "devices", "basemaps")),
          Map.entry("role", ids(Role.values())),
          Map.entry("right", ids(Right.values())),
          Map.entry("fate", names(SetAside.Fate.values())),
          Map.entry("fateWord", names(SetAside.Fate.values())),
          Map.entry("valueType", names(ValueType.values())),
          Map.entry("comparison", names(SentenceParts.Comparison.values())),
          Map.entry("operand", names(Operand.Kind.values())),
          Map.entry("formProblem", names(FormProblem.Reason.values())),
          Map.entry("schemaEffect", names(SchemaChange.Kind.values())),
          Map.entry("reading", names(Reading.values()).subList(1, Reading.values().length)),
          Map.entry(
              "origin", Stream.of(Provenance.Kind.values()).map(Provenance.Kind::id).toList()),
          Map.entry("pastRow", List.of("NO_FEATURE", "NO_DAY", "TWICE", "FUTURE")),
          Map.entry("format", List.of("GPKG", "SHP", "GEOJSON", "KML", "CSV", "XLSX")),
          Map.entry(
              "fact",
              List.of("least", "firstQuarter", "middle", "lastQuarter", "greatest", "mean")));

  @Test
  void eachOfAClosedListHasItsWord() throws Exception {
    for (Map.Entry<String, List<String>> list : LISTS.entrySet())
      assertThat(texts().keySet().stream().filter(k -> k.startsWith(list.getKey() + ".")))
          .containsExactlyInAnyOrderElementsOf(
              list.getValue().stream().map(id -> list.getKey() + "." + id).toList());
  }

  /** Texts put together of a word and what it is of, whose lists are not open to this test. */
  private static final List<String> COMPOSED =
      List.of("page.station.", "state.", "phrase.", "formPart.");

  /** Where Java names a text, with what is put into it. */
  private static final Pattern TOLD =
      Pattern.compile(
          "(?:Said\\.of|new Unfit|new FileProblem|new CantWrite|new (?:XPath\\.)?Untranslatable|new (?:OgcFilter\\.)?CannotSay|new NotUnderstood|TypedPlace\\.no|Refusal\\.(?:refused|conflict|forbidden|tooLarge|tooMuch|notFound))\\(");

  private static final Pattern TEXT_KEY =
      Pattern.compile("\"([a-z][A-Za-z]*(?:\\.[A-Za-z0-9_]+)+)\"");

  /** What stands between brackets from a place on, cut at the commas that are its own. */
  private static List<String> parts(String java, int from) {
    List<String> out = new ArrayList<>();
    StringBuilder now = new StringBuilder();
    int depth = 0;
    boolean quoted = false;
    for (int i = from; ; i++) {
      char c = java.charAt(i);
      if (c == '"') quoted = !quoted;
      else if (!quoted && "([{".indexOf(c) >= 0) depth++;
      else if (!quoted && ")]}".indexOf(c) >= 0 && depth-- == 0) break;
      if (c == '\\') now.append(c).append(java.charAt(++i));
      else if (c == ',' && !quoted && depth == 0) {
        out.add(now.toString().strip());
        now.setLength(0);
      } else now.append(c);
    }
    out.add(now.toString().strip());
    return out;
  }

  @Test
  void whatJavaTellsIsThereAndGetsItsArguments() throws Exception {
    Map<String, String> texts = texts();
    List<String> wrong = new ArrayList<>();
    int told = 0;
    for (Path p : java()) {
      String java = Files.readString(p);
      Matcher m = TOLD.matcher(java);
      while (m.find()) {
        List<String> parts = parts(java, m.end());
        if (parts.get(0).contains("Said.of(")) continue; // looked at by itself
        String line = p.getFileName() + ": " + parts;
        if (parts.get(0).matches("\"[^\"]*\"") && !parts.get(0).contains("."))
          wrong.add(line + " is no key");
        Matcher key = TEXT_KEY.matcher(parts.get(0));
        while (key.find()) {
          told++;
          String text = texts.get(key.group(1));
          if (text == null) {
            if (!parts.get(0).contains("+")) wrong.add(line + ": there is no " + key.group(1));
          } else if (parts.size() != 2 || !parts.get(1).equals("args"))
            for (String name : arguments(text).keySet())
              if (!parts.contains("\"" + name + "\"")) wrong.add(line + " without " + name);
        }
      }
    }
    assertThat(told).isGreaterThan(700);
    assertThat(wrong).isEmpty();
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
