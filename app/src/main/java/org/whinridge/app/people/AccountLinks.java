package org.whinridge.app.people;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.OneTimeKey;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.text.Word;

/**
 * Links that work once and for a day: to a new password, and back from a mail. Of a link the store
 * has a hash alone.
 */
@Service
@Transactional(readOnly = true)
public class AccountLinks {
  /** How long a link works. */
  static final Duration WORKS = Duration.ofDays(1);

  /** The most that are made for one account within an hour. */
  static final int MOST_AN_HOUR = 5;

  /** What a link does. */
  enum Kind implements Word {
    /** A new password may be set. */
    PASSWORD("password"),
    /** A mail has arrived. */
    EMAIL("email");

    private final String id;

    Kind(String id) {
      this.id = id;
    }

    @Override
    public String id() {
      return id;
    }
  }

  private final AccountLinkRepository links;
  private final Accounts accounts;
  private final Locks locks;
  private final Clock clock = Clock.systemUTC();

  AccountLinks(AccountLinkRepository links, Accounts accounts, Locks locks) {
    this.links = links;
    this.accounts = accounts;
    this.locks = locks;
  }

  /**
   * Makes a link to a new password; those made before and not used end.
   *
   * @return what the link holds, which can't be had again
   */
  @Transactional
  public String toNewPassword(String account, String by) {
    return make(Kind.PASSWORD, account, "", by);
  }

  /** Makes a link that shows that a mail to this address arrives. */
  @Transactional
  public String toConfirm(String account, String email) {
    return make(Kind.EMAIL, account, email, account);
  }

  private String make(Kind kind, String account, String email, String by) {
    Instant now = clock.instant();
    if (!accounts.isActive(account)) throw Refusal.notFound("thing.account");
    if (links.countByAccountAndMadeAtAfter(account, now.minus(Duration.ofHours(1))) >= MOST_AN_HOUR)
      throw Refusal.tooMuch("refused.linksAnHour", "most", MOST_AN_HOUR);
    String token = OneTimeKey.make();
    AccountLinkEntity e = new AccountLinkEntity();
    e.id = UUID.randomUUID();
    e.kind = kind.id();
    e.account = account;
    e.tokenHash = OneTimeKey.hash(token);
    e.email = email;
    e.madeBy = by;
    e.madeAt = now;
    e.expiresAt = now.plus(WORKS);
    links.save(e);
    return token;
  }

  /**
   * Whose password a link renews.
   *
   * @throws Refusal when it was used, has run out or never was
   */
  String forPassword(String token) {
    return found(token, Kind.PASSWORD).account;
  }

  private AccountLinkEntity found(String token, Kind kind) {
    return links
        .findByTokenHash(OneTimeKey.hash(token))
        .filter(
            e ->
                Word.of(Kind.values(), e.kind).filter(kind::equals).isPresent()
                    && e.usedAt == null
                    && e.expiresAt.isAfter(clock.instant()))
        .orElseThrow(() -> Refusal.forbidden("refused.linkUnknown"));
  }

  private AccountLinkEntity used(String token, Kind kind) {
    locks.lock(AccountLinkEntity.class, found(token, kind).id);
    AccountLinkEntity e = found(token, kind);
    e.usedAt = clock.instant();
    return e;
  }

  /** Sets the password that a link allows, once; what other links there are end. */
  @Transactional
  void renew(String token, String password) {
    AccountLinkEntity e = used(token, Kind.PASSWORD);
    accounts.renewPassword(e.account, password);
    links.deleteByAccountAndKindAndUsedAtIsNull(e.account, Kind.PASSWORD.id());
  }

  /** A mail arrived. */
  @Transactional
  void confirm(String token) {
    AccountLinkEntity e = used(token, Kind.EMAIL);
    if (!accounts.confirm(e.account, e.email)) throw Refusal.forbidden("refused.linkUnknown");
  }
}
