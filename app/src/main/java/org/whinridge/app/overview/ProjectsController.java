package org.whinridge.app.overview;

import java.security.Principal;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.people.People;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.ProjectCare;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.said.Said;

/** All projects of a person, a card each. */
@Controller
class ProjectsController {
  /** Names of people on a card. */
  private static final int NAMES = 6;

  private final Projects projects;
  private final ProjectCare care;
  private final Members members;
  private final People people;
  private final Figures figures;
  private final ProjectPicture pictures;

  ProjectsController(
      Projects projects,
      ProjectCare care,
      Members members,
      People people,
      Figures figures,
      ProjectPicture pictures) {
    this.projects = projects;
    this.care = care;
    this.members = members;
    this.people = people;
    this.figures = figures;
    this.pictures = pictures;
  }

  /** A project as its card shows it; only people of the desk see what it holds. */
  record Card(
      Project project,
      boolean seen,
      boolean managed,
      Figures.Held held,
      List<String> people,
      long morePeople,
      ProjectPicture.Paths picture) {}

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @GetMapping("/projects")
  String page(Principal person, Model model) {
    List<Project> own = projects.of(person.getName());
    var seen = members.projectsOf(person.getName(), Right.SEE_REGISTER);
    var managed = members.projectsOf(person.getName(), Right.MANAGE);
    Map<UUID, Figures.Held> held = figures.held(own.stream().map(Project::id).toList());
    Map<UUID, List<String>> names = figures.people(managed);
    model.addAttribute(
        "cards",
        own.stream()
            .sorted(Comparator.comparing(Project::closed))
            .map(
                p -> {
                  boolean see = seen.contains(p.id());
                  List<String> all = names.getOrDefault(p.id(), List.of());
                  return new Card(
                      p,
                      see,
                      managed.contains(p.id()),
                      held.getOrDefault(p.id(), Figures.Held.NOTHING),
                      all.stream().limit(NAMES).toList(),
                      Math.max(0, all.size() - NAMES),
                      see ? pictures.of(p.id()) : new ProjectPicture.Paths("", "", ""));
                })
            .toList());
    model.addAttribute("keeper", people.isKeeper(person.getName()));
    model.addAttribute("removed", care.removed(person.getName()));
    return "projects";
  }

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @PostMapping("/projects/bring-back")
  String bringBack(@RequestParam UUID id, Principal person, RedirectAttributes flash) {
    try {
      care.bringBack(id, person.getName());
      flash.addFlashAttribute("done", Said.of("told.projectBack"));
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
    }
    return "redirect:/projects";
  }
}
