package org.whinridge.core.travel;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.FormMembers;
import org.whinridge.core.form.LayerOfForm;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.compile.FormProblem;
import org.whinridge.core.form.edit.WiredByName;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.said.Unfit;

/**
 * A form file that was opened outdoors, away from the project that will have it: what it is, and
 * with which layer it can be filled meanwhile.
 *
 * @param form as it is asked outdoors, wired to that layer
 * @param canonical the form of the file as core writes it, so that both sides know it again
 * @param layer the id of a layer that has all fields which the file's questions write; "" when
 *     there is none, and it is filled as if it had made its own
 * @param schema the layer's, or that of its own
 * @param problems why it can't be filled; nothing when it can
 */
public record FormFromFile(
    Form form, String canonical, String layer, Schema schema, List<FormProblem> problems) {

  /**
   * Reads a form file.
   *
   * @param layers the schemas of layers that are at hand, by id, as they travel
   * @throws IllegalArgumentException in words, when it is no form file
   */
  public static FormFromFile read(String text, Map<String, Schema> layers) {
    Form form = Form.read(text);
    if (form.questions().isEmpty()) throw new Unfit("refused.formAsksNothing");
    String canonical = form.json().toString();
    for (Map.Entry<String, Schema> l : layers.entrySet()) {
      Optional<FormFromFile> on = on(form, canonical, l.getKey(), l.getValue());
      if (on.isPresent()) return on.get();
    }
    LayerOfForm own = LayerOfForm.of(WiredByName.onto(form, LayerOfForm.NONE));
    Form asked = Outdoors.form(own.form(), own.schema());
    return new FormFromFile(
        asked, canonical, "", own.schema(), FormCompiler.compile(asked, own.schema()).problems());
  }

  private static Optional<FormFromFile> on(Form form, String canonical, String id, Schema schema) {
    List<String> writes =
        form.questions().stream().map(Question::writesTo).filter(w -> !w.isEmpty()).toList();
    if (writes.isEmpty() || writes.stream().anyMatch(w -> schema.field(w).isEmpty()))
      return Optional.empty();
    Form asked = Outdoors.form(form, schema);
    return FormCompiler.compile(asked, schema).problems().isEmpty()
        ? Optional.of(new FormFromFile(asked, canonical, id, schema, List.of()))
        : Optional.empty();
  }

  /**
   * What a device shows and keeps of it: {title, purpose, questions, canonical, layer, form,
   * schema, unknown: [members that this version does not know], problems}.
   */
  public JsonObject json(String text) {
    JsonArray found = new JsonArray();
    problems.forEach(p -> found.add(p.json()));
    JsonArray unknown = new JsonArray();
    FormMembers.unknown(text).forEach(unknown::add);
    return new JsonObject()
        .add("title", form.title())
        .add("purpose", form.settings().purpose())
        .add("questions", form.questions().stream().filter(q -> q.type().hasAnswer()).count())
        .add("canonical", canonical)
        .add("layer", layer)
        .add("form", form.json())
        .add("schema", schema.json())
        .add("unknown", unknown)
        .add("problems", found);
  }
}
