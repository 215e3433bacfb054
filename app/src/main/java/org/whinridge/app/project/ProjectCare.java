package org.whinridge.app.project;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.people.People;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.ProjectState;
import org.whinridge.core.access.Right;
import org.whinridge.core.text.Composed;

/** What becomes of projects after they were made. */
@Service
@Transactional(readOnly = true)
public class ProjectCare {
  /** How long a removed project is kept. */
  public static final Duration KEPT = Duration.ofDays(30);

  private final ProjectRepository projects;
  private final Members members;
  private final People people;
  private final Locks locks;
  private final Clock clock = Clock.systemUTC();

  ProjectCare(ProjectRepository projects, Members members, People people, Locks locks) {
    this.projects = projects;
    this.members = members;
    this.people = people;
    this.locks = locks;
  }

  private ProjectEntity locked(UUID id, ProjectState state) {
    ProjectEntity e =
        locks.lock(ProjectEntity.class, id).orElseThrow(() -> Refusal.notFound("thing.project"));
    if (e.state() != state) throw Refusal.conflict("refused.projectIs", "state", word(e.state()));
    return e;
  }

  private static org.whinridge.core.said.Said word(ProjectState state) {
    return org.whinridge.core.said.Said.of("project.state." + state.id());
  }

  /** Changes what can be changed of a project at any time. */
  @Transactional
  public void set(UUID id, ProjectSettings settings) {
    ProjectEntity e =
        locks.lock(ProjectEntity.class, id).orElseThrow(() -> Refusal.notFound("thing.project"));
    e.name = settings.name();
    e.units = settings.units().id();
    e.zone = settings.zone().getId();
    e.expectedArea = settings.area().isEmpty() ? null : settings.area();
  }

  /** Makes it read only, and hides it from devices. */
  @Transactional
  public void close(UUID id, String by) {
    ProjectEntity e = locked(id, ProjectState.OPEN);
    e.closedAt = clock.instant();
    e.closedBy = by;
  }

  /** Work goes on again. */
  @Transactional
  public void reopen(UUID id) {
    ProjectEntity e = locked(id, ProjectState.CLOSED);
    e.closedAt = null;
    e.closedBy = null;
  }

  /**
   * Takes a project away; it can be brought back for {@link #KEPT}.
   *
   * @param typed its name, as somebody typed it to show that they mean this one
   */
  @Transactional
  public void remove(UUID id, String typed, String by) {
    ProjectEntity e =
        locks.lock(ProjectEntity.class, id).orElseThrow(() -> Refusal.notFound("thing.project"));
    if (!Composed.of(typed).strip().equals(e.name))
      throw Refusal.refused("refused.typeName", "name", e.name);
    if (e.state() == ProjectState.REMOVED)
      throw Refusal.conflict("refused.projectIs", "state", word(e.state()));
    e.removedAt = clock.instant();
    e.removedBy = by;
  }

  /** A project that was removed. */
  public record Removed(UUID id, String name, Instant at, String by, Instant until) {}

  /** The removed projects that somebody may bring back, those removed last first. */
  public List<Removed> removed(String person) {
    boolean keeper = people.isKeeper(person);
    return projects.findByRemovedAtIsNotNullOrderByRemovedAtDesc().stream()
        .filter(e -> keeper || members.had(e.id, person, Right.MANAGE))
        .map(e -> new Removed(e.id, e.name, e.removedAt, e.removedBy, e.removedAt.plus(KEPT)))
        .toList();
  }

  /**
   * Brings a removed project back as it was; others than its coordinators and a keeper find none.
   */
  @Transactional
  public void bringBack(UUID id, String person) {
    if (removed(person).stream().noneMatch(r -> r.id().equals(id)))
      throw Refusal.notFound("thing.project");
    ProjectEntity e = locked(id, ProjectState.REMOVED);
    e.removedAt = null;
    e.removedBy = null;
  }

  /** Those whose time is over. */
  public List<UUID> over() {
    Instant before = clock.instant().minus(KEPT);
    return projects.findByRemovedAtIsNotNullOrderByRemovedAtDesc().stream()
        .filter(e -> e.removedAt.isBefore(before))
        .map(e -> e.id)
        .toList();
  }
}
