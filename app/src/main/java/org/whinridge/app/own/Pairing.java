package org.whinridge.app.own;

import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.people.Accounts;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.OneTimeKey;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.PairingCode;

/** Codes by which people let their devices in: each works once and for ten minutes. */
@Service
class Pairing {
  /** How long a code works. */
  static final Duration WORKS = Duration.ofMinutes(10);

  private static final SecureRandom RANDOM = new SecureRandom();

  private final PairingRepository pairings;
  private final Devices devices;
  private final Accounts accounts;
  private final Locks locks;
  private final Clock clock;

  @org.springframework.beans.factory.annotation.Autowired
  Pairing(PairingRepository pairings, Devices devices, Accounts accounts, Locks locks) {
    this(pairings, devices, accounts, locks, Clock.systemUTC());
  }

  Pairing(
      PairingRepository pairings, Devices devices, Accounts accounts, Locks locks, Clock clock) {
    this.pairings = pairings;
    this.devices = devices;
    this.accounts = accounts;
    this.locks = locks;
    this.clock = clock;
  }

  /** A new code for a device of a person; the one before works no more. */
  @Transactional
  String make(String account) {
    pairings.deleteByAccount(account);
    String code = PairingCode.of(RANDOM.nextLong());
    PairingEntity e = new PairingEntity();
    e.id = UUID.randomUUID();
    e.codeHash = OneTimeKey.hash(code);
    e.account = account;
    e.madeAt = clock.instant();
    e.expiresAt = e.madeAt.plus(WORKS);
    pairings.save(e);
    return code;
  }

  /**
   * A device is let in by what somebody typed on it.
   *
   * @throws Refusal when it is no code, was used, or has run out; all told alike
   */
  @Transactional
  Devices.Token use(String typed, String ownId, String name) {
    Instant now = clock.instant();
    PairingEntity e =
        PairingCode.typed(typed)
            .flatMap(code -> pairings.findByCodeHash(OneTimeKey.hash(code)))
            .flatMap(p -> locks.lock(PairingEntity.class, p.id))
            .filter(p -> p.usedAt == null && p.expiresAt.isAfter(now))
            .filter(p -> accounts.isActive(p.account))
            .orElseThrow(() -> Refusal.forbidden("refused.pairingCode"));
    e.usedAt = now;
    return devices.letIn(e.account, ownId, name, Devices.By.CODE, null);
  }
}
