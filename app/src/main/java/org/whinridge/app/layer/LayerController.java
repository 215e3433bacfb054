package org.whinridge.app.layer;

import java.security.Principal;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestAttribute;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Rights;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.said.Said;

@Controller
class LayerController {
  private final DeskPage desk;
  private final Layers layers;
  private final LayerQueries queries;
  private final LayerChanges changes;
  private final LayerPage page;
  private final List<BroughtBeside> beside;

  LayerController(
      DeskPage desk,
      Layers layers,
      LayerQueries queries,
      LayerChanges changes,
      LayerPage page,
      List<BroughtBeside> beside) {
    this.beside = beside;
    this.page = page;
    this.desk = desk;
    this.layers = layers;
    this.queries = queries;
    this.changes = changes;
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/layers")
  String list(@PathVariable String project, Model model) {
    Project p = desk.open(project, "layers", model);
    model.addAttribute("layers", layers.list(p.id()));
    return "layers";
  }

  @Needs(Right.CHANGE_LAYERS)
  @GetMapping("/p/{project}/layers/make")
  String make(@PathVariable String project, Model model) {
    Project p = desk.open(project, "layers", model);
    model.addAttribute("layers", layers.list(p.id()));
    return "layer-make";
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/layers/{id}")
  String layer(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestAttribute Rights rights,
      Model model) {
    model.addAttribute("may", rights.may(Right.CHANGE_LAYERS));
    model.addAttribute("outside", queries.outside(page.open(project, id, model)));
    return "layer";
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/layers/{id}/fields")
  String fields(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestAttribute Rights rights,
      Model model) {
    page.open(project, id, model);
    model.addAttribute("may", rights.may(Right.CHANGE_LAYERS));
    return "layer-fields";
  }

  @Needs(Right.CHANGE_LAYERS)
  @GetMapping("/p/{project}/layers/{id}/draw")
  String draw(@PathVariable String project, @PathVariable UUID id, Model model) {
    Layer layer = page.open(project, id, model);
    model.addAttribute("schema", layer.schema().json().toString());
    return "layer-draw";
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/layers/{id}/history")
  String history(@PathVariable String project, @PathVariable UUID id, Model model) {
    model.addAttribute("history", layers.history(page.open(project, id, model)));
    model.addAttribute("brought", beside.stream().flatMap(b -> b.broughtTo(id).stream()).toList());
    return "layer-history";
  }

  /** Takes away what a file brought for the layer's features. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/p/{project}/layers/{id}/brought/{what}/take-back")
  String takeAway(
      @PathVariable String project,
      @PathVariable UUID id,
      @PathVariable UUID what,
      Principal person,
      Model model,
      RedirectAttributes flash) {
    Layer layer = layers.get(desk.open(project, "layers", model).id(), id);
    try {
      for (BroughtBeside b : beside)
        if (b.broughtTo(layer.id()).stream().anyMatch(x -> x.id().equals(what)))
          flash.addFlashAttribute("done", b.takeAway(layer.id(), what, person.getName()));
      if (!flash.getFlashAttributes().containsKey("done"))
        throw Refusal.conflict("refused.thesePastVisitsGone");
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
    }
    return "redirect:/p/" + project + "/layers/" + id + "/history";
  }

  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/p/{project}/layers/{id}/history/{act}/take-back")
  String takeBack(
      @PathVariable String project,
      @PathVariable UUID id,
      @PathVariable UUID act,
      Principal person,
      Model model,
      RedirectAttributes flash) {
    Project p = desk.open(project, "layers", model);
    Layer layer = layers.get(p.id(), id);
    try {
      LayerChanges.TakenBack t = changes.takeBack(layer.id(), act, person.getName());
      if (t.layerGone()) {
        flash.addFlashAttribute("done", Said.of("told.wasTakenBack", "name", layer.name()));
        return "redirect:/p/" + project + "/layers";
      }
      flash.addFlashAttribute("done", Said.of("told.takenBackAs", "n", t.restored()));
      if (!t.left().isEmpty()) flash.addFlashAttribute("notes", t.left());
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
    }
    return "redirect:/p/" + project + "/layers/" + id + "/history";
  }
}
