package org.whinridge.app.form;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.Principal;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Fetching;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.said.Said;

/** Begins forms. */
@Controller
class NewFormController {
  private static final int MOST_TOLD = 50;
  private final DeskPage desk;
  private final Projects projects;
  private final Layers layers;
  private final FormBeginning beginning;
  private final FormTemplates templates;
  private final Fetching fetching;

  NewFormController(
      DeskPage desk,
      Projects projects,
      Layers layers,
      FormBeginning beginning,
      FormTemplates templates,
      Fetching fetching) {
    this.templates = templates;
    this.fetching = fetching;
    this.desk = desk;
    this.projects = projects;
    this.layers = layers;
    this.beginning = beginning;
  }

  @Needs(Right.BUILD_FORMS)
  @GetMapping("/p/{project}/forms/new")
  String page(
      @PathVariable String project,
      @RequestParam(required = false) UUID layer,
      @RequestParam(required = false) String template,
      Principal person,
      Model model) {
    Project p = desk.open(project, "forms", model);
    model.addAttribute("layers", layers.list(p.id()));
    model.addAttribute("layer", layer);
    model.addAttribute("template", template);
    model.addAttribute("copies", beginning.copies(person.getName()));
    model.addAttribute("shipped", FormTemplates.SHIPPED);
    model.addAttribute("templates", templates.kept(p.id()));
    return "form-new";
  }

  @Needs(Right.BUILD_FORMS)
  @PostMapping("/p/{project}/forms")
  String make(
      @PathVariable String project,
      @RequestParam(required = false) UUID layer,
      @RequestParam(defaultValue = "FIELDS") FormBeginning.Start start,
      @RequestParam(defaultValue = "") String template,
      @RequestParam(required = false) UUID copy,
      Principal person) {
    Project p = projects.byKey(project);
    return "redirect:/p/"
        + p.key()
        + "/forms/"
        + beginning.begin(
            p.id(), Optional.ofNullable(layer), start, template, copy, person.getName());
  }

  @Needs(Right.BUILD_FORMS)
  @PostMapping("/p/{project}/forms/from-file")
  String fromFile(
      @PathVariable String project,
      @RequestParam(required = false) UUID layer,
      @RequestParam(required = false) MultipartFile file,
      @RequestParam(defaultValue = "") String address,
      Principal person,
      RedirectAttributes flash)
      throws IOException {
    Project p = projects.byKey(project);
    Path kept = Files.createTempFile("form", ".file");
    try {
      if (!address.isBlank()) fetching.fetch(address.strip(), kept, FormBeginning.MOST_BYTES);
      else if (file == null || file.isEmpty()) throw Refusal.refused("refused.noFileChosen");
      else file.transferTo(kept);
      FormBeginning.FromFile made =
          beginning.fromFile(p.id(), Optional.ofNullable(layer), kept, person.getName());
      List<Said> told = made.told();
      flash.addFlashAttribute("done", Said.of("told.formFromFile", "n", told.size()));
      if (!told.isEmpty())
        flash.addFlashAttribute(
            "notes", new java.util.ArrayList<>(told.subList(0, Math.min(MOST_TOLD, told.size()))));
      return "redirect:/p/" + p.key() + "/forms/" + made.form();
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
      return "redirect:/p/" + p.key() + "/forms/new" + (layer == null ? "" : "?layer=" + layer);
    } finally {
      Files.deleteIfExists(kept);
    }
  }
}
