package org.whinridge.app.project;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.shell.JobProblem;

/** Projects by key and id. */
@Service
@Transactional(readOnly = true)
public class Projects {
  private final ProjectRepository repository;

  Projects(ProjectRepository repository) {
    this.repository = repository;
  }

  private static Project of(ProjectEntity e) {
    return new Project(e.id, e.projectKey, e.name, e.systemCode, e.systemDefinition);
  }

  /** The project with that key in its address. */
  public Project byKey(String key) {
    return repository
        .findByProjectKey(key)
        .map(Projects::of)
        .orElseThrow(() -> JobProblem.notFound("project"));
  }

  /** The project with that id. */
  public Project byId(UUID id) {
    return repository
        .findById(id)
        .map(Projects::of)
        .orElseThrow(() -> JobProblem.notFound("project"));
  }

  /** All projects. */
  public List<Project> all() {
    return repository.findAll().stream().map(Projects::of).toList();
  }

  /** The plain basemap as GeoJSON; an empty collection when the project has none. */
  public String basemap(UUID id) {
    return repository
        .findById(id)
        .flatMap(e -> Optional.ofNullable(e.basemap))
        .orElse("{\"type\":\"FeatureCollection\",\"features\":[]}");
  }

  /** Makes a project. */
  @Transactional
  public Project make(
      String key, String name, String systemCode, String systemDefinition, String basemap) {
    return of(
        repository.save(
            new ProjectEntity(
                UUID.randomUUID(), key, name, systemCode, systemDefinition, basemap)));
  }
}
