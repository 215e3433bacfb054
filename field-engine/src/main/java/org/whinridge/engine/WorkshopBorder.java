package org.whinridge.engine;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.LayerOfForm;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.ReferencePictures;
import org.whinridge.core.form.Translations;
import org.whinridge.core.layer.Code;
import org.whinridge.core.profile.CodeProposal;
import org.whinridge.core.profile.NearDuplicates;
import org.whinridge.core.profile.PastedCodes;
import org.whinridge.core.profile.ValueCount;

/** What a person who builds a form is told of it, across the border. */
final class WorkshopBorder {
  private WorkshopBorder() {}

  /**
   * By {@code op}: <i>kinds</i> gives all kinds of questions with the layouts that fit each ({@code
   * kinds: [{type, ways}]}); <i>texts</i> (form, language) all texts beside their translations;
   * <i>layer</i> (form) the layer that it would make; <i>pictures</i> (form, files) the places that
   * names of files mean; <i>codes</i> (text, there) pasted codes with what was told; <i>alike</i>
   * (codes) those that look like one. What can't be done gives {@code {}}.
   */
  static JsonObject run(JsonObject o) {
    return switch (o.getString("op", "")) {
      case "kinds" -> kinds();
      case "texts" -> Translations.json(form(o), o.getString("language", ""));
      case "layer" -> layer(form(o));
      case "pictures" -> pictures(form(o), o.get("files").asArray());
      case "codes" -> codes(o.getString("text", ""), Code.read(o.get("there")));
      case "alike" -> alike(Code.read(o.get("codes")));
      default -> new JsonObject();
    };
  }

  private static Form form(JsonObject o) {
    return Form.read(o.get("form").toString());
  }

  private static JsonObject kinds() {
    JsonArray all = new JsonArray();
    for (QuestionType t : QuestionType.values()) {
      JsonArray ways = new JsonArray();
      t.ways().forEach(ways::add);
      all.add(new JsonObject().add("type", t.id()).add("ways", ways));
    }
    return new JsonObject().add("kinds", all);
  }

  private static JsonObject layer(Form form) {
    LayerOfForm made = LayerOfForm.of(form);
    JsonArray kept = new JsonArray();
    made.onVisit().forEach(kept::add);
    return new JsonObject()
        .add("schema", made.schema().json())
        .add("position", made.position())
        .add("onVisit", kept);
  }

  private static JsonObject pictures(Form form, JsonArray files) {
    JsonArray out = new JsonArray();
    for (JsonValue name : files) {
      JsonArray places = new JsonArray();
      for (ReferencePictures.Place p : ReferencePictures.of(form, name.asString()))
        places.add(new JsonObject().add("question", p.question()).add("code", p.code()));
      out.add(places);
    }
    return new JsonObject().add("places", out);
  }

  private static JsonObject codes(String text, List<Code> there) {
    PastedCodes got = PastedCodes.read(text, CodeProposal.SAME, there);
    JsonArray told = new JsonArray();
    got.told().forEach(t -> told.add(t.json()));
    return new JsonObject().add("codes", Code.write(got.codes())).add("told", told);
  }

  private static JsonObject alike(List<Code> codes) {
    List<ValueCount> labels = new ArrayList<>();
    for (Code c : codes) if (!c.retired()) labels.add(new ValueCount(c.label(), 1));
    JsonArray groups = new JsonArray();
    for (NearDuplicates.Group g : NearDuplicates.groups(labels, java.util.Set.of())) {
      JsonArray group = new JsonArray();
      g.values().forEach(v -> group.add(v.value()));
      groups.add(group);
    }
    return new JsonObject().add("groups", groups);
  }
}
