package org.whinridge.formats;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import com.networknt.schema.InputFormat;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.QuestionType;
import org.whinridge.formats.xlsform.XlsFormReader;

/** The published JSON Schema of the form file and the forms that core writes hold together. */
class FormSchemaTest {
  private static JsonSchema schema() throws IOException {
    return JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
        .getSchema(Files.readString(Path.of("../docs/form.schema.json")));
  }

  private static List<String> faults(String json) throws IOException {
    return schema().validate(json, InputFormat.JSON).stream().map(Object::toString).toList();
  }

  /** A form that has every member once. */
  private static final String EVERYTHING =
      """
      {"title":"All","in":{"cy":{"title":"Pob"}},
       "rules":[{"name":"deep","label":"it is deep","rule":"silt > 9"}],
       "lookUps":{"soil":{"layer":"s","layerName":"Soil","how":"around","withinM":20,"filter":"answers.silt > 2","several":"list"}},
       "allowed":{"layer":"b","layerName":"Beats","weight":"soft"},
       "settings":{"purpose":"To know","plannedMinutes":12,"season":{"from":"10-01","to":"03-31"},"expectedVisits":240,"review":"itself","caption":["silt"],
        "photoPixels":1600,"accuracyM":2.5,"publishAfterMinutes":30},
       "guidance":[{"title":"Safety","text":"Wear a vest."},{"title":"Manual","file":"f1","name":"manual.pdf"}],
       "sections":[{"title":"A","name":"a","intro":"Look.","startsPage":true,"askWhen":"deep","rows":{"least":1,"most":9,"fromLastVisit":true},
        "blocks":[{"name":"b1","title":"B","intro":"i","askWhen":"deep","in":{"cy":{"title":"C"}}}],"in":{"cy":{"title":"D"}},
        "questions":[{"name":"silt","label":"Silt","hint":"h","placeholder":"p","in":{"cy":{"label":"L"}},"type":"decimal","unit":"mm","decimals":1,
          "from":0,"to":9.5,"step":0.5,"least":1,"most":2,"lines":3,"need":"wanted","readOnly":true,"lockOnRevisit":true,"officeOnly":true,"writesTo":"f","notAsked":"emptied",
          "unique":true,"keepOnAsset":true,"layer":"l","codes":[{"code":"x","label":"X","retired":true,"fitsWhen":"deep","alone":true,"in":{"cy":"Y"},"picture":"p2"}],
          "askWhen":"deep","workOut":"1","checks":[{"rule":"silt < 3","message":"m","weight":"soft","writtenFor":"silt < 4","in":{"cy":{"message":"n"}}}],
          "prefill":[{"from":"asset"},{"from":"last visit","mostDays":3},{"from":"place","lookUp":"soil","field":"code","take":"most frequent"},
            {"from":"place","layer":"l","layerName":"L","how":"along","withinM":9,"filter":"x = 1","several":"list","take":"chainage"},
            {"from":"device","item":"time"},{"from":"fixed","value":[1,"a"]},{"from":"worked out","formula":"1 + 1"}],
          "refresh":"follow","as":"side by side","width":"half","picture":"p1","block":"b1"}]}]}
      """;

  @Test
  void everyMemberIsInTheSchemaAndIsReadAndWritten() throws IOException {
    assertThat(faults(EVERYTHING)).isEmpty();
    String written = Form.read(EVERYTHING).json().toString();
    assertThat(faults(written)).isEmpty();
    assertThat(Form.read(written)).isEqualTo(Form.read(EVERYTHING));
    assertThat(members(Json.parse(written))).containsAll(members(Json.parse(EVERYTHING)));
  }

  @Test
  void everythingThatADeviceKnowsCanBeASource() throws IOException {
    for (String item : org.whinridge.core.prefill.Source.DEVICE_ITEMS)
      assertThat(faults(EVERYTHING.replace("\"item\":\"time\"", "\"item\":\"" + item + "\"")))
          .as(item)
          .isEmpty();
  }

  private static java.util.Set<String> members(com.eclipsesource.json.JsonValue v) {
    java.util.Set<String> out = new java.util.TreeSet<>();
    if (v.isObject())
      v.asObject()
          .forEach(
              m -> {
                out.add(m.getName());
                out.addAll(members(m.getValue()));
              });
    if (v.isArray()) v.asArray().forEach(x -> out.addAll(members(x)));
    return out;
  }

  @Test
  void everyTypeOfQuestionIsInTheSchemaAndNoOther() throws IOException {
    String types = Files.readString(Path.of("../docs/form.schema.json"));
    for (QuestionType t : QuestionType.values()) {
      assertThat(types).contains("\"" + t.id() + "\"");
      assertThat(
              faults(
                  "{\"title\":\"T\",\"sections\":[{\"questions\":[{\"name\":\"a\",\"type\":\""
                      + t.id()
                      + "\"}]}]}"))
          .isEmpty();
    }
  }

  @Test
  void aFormFromAWorkbookFitsTheSchema() throws Exception {
    Form form = XlsFormReader.read(Path.of("src/test/resources/xlsform/bank-visit.xlsx")).form();
    assertThat(faults(form.json().toString())).isEmpty();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "{\"sections\":[]}",
        "{\"title\":\"T\",\"sections\":[{\"questions\":[{\"name\":\"no name\"}]}]}",
        "{\"title\":\"T\",\"sections\":[{\"questions\":[{\"name\":\"a\",\"type\":\"ruler\"}]}]}",
        "{\"title\":\"T\",\"sections\":[{\"questions\":[{\"name\":\"a\",\"colour\":\"red\"}]}]}",
        "{\"title\":\"T\",\"sections\":[{\"questions\":[{\"name\":\"a\",\"prefill\":[{\"from\":\"nowhere\"}]}]}]}"
      })
  void whatIsNoFormDoesNotFit(String json) throws IOException {
    assertThat(faults(json)).isNotEmpty();
  }
}
