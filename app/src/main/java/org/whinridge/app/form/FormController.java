package org.whinridge.app.form;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.ParseException;
import java.security.Principal;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.form.compile.FormProblem;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.prefill.LookUp;

@Controller
class FormController {
  private static final int MOST_PROOF_FEATURES = 200;
  private final DeskPage desk;
  private final Projects projects;
  private final Forms forms;
  private final Layers layers;

  private final LayerQueries queries;

  FormController(
      DeskPage desk, Projects projects, Forms forms, Layers layers, LayerQueries queries) {
    this.queries = queries;
    this.desk = desk;
    this.projects = projects;
    this.forms = forms;
    this.layers = layers;
  }

  @GetMapping("/p/{project}/forms")
  String list(@PathVariable String project, Model model) {
    Project p = desk.open(project, "forms", "Forms", model);
    Map<UUID, Layer> byId =
        layers.list(p.id()).stream().collect(Collectors.toMap(Layer::id, l -> l));
    model.addAttribute("forms", forms.list(p.id()));
    model.addAttribute("layers", byId.values());
    model.addAttribute("layerNames", byId);
    return "forms";
  }

  @PostMapping("/p/{project}/forms")
  String make(@PathVariable String project, @RequestParam UUID layer) {
    Project p = projects.byKey(project);
    return "redirect:/p/" + p.key() + "/forms/" + forms.fromLayer(p.id(), layer);
  }

  @GetMapping("/p/{project}/forms/{id}")
  String workshop(@PathVariable String project, @PathVariable UUID id, Model model) {
    Project p = desk.open(project, "forms", "Form", model);
    FormDraft draft = forms.get(p.id(), id);
    model.addAttribute("title", draft.form().title());
    model.addAttribute("form", draft);
    model.addAttribute("layer", layers.byId(draft.layerId()));
    return "form";
  }

  /**
   * Everything the form page needs besides itself: draft, schema, look-up layers and some features
   * to fill it with.
   */
  @GetMapping(value = "/api/p/{project}/forms/{id}", produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> read(@PathVariable String project, @PathVariable UUID id) {
    Project p = projects.byKey(project);
    FormDraft draft = forms.get(p.id(), id);
    Layer layer = layers.byId(draft.layerId());
    JsonArray lookups = new JsonArray();
    for (Layer l : layers.list(p.id()))
      if (!l.id().equals(layer.id()))
        LookUp.usual(l.id().toString(), l.name(), l.schema().kind())
            .ifPresent(
                lookUp ->
                    lookups.add(
                        new JsonObject()
                            .add("id", l.id().toString())
                            .add("name", l.name())
                            .add("lookUp", lookUp.json())
                            .add("schema", l.schema().json())));
    return ResponseEntity.ok(
        state(draft)
            .add("schema", layer.schema().json())
            .add(
                "layer",
                new JsonObject().add("id", layer.id().toString()).add("name", layer.name()))
            .add("proof", proof(layer, 0))
            .add("features", layer.count())
            .add("lookups", lookups)
            .add(
                "system",
                new JsonObject()
                    .add("code", p.systemCode())
                    .add("definition", p.systemDefinition()))
            .toString());
  }

  /**
   * More features to fill the form with, in the layer's order.
   *
   * @param from how many stand before the first one
   */
  @GetMapping(
      value = "/api/p/{project}/forms/{id}/proof",
      produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> proof(
      @PathVariable String project, @PathVariable UUID id, @RequestParam int from) {
    Project p = projects.byKey(project);
    Layer layer = layers.byId(forms.get(p.id(), id).layerId());
    return ResponseEntity.ok(proof(layer, from).toString());
  }

  private JsonArray proof(Layer layer, int from) {
    JsonArray out = new JsonArray();
    for (Feature f : queries.inOrder(layer, Math.max(0, from), MOST_PROOF_FEATURES))
      out.add(f.json(layer.schema()).add("caption", layer.schema().caption(f.values())));
    return out;
  }

  private JsonObject state(FormDraft draft) {
    JsonArray problems = new JsonArray();
    for (FormProblem x : forms.problems(draft)) problems.add(x.json());
    JsonArray notes = new JsonArray();
    for (FormProblem x : forms.notes(draft)) notes.add(x.json());
    return new JsonObject()
        .add("revision", draft.revision())
        .add("edition", draft.edition())
        .add("form", draft.form().json())
        .add("problems", problems)
        .add("notes", notes);
  }

  @PostMapping(
      value = "/api/p/{project}/forms/{id}/edits",
      produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> edit(
      @PathVariable String project, @PathVariable UUID id, @RequestBody String body) {
    JsonObject o;
    try {
      o = Json.parse(body).asObject();
    } catch (ParseException | UnsupportedOperationException e) {
      throw Refusal.refused("This is not an edit in JSON. Nothing was changed.");
    }
    JsonObject edit =
        o.get("edit") == null || !o.get("edit").isObject()
            ? new JsonObject()
            : o.get("edit").asObject();
    long revision =
        o.get("revision") == null || !o.get("revision").isNumber()
            ? -1
            : o.get("revision").asLong();
    return ResponseEntity.ok(
        state(forms.edit(projects.byKey(project).id(), id, revision, edit)).toString());
  }

  @PostMapping("/p/{project}/forms/{id}/publish")
  String publish(
      @PathVariable String project,
      @PathVariable UUID id,
      Principal person,
      RedirectAttributes flash) {
    Project p = projects.byKey(project);
    try {
      flash.addFlashAttribute(
          "done",
          "Edition "
              + forms.publish(p.id(), id, person.getName())
              + " is published. New rounds take it out; rounds already out keep theirs until their next contact.");
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.getMessage());
    }
    return "redirect:/p/" + p.key() + "/forms/" + id;
  }
}
