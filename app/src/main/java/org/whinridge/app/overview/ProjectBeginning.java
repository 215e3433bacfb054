package org.whinridge.app.overview;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.map.Basemaps;
import org.whinridge.app.map.ProjectMaps;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.ProjectMaking;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;

/** Makes projects together with the basemap that they begin with. */
@Service
class ProjectBeginning {
  /** The choice of a file of tiles, which is brought in once the project is there. */
  static final String A_FILE = "file";

  private final ProjectMaking making;
  private final ProjectMaps maps;
  private final Basemaps basemaps;
  private final Projects projects;
  private final Members members;

  ProjectBeginning(
      ProjectMaking making,
      ProjectMaps maps,
      Basemaps basemaps,
      Projects projects,
      Members members) {
    this.members = members;
    this.making = making;
    this.maps = maps;
    this.basemaps = basemaps;
    this.projects = projects;
  }

  /** A basemap of tiles in another project of the person's. */
  record Other(UUID id, String name, UUID projectId, String project) {}

  /** The projects that somebody may copy instead. */
  public List<Project> copies(String person) {
    Set<UUID> managed = members.projectsOf(person, Right.MANAGE);
    return projects.of(person).stream().filter(p -> managed.contains(p.id())).toList();
  }

  /** The basemaps of tiles that somebody's projects have. */
  @Transactional(readOnly = true)
  public List<Other> basemaps(String person) {
    List<Other> out = new ArrayList<>();
    for (Project p : projects.of(person))
      for (Basemaps.Basemap b : basemaps.list(p.id()))
        if (b.grid().isPresent())
          out.add(new Other(UUID.fromString(b.id()), b.name(), p.id(), p.name()));
    return out;
  }

  /**
   * Makes a project.
   *
   * @param basemap {@link Basemaps#OUTLINE}, {@link Basemaps#NONE}, {@link #A_FILE}, the id of a
   *     basemap in another of the person's projects, or "" for no choice
   */
  @Transactional(rollbackFor = IOException.class)
  public Project make(ProjectMaking.Plan plan, String basemap, String person) throws IOException {
    Project made = making.make(plan, person);
    projects.flush();
    if (basemap.isEmpty() || basemap.equals(A_FILE)) return made; // whichever there will be
    String first = basemap;
    if (!List.of(Basemaps.OUTLINE, Basemaps.NONE).contains(basemap)) {
      Other other =
          basemaps(person).stream()
              .filter(o -> o.id().toString().equals(basemap))
              .findFirst()
              .orElseThrow(() -> Refusal.notFound("thing.basemap"));
      first = basemaps.copy(other.projectId(), other.id(), made.id(), person).toString();
    }
    maps.begin(made.id(), first);
    return made;
  }
}
