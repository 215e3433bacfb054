package org.whinridge.app.project;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.core.access.Right;
import org.whinridge.core.access.Role;

/** The people of a project, and what they are there. */
@Service
@Transactional(readOnly = true)
public class Members {
  private final MemberRepository members;

  Members(MemberRepository members) {
    this.members = members;
  }

  private static Rights rights(List<MemberEntity> all) {
    Set<Role> roles = EnumSet.noneOf(Role.class);
    all.forEach(m -> roles.add(m.role()));
    return new Rights(roles);
  }

  /** What somebody may do in the project with that key in its address. */
  public Rights rights(String account, String projectKey) {
    return rights(members.inProject(projectKey, account));
  }

  /** In which projects somebody may do something. */
  public Set<UUID> projectsOf(String account, Right right) {
    return members.findByAccount(account).stream()
        .filter(m -> right.isOf(Set.of(m.role())))
        .map(m -> m.projectId)
        .collect(Collectors.toSet());
  }

  /** Who may do something in a project, by name. */
  public List<String> whoMay(Right right, UUID project) {
    return members.findByProjectIdOrderByAccount(project).stream()
        .filter(m -> right.isOf(Set.of(m.role())))
        .map(m -> m.account)
        .distinct()
        .toList();
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
