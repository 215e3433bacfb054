package org.whinridge.app.people;

import java.util.List;
import java.util.regex.Pattern;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.data.domain.PageRequest;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.Paged;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.AccountState;
import org.whinridge.core.access.NewPassword;
import org.whinridge.core.text.Composed;
import org.whinridge.core.text.Fold;

/** What becomes of accounts after they were made. */
@Service
@Transactional(readOnly = true)
public class Accounts {
  private static final int LONGEST_EMAIL = 254;
  private static final int LONGEST_ORGANISATION = 120;
  private static final Pattern EMAIL =
      Pattern.compile("[^\\s@<>,;\"]{1,64}@[^\\s@<>,;\"]+\\.[^\\s@<>,;\"]+");

  private final AccountRepository accounts;
  private final PasswordEncoder encoder;
  private final CommonPasswords common;
  private final Sessions sessions;
  private final FormerPeople former;
  private final List<BuiltOnAccounts> built;
  private final Locks locks;
  private final ApplicationEventPublisher events;

  Accounts(
      AccountRepository accounts,
      PasswordEncoder encoder,
      CommonPasswords common,
      Sessions sessions,
      FormerPeople former,
      List<BuiltOnAccounts> built,
      Locks locks,
      ApplicationEventPublisher events) {
    this.accounts = accounts;
    this.encoder = encoder;
    this.common = common;
    this.sessions = sessions;
    this.former = former;
    this.built = built;
    this.locks = locks;
    this.events = events;
  }

  /** An account. */
  public Account get(String name) {
    return accounts
        .findById(name)
        .map(AccountEntity::shown)
        .orElseThrow(() -> Refusal.notFound("thing.account"));
  }

  /** A page of the accounts whose name or organisation has a text, by name. */
  public Paged<Account> list(String text, int page) {
    String found = Fold.lower(text.strip());
    return Paged.of(
        accounts.countWith(found),
        page,
        n ->
            accounts.with(found, PageRequest.of(n, Paged.SIZE)).stream()
                .map(AccountEntity::shown)
                .toList());
  }

  private AccountEntity locked(String name) {
    return locks
        .lock(AccountEntity.class, name)
        .orElseThrow(() -> Refusal.notFound("thing.account"));
  }

  /**
   * Somebody takes another password; other windows of theirs are signed out.
   *
   * @param session the one that stays
   */
  @Transactional
  public void changePassword(String name, String old, String password, String session) {
    AccountEntity a = locked(name);
    if (!encoder.matches(old, a.passwordHash)) throw Refusal.refused("refused.oldPassword");
    setPassword(a, password);
    sessions.end(name, session);
  }

  /** Takes another password by a link that proved who it is; all windows are signed out. */
  @Transactional
  void renewPassword(String name, String password) {
    AccountEntity a = locked(name);
    if (a.state() != AccountState.ACTIVE) throw Refusal.forbidden("refused.linkUnknown");
    setPassword(a, password);
    sessions.end(name, "");
  }

  private void setPassword(AccountEntity a, String password) {
    NewPassword.fault(password, a.name, common::has)
        .ifPresent(
            fault -> {
              throw Refusal.refused("refused.sentence", "why", fault);
            });
    a.passwordHash = encoder.encode(password);
  }

  /**
   * What somebody says of themselves.
   *
   * @return whether the e-mail address is another than before
   */
  @Transactional
  public boolean about(String name, String email, String organisation) {
    String address = email.strip();
    String firm = Composed.of(organisation).strip();
    if (!address.isEmpty()
        && (address.length() > LONGEST_EMAIL || !EMAIL.matcher(address).matches()))
      throw Refusal.refused("refused.email", "said", address);
    if (firm.length() > LONGEST_ORGANISATION)
      throw Refusal.refused("refused.organisation", "most", LONGEST_ORGANISATION);
    AccountEntity a = locked(name);
    boolean other = !a.email.equals(address);
    if (other) a.emailConfirmed = false;
    a.email = address;
    a.organisation = firm;
    return other;
  }

