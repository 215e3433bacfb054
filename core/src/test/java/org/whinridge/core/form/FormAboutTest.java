package org.whinridge.core.form;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.edit.FormEdit;
import org.whinridge.core.form.edit.WiredByName;
import org.whinridge.core.form.line.FormText;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.Unfit;

/** What is said of a form as a whole, its texts in other languages, its layer, its pictures. */
class FormAboutTest {
  private static Form form(String text) {
    return new Form("A visit", FormText.read(text, List.of()).sections());
  }

  private static Form after(Form form, String edit) {
    return FormEdit.apply(form, Json.parse(edit.replace('\'', '"')).asObject());
  }

  private static String refused(Form form, String edit) {
    try {
      after(form, edit);
    } catch (IllegalArgumentException e) {
      return Unfit.said(e).key();
    }
    return "";
  }

  @Test
  void settingsAreSetOneByOneAndTakenAwayByNull() {
    Form form = form("Kind {kind}: weir | sluice\n");
    Form set = after(form, "{'op':'settings','setting':'plannedMinutes','value':12}");
    set = after(set, "{'op':'settings','setting':'season','value':{'from':'04-01','to':'09-30'}}");
    set = after(set, "{'op':'settings','setting':'review','value':'itself'}");
    set = after(set, "{'op':'settings','setting':'caption','value':['kind']}");
    assertThat(set.settings().plannedMinutes()).isEqualTo(12);
    assertThat(set.settings().review()).isEqualTo(FormSettings.Review.ITSELF);
    assertThat(Form.read(set.json().toString())).isEqualTo(set);
    Form renamed = after(set, "{'op':'rename','question':'kind','value':'sort'}");
    assertThat(renamed.settings().caption()).containsExactly("sort");
    for (String setting : FormSettings.SETTINGS)
      set = after(set, "{'op':'settings','setting':'" + setting + "','value':null}");
    assertThat(set).isEqualTo(form);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      quoteCharacter = '~',
      value = {
        "'plannedMinutes','value':-1;form.setting",
        "'plannedMinutes','value':'ten';form.wrongMember",
        "'photoPixels','value':100;form.fewPixels",
        "'accuracyM','value':-0.5;form.setting",
        "'review','value':'nobody';form.setting",
        "'season','value':{'from':'02-30','to':'03-01'};form.season",
        "'season','value':{'from':'04-31','to':'05-01'};form.season",
        "'colour','value':'red';form.setting",
      })
  void aSettingThatCantBeIsRefused(String what, String key) {
    assertThat(refused(form("Kind\n"), "{'op':'settings','setting':" + what + "}")).isEqualTo(key);
  }

  @ParameterizedTest
  @CsvSource({
    "04-01, 09-30, 2026-04-01, true, 2026-04-01",
    "04-01, 09-30, 2026-09-30, true, 2026-04-01",
    "04-01, 09-30, 2026-10-01, false, 2026-04-01",
    "04-01, 09-30, 2026-03-31, false, 2025-04-01",
    "10-01, 03-31, 2026-12-24, true, 2026-10-01",
    "10-01, 03-31, 2027-01-02, true, 2026-10-01",
    "10-01, 03-31, 2026-06-01, false, 2025-10-01",
    "02-29, 02-29, 2028-02-29, true, 2028-02-29",
    "02-29, 05-01, 2027-04-01, true, 2027-03-01",
  })
  void aSeasonHasItsDaysEachYear(String from, String to, String day, boolean has, String begun) {
    FormSettings.Season season = new FormSettings.Season(from, to);
    assertThat(season.has(day)).isEqualTo(has);
    assertThat(season.begunBy(day)).isEqualTo(begun);
  }

  @Test
  void guidanceTravelsWithTheForm() {
    Form form =
        after(
            form("Kind\n"),
            "{'op':'guidance','value':[{'title':'Safety','text':'Wear a vest.'},{'title':'Manual','file':'f1','name':'manual.pdf'}]}");
    assertThat(form.guidance()).hasSize(2);
    assertThat(form.files()).containsExactly("f1");
    assertThat(Form.read(form.json().toString())).isEqualTo(form);
    assertThat(refused(form, "{'op':'guidance','value':[{'title':' '}]}"))
        .isEqualTo("form.guidanceTitle");
  }

