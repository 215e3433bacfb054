package org.whinridge.app.overview;

import java.security.Principal;
import java.util.UUID;
import java.util.function.Consumer;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.ProjectCare;
import org.whinridge.app.project.ProjectMaking;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.said.Said;

/** The page about a project itself. */
@Controller
class AboutController {
  private final DeskPage desk;
  private final Projects projects;
  private final ProjectCare care;
  private final ProjectMaking making;
  private final ProjectCopying copying;

  AboutController(
      DeskPage desk,
      Projects projects,
      ProjectCare care,
      ProjectMaking making,
      ProjectCopying copying) {
    this.making = making;
    this.desk = desk;
    this.projects = projects;
    this.care = care;
    this.copying = copying;
  }

  @Needs(Right.MANAGE)
  @GetMapping("/p/{project}/about")
  String page(@PathVariable String project, Model model) {
    Project p = desk.open(project, "", model);
    if (!model.containsAttribute("plan")) model.addAttribute("plan", making.plan(p));
    NewProjectController.settings(model);
    return "about";
  }

  private String done(
      String project, RedirectAttributes flash, String told, String then, Consumer<UUID> deed) {
    try {
      deed.accept(projects.byKey(project).id());
      flash.addFlashAttribute("done", Said.of(told));
      return "redirect:" + then;
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
      return "redirect:/p/" + project + "/about";
    }
  }

  private static String about(String project) {
    return "/p/" + project + "/about";
  }

  @Needs(Right.MANAGE)
  @PostMapping("/p/{project}/about")
  String change(
      @PathVariable String project,
      @RequestParam(defaultValue = "") String name,
      @RequestParam(defaultValue = "") String units,
      @RequestParam(defaultValue = "") String zone,
      @RequestParam(defaultValue = "") String area,
      RedirectAttributes flash) {
    ProjectMaking.Plan plan = new ProjectMaking.Plan(name, "", "", units, zone, area);
    return done(
        project,
        flash,
        "told.projectChanged",
        about(project),
        p -> {
          flash.addFlashAttribute("plan", plan); // what was typed stays when it is refused
          making.change(p, plan);
          flash.getFlashAttributes().keySet().remove("plan");
        });
  }

  @Needs(Right.MANAGE)
  @PostMapping("/p/{project}/close")
  String close(@PathVariable String project, Principal person, RedirectAttributes flash) {
    return done(
        project, flash, "told.projectClosed", about(project), p -> care.close(p, person.getName()));
  }

  @Needs(Right.MANAGE)
  @PostMapping("/p/{project}/reopen")
  String reopen(@PathVariable String project, RedirectAttributes flash) {
    return done(project, flash, "told.projectReopened", about(project), care::reopen);
  }

  @Needs(Right.MANAGE)
  @PostMapping("/p/{project}/remove")
  String remove(
      @PathVariable String project,
      @RequestParam(defaultValue = "") String name,
      Principal person,
      RedirectAttributes flash) {
    return done(
        project,
        flash,
        "told.projectRemoved",
        "/projects",
        p -> care.remove(p, name, person.getName()));
  }

  @Needs(Right.MANAGE)
  @PostMapping("/p/{project}/copy")
  String copy(
      @PathVariable String project,
      @RequestParam(defaultValue = "") String name,
      @RequestParam(defaultValue = "LAYERS") ProjectCopying.What what,
      Principal person,
      RedirectAttributes flash) {
    Project p = projects.byKey(project);
    try {
      Project made = copying.copy(p.id(), name, what, person.getName());
      flash.addFlashAttribute("done", Said.of("told.projectCopied", "name", p.name()));
      return "redirect:/p/" + made.key() + "/about";
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
      return "redirect:" + about(project);
    }
  }
}