  /** The mail to this address arrived; nothing when it is no longer theirs. */
  @Transactional
  boolean confirm(String name, String email) {
    AccountEntity a = locked(name);
    if (!a.email.equals(email)) return false;
    a.emailConfirmed = true;
    return true;
  }

  /** How somebody reads numbers and moments, and whether single keys do something. */
  @Transactional
  public void style(String name, String zone, String style, boolean singleKeys) {
    if (!zone.isEmpty() && !WrittenStyle.isZone(zone))
      throw Refusal.refused("refused.zone", "said", zone);
    if (!style.isEmpty() && !WrittenStyle.isOne(style))
      throw Refusal.refused("refused.writtenStyle", "said", style);
    AccountEntity a = locked(name);
    a.zone = zone;
    a.writtenStyle = style;
    a.singleKeys = singleKeys;
  }

  /** Ends all that lets somebody in: windows and devices. What devices carry stays there. */
  @Transactional
  public void signOutEverywhere(String name) {
    locked(name);
    end(name);
  }

  private void end(String name) {
    sessions.end(name, "");
    events.publishEvent(new AccessEnded(name));
  }

  private void mayGo(AccountEntity a) {
    if (a.keeper && a.state() == AccountState.ACTIVE && accounts.keepers() < 2)
      throw Refusal.conflict("refused.lastKeeper", "name", a.name);
    for (BuiltOnAccounts b : built)
      b.mustStay(a.name)
          .ifPresent(
              why -> {
                throw Refusal.conflict("refused.sentence", "why", why);
              });
  }

  /** Nobody signs in with it any more. */
  @Transactional
  public void deactivate(String name) {
    keeperRows();
    AccountEntity a = locked(name);
    if (a.state() != AccountState.ACTIVE) throw Refusal.conflict("refused.notActive", "name", name);
    mayGo(a);
    a.state = AccountState.DEACTIVATED.id();
    end(name);
  }

  /** It may be used again. */
  @Transactional
  public void activate(String name) {
    AccountEntity a = locked(name);
    if (a.state() != AccountState.DEACTIVATED)
      throw Refusal.conflict("refused.notDeactivated", "name", name);
    a.state = AccountState.ACTIVE.id();
  }

  /** Another keeper, or one less. */
  @Transactional
  public void keeper(String name, boolean keeper) {
    keeperRows();
    AccountEntity a = locked(name);
    if (a.state() != AccountState.ACTIVE) throw Refusal.conflict("refused.notActive", "name", name);
    if (a.keeper && !keeper && accounts.keepers() < 2)
      throw Refusal.conflict("refused.lastKeeper", "name", name);
    a.keeper = keeper;
  }

  /** Of two keepers who go at once, the second waits for the first. */
  private void keeperRows() {
    accounts.findByKeeperTrueOrderByName().forEach(k -> locks.lock(AccountEntity.class, k.name));
  }

  /**
   * The account is over. Its name stays where it stands, or is replaced there.
   *
   * @return the name that stands there now
   */
  @Transactional
  public String remove(String name, boolean keepName) {
    keeperRows();
    AccountEntity a = locked(name);
    if (a.state() == AccountState.REMOVED)
      throw Refusal.conflict("refused.isRemoved", "name", name);
    mayGo(a);
    end(name);
    built.forEach(b -> b.removed(name));
    a.state = AccountState.REMOVED.id();
    a.passwordHash = "";
    a.keeper = false;
    a.email = "";
    a.emailConfirmed = false;
    a.organisation = "";
    accounts.flush();
    if (keepName) return name;
    String by = former.replace(name);
    built.forEach(b -> b.renamed(name, by));
    return by;
  }

  /** Whether somebody may sign in. */
  public boolean isActive(String name) {
    return accounts.findById(name).filter(a -> a.state() == AccountState.ACTIVE).isPresent();
  }
}
