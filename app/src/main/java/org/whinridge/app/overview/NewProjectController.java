package org.whinridge.app.overview;

import java.io.IOException;
import java.security.Principal;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.whinridge.app.people.WrittenStyle;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.ProjectMaking;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.place.AreaOfUse;
import org.whinridge.core.place.Box;
import org.whinridge.core.place.Units;
import org.whinridge.formats.crs.CoordinateSystems;

/** Makes projects. */
@Controller
class NewProjectController {
  private static final int MOST_FOUND = 30;
  private static final int MOST_AT_A_PLACE = 12;
  private final ProjectBeginning beginning;

  NewProjectController(ProjectBeginning beginning) {
    this.beginning = beginning;
  }

  private String page(ProjectMaking.Plan plan, String basemap, String person, Model model) {
    model.addAttribute("plan", plan);
    model.addAttribute("basemap", basemap);
    model.addAttribute("basemaps", beginning.basemaps(person));
    model.addAttribute("copies", beginning.copies(person));
    settings(model);
    return "project-new";
  }

  /** What a page needs to offer a project's settings. */
  static void settings(Model model) {
    model.addAttribute("zones", WrittenStyle.zones().stream().sorted().toList());
    model.addAttribute("units", Units.values());
  }

  @OpenTo(OpenTo.Whom.KEEPER)
  @GetMapping("/projects/new")
  String page(Principal person, Model model) {
    return page(ProjectMaking.Plan.empty(), "", person.getName(), model);
  }

  @OpenTo(OpenTo.Whom.KEEPER)
  @PostMapping("/projects")
  String make(
      @RequestParam(defaultValue = "") String name,
      @RequestParam(defaultValue = "") String key,
      @RequestParam(defaultValue = "") String system,
      @RequestParam(defaultValue = "") String units,
      @RequestParam(defaultValue = "") String zone,
      @RequestParam(defaultValue = "") String area,
      @RequestParam(defaultValue = "") String basemap,
      Principal person,
      Model model)
      throws IOException {
    ProjectMaking.Plan plan = new ProjectMaking.Plan(name, key, system, units, zone, area);
    try {
      Project made = beginning.make(plan, basemap, person.getName());
      return "redirect:/p/"
          + made.key()
          + (basemap.equals(ProjectBeginning.A_FILE) ? "/map#basemaps" : "/layers");
    } catch (Refusal e) {
      model.addAttribute("fault", e.said());
      return page(plan, basemap, person.getName(), model);
    }
  }

  /** Coordinate systems that a project may have. */
  record OwnSystems(List<OwnSystem> systems) {
    /**
     * One of them.
     *
     * @param area where it is meant to be used: the name of that part of the earth; "" for not said
     * @param box of that area, west, south, east, north; null for not said
     */
    record OwnSystem(String code, String name, String area, Box box) {
      static OwnSystem of(CoordinateSystems.Choice c) {
        Optional<AreaOfUse> area = c.area();
        return new OwnSystem(
            "EPSG:" + c.epsg(),
            c.name(),
            area.map(AreaOfUse::name).orElse(""),
            area.map(AreaOfUse::box).orElse(null));
      }
    }

    static OwnSystems of(List<CoordinateSystems.Choice> found) {
      return new OwnSystems(found.stream().map(OwnSystem::of).toList());
    }
  }

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @GetMapping("/api/own-systems")
  @ResponseBody
  OwnSystems systems(
      @RequestParam(defaultValue = "") String q,
      @RequestParam(required = false) Double lon,
      @RequestParam(required = false) Double lat) {
    return OwnSystems.of(
        lon == null || lat == null
            ? CoordinateSystems.findOwn(q, MOST_FOUND)
            : CoordinateSystems.at(lon, lat, MOST_AT_A_PLACE));
  }
}
