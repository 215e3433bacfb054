package org.whinridge.app.project;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.ProjectKey;
import org.whinridge.core.access.Role;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.formats.crs.CoordinateSystems;

/** Makes projects out of what a person said. */
@Service
public class ProjectMaking {
  private static final Pattern CODE = Pattern.compile("(?i)\\s*(?:EPSG:)?\\s*(\\d{4,6})\\s*");
  private final Projects projects;
  private final Members members;

  ProjectMaking(Projects projects, Members members) {
    this.projects = projects;
    this.members = members;
  }

  /**
   * What a person said of a new project.
   *
   * @param key "" for the one that the name gives
   * @param system a code such as EPSG:32629, with or without its beginning
   */
  public record Plan(String name, String key, String system) {}

  /** Makes it; whoever makes it is its first coordinator. */
  @Transactional
  public Project make(Plan plan, String person) {
    String name = ProjectCare.named(plan.name());
    CoordinateSystem system = system(plan.system());
    Project made =
        projects.make(
            plan.key().isBlank() ? free(ProjectKey.from(name)) : asked(plan.key().strip()),
            name,
            system.code(),
            system.parameters(),
            null);
    members.give(made.id(), person, Role.COORDINATOR);
    return made;
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
