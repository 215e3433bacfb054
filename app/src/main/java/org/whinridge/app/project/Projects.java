package org.whinridge.app.project;

import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.ProjectState;
import org.whinridge.core.place.Units;
import org.whinridge.core.text.Word;

/** Projects by key and id. */
@Service
@Transactional(readOnly = true)
public class Projects {
  private final ProjectRepository repository;
  private final Locks locks;

  Projects(ProjectRepository repository, Locks locks) {
    this.locks = locks;
    this.repository = repository;
  }

  static Project of(ProjectEntity e) {
    return new Project(
        e.id,
        e.projectKey,
        e.name,
        e.systemCode,
        e.systemDefinition,
        Word.of(Units.values(), e.units).orElseThrow(),
        ZoneId.of(e.zone),
        e.expectedArea == null ? "" : e.expectedArea,
        e.state());
  }

  /** The project with that key in its address. */
  public Project byKey(String key) {
    return repository
        .findByProjectKey(key)
        .filter(e -> e.state() != ProjectState.REMOVED)
        .map(Projects::of)
        .orElseThrow(() -> Refusal.notFound("thing.project"));
  }

  /** Whether a project has that key. */
  boolean has(String key) {
    return repository.findByProjectKey(key).isPresent();
  }

  /** The project with that id. */
  public Project byId(UUID id) {
    return repository
        .findById(id)
        .map(Projects::of)
        .orElseThrow(() -> Refusal.notFound("thing.project"));
  }

  /** The projects of a person, by name. */
  public List<Project> of(String account) {
    return repository.of(account).stream().map(Projects::of).toList();
  }

  /** All projects that were not removed. */
  public List<Project> all() {
    return repository.findAll().stream()
        .filter(e -> e.state() != ProjectState.REMOVED)
        .map(Projects::of)
        .toList();
  }

  /** The plain basemap as GeoJSON; an empty collection when the project has none. */
  public String basemap(UUID id) {
    return repository
        .findById(id)
        .flatMap(e -> Optional.ofNullable(e.basemap))
        .orElse("{\"type\":\"FeatureCollection\",\"features\":[]}");
  }

  /** Whether the project came with a plain basemap. */
  public boolean hasBasemap(UUID id) {
    return repository
        .findById(id)
        .filter(e -> e.basemap != null && !e.basemap.isBlank())
        .isPresent();
  }

  /** What was saved of the project's map, as JSON, and how often. */
  public record SavedMap(Optional<String> json, long revision) {}

  /** The project's map as it was saved last. */
  public SavedMap map(UUID id) {
    ProjectEntity e = repository.findById(id).orElseThrow(() -> Refusal.notFound("thing.project"));
    return new SavedMap(Optional.ofNullable(e.map), e.mapRevision);
  }

  /**
   * Saves the project's map.
   *
   * @param revision the revision that it was made from
   */
  @Transactional
  public void saveMap(UUID id, String json, long revision) {
    ProjectEntity e =
        locks.lock(ProjectEntity.class, id).orElseThrow(() -> Refusal.notFound("thing.project"));
    if (e.mapRevision != revision) throw Refusal.conflict("refused.somebodyElseSavedProjects");
    e.map = json;
    e.mapRevision++;
  }

  /** Writes what this transaction has made so far, for whoever asks the tables. */
  @Transactional
  public void flush() {
    repository.flush();
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
