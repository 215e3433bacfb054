package org.whinridge.app.project;

import java.io.Serializable;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.ProjectKey;
import org.whinridge.core.access.Role;
import org.whinridge.core.place.Box;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.Units;
import org.whinridge.formats.crs.CoordinateSystems;

/** Makes projects out of what a person said. */
@Service
public class ProjectMaking {
  private static final Pattern CODE = Pattern.compile("(?i)\\s*(?:EPSG:)?\\s*(\\d{4,6})\\s*");
  private final Projects projects;
  private final Members members;
  private final ProjectCare care;

  ProjectMaking(Projects projects, Members members, ProjectCare care) {
    this.care = care;
    this.projects = projects;
    this.members = members;
  }

  /**
   * What a person said of a new project.
   *
   * @param key "" for the one that the name gives
   * @param system a code such as EPSG:32629, with or without its beginning
   * @param units "" for metres
   * @param zone an identifier of the time zone database; "" for UTC
   * @param area west, south, east and north in degrees; "" for anywhere
   */
  public record Plan(String name, String key, String system, String units, String zone, String area)
      implements Serializable {
    /** Nothing said yet. */
    public static Plan empty() {
      return new Plan("", "", "", Units.METRIC.id(), "", "");
    }
  }

  /** Makes it; whoever makes it is its first coordinator. */
  @Transactional
  public Project make(Plan plan, String person) {
    ProjectSettings settings =
        ProjectSettings.typed(plan.name(), plan.units(), plan.zone(), plan.area());
    String name = settings.name();
    CoordinateSystem system = system(plan.system());
    Project made =
        projects.make(
            plan.key().isBlank() ? free(ProjectKey.from(name)) : asked(plan.key().strip()),
            name,
            system.code(),
            system.parameters(),
            null);
    care.set(made.id(), settings);
    members.give(made.id(), person, Role.COORDINATOR);
    return made;
  }

  /** Changes a project's settings as somebody said them; the rest of the plan is not looked at. */
  @Transactional
  public void change(UUID project, Plan plan) {
    care.set(project, ProjectSettings.typed(plan.name(), plan.units(), plan.zone(), plan.area()));
  }

  /** A project as it is, said as somebody would. */
  public Plan plan(Project p) {
    return new Plan(
        p.name(),
        p.key(),
        p.systemCode(),
        p.units().id(),
        p.zone().getId(),
        GeometryJson.parse(p.expectedArea()).map(g -> Box.around(g).text()).orElse(""));
  }

  private static CoordinateSystem system(String said) {
    Matcher m = CODE.matcher(said);
    return (m.matches()
            ? CoordinateSystems.own(Integer.parseInt(m.group(1)))
            : java.util.Optional.<CoordinateSystem>empty())
        .orElseThrow(() -> Refusal.refused("refused.projectSystem", "said", said.strip()));
  }

  /** An address key for a copy or another project of that name. */
  public String keyFor(String name) {
    return free(ProjectKey.from(name));
  }

  private String asked(String key) {
    if (!ProjectKey.isOne(key)) throw Refusal.refused("refused.projectKey", "key", key);
    if (projects.has(key)) throw Refusal.conflict("refused.projectKeyTaken", "key", key);
    return key;
  }

  /** The key, with a number behind it where another project has it. */
  private String free(String key) {
    String out = key;
    for (int n = 2; projects.has(out); n++) {
      String end = "-" + n;
      out = key.substring(0, Math.min(key.length(), ProjectKey.MOST - end.length())) + end;
    }
    return out;
  }
}
