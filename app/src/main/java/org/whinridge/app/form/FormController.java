package org.whinridge.app.form;

import com.eclipsesource.json.JsonObject;
import com.fasterxml.jackson.annotation.JsonUnwrapped;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestAttribute;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerFilter;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.project.Rights;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.compile.FormProblem;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.profile.FieldProfile;
import org.whinridge.core.said.Said;
import org.whinridge.core.travel.Outdoors;

@Controller
class FormController {
  private static final int MOST_PROOF_FEATURES = 200;

  /** By so many features the size of a layer in a pack is estimated. */
  private static final int MEASURED = 50;

  private final DeskPage desk;
  private final Projects projects;
  private final Forms forms;
  private final Layers layers;

  private final LayerQueries queries;
  private final Drafting drafting;
  private final Presence presence;
  private final FormLines lines;
  private final FormTemplates templates;
  private final VisitsOfForms visits;

  FormController(
      DeskPage desk,
      Projects projects,
      Forms forms,
      Layers layers,
      LayerQueries queries,
      Drafting drafting,
      Presence presence,
      FormLines lines,
      FormTemplates templates,
      VisitsOfForms visits) {
    this.visits = visits;
    this.lines = lines;
    this.templates = templates;
    this.presence = presence;
    this.drafting = drafting;
    this.queries = queries;
    this.desk = desk;
    this.projects = projects;
    this.forms = forms;
    this.layers = layers;
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/forms")
  String list(@PathVariable String project, Model model) {
    Project p = desk.open(project, "forms", model);
    List<FormLines.Line> all = lines.of(p);
    model.addAttribute("forms", all);
    model.addAttribute("layers", layers.list(p.id()));
    model.addAttribute("templates", templates.kept(p.id()));
    model.addAttribute("shipped", FormTemplates.SHIPPED);
    return "forms";
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/forms/{id}")
  String workshop(@PathVariable String project, @PathVariable UUID id, Model model) {
    Project p = desk.open(project, "forms", model);
    FormDraft draft = forms.get(p.id(), id);
    model.addAttribute(
        "names",
        draft.form().questions().stream().map(Question::name).collect(Collectors.joining(", ")));
    model.addAttribute("form", draft);
    model.addAttribute("layer", draft.layer().map(layers::byId).orElse(null));
    model.addAttribute("keysOfPage", "form");
    return "form";
  }

  /**
   * A draft as its page has it: the form, and what is wrong with it or worth knowing.
   *
   * @param undo what the reader could take back; null for nothing, as with {@code redo}
   */
  record State(
      long revision,
      int edition,
      JsonObject form,
      List<JsonObject> problems,
      List<JsonObject> notes,
      Said undo,
      Said redo) {}

  /**
   * A layer that look-ups may go to, with the usual look-up of its kind.
   *
   * @param features how many it has; a pack has at most these
   * @param kilobytes about how large they are in a pack, by the first of them
   */
  record Target(
      String id, String name, JsonObject lookUp, JsonObject schema, int features, long kilobytes) {}

  /** The layer of the form. */
  record Of(UUID id, String name) {}

  /** The project's coordinate system. */
  record System(String code, String definition) {}

  /**
   * Everything the form page needs besides itself.
   *
   * @param layer null for a form that has none yet
   * @param proof the first features of the layer, to fill the form with
   * @param features how many the layer has
   * @param builds whether the reader may change the draft and run it
   */
  record Page(
      @JsonUnwrapped State state,
      JsonObject schema,
      Of layer,
      List<JsonObject> proof,
      int features,
      boolean builds,
      List<Target> lookups,
      System system) {}

  /** What the form page begins with. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/forms/{id}")
  @ResponseBody
  Page read(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestAttribute Rights rights,
      Principal person) {
    Project p = projects.byKey(project);
    FormDraft draft = forms.get(p.id(), id);
    Optional<Layer> layer = draft.layer().map(layers::byId);
    List<Target> lookups = new ArrayList<>();
    for (Layer l : layers.list(p.id()))
      if (layer.filter(own -> own.id().equals(l.id())).isEmpty())
        LookUp.usual(l.id().toString(), l.name(), l.schema().kind())
            .ifPresent(
                u ->
                    lookups.add(
                        new Target(
                            l.id().toString(),
                            l.name(),
                            u.json(),
                            l.schema().json(),
                            l.count(),
                            kilobytes(l))));
    return new Page(
        state(draft, person.getName()),
        forms.schema(draft).json(),
        layer.map(l -> new Of(l.id(), l.name())).orElse(null),
        layer.map(l -> proof(draft, l, 0)).orElse(List.of()),
        layer.map(Layer::count).orElse(0),
        rights.may(Right.BUILD_FORMS),
        lookups,
        new System(p.systemCode(), p.systemDefinition()));
  }

  /**
   * More features to fill the form with, in the layer's order.
   *
   * @param from how many stand before the first one
   */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/forms/{id}/proof")
  @ResponseBody
  List<JsonObject> proof(
      @PathVariable String project, @PathVariable UUID id, @RequestParam int from) {
    Project p = projects.byKey(project);
    FormDraft draft = forms.get(p.id(), id);
    return draft.layer().map(l -> proof(draft, layers.byId(l), from)).orElse(List.of());
  }

  /** Where a feature stands in the layer's order. */
  record At(int at) {}

  /** A feature to fill the form with, by its id. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/forms/{id}/proof/{feature}")
  @ResponseBody
  At proofOf(@PathVariable String project, @PathVariable UUID id, @PathVariable UUID feature) {
    Project p = projects.byKey(project);
    Layer layer = layers.byId(forms.get(p.id(), id).layerId());
    return new At(
        queries
            .place(layer, feature.toString())
            .orElseThrow(() -> Refusal.notFound("thing.feature")));
  }

  private long kilobytes(Layer l) {
    List<Feature> some = queries.inOrder(l, 0, MEASURED);
    long bytes = 0;
    for (Feature f : some) bytes += Outdoors.json(f, l.schema()).toString().length();
    return some.isEmpty() ? 0 : Math.max(1, bytes * l.count() / some.size() / 1000);
  }

  /** Features with their captions, and what their last visits answered as in a start. */
  private List<JsonObject> proof(FormDraft draft, Layer layer, int from) {
    List<Feature> some = queries.inOrder(layer, Math.max(0, from), MOST_PROOF_FEATURES);
    Map<UUID, JsonObject> last =
        visits.last(draft, layer, some.stream().map(f -> UUID.fromString(f.id())).toList());
    return some.stream()
        .map(
            f ->
                f.json(layer.schema())
                    .add("caption", layer.schema().caption(f.values()))
                    .add("lastVisit", last.getOrDefault(UUID.fromString(f.id()), new JsonObject())))
        .toList();
  }

  /** How many features have a value in each field of the form's layer. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/forms/{id}/filled")
  @ResponseBody
  Map<String, Integer> filled(@PathVariable String project, @PathVariable UUID id) {
    Optional<Layer> layer = forms.get(projects.byKey(project).id(), id).layer().map(layers::byId);
    return layer
        .map(
            l ->
                queries.where(
                    l,
                    LayerFilter.ALL,
                    (columns, rows) -> {
                      Map<String, Integer> out = new LinkedHashMap<>();
                      for (Field f : columns.schema().fields())
                        out.put(f.name(), FieldProfile.summary(f, columns, rows).filled());
                      return out;
                    }))
        .orElse(Map.of());
  }

  private State state(FormDraft draft, String person) {
    Drafting.Reach reach = drafting.reach(draft.id(), person);
    return new State(
        draft.revision(),
        draft.edition(),
        draft.form().json(),
        forms.problems(draft).stream().map(FormProblem::json).toList(),
        forms.notes(draft).stream().map(FormProblem::json).toList(),
        reach.undo().orElse(null),
        reach.redo().orElse(null));
  }

  /** An edit of the draft, which core reads, and the revision that it was made on. */
  record Edited(
      @NotNull(message = "border.isMissing") JsonObject edit,
      @NotNull(message = "border.isMissing") Long revision) {}

  /** Edits the draft. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/api/p/{project}/forms/{id}/edits")
  @ResponseBody
  State edit(
      @PathVariable String project,
      @PathVariable UUID id,
      @Valid @RequestBody Edited body,
      Principal person) {
    return state(
        drafting.edit(projects.byKey(project).id(), id, body.revision, body.edit, person.getName()),
        person.getName());
  }

  /**
   * What is new in a draft for a window that shows it.
   *
   * @param others who else has it open, and where
   */
  record News(long revision, List<Presence.Where> others) {}

  /** Asked every few seconds; it notes where the asking window is. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/forms/{id}/news")
  @ResponseBody
  News news(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "") String client,
      @RequestParam(defaultValue = "") String question,
      Principal person) {
    return new News(
        forms.revision(projects.byKey(project).id(), id),
        presence.others(
            id,
            client.substring(0, Math.min(40, client.length())),
            new Presence.Where(
                person.getName(), question.substring(0, Math.min(63, question.length())))));
  }

  /** Takes the person's last step back. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/api/p/{project}/forms/{id}/undo")
  @ResponseBody
  State undo(@PathVariable String project, @PathVariable UUID id, Principal person) {
    return state(
        drafting.undo(projects.byKey(project).id(), id, person.getName()), person.getName());
  }

  /** Does the step again that the person took back last. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/api/p/{project}/forms/{id}/redo")
  @ResponseBody
  State redo(@PathVariable String project, @PathVariable UUID id, Principal person) {
    return state(
        drafting.redo(projects.byKey(project).id(), id, person.getName()), person.getName());
  }
}
