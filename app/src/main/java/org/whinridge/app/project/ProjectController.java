package org.whinridge.app.project;

import java.security.Principal;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.whinridge.app.people.People;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;

@Controller
class ProjectController {
  private final Projects projects;
  private final Members members;
  private final People people;

  ProjectController(Projects projects, Members members, People people) {
    this.people = people;
    this.members = members;
    this.projects = projects;
  }

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @GetMapping("/")
  String start(Principal who) {
    Set<UUID> seen = members.projectsOf(who.getName(), Right.SEE_REGISTER);
    List<Project> own =
        projects.of(who.getName()).stream().filter(p -> seen.contains(p.id())).toList();
    if (own.size() == 1) return "redirect:/p/" + own.get(0).key() + "/desk";
    if (own.size() > 1) return "redirect:/projects";
    if (!members.projectsOf(who.getName(), Right.GO_OUT).isEmpty()) return "redirect:/day";
    if (people.isKeeper(who.getName())) return "redirect:/projects/new";
    throw Refusal.forbidden("refused.noProjectYet");
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping(value = "/api/p/{project}/basemap", produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> basemap(@PathVariable String project) {
    return ResponseEntity.ok(projects.basemap(projects.byKey(project).id()));
  }
}
