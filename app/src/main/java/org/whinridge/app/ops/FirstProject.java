package org.whinridge.app.ops;

import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.context.annotation.Profile;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.Projects;
import org.whinridge.core.access.Role;

/**
 * Outside the demo an empty store gets one empty project in degrees, so that there is a place to
 * begin.
 */
@Component
@Profile("!demo")
@Order(2)
class FirstProject implements ApplicationRunner {
  private final Projects projects;
  private final Members members;

  FirstProject(Projects projects, Members members) {
    this.members = members;
    this.projects = projects;
  }

  @Override
  public void run(ApplicationArguments args) {
    if (projects.all().isEmpty())
      members.give(
          projects
              .make(
                  "first",
                  "First project",
                  "EPSG:4326",
                  "+proj=longlat +datum=WGS84 +no_defs",
                  null)
              .id(),
          "coordinator",
          Role.COORDINATOR);
  }
}
