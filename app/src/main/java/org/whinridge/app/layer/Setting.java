package org.whinridge.app.layer;

import java.time.Instant;
import java.time.LocalDate;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.core.layer.NewFeature;
import org.whinridge.core.place.CoordinateSystem;

/** With what the defaults of a project's layers are worked out: clock and coordinate system. */
@Component
public class Setting {
  private final Projects projects;

  Setting(Projects projects) {
    this.projects = projects;
  }

  /** The setting of this moment. */
  public NewFeature.Setting now(UUID project) {
    Project p = projects.byId(project);
    Instant now = Layers.now();
    return new NewFeature.Setting(
        LocalDate.ofInstant(now, p.zone()),
        now,
        CoordinateSystem.of(p.systemCode(), p.systemDefinition()));
  }
}
