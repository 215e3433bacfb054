package org.whinridge.app.round;

import java.security.Principal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.form.FormDraft;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.core.access.Right;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.round.RoundWay;
import org.whinridge.core.round.StopState;
import org.whinridge.core.said.Said;

@Controller
class RoundController {
  private final DeskPage desk;
  private final Projects projects;
  private final Rounds rounds;
  private final RoundCare care;
  private final RoundLive live;
  private final RoundForms choices;
  private final Layers layers;
  private final Forms forms;

  RoundController(
      DeskPage desk,
      Projects projects,
      Rounds rounds,
      RoundCare care,
      RoundLive live,
      RoundForms choices,
      Layers layers,
      Forms forms) {
    this.desk = desk;
    this.projects = projects;
    this.rounds = rounds;
    this.care = care;
    this.live = live;
    this.choices = choices;
    this.layers = layers;
    this.forms = forms;
  }

  @Needs(Right.SEE_WORK)
  @GetMapping("/p/{project}/rounds")
  String list(@PathVariable String project, Model model) {
    Project p = desk.open(project, "rounds", model);
    model.addAttribute("rounds", rounds.list(p.id()));
    model.addAttribute("canPlan", choices.any(p.id()));
    return "rounds";
  }

  @Needs(Right.PLAN_ROUNDS)
  @GetMapping("/p/{project}/rounds/new")
  String plan(@PathVariable String project, Model model) {
    Project p = desk.open(project, "rounds", model);
    model.addAttribute("canPlan", choices.any(p.id()));
    return "round-new";
  }

  @Needs(Right.SEE_WORK)
  @GetMapping("/p/{project}/rounds/{id}")
  String round(@PathVariable String project, @PathVariable UUID id, Model model) {
    Project p = desk.open(project, "rounds", model);
    Round r = rounds.get(p.id(), id);
    Map<UUID, RoundLive.OnLayer> there = live.features(r);
    List<FormDraft> filled = r.forms().stream().map(f -> forms.get(p.id(), f)).toList();
    model.addAttribute("round", r);
    model.addAttribute("forms", filled);
    model.addAttribute("area", r.area().map(a -> GeometryJson.write(a).toString()).orElse(null));
    model.addAttribute(
        "layers",
        r.stops().stream().map(Round.Stop::layerId).distinct().map(layers::byId).toList());
    RoundWay left = left(r, filled, there);
    model.addAttribute("hours", Math.round(left.hours() * 10) / 10.0);
    model.addAttribute("km", Math.round(left.lengthM() / 100) / 10.0);
    return "round";
  }

  /** The way through the stops that are left, in their order. */
  private RoundWay left(Round r, List<FormDraft> filled, Map<UUID, RoundLive.OnLayer> there) {
    Map<UUID, Integer> minutes = new LinkedHashMap<>();
    for (FormDraft f : filled)
      forms
          .newest(f.id())
          .ifPresent(
              e -> minutes.merge(f.layerId(), e.form().settings().plannedMinutes(), Integer::sum));
    return RoundWay.asGiven(
        r.stops().stream()
            .filter(s -> s.state() != StopState.DONE && there.containsKey(s.featureId()))
            .map(
                s ->
                    new RoundWay.Stop(
                        Choosing.place(there.get(s.featureId()).feature()),
                        minutes.getOrDefault(s.layerId(), 0)))
            .toList(),
        r.travel().how(1));
  }

  /** Closes a round: it leaves the devices at their next contact; or opens it again. */
  @Needs(Right.PLAN_ROUNDS)
  @PostMapping("/p/{project}/rounds/{id}/close")
  String close(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "true") boolean closed,
      Principal by,
      RedirectAttributes flash) {
    Project p = projects.byKey(project);
    care.close(p.id(), id, closed, by.getName());
    flash.addFlashAttribute("done", Said.of(closed ? "told.roundClosed" : "told.roundOpenAgain"));
    return "redirect:/p/" + p.key() + "/rounds/" + id;
  }
}
