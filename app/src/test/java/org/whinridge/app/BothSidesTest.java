package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.whinridge.core.access.DeviceClock;
import org.whinridge.core.form.FormUses;
import org.whinridge.core.place.Units;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.prefill.LookUpValue;
import org.whinridge.core.prefill.Refresh;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.round.RoundAllows;
import org.whinridge.core.round.StopState;
import org.whinridge.core.text.Word;
import org.whinridge.core.travel.PackPart;
import org.whinridge.core.visit.DryRun;
import org.whinridge.core.visit.RowState;
import org.whinridge.core.visit.VisitState;

/** The front end's lists are core's, and nobody writes a state by hand beside them. */
class BothSidesTest {
  private static final Path SOURCES = Path.of("src/main/frontend/src");

  private static Map<String, String> list(String name) throws Exception {
    String text = Files.readString(SOURCES.resolve("shell/states.js"));
    Matcher all = Pattern.compile("export const " + name + " = \\{([^}]*)}").matcher(text);
    assertThat(all.find()).as(name).isTrue();
    Map<String, String> out = new LinkedHashMap<>();
    Matcher one = Pattern.compile("(\\w+): \"([^\"]*)\"").matcher(all.group(1));
    while (one.find()) out.put(one.group(1), one.group(2));
    return out;
  }

  private static <E extends Enum<E> & Word> Map<String, String> of(E[] values) {
    Map<String, String> out = new LinkedHashMap<>();
    for (E e : values) out.put(e.name(), e.id());
    return out;
  }

  @Test
  void statesAreTheSameOnBothSides() throws Exception {
    assertThat(list("VISIT")).isEqualTo(of(VisitState.values()));
    assertThat(list("STOP")).isEqualTo(of(StopState.values()));
    assertThat(list("ALLOWS")).isEqualTo(of(RoundAllows.values()));
    assertThat(list("PACK")).isEqualTo(of(PackPart.values()));
    assertThat(list("ROW")).isEqualTo(of(RowState.values()));
    assertThat(list("UNITS")).isEqualTo(of(Units.values()));
  }

  /** The first words of a list in a script of the workshop. */
  private static List<String> firsts(String file, String name) throws Exception {
    String text = Files.readString(SOURCES.resolve("desk/form/" + file));
    Matcher all =
        Pattern.compile("const " + name + " = [{\\[]\\n(.*?)\\n[}\\]];", Pattern.DOTALL)
            .matcher(text);
    assertThat(all.find()).as(file + " " + name).isTrue();
    return Pattern.compile("(?m)^ +(?:\\[)?\"?([\\w ]+?)\"?[,:]")
        .matcher(all.group(1))
        .results()
        .map(m -> m.group(1))
        .toList();
  }

  @Test
  void theWorkshopKnowsAllThatCoreKnows() throws Exception {
    assertThat(firsts("proofing.js", "KIND"))
        .containsExactlyElementsOf(Stream.of(DryRun.Kind.values()).map(DryRun.Kind::id).toList());
    assertThat(firsts("uses.js", "PART"))
        .containsExactlyElementsOf(
            Stream.of(FormUses.Part.values()).map(FormUses.Part::id).toList());
    assertThat(firsts("look-up.js", "TAKE"))
        .containsExactlyInAnyOrderElementsOf(
            Stream.of(LookUpValue.Measure.values()).map(Word::id).toList());
    assertThat(firsts("shared.js", "HOW"))
        .containsExactlyElementsOf(Stream.of(LookUp.How.values()).map(Word::id).toList());
    assertThat(firsts("sources.js", "ITEMS")).containsExactlyElementsOf(Source.DEVICE_ITEMS);
    assertThat(firsts("sources.js", "REFRESH"))
        .containsExactlyElementsOf(Stream.of(Refresh.values()).map(Word::id).toList());
  }

  @Test
  void clocksAreOffFromTheSameSecondOn() throws Exception {
    assertThat(Files.readString(SOURCES.resolve("shell/states.js")))
        .contains("CLOCK_OFF_SECONDS = " + DeviceClock.OFF_SECONDS + ";");
  }

  @Test
  void noScriptComparesAStateWithAWordOfItsOwn() throws Exception {
    Pattern byHand =
        Pattern.compile("(?:state|status) [!=]==? \"(" + String.join("|", words()) + ")\"");
    try (Stream<Path> all = Files.walk(SOURCES)) {
      for (Path p : all.filter(x -> x.toString().endsWith(".js")).toList())
        assertThat(byHand.matcher(Files.readString(p)).results().map(m -> m.group()).toList())
            .as(p.toString())
            .isEmpty();
    }
  }

  private static List<String> words() {
    return Stream.concat(Stream.of(VisitState.values()), Stream.of(StopState.values()))
        .map(Word::id)
        .distinct()
        .toList();
  }
}
