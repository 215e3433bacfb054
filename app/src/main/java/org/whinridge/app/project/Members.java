package org.whinridge.app.project;

import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.people.BuiltOnAccounts;
import org.whinridge.app.people.People;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.ProjectState;
import org.whinridge.core.access.Right;
import org.whinridge.core.access.Role;
import org.whinridge.core.said.Said;

/** The people of a project, and what they are there. */
@Service
@Transactional(readOnly = true)
public class Members implements BuiltOnAccounts {
  private final MemberRepository members;
  private final ProjectRepository projects;
  private final People people;
  private final Locks locks;

  Members(MemberRepository members, ProjectRepository projects, People people, Locks locks) {
    this.people = people;
    this.projects = projects;
    this.locks = locks;
    this.members = members;
  }

  /** What somebody may do in the project with that key in its address. */
  public Rights rights(String account, String projectKey) {
    Set<Role> roles = EnumSet.noneOf(Role.class);
    members.inProject(projectKey, account).forEach(m -> roles.add(m.role()));
    boolean closed =
        !roles.isEmpty()
            && projects
                .findByProjectKey(projectKey)
                .filter(p -> p.state() == ProjectState.CLOSED)
                .isPresent();
    return new Rights(roles, closed);
  }

  /** In which projects somebody may do something. */
  public Set<UUID> projectsOf(String account, Right right) {
    return members.ofAccount(account).stream()
        .filter(m -> right.isOf(Set.of(m.role())))
        .map(m -> m.projectId)
        .collect(Collectors.toCollection(HashSet::new));
  }

  /** Whether somebody has a right in a project, though it be removed. */
  boolean had(UUID project, String account, Right right) {
    return members.findByAccount(account).stream()
        .anyMatch(m -> m.projectId.equals(project) && right.isOf(Set.of(m.role())));
  }

  /** Who may go out in a project: inspectors, whose work it is, then others; by name. */
  public List<String> outdoors(UUID project) {
    return of(project).stream()
        .filter(m -> Right.GO_OUT.isOf(m.roles()))
        .sorted(Comparator.comparing(m -> !m.roles().contains(Role.INSPECTOR)))
        .map(Member::name)
        .toList();
  }

  /** A member and its roles. */
  public record Member(String name, Set<Role> roles) {}

  /** A project's people, by name. */
  public List<Member> of(UUID project) {
    Map<String, Set<Role>> out = new LinkedHashMap<>();
    members
        .findByProjectIdOrderByAccount(project)
        .forEach(
            m -> out.computeIfAbsent(m.account, x -> EnumSet.noneOf(Role.class)).add(m.role()));
    return out.entrySet().stream().map(e -> new Member(e.getKey(), e.getValue())).toList();
  }

  /**
   * Gives a member other roles; none takes it out of the project.
   *
   * @throws Refusal when nobody would be left who looks after the project
   */
  @Transactional
  public void set(UUID project, String account, Set<Role> roles) {
    locks.lock(ProjectEntity.class, project).orElseThrow(() -> Refusal.notFound("thing.project"));
    List<MemberEntity> all = members.findByProjectIdOrderByAccount(project);
    List<MemberEntity> own = all.stream().filter(m -> m.account.equals(account)).toList();
    if (own.isEmpty()) throw Refusal.notFound("thing.member");
    boolean somebody =
        roles.stream().anyMatch(r -> Right.MANAGE.isOf(Set.of(r)))
            || all.stream()
                .anyMatch(m -> !m.account.equals(account) && Right.MANAGE.isOf(Set.of(m.role())));
    if (!somebody) throw Refusal.conflict("refused.lastCoordinator", "name", account);
    own.stream().filter(m -> !roles.contains(m.role())).forEach(members::delete);
    roles.forEach(r -> give(project, account, r));
  }

  /** A project needs somebody who looks after it. */
  @Override
  public Optional<Said> mustStay(String account) {
    return members.ofAccount(account).stream()
        .filter(m -> Right.MANAGE.isOf(Set.of(m.role())))
        .filter(m -> isTheOnly(m.projectId, account))
        .map(m -> projects.findById(m.projectId).map(p -> p.name).orElse(""))
        .findFirst()
        .map(name -> Said.of("refused.onlyCoordinator", "name", account, "project", name));
  }

  private boolean isTheOnly(UUID project, String account) {
    return members.findByProjectIdOrderByAccount(project).stream()
        .noneMatch(m -> !m.account.equals(account) && Right.MANAGE.isOf(Set.of(m.role())));
  }

  /**
   * Whoever makes a link to somebody's new password could take it themselves: so they must look
   * after every project of that person, who is no keeper.
   *
   * @throws Refusal when they may not
   */
  void mayRenew(UUID project, String account, String by) {
    List<MemberEntity> theirs = members.ofAccount(account);
    if (theirs.stream().noneMatch(m -> m.projectId.equals(project)))
      throw Refusal.notFound("thing.member");
    Set<UUID> own = projectsOf(by, Right.MANAGE);
    if (people.isKeeper(account) || !theirs.stream().allMatch(m -> own.contains(m.projectId)))
      throw Refusal.forbidden("refused.keeperRenews", "name", account);
  }

  @Override
  @Transactional
  public void removed(String account) {
    members.deleteAll(members.findByAccount(account));
  }

  /** Makes somebody a member, or gives a member another role. */
  @Transactional
  public void give(UUID project, String account, Role role) {
    boolean has =
        members.findByAccount(account).stream()
            .anyMatch(m -> m.projectId.equals(project) && m.role() == role);
    if (!has) members.save(new MemberEntity(project, account, role));
  }
}
