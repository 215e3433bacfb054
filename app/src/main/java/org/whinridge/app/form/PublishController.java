package org.whinridge.app.form;

import java.security.Principal;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestAttribute;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.project.Rights;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.form.LayerOfForm;
import org.whinridge.core.said.Said;

/** A draft becomes an edition, gets its layer, is taken out of use, or is kept as a template. */
@Controller
class PublishController {
  private final DeskPage desk;
  private final Projects projects;
  private final Forms forms;
  private final LayersOfForms layersOf;
  private final FormTemplates templates;

  PublishController(
      DeskPage desk,
      Projects projects,
      Forms forms,
      LayersOfForms layersOf,
      FormTemplates templates) {
    this.desk = desk;
    this.projects = projects;
    this.forms = forms;
    this.layersOf = layersOf;
    this.templates = templates;
  }

  private static String form(Project p, UUID id, String below) {
    return "redirect:/p/" + p.key() + "/forms/" + id + below;
  }

  /**
   * Publishes the draft.
   *
   * @param field questions for which the layer gets a field before
   */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/p/{project}/forms/{id}/publish")
  String publish(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam(required = false) List<String> field,
      @RequestAttribute Rights rights,
      Principal person,
      RedirectAttributes flash) {
    Project p = projects.byKey(project);
    try {
      if (field != null && rights.may(Right.CHANGE_LAYERS))
        layersOf.addFields(p.id(), id, Set.copyOf(field), person.getName());
      int n = forms.publish(p.id(), id, person.getName());
      flash.addFlashAttribute("done", Said.of("told.editionPublishedNewRounds", "name", n));
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
    }
    return form(p, id, "/editions");
  }

  /** The layer that the form would make. */
  @Needs(Right.BUILD_FORMS)
  @GetMapping("/p/{project}/forms/{id}/layer")
  String layer(@PathVariable String project, @PathVariable UUID id, Model model) {
    Project p = desk.open(project, "forms", model);
    FormDraft draft = forms.get(p.id(), id);
    if (draft.layer().isPresent()) return form(p, id, "");
    model.addAttribute("form", draft);
    model.addAttribute("made", LayerOfForm.of(draft.form()));
    return "form-layer";
  }

  /** Makes the layer as it was shown. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/p/{project}/forms/{id}/layer")
  String makeLayer(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam String name,
      @RequestParam long revision,
      Principal person,
      RedirectAttributes flash) {
    Project p = projects.byKey(project);
    try {
      layersOf.make(p.id(), id, revision, name, p.systemCode(), person.getName());
      flash.addFlashAttribute("done", Said.of("told.layerOfFormMade", "name", name.strip()));
      return form(p, id, "");
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
      return form(p, id, "/layer");
    }
  }

  /** Takes the form out of use, or into use again. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/p/{project}/forms/{id}/retire")
  String retire(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam boolean retired,
      Principal person,
      RedirectAttributes flash) {
    Project p = projects.byKey(project);
    forms.retire(p.id(), id, retired, person.getName());
    flash.addFlashAttribute("done", Said.of(retired ? "told.formRetired" : "told.formInUseAgain"));
    return form(p, id, "/editions");
  }

  /** Keeps the draft as a template of the project. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/p/{project}/forms/{id}/template")
  String keep(
      @PathVariable String project,
      @PathVariable UUID id,
      Principal person,
      RedirectAttributes flash) {
    Project p = projects.byKey(project);
    try {
      String title = templates.keep(p.id(), id, person.getName());
      flash.addFlashAttribute("done", Said.of("told.templateKept", "title", title));
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
    }
    return "redirect:/p/" + p.key() + "/forms";
  }

  /** Takes a template of the project away. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/p/{project}/forms/templates/{id}/remove")
  String removeTemplate(
      @PathVariable String project, @PathVariable UUID id, RedirectAttributes flash) {
    Project p = projects.byKey(project);
    templates.remove(p.id(), id);
    flash.addFlashAttribute("done", Said.of("told.templateRemoved"));
    return "redirect:/p/" + p.key() + "/forms";
  }
}