  @Test
  void allTextsStandBesideTheirTranslations() {
    Form form =
        form("# Water\n## Bed {bed}\nSilt {silt} // at the sill\nLining {lining}: brick | clay\n");
    form =
        after(
            form,
            "{'op':'set','question':'silt','property':'checks','value':[{'rule':'silt IS NULL','message':'Too deep'}]}");
    List<Translations.Row> rows = Translations.of(form, "cy");
    assertThat(rows.stream().map(Translations.Row::own))
        .containsExactly(
            "A visit",
            "Water",
            "Bed",
            "Silt",
            "at the sill",
            "Too deep",
            "Lining",
            "brick",
            "clay");
    assertThat(Translations.missing(form, "cy")).isEqualTo(9);
    JsonObject all = new JsonObject();
    rows.forEach(r -> all.add(r.key(), "cy:" + r.own()));
    Form both =
        FormEdit.apply(
            form, new JsonObject().add("op", "translate").add("language", "cy").add("texts", all));
    assertThat(Translations.missing(both, "cy")).isZero();
    assertThat(Translations.missing(both, "de")).isEqualTo(9);
    assertThat(both.languages()).containsExactly("cy");
    assertThat(Translations.of(both.in("cy"), "").stream().map(Translations.Row::own))
        .allMatch(t -> t.startsWith("cy:"));
    all.forEach(m -> all.set(m.getName(), ""));
    Form none =
        FormEdit.apply(
            both, new JsonObject().add("op", "translate").add("language", "cy").add("texts", all));
    assertThat(none).isEqualTo(form);
    assertThat(refused(form, "{'op':'translate','language':'cy','texts':{'question/x/label':'y'}}"))
        .isEqualTo("form.noSuchText");
    assertThat(refused(form, "{'op':'translate','language':'c y','texts':{}}"))
        .isEqualTo("form.language");
  }

  @Test
  void aFormMakesTheLayerThatItAsksFor() {
    Form form =
        form(
            """
            Where it stands {spot}: point
            Tag {tag}: tag *
            Lining {lining}: brick | clay
            Silt depth (mm) {silt} 0..500
            Level (m) {level} 0.00..9.99
            Locked {locked}: yes/no
            Seen {seen}: date
            Photo {photo} x1..3
            > Mind the current.
            # Defects {defects} x..9
            What {what}: crack | leak
            """);
    LayerOfForm made = LayerOfForm.of(form);
    assertThat(made.schema().kind()).isEqualTo(GeometryKind.POINT);
    assertThat(made.position()).isEqualTo("Where it stands");
    assertThat(made.onVisit()).containsExactly("Photo", "What");
    assertThat(
            made.schema().fields().stream()
                .map(f -> f.name() + " " + f.type().id() + " " + f.unit())
                .map(String::strip))
        .containsExactly(
            "tag text",
            "lining code",
            "silt whole mm",
            "level decimal m",
            "locked yes_no",
            "seen date");
    assertThat(made.schema().tagField()).isEqualTo("tag");
    assertThat(made.schema().captionFields()).containsExactly("tag", "lining");
    assertThat(made.schema().field("lining").map(Field::codes).orElseThrow())
        .extracting(Code::code)
        .containsExactly("brick", "clay");
    assertThat(made.form().question("spot")).isEmpty();
    assertThat(made.form().question("silt").orElseThrow().writesTo()).isEqualTo("silt");
    assertThat(FormCompiler.compile(made.form(), made.schema()).problems()).isEmpty();
    assertThat(LayerOfForm.of(form("Notes\n")).schema().kind()).isEqualTo(GeometryKind.TABLE);
    assertThat(LayerOfForm.of(form("Bank: line\n")).schema().kind()).isEqualTo(GeometryKind.LINE);
    assertThat(LayerOfForm.of(form("Bed: area\n")).schema().kind()).isEqualTo(GeometryKind.POLYGON);
  }

  @Test
  void aLayerGetsFieldsForQuestionsThatHaveNone() {
    Form form = form("Lining {lining}: brick | clay\nSilt (mm) {silt} 0..500\nPhoto {photo} x1\n");
    assertThat(LayerOfForm.candidates(form))
        .extracting(Question::name)
        .containsExactly("lining", "silt");
    LayerOfForm first = LayerOfForm.adding(form, LayerOfForm.NONE, Set.of("silt", "photo", "gone"));
    assertThat(first.schema().fields()).extracting(Field::name).containsExactly("silt");
    assertThat(first.onVisit()).containsExactly("Lining", "Photo");
    assertThat(LayerOfForm.candidates(first.form()))
        .extracting(Question::name)
        .containsExactly("lining");
    Form again = after(first.form(), "{'op':'rename','question':'lining','value':'silt_2'}");
    again = after(again, "{'op':'rename','question':'silt','value':'depth'}");
    again = after(again, "{'op':'rename','question':'silt_2','value':'silt'}");
    LayerOfForm second = LayerOfForm.adding(again, first.schema(), Set.of("silt"));
    assertThat(second.schema().fields()).extracting(Field::name).containsExactly("silt", "lining");
    assertThat(second.form().question("silt").orElseThrow().writesTo()).isEqualTo("lining");
  }

