package org.whinridge.core.form;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.whinridge.core.form.compile.RulePlace;
import org.whinridge.core.form.line.FormText;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.rules.saying.Operand;
import org.whinridge.core.rules.saying.SentenceParts;
import org.whinridge.core.value.ValueType;

/** What pickers offer at a place of a form; whatever they can make is a sound rule. */
class RulePlaceTest {
  private static final Schema SCHEMA =
      Schema.read(
          Json.parse(
                  "{\"kind\":\"point\",\"fields\":[{\"name\":\"material\",\"label\":\"Material\",\"type\":\"text\",\"codes\":[{\"code\":\"brick\",\"label\":\"Brick\"}]},{\"name\":\"installed\",\"label\":\"Installed\",\"type\":\"date\"},{\"name\":\"width\",\"label\":\"Width\",\"type\":\"integer\"}]}")
              .asObject());
  private static final Form FORM =
      new Form(
          "F",
          FormText.read(
                  """
                  Lining {lining}: brick | clay
                  Condition {condition}: 1 = sound | 5 = poor
                  Built {built}: date
                  Works {works}: yes/no
                  Silt (mm) {silt} 0..500
                  Width (mm) {width} 0..900
                  Faults {faults}: + crack | leak
                  Note {note}: text
                  """,
                  new Form("F", List.of()))
              .sections());

  private static final RulePlace PLACE = new RulePlace(FORM, SCHEMA, "");

  private static JsonObject choices() {
    return PLACE.choices();
  }

  private static List<JsonObject> list(JsonObject o, String member) {
    List<JsonObject> out = new ArrayList<>();
    for (JsonValue v : o.get(member).asArray()) out.add(v.asObject());
    return out;
  }

  private static boolean has(JsonValue types, String type) {
    for (JsonValue t : types.asArray()) if (t.asString().equals(type)) return true;
    return false;
  }

  @Test
  void namesComeWithWhatIsKnownOfThem() {
    JsonObject lining =
        list(choices(), "names").stream()
            .filter(n -> n.getString("name", "").equals("lining"))
            .findFirst()
            .orElseThrow();
    assertThat(lining.get("codes").asArray().get(0).asObject().getString("label", ""))
        .isEqualToIgnoringCase("brick");
    List<String> groups =
        list(choices(), "names").stream()
            .map(n -> n.getString("name", "") + " " + n.getString("group", ""))
            .toList();
    assertThat(groups)
        .contains(
            "silt question",
            "before.material before",
            "last.condition last",
            "place visit",
            "fix.accuracy visit");
  }

  /** Each name, with each comparison that is offered for it, and values of its kind. */
  @Test
  void whateverIsOfferedMakesASoundRule() {
    JsonObject all = choices();
    int made = 0;
    for (JsonObject name : list(all, "names"))
      for (JsonObject c : list(all, "comparisons")) {
        boolean coded = name.get("codes") != null;
        String type = name.getString("type", "");
        if (!has(c.get(coded ? "coded" : "plain"), type)) continue;
        int takes = Math.abs(c.getInt("takes", 0));
        String value = value(name);
        if (takes > 0 && value.isEmpty()) continue;
        String parts =
            "{\"join\":\"all\",\"parts\":[{\"left\":{\"kind\":\"name\",\"names\":[\"%s\"]},\"comparison\":\"%s\",\"values\":[%s]}]}"
                .formatted(
                    name.getString("name", ""),
                    c.getString("id", ""),
                    String.join(",", java.util.Collections.nCopies(takes, value)));
        String text = SentenceParts.read(Json.parse(parts).asObject()).text();
        JsonObject view = PLACE.view(text, ValueType.YES_NO);
        assertThat(view.get("problems")).as(text).isNull();
        assertThat(view.get("parts").toString()).as(text).isEqualTo(parts);
        made++;
      }
    assertThat(made).isGreaterThan(120);
  }

  private static String value(JsonObject name) {
    if (name.get("codes") != null) {
      String code = name.get("codes").asArray().get(0).asObject().getString("code", "");
      return "{\"kind\":\"value\",\"value\":\"" + code + "\"}";
    }
    return switch (name.getString("type", "")) {
      case "number" -> "{\"kind\":\"value\",\"value\":12.5}";
      case "text" -> "{\"kind\":\"value\",\"value\":\"it's\"}";
      case "date" -> "{\"kind\":\"value\",\"value\":{\"date\":\"2026-05-04\"}}";
      case "date_time" -> "{\"kind\":\"value\",\"value\":{\"timestamp\":\"2026-05-04T09:30:00Z\"}}";
      default -> "";
    };
  }

  /**
   * Each way to make a value, with names that fit it, is a sound formula that comes apart again.
   */
  @Test
  void eachWayToMakeAValueIsASoundFormula() {
    for (JsonObject k : list(choices(), "operands")) {
      String id = k.getString("id", "");
      if (id.equals("value")) continue;
      int most = Math.min(2, k.getInt("names", 0));
      String name =
          switch (k.getString("takes", "")) {
            case "number", "" -> "silt";
            case "list" -> "faults";
            case "date" -> "built";
            default -> "place";
          };
      if (List.of("total", "mean", "least", "most").contains(id)) continue; // of columns of numbers
      String names = String.join(",", java.util.Collections.nCopies(most, '"' + name + '"'));
      String json =
          "{\"kind\":\""
              + id
              + "\""
              + (most > 0 ? ",\"names\":[" + names + "]" : "")
              + (id.equals("shifted") ? ",\"by\":-2.5" : "")
              + "}";
      String text = Operand.read(Json.parse(json)).text();
      JsonObject view = PLACE.view(text, ValueType.EMPTY);
      assertThat(view.get("problems")).as(text).isNull();
      assertThat(view.get("operand").toString()).isEqualTo(json);
    }
  }
}
