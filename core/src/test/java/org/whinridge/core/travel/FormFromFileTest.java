package org.whinridge.core.travel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.util.LinkedHashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.whinridge.core.form.Form;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;

class FormFromFileTest {
  private static final String FILE =
      """
      {"title":"Storm walk","settings":{"purpose":"what the storm left"},"sections":[{"title":"","questions":[
      {"name":"tag","label":"Tag","type":"text","writesTo":"tag"},
      {"name":"cost","label":"Cost centre","type":"text","officeOnly":true},
      {"name":"damage","label":"Damage","type":"choice","codes":[{"code":"none","label":"None"},{"code":"bad","label":"Bad"}]}]}]}""";

  private static Schema schema(String fields) {
    return Schema.read(
        Json.parse("{\"kind\":\"point\",\"fields\":[" + fields + "],\"tagField\":\"tag\"}")
            .asObject());
  }

  private static Map<String, Schema> layers() {
    Map<String, Schema> out = new LinkedHashMap<>();
    out.put("other", schema("{\"name\":\"name\",\"label\":\"Name\",\"type\":\"text\"}"));
    out.put("tagged", schema("{\"name\":\"tag\",\"label\":\"Tag\",\"type\":\"text\"}"));
    return out;
  }

  @Test
  void itIsFilledOnTheLayerThatHasItsFields() {
    FormFromFile f = FormFromFile.read(FILE, layers());
    assertThat(f.layer()).isEqualTo("tagged");
    assertThat(f.problems()).isEmpty();
    assertThat(f.form().question("cost")).as("what belongs to the office is not asked").isEmpty();
    assertThat(f.canonical())
        .as("the same on both sides")
        .isEqualTo(Form.read(f.canonical()).json().toString());
    JsonObject o = f.json(FILE);
    assertThat(o.getString("purpose", "")).isEqualTo("what the storm left");
    assertThat(o.getInt("questions", 0)).isEqualTo(2);
  }

  /** Away from any layer that it was made for, it is filled as if it had made one. */
  @Test
  void withoutSuchALayerItHasItsOwn() {
    FormFromFile f = FormFromFile.read(FILE, Map.of());
    assertThat(f.layer()).isEmpty();
    assertThat(f.problems()).isEmpty();
    assertThat(f.schema().kind()).isEqualTo(GeometryKind.TABLE);
    assertThat(f.schema().fields()).extracting("name").contains("tag", "damage");
  }

  @Test
  void whatIsNoFormIsRefusedInWordsAndWhatIsWrongIsTold() {
    assertThatThrownBy(() -> FormFromFile.read("{\"a\":1", Map.of()))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> FormFromFile.read("[1]", Map.of()))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> FormFromFile.read("{\"a\":1}", Map.of()))
        .isInstanceOf(IllegalArgumentException.class);
    String broken =
        FILE.replace("\"type\":\"choice\"", "\"type\":\"choice\",\"askWhen\":\"gone = 1\"");
    assertThat(FormFromFile.read(broken, layers()).problems()).isNotEmpty();
    assertThat(
            FormFromFile.read(
                    FILE.replace("\"title\":\"Storm", "\"colour\":1,\"title\":\"Storm"), layers())
                .json(FILE.replace("\"title\":\"Storm", "\"colour\":1,\"title\":\"Storm"))
                .get("unknown")
                .toString())
        .contains("colour");
  }
}