  @Test
  void aQuestionUnderTheNameOfAFieldWritesToIt() {
    Schema schema =
        LayerOfForm.of(form("Kind {kind}: weir | sluice\nSilt (mm) {silt} 0..500\nNote {note}\n"))
            .schema();
    Form before = form("Note {note}\n");
    Form typed =
        after(
            before,
            "{'op':'type','text':'Kind: weir | sluice\\nSilt: yes/no\\n# Defects x..9\\nNote','section':0}");
    Form wired = WiredByName.after(before, typed, schema);
    assertThat(wired.question("kind").orElseThrow().writesTo()).isEqualTo("kind");
    assertThat(wired.question("kind").orElseThrow().prefill()).hasSize(1);
    assertThat(wired.question("silt").orElseThrow().writesTo())
        .as("yes or no is no number")
        .isEmpty();
    assertThat(wired.question("note").orElseThrow().writesTo()).as("it was there").isEmpty();
    assertThat(wired.list("defects").orElseThrow().questions().get(0).writesTo())
        .as("in a list")
        .isEmpty();
    assertThat(WiredByName.after(wired, wired, schema)).isSameAs(wired);
    Form moved = WiredByName.onto(wired, LayerOfForm.of(form("Silt: yes/no\n")).schema());
    assertThat(moved.questions())
        .extracting(Question::writesTo)
        .containsExactly("", "", "silt", "");
  }

  @Test
  void whatANewerVersionMadeIsNotLostByBeingReadHere() {
    String newer =
        "{'title':'Gates','sections':[{'title':'A','smell':1,'questions':[{'name':'a','label':'A','type':'text','glow':true}]}],'settings':{'tune':'x'}}"
            .replace('\'', '"');
    assertThat(FormMembers.unknown(newer)).containsExactly("glow", "smell", "tune");
    assertThat(FormMembers.read(newer).trouble().orElseThrow().key()).isEqualTo("form.newer");
    String other =
        newer
            .replace("\"text\"", "\"hologram\"")
            .replace("\"glow\":true", "\"need\":\"needed\"")
            .replace(",\"smell\":1", "")
            .replace(",\"settings\":{\"tune\":\"x\"}", "");
    assertThat(FormMembers.read(other).trouble().orElseThrow().key()).isEqualTo("form.unread");
    assertThat(FormMembers.read(other).form().title()).isEqualTo("Gates");
    assertThat(FormMembers.read("nonsense").form().title()).isEqualTo("?");
    Form form = form("Kind {kind}: weir | sluice\n");
    assertThat(FormMembers.read(form.json().toString()).trouble()).isEmpty();
  }

  @ParameterizedTest
  @CsvSource({
    "lining.jpg, lining:",
    "LINING.JPG, lining:",
    "Brick.png, lining:brick",
    "lining-brick.jpg, lining:brick",
    "lining_clay.webp, lining:clay",
    "Zustand gut.jpg, zustand:gut",
    "zustand-schlecht.jpg, zustand:schlecht",
    "IMG_0001.jpg, ''",
    ".jpg, ''",
    "gut.jpg, again:gut zustand:gut",
  })
  void aPictureFindsItsQuestionByItsFileName(String file, String places) {
    Form form =
        form(
            "Lining {lining}: brick | clay\nZustand {zustand}: gut | schlecht\nAgain {again}: gut | x\n");
    assertThat(
            ReferencePictures.of(form, file).stream()
                .map(p -> p.question() + ":" + p.code())
                .sorted()
                .collect(Collectors.joining(" ")))
        .isEqualTo(places);
  }

  @Test
  void eachKindHasALayoutThatSuitsItAndOthersOnlyWhereTheyFit() {
    Map<QuestionType, List<String>> ways =
        List.of(QuestionType.values()).stream()
            .collect(Collectors.toMap(t -> t, QuestionType::ways));
    ways.values()
        .forEach(w -> assertThat(Question.Layout.WAYS).containsAll(w).first().isEqualTo(""));
    assertThat(ways.get(QuestionType.GRADE)).contains("bar");
    assertThat(ways.get(QuestionType.WHOLE)).contains("stepper");
    assertThat(ways.get(QuestionType.TEXT)).containsExactly("");
    assertThatThrownBy(() -> new Question.Layout("round", false, "", "")).isInstanceOf(Unfit.class);
  }
}
