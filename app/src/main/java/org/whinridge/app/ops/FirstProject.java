package org.whinridge.app.ops;

import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.context.annotation.Profile;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.whinridge.app.project.Projects;

/**
 * Outside the demo an empty store gets one empty project in degrees, so that there is a place to
 * begin.
 */
@Component
@Profile("!demo")
@Order(2)
class FirstProject implements ApplicationRunner {
  private final Projects projects;

  FirstProject(Projects projects) {
    this.projects = projects;
  }

  @Override
  public void run(ApplicationArguments args) {
    if (projects.all().isEmpty())
      projects.make(
          "first", "First project", "EPSG:4326", "+proj=longlat +datum=WGS84 +no_defs", null);
  }
}
