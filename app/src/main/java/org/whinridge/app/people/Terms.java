package org.whinridge.app.people;

import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.text.Composed;

/**
 * The terms of the installation, when it has some: a text by the keeper. Each version is kept, and
 * who accepted which.
 */
@Service
@Transactional(readOnly = true)
public class Terms {
  private static final int LONGEST = 100_000;
  private final TermsRepository terms;
  private final TermsAcceptedRepository accepted;

  Terms(TermsRepository terms, TermsAcceptedRepository accepted) {
    this.terms = terms;
    this.accepted = accepted;
  }

  /** A version of the terms. */
  public record Version(int number, String text, Instant at) {}

  /** What holds now; empty when the installation has no terms, or none any more. */
  public Optional<Version> now() {
    return terms
        .findFirstByOrderByVersionDesc()
        .filter(t -> !t.content.isBlank())
        .map(t -> new Version(t.version, t.content, t.madeAt));
  }

  /** How many accepted a version. */
  public long acceptedBy(int version) {
    return accepted.countByVersion(version);
  }

  /** Another text holds from now on; an empty one takes the terms away. */
  @Transactional
  public void set(String text, String by) {
    String content = Composed.of(text).strip();
    if (content.length() > LONGEST) throw Refusal.refused("refused.termsTooLong", "most", LONGEST);
    Optional<TermsEntity> before = terms.findFirstByOrderByVersionDesc();
    if (before.map(t -> t.content).orElse("").equals(content)) return;
    TermsEntity t = new TermsEntity();
    t.version = before.map(b -> b.version).orElse(0) + 1;
    t.content = content;
    t.madeBy = by;
    t.madeAt = Instant.now();
    terms.saveAndFlush(t);
  }

  /** Which terms somebody has still to accept. */
  public Optional<Version> open(String account) {
    return now().filter(v -> !accepted.existsByAccountAndVersion(account, v.number()));
  }

  /**
   * Somebody accepts.
   *
   * @param version what they have read
   * @throws Refusal when other terms hold by now, or they were not accepted
   */
  @Transactional
  public void accept(String account, int version) {
    Optional<Version> now = now();
    if (now.isEmpty()) return;
    if (now.get().number() != version) throw Refusal.refused("refused.acceptTerms");
    if (accepted.existsByAccountAndVersion(account, version)) return;
    TermsAcceptedEntity e = new TermsAcceptedEntity();
    e.id = UUID.randomUUID();
    e.account = account;
    e.version = version;
    e.acceptedAt = Instant.now();
    accepted.save(e);
  }
}
