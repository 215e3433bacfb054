package org.whinridge.app.daybook;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.ParseException;
import java.nio.charset.StandardCharsets;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.data.domain.PageRequest;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Members;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Writing;
import org.whinridge.core.said.Said;

/** What was set aside: kept for ever, listed page by page, and acted on. */
@Service
@Transactional(readOnly = true)
public class SetAsides {
  /** The fates in which somebody may still act. */
  public static final Set<SetAside.Fate> OPEN = EnumSet.of(SetAside.Fate.OPEN, SetAside.Fate.GIVEN);

  private static final int MOST_GIVEN = 100;
  private static final int LONGEST_REASON = 1000;
  private final SetAsideRepository repository;
  private final Members members;
  private final Locks locks;

  SetAsides(SetAsideRepository repository, Members members, Locks locks) {
    this.repository = repository;
    this.members = members;
    this.locks = locks;
  }

  /** What a text came with. */
  record Came(
      UUID handIn,
      String sentId,
      Optional<UUID> project,
      String person,
      String device,
      String deviceId) {}

  /**
   * Keeps a text under an id made of its sender and its content: the same text again is the same
   * one, another text under the same id is another.
   *
   * @return whether it was not kept before
   */
  @Transactional
  boolean keep(Came came, String text, Said reason) {
    UUID id =
        UUID.nameUUIDFromBytes((came.person() + "\n" + text).getBytes(StandardCharsets.UTF_8));
    if (repository.existsById(id)) return false;
    SetAsideEntity e = new SetAsideEntity();
    e.id = id;
    e.handInId = came.handIn();
    e.projectId = came.project().orElse(null);
    e.sentId = came.sentId();
    e.person = came.person();
    e.device = came.device();
    e.deviceId = came.deviceId();
    e.receivedAt = Layers.now();
    e.document = text;
    e.reason = reason;
    repository.save(e);
    return true;
  }

  /** A page of them, newest first, without their texts. */
  public List<SetAside> page(UUID project, Set<SetAside.Fate> fates, int page, int size) {
    return repository.lines(project, fates, PageRequest.of(page, size)).stream()
        .map(SetAsideLine::said)
        .toList();
  }

  /** How many there are. */
  public long count(UUID project, Set<SetAside.Fate> fates) {
    return repository.count(project, fates);
  }

  /** What a person is to look into. */
  List<SetAside> givenTo(String person) {
    return repository.givenTo(person, PageRequest.of(0, MOST_GIVEN)).stream()
        .map(SetAsideLine::said)
        .toList();
  }

  /** What came from a person under some ids. */
  List<SetAside> sent(List<String> ids, String person) {
    return ids.isEmpty()
        ? List.of()
        : repository.sent(ids, person).stream().map(SetAsideLine::said).toList();
  }

  /** Its whole text. */
  public String text(UUID project, UUID id) {
    return one(project, id).document;
  }

  private SetAsideEntity one(UUID project, UUID id) {
    return repository
        .findById(id)
        .filter(e -> e.projectId == null || e.projectId.equals(project))
        .orElseThrow(() -> Refusal.notFound("thing.textThatWasSet"));
  }

  /** A text with what it came with, for reading it again. */
  record Stored(Came came, com.eclipsesource.json.JsonValue document) {}

  Stored stored(UUID project, UUID id) {
    SetAsideEntity e = one(project, id);
    if (!e.fate.isOpen()) throw over(e);
    try {
      return new Stored(
          new Came(
              e.handInId,
              e.sentId,
              Optional.ofNullable(e.projectId),
              e.person,
              e.device,
              e.deviceId),
          Json.parse(e.document));
    } catch (ParseException x) {
      throw Refusal.refused("refused.noJsonStaysAs", "why", Refusal.said(x));
    }
  }

  private static Refusal over(SetAsideEntity e) {
    return Refusal.conflict(
        "refused.setAsideIsAlready",
        "fate",
        Said.of("fateWord." + e.fate.name()),
        "person",
        e.decidedBy);
  }

  private SetAsideEntity open(UUID project, UUID id) {
    one(project, id);
    SetAsideEntity e =
        locks
            .lock(SetAsideEntity.class, id)
            .orElseThrow(() -> Refusal.notFound("thing.textThatWasSet"));
    if (!e.fate.isOpen()) throw over(e);
    return e;
  }

  private static void decide(SetAsideEntity e, SetAside.Fate fate, String reason, String by) {
    e.fate = fate;
    e.fateReason = cut(reason.strip());
    e.decidedAt = Layers.now();
    e.decidedBy = by;
  }

  @Transactional
  void wasRead(UUID project, UUID id, String by) {
    decide(open(project, id), SetAside.Fate.READ_AGAIN, "", by);
  }

  /** Says why it still can't be read. */
  @Transactional
  void stillNot(UUID project, UUID id, Said reason) {
    open(project, id).reason = reason;
  }

  /** Gives it to a person, who finds it in the day book at the next contact. */
  @Writing
  public void give(UUID project, UUID id, String to, String note, String by) {
    if (!members.outdoors(project).contains(to)) throw Refusal.refused("refused.chooseWhoLookInto");
    SetAsideEntity e = open(project, id);
    decide(e, SetAside.Fate.GIVEN, note, by);
    e.givenTo = to;
  }

  /** Puts it away; the text stays. */
  @Writing
  public void putAway(UUID project, UUID id, String reason, String by) {
    if (reason.isBlank()) throw Refusal.refused("refused.sayWhyNobodyNeeds");
    decide(open(project, id), SetAside.Fate.PUT_AWAY, reason, by);
  }

  private static String cut(String s) {
    return s.substring(0, Math.min(LONGEST_REASON, s.length()));
  }
}
