package org.whinridge.formats.xlsform;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.QuestionProperty;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.edit.FormEdit;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.English;
import org.whinridge.core.visit.Filling;
import org.whinridge.core.visit.VisitStart;

/** Every property of a question keeps what {@link QuestionProperty} says of it. */
class QuestionPropertyTest {
  /** A value other than the usual one for each property, and what a form needs for it. */
  private static JsonObject with(QuestionProperty p) {
    JsonObject q = new JsonObject().add("name", "silt").add("label", "Silt").add("type", "decimal");
    return switch (p) {
      case NAME -> q.set("name", "silt_2");
      case LABEL -> q.set("label", "Depth of silt");
      case TYPE -> q.set("type", "counter");
      case HINT, PLACEHOLDER -> q.set(p.id(), "about");
      case UNIT -> q.set("unit", "mm");
      case DECIMALS -> q.set("decimals", 2);
      case FROM -> q.set("from", 1.5);
      case TO -> q.set("to", 7.25);
      case STEP -> q.set("step", 0.5);
      case LEAST, MOST -> q.set("type", "text").set(p.id(), 3);
      case LINES -> q.set("type", "long_text").set("lines", 4);
      case NEED -> q.set("need", "wanted");
      case READ_ONLY, LOCK_ON_REVISIT, OFFICE_ONLY, KEEP_ON_ASSET -> q.set(p.id(), true);
      case UNIQUE -> q.set("unique", true);
      case WRITES_TO -> q.set("writesTo", "depth");
      case NOT_ASKED -> q.set("notAsked", "emptied");
      case LAYER -> q.set("type", "link").set("layer", "l1");
      case CODES ->
          q.set("type", "choice").set("codes", Json.parse("[{\"code\":\"a\",\"label\":\"A\"}]"));
      case ASK_WHEN -> q.set("askWhen", "other > 1");
      case WORK_OUT -> q.set("workOut", "other + 1");
      case CHECKS ->
          q.set(
              "checks",
              Json.parse("[{\"rule\":\"silt < 3\",\"message\":\"m\",\"weight\":\"soft\"}]"));
      case PREFILL -> q.set("prefill", Json.parse("[{\"from\":\"last visit\",\"mostDays\":3}]"));
      case REFRESH ->
          q.set("prefill", Json.parse("[{\"from\":\"asset\"}]")).set("refresh", "follow");
      case AS -> q.set("as", "compact");
      case WIDTH -> q.set("width", "half");
      case PICTURE -> q.set("picture", "p1");
      case BLOCK -> q.set("block", "b1");
      case IN -> q.set("in", Json.parse("{\"cy\":{\"label\":\"Llaid\"}}"));
    };
  }

  private static Form form(JsonObject question) {
    JsonObject section =
        new JsonObject()
            .add("title", "A")
            .add("blocks", Json.parse("[{\"name\":\"b1\",\"title\":\"B\"}]"))
            .add(
                "questions",
                new JsonArray()
                    .add(
                        Json.parse("{\"name\":\"other\",\"label\":\"Other\",\"type\":\"decimal\"}"))
                    .add(question));
    return Form.read(
        new JsonObject()
            .add("title", "T")
            .add("sections", new JsonArray().add(section))
            .toString());
  }

  private static JsonObject read(Form f) {
    return f.questions().get(1).json();
  }

  @ParameterizedTest
  @EnumSource
  void itIsWrittenAndReadAndLeftOutWhenItIsTheUsualOne(QuestionProperty p) {
    JsonObject q = with(p);
    assertThat(read(form(q)).get(p.id())).isEqualTo(q.get(p.id()));
    boolean always = List.of("name", "label", "type").contains(p.id());
    JsonObject plain =
        new JsonObject().add("name", "silt").add("label", "Silt").add("type", "decimal");
    assertThat(read(form(plain)).get(p.id()) != null).isEqualTo(always);
  }

  @ParameterizedTest
  @EnumSource
  void anEditSetsItOrIsRefused(QuestionProperty p) {
    JsonObject to = with(p);
    JsonObject without = with(p);
    if (List.of("name", "label", "type").contains(p.id())) without = with(QuestionProperty.HINT);
    else without.remove(p.id());
    Form before = form(without);
    JsonObject edit =
        new JsonObject()
            .add("op", "set")
            .add("question", "silt")
            .add("property", p.id())
            .add("value", to.get(p.id()));
    if (p.isEditable())
      assertThat(read(FormEdit.apply(before, edit)).get(p.id())).isEqualTo(to.get(p.id()));
    else
      assertThatThrownBy(() -> FormEdit.apply(before, edit))
          .satisfies(English.says("a question has no property ‘" + p.id() + "’"));
  }

  @Test
  void theSchemaOfTheFormFileHasThemAllAndNoOther() throws Exception {
    JsonObject defs =
        Json.parse(Files.readString(Path.of("../docs/form.schema.json")))
            .asObject()
            .get("$defs")
            .asObject();
    JsonObject stated = defs.get("question").asObject().get("properties").asObject();
    List<String> ids = new ArrayList<>();
    for (QuestionProperty p : QuestionProperty.values()) {
      ids.add(p.id());
      assertThat(String.valueOf(stated.get(p.id())))
          .as(p.id())
          .isEqualTo(Json.parse(p.schema()).toString());
    }
    assertThat(stated.names()).containsExactlyInAnyOrderElementsOf(ids);
    String page = Files.readString(Path.of("../docs/form-file.md"));
    for (String id : ids) assertThat(page).contains("`" + id + "`");
  }

  @ParameterizedTest
  @EnumSource
  void aWorkbookBringsItBackOrLeavesItOutAsStated(QuestionProperty p, @TempDir Path tmp)
      throws Exception {
    Path book = tmp.resolve("form.xlsx");
    try (OutputStream out = Files.newOutputStream(book)) {
      XlsFormWriter.write(compiled(with(p)), out);
    }
    JsonValue back = read(XlsFormReader.read(book).form()).get(p.id());
    if (p.column().equals(QuestionProperty.Workbook.LEFT_OUT)) assertThat(back).isNull();
    else assertThat(back).isEqualTo(with(p).get(p.id()));
  }

  @ParameterizedTest
  @EnumSource
  void aSheetShowsItUnderTheStatedMember(QuestionProperty p) {
    if (p == QuestionProperty.WRITES_TO || p == QuestionProperty.ASK_WHEN) {
      assertThat(p.shownAs()).isEmpty();
      return;
    }
    JsonObject q = shown(with(p));
    if (p.shownAs().isEmpty()) assertThat(q.get(p.id())).isNull();
    else assertThat(q.get(p.shownAs())).as(p.shownAs()).isNotNull().isNotEqualTo(Json.NULL);
  }

  private static JsonObject shown(JsonObject question) {
    return Filling.open(
            compiled(question),
            VisitStart.read(
                new JsonObject().add("startedAt", "2026-05-04T09:00:00Z").add("turn", "desk"),
                Optional.empty(),
                Map.of(),
                Optional.empty(),
                compiled(question)))
        .view()
        .get("sections")
        .asArray()
        .get(0)
        .asObject()
        .get("questions")
        .asArray()
        .get(1)
        .asObject();
  }

  private static ExecutableForm compiled(JsonObject question) {
    Schema schema =
        new Schema(
            GeometryKind.POINT,
            List.of(Field.of("depth", "Depth", FieldType.DECIMAL)),
            "",
            List.of());
    FormCompiler.Outcome o = FormCompiler.compile(form(question), schema);
    return o.form().orElseThrow(() -> new AssertionError(o.problems()));
  }
}
