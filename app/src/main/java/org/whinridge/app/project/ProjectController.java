package org.whinridge.app.project;

import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.Authentication;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;

@Controller
class ProjectController {
  private final Projects projects;

  ProjectController(Projects projects) {
    this.projects = projects;
  }

  @GetMapping("/")
  String start(Authentication who) {
    boolean outdoors =
        who.getAuthorities().stream().anyMatch(a -> a.getAuthority().equals("ROLE_inspector"));
    return outdoors
        ? "redirect:/day"
        : "redirect:/p/"
            + projects.all().stream().findFirst().map(Project::key).orElse("none")
            + "/layers";
  }

  @GetMapping(value = "/api/p/{project}/basemap", produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> basemap(@PathVariable String project) {
    return ResponseEntity.ok(projects.basemap(projects.byKey(project).id()));
  }
}
