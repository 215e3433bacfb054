package org.whinridge.app.round;

import com.eclipsesource.json.JsonObject;
import java.security.Principal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.locationtech.jts.geom.Envelope;
import org.springframework.format.annotation.DateTimeFormat;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.form.FormDraft;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.MapExtent;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;

@Controller
class RoundController {
  private static final Pattern ID =
      Pattern.compile("\\p{XDigit}{8}(-\\p{XDigit}{4}){3}-\\p{XDigit}{12}");

  private final DeskPage desk;
  private final Projects projects;
  private final Rounds rounds;
  private final RoundMaking making;
  private final Layers layers;
  private final Forms forms;
  private final Members members;
  private final MapExtent extents;

  RoundController(
      DeskPage desk,
      Projects projects,
      Rounds rounds,
      RoundMaking making,
      Layers layers,
      Forms forms,
      Members members,
      MapExtent extents) {
    this.extents = extents;
    this.making = making;
    this.desk = desk;
    this.projects = projects;
    this.rounds = rounds;
    this.layers = layers;
    this.forms = forms;
    this.members = members;
  }

  @Needs(Right.SEE_WORK)
  @GetMapping("/p/{project}/rounds")
  String list(@PathVariable String project, Model model) {
    Project p = desk.open(project, "rounds", model);
    model.addAttribute("rounds", rounds.list(p.id()));
    model.addAttribute("forms", forms.list(p.id()).stream().filter(FormDraft::isInUse).toList());
    return "rounds";
  }

  @Needs(Right.PLAN_ROUNDS)
  @GetMapping("/p/{project}/rounds/new")
  String plan(@PathVariable String project, @RequestParam Optional<UUID> form, Model model) {
    Project p = desk.open(project, "rounds", model);
    if (form.isEmpty()) {
      model.addAttribute("forms", forms.list(p.id()).stream().filter(FormDraft::isInUse).toList());
      return "round-form";
    }
    FormDraft f = forms.get(p.id(), form.get());
    Layer layer =
        layers.byId(f.layer().orElseThrow(() -> Refusal.refused("refused.formWithoutLayer")));
    model.addAttribute("form", f);
    model.addAttribute("layer", layer);
    model.addAttribute("extent", MapExtent.text(extents.of(layer)));
    model.addAttribute("people", members.outdoors(p.id()));
    model.addAttribute("most", RoundMaking.MOST_STOPS);
    return "round-new";
  }

  @Needs(Right.PLAN_ROUNDS)
  @PostMapping("/p/{project}/rounds")
  String make(
      @PathVariable String project,
      @RequestParam UUID layer,
      @RequestParam UUID form,
      @RequestParam String name,
      @RequestParam(defaultValue = "") String note,
      @RequestParam(required = false) @DateTimeFormat(iso = DateTimeFormat.ISO.DATE) LocalDate due,
      @RequestParam(defaultValue = "") String person,
      @RequestParam(defaultValue = "") String rectangle,
      @RequestParam(defaultValue = "") String features,
      @RequestParam(defaultValue = "false") boolean tellsPosition,
      Principal by,
      RedirectAttributes flash) {
    Project p = projects.byKey(project);
    try {
      UUID id =
          making.make(
              p.id(),
              new RoundMaking.Plan(
                  layer,
                  form,
                  name,
                  note,
                  Optional.ofNullable(due),
                  person,
                  box(rectangle),
                  ids(features),
                  tellsPosition),
              by.getName());
      flash.addFlashAttribute("done", Said.of("told.roundReadyFindsDay", "person", person));
      return "redirect:/p/" + p.key() + "/rounds/" + id;
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
      return "redirect:/p/" + p.key() + "/rounds/new?form=" + form;
    }
  }

  /** west,south,east,north in degrees; anything else selects nothing. */
  private static Optional<Envelope> box(String s) {
    double[] v =
        Arrays.stream(s.split(","))
            .map(Numbers::read)
            .filter(java.util.OptionalDouble::isPresent)
            .mapToDouble(java.util.OptionalDouble::getAsDouble)
            .toArray();
    return v.length == 4 ? Optional.of(new Envelope(v[0], v[2], v[1], v[3])) : Optional.empty();
  }

  private static List<UUID> ids(String s) {
    List<UUID> out = new ArrayList<>();
    for (String id : s.split(",")) if (ID.matcher(id).matches()) out.add(UUID.fromString(id));
    return out;
  }

  /** A stop with what names it. */
  record StopLine(Round.Stop stop, Said caption) {}

  /** A stop on the map; {@code geometry} is null for a feature without a place, or one removed. */
  record StopPlace(UUID id, String caption, String state, JsonObject geometry) {}

  /** Where the stops of a round are. */
  @Needs(Right.SEE_WORK)
  @GetMapping("/api/p/{project}/rounds/{id}/stops")
  @ResponseBody
  List<StopPlace> stops(@PathVariable String project, @PathVariable UUID id) {
    Round r = rounds.get(projects.byKey(project).id(), id);
    Layer layer = layers.byId(r.layerId());
    Map<String, Round.Stop> of =
        r.stops().stream().collect(Collectors.toMap(s -> s.featureId().toString(), s -> s));
    return layers.some(layer, r.stops().stream().map(Round.Stop::featureId).toList()).stream()
        .map(
            f ->
                new StopPlace(
                    UUID.fromString(f.id()),
                    layer.schema().caption(f.values()),
                    of.get(f.id()).state().id(),
                    f.geometry().map(GeometryJson::write).orElse(null)))
        .toList();
  }

  @Needs(Right.SEE_WORK)
  @GetMapping("/p/{project}/rounds/{id}")
  String round(@PathVariable String project, @PathVariable UUID id, Model model) {
    Project p = desk.open(project, "rounds", model);
    Round r = rounds.get(p.id(), id);
    Layer layer = layers.byId(r.layerId());
    var byId =
        layers.some(layer, r.stops().stream().map(Round.Stop::featureId).toList()).stream()
            .collect(Collectors.toMap(Feature::id, f -> f));
    model.addAttribute("round", r);
    model.addAttribute("layer", layer);
    FormDraft form = forms.get(p.id(), r.formId());
    model.addAttribute("form", form);
    int each = forms.newest(r.formId()).map(e -> e.form().settings().plannedMinutes()).orElse(0);
    model.addAttribute("minutes", (long) each * (r.stops().size() - r.done()));
    model.addAttribute(
        "stops",
        r.stops().stream()
            .map(
                s ->
                    new StopLine(
                        s,
                        Optional.ofNullable(byId.get(s.featureId().toString()))
                            .map(f -> Said.text(layer.schema().caption(f.values())))
                            .orElse(Said.of("page.removed"))))
            .toList());
    return "round";
  }
}
