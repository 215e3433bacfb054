package org.whinridge.app.ops;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.UUID;
import org.whinridge.app.form.Drafting;
import org.whinridge.app.form.Forms;

/** The form of the Isle of Ostrey, designed as a person would: edit by edit. */
final class DemoForm {
  /** Its steps are nobody's own, so that undo does not take the demo apart. */
  private static final String NOBODY = "";

  private final Drafting drafting;
  private final Forms forms;
  private final UUID project;
  private final UUID form;

  DemoForm(Drafting drafting, Forms forms, UUID project, UUID form) {
    this.drafting = drafting;
    this.forms = forms;
    this.project = project;
    this.form = form;
  }

  /** The demo form: what is asked, checked, worked out and looked up. */
  void design(UUID beats) {
    edit(new JsonObject().add("op", "title").add("value", "Structure visit"));
    set("tag", "unique", Json.TRUE);
    set("kind", "need", Json.value("needed"));
    set("condition", "need", Json.value("needed"));
    set(
        "condition",
        "hint",
        Json.value(
            "1 very good: as built. 3 fair: works, wear shows. 5 very poor: may fail this season."));
    set("silt_depth_mm", "askWhen", Json.value("kind IN ('tide_flap', 'sluice', 'outfall')"));
    set(
        "silt_depth_mm",
        "checks",
        new JsonArray()
            .add(
                check(
                    "silt_depth_mm BETWEEN 0 AND width_mm",
                    "Silt of {silt_depth_mm} mm can't be deeper than the width of {width_mm} mm",
                    "firm"))
            .add(
                check(
                    "silt_depth_mm <= 200",
                    "{silt_depth_mm} mm is unusually deep; look again",
                    "soft")));
    set(
        "bearing_deg",
        "checks",
        new JsonArray()
            .add(
                check(
                    "bearing_deg BETWEEN 0 AND 360",
                    "A bearing runs from 0 to 360 degrees",
                    "firm")));
    set(
        "beat",
        "prefill",
        new JsonArray()
            .add(
                new JsonObject()
                    .add("from", "place")
                    .add("layer", beats.toString())
                    .add("layerName", "Beats")
                    .add("field", "beat")));
    set("last_inspected", "workOut", Json.value("today()"));
    edit(
        new JsonObject()
            .add("op", "add")
            .add("section", 0)
            .add(
                "question",
                new JsonObject()
                    .add("name", "silt_share")
                    .add("label", "Silted share of the width")
                    .add("type", "decimal")
                    .add("unit", "%")
                    .add("decimals", 1)
                    .add("askWhen", "silt_depth_mm IS NOT NULL AND width_mm IS NOT NULL")
                    .add("workOut", "silt_depth_mm / width_mm * 100")));
    for (int i = 0; i < 3; i++)
      edit(new JsonObject().add("op", "move").add("question", "silt_share").add("by", -1));
    set("photo", "label", Json.value("Photo of the structure"));
  }

  private static JsonObject check(String rule, String message, String weight) {
    return new JsonObject().add("rule", rule).add("message", message).add("weight", weight);
  }

  private void set(String question, String property, JsonValue value) {
    edit(
        new JsonObject()
            .add("op", "set")
            .add("question", question)
            .add("property", property)
            .add("value", value));
  }

  private void edit(JsonObject edit) {
    drafting.edit(project, form, forms.get(project, form).revision(), edit, NOBODY);
  }
}
