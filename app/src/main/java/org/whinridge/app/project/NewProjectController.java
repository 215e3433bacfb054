package org.whinridge.app.project;

import java.security.Principal;
import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.Refusal;
import org.whinridge.formats.crs.CoordinateSystems;

/** Makes projects. */
@Controller
class NewProjectController {
  private static final int MOST_FOUND = 30;
  private final ProjectMaking making;

  NewProjectController(ProjectMaking making) {
    this.making = making;
  }

  @OpenTo(OpenTo.Whom.KEEPER)
  @GetMapping("/projects/new")
  String page(Model model) {
    model.addAttribute("plan", new ProjectMaking.Plan("", "", ""));
    return "project-new";
  }

  @OpenTo(OpenTo.Whom.KEEPER)
  @PostMapping("/projects")
  String make(
      @RequestParam(defaultValue = "") String name,
      @RequestParam(defaultValue = "") String key,
      @RequestParam(defaultValue = "") String system,
      Principal person,
      Model model) {
    ProjectMaking.Plan plan = new ProjectMaking.Plan(name, key, system);
    try {
      return "redirect:/p/" + making.make(plan, person.getName()).key() + "/layers";
    } catch (Refusal e) {
      model.addAttribute("plan", plan);
      model.addAttribute("fault", e.said());
      return "project-new";
    }
  }

  /** Coordinate systems that a project may have. */
  record OwnSystems(List<OwnSystem> systems) {
    /** One of them. */
    record OwnSystem(String code, String name) {}
  }

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @GetMapping("/api/own-systems")
  @ResponseBody
  OwnSystems systems(@RequestParam(defaultValue = "") String q) {
    return new OwnSystems(
        CoordinateSystems.findOwn(q, MOST_FOUND).stream()
            .map(c -> new OwnSystems.OwnSystem("EPSG:" + c.epsg(), c.name()))
            .toList());
  }
}
