package org.whinridge.app.people;

import java.time.Duration;
import java.util.List;
import java.util.Locale;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.AccountState;
import org.whinridge.core.access.Names;

/** Sends links to new passwords to addresses that were confirmed. */
@Component
class ForgottenPasswords {
  private static final Logger LOG = LoggerFactory.getLogger(ForgottenPasswords.class);
  private final AccountRepository accounts;
  private final AccountLinks links;
  private final Mails mails;
  private final SignInWaits waits = new SignInWaits();

  ForgottenPasswords(AccountRepository accounts, AccountLinks links, Mails mails) {
    this.accounts = accounts;
    this.links = links;
    this.mails = mails;
  }

  /**
   * Somebody asks for a link.
   *
   * @param who a name or an e-mail address
   * @return how long whoever asks from this address must wait before it is looked at; zero when it
   *     was
   */
  Duration ask(String who, String remote, Locale reader) {
    Duration wait = waits.ask(who, remote);
    if (!wait.isZero() || !mails.canSend()) return wait;
    for (AccountEntity a : meant(who.strip()))
      if (a.state() == AccountState.ACTIVE && a.emailConfirmed) send(a, reader);
    return Duration.ZERO;
  }

  private List<AccountEntity> meant(String who) {
    if (who.contains("@")) return accounts.findByEmailIgnoreCaseAndEmailConfirmedTrue(who);
    return Names.of(who).flatMap(accounts::findById).stream().toList();
  }

  private void send(AccountEntity a, Locale reader) {
    try {
      String token = links.toNewPassword(a.name, a.name);
      mails.send(a.email, a.name, "password", "/new-password?key=" + token, reader);
    } catch (Refusal e) {
      LOG.info("no more links for {} now: {}", a.name, e.said());
    }
  }
}
