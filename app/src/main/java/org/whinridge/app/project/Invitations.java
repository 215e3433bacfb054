package org.whinridge.app.project;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.people.People;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.OneTimeKey;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Names;
import org.whinridge.core.access.Role;

/**
 * Links that make somebody a member of a project: each works once and for a while. Of a link the
 * store has a hash alone; whoever makes it sees it once.
 */
@Service
@Transactional(readOnly = true)
public class Invitations {
  /** How long a link works. */
  static final Duration WORKS = Duration.ofDays(7);

  /** The most that are made at once. */
  static final int MOST = 200;

  private final InvitationRepository invitations;
  private final Projects projects;
  private final Members members;
  private final People people;
  private final Locks locks;
  private final Clock clock = Clock.systemUTC();

  Invitations(
      InvitationRepository invitations,
      Projects projects,
      Members members,
      People people,
      Locks locks) {
    this.invitations = invitations;
    this.projects = projects;
    this.members = members;
    this.people = people;
    this.locks = locks;
  }

  /** A link that was just made: for whom, and what it holds; it can't be had again. */
  record Made(String name, String token) {}

  /** An invitation as it is shown. */
  record Invitation(
      UUID id, Project project, String name, Set<Role> roles, String madeBy, Instant expiresAt) {}

  private Invitation of(InvitationEntity e) {
    return new Invitation(
        e.id,
        projects.byId(e.projectId),
        e.name,
        Role.all(List.of(e.roles.split(" "))),
        e.madeBy,
        e.expiresAt);
  }

  /** The links of a project that nobody has used and that still work, the newest first. */
  List<Invitation> open(UUID project) {
    return invitations.findByProjectIdAndUsedAtIsNullOrderByMadeAtDesc(project).stream()
        .filter(e -> e.expiresAt.isAfter(clock.instant()))
        .map(this::of)
        .toList();
  }

  /** Makes a link for each of the pasted names; one without a name when none is given. */
  @Transactional
  public List<Made> make(UUID project, String pasted, Set<Role> roles, String by) {
    if (roles.isEmpty()) throw Refusal.refused("refused.inviteNoRole");
    List<String> names = Names.pasted(pasted);
    if (names.size() > MOST) throw Refusal.refused("refused.inviteTooMany", "most", MOST);
    for (String n : names)
      if (Names.of(n).isEmpty())
        throw Refusal.refused("refused.inviteName", "name", n, "most", Names.LONGEST);
    List<Made> out = new ArrayList<>();
    for (String n : names.isEmpty() ? List.of("") : names)
      out.add(save(project, Names.of(n).orElse(""), roles, by));
    return out;
  }

  private Made save(UUID project, String name, Set<Role> roles, String by) {
    String token = OneTimeKey.make();
    InvitationEntity e = new InvitationEntity();
    e.id = UUID.randomUUID();
    e.projectId = project;
    e.tokenHash = OneTimeKey.hash(token);
    e.name = name;
    e.roles = roles.stream().map(Role::id).collect(Collectors.joining(" "));
    e.madeBy = by;
    e.madeAt = clock.instant();
    e.expiresAt = e.madeAt.plus(WORKS);
    invitations.save(e);
    return new Made(name, token);
  }

  /** Takes a link back before anybody used it. */
  @Transactional
  public void withdraw(UUID project, UUID id) {
    invitations.delete(
        locks
            .lock(InvitationEntity.class, id)
            .filter(e -> e.projectId.equals(project) && e.usedAt == null)
            .orElseThrow(() -> Refusal.notFound("thing.invitation")));
  }

  /**
   * The invitation of a link.
   *
   * @throws Refusal when it was used, has run out or never was
   */
  Invitation find(String token) {
    return of(entity(token));
  }

  private InvitationEntity entity(String token) {
    InvitationEntity e =
        invitations
            .findByTokenHash(OneTimeKey.hash(token))
            .orElseThrow(() -> Refusal.forbidden("refused.invitationUnknown"));
    if (e.usedAt != null) throw Refusal.forbidden("refused.invitationUsed");
    if (!e.expiresAt.isAfter(clock.instant()))
      throw Refusal.forbidden("refused.invitationExpired", "by", e.madeBy);
    return e;
  }

  /** Somebody new takes it: the account is made, and is a member. */
  @Transactional
  public Project accept(String token, People.Newcomer somebody) {
    InvitationEntity e = locked(token);
    return join(e, people.make(somebody));
  }

  /** Somebody who has an account takes it. */
  @Transactional
  public Project accept(String token, String account) {
    return join(locked(token), account);
  }

  /** Of two who use one link at once, the second finds it used. */
  private InvitationEntity locked(String token) {
    locks.lock(InvitationEntity.class, entity(token).id);
    return entity(token);
  }

  private Project join(InvitationEntity e, String account) {
    for (Role r : Role.all(List.of(e.roles.split(" ")))) members.give(e.projectId, account, r);
    e.usedAt = clock.instant();
    e.usedBy = account;
    return projects.byId(e.projectId);
  }
}
