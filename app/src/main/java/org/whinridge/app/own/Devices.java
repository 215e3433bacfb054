package org.whinridge.app.own;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.people.AccessEnded;
import org.whinridge.app.people.BuiltOnAccounts;
import org.whinridge.app.people.Sessions;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.OneTimeKey;
import org.whinridge.app.shell.Refusal;

/**
 * The devices that people carry. A device is let in by a token, of which the store has a hash
 * alone.
 */
@Service
@Transactional(readOnly = true)
public class Devices implements BuiltOnAccounts {
  private static final int LONGEST_NAME = 80;
  private static final int LONGEST_ID = 40;

  private final DeviceRepository devices;
  private final PositionsAllowed positions;
  private final Sessions sessions;
  private final Locks locks;
  private final Clock clock = Clock.systemUTC();

  Devices(DeviceRepository devices, PositionsAllowed positions, Sessions sessions, Locks locks) {
    this.devices = devices;
    this.positions = positions;
    this.sessions = sessions;
    this.locks = locks;
  }

  /** How a device came to be let in. */
  enum By {
    /** By a code made at the desk. */
    CODE,
    /** By signing in on it. */
    SIGN_IN
  }

  /** What a device gets: once, and in no address. */
  record Token(String token, String person) {}

  /** A device as the filter knows it. */
  record Known(UUID id, String account, boolean revoked) {}

  /** The devices of people, those that were let in last first. */
  public List<Device> of(Collection<String> accounts) {
    return devices.findByAccountInOrderByPairedAtDesc(accounts).stream().map(Device::of).toList();
  }

  /** The devices of a project's people, without positions that no round of it lets them tell. */
  public List<Device> in(UUID project, Collection<String> accounts) {
    return of(accounts).stream()
        .map(
            d ->
                d.position().isEmpty() || positions.in(project, d.account())
                    ? d
                    : d.withoutPosition())
        .toList();
  }

  /**
   * Lets a device in as a person's; one that is let in already gets another token.
   *
   * @param ownId by which the device knows itself
   * @param session the one in which somebody signed in on it; null when paired by a code
   */
  @Transactional
  Token letIn(String account, String ownId, String name, By by, String session) {
    String id = ownId.strip();
    if (id.isEmpty() || id.length() > LONGEST_ID) throw Refusal.refused("refused.deviceId");
    String token = OneTimeKey.make();
    DeviceEntity e =
        devices.findByAccountAndOwnIdAndRevokedAtIsNull(account, id).stream()
            .findFirst()
            .flatMap(x -> locks.lock(DeviceEntity.class, x.id))
            .filter(x -> x.revokedAt == null) // not since it was found either
            .orElseGet(DeviceEntity::new);
    if (e.id == null) e.id = UUID.randomUUID();
    e.account = account;
    e.ownId = id;
    String called = name.strip();
    e.name = called.substring(0, Math.min(called.length(), LONGEST_NAME));
    e.tokenHash = OneTimeKey.hash(token);
    e.pairedAt = clock.instant();
    e.pairedBy = by.name();
    e.sessionId = session;
    devices.save(e);
    return new Token(token, account);
  }

  /** Whose device has this token. */
  Optional<Known> byToken(String token) {
    return devices
        .findByTokenHash(OneTimeKey.hash(token))
        .map(e -> new Known(e.id, e.account, e.revokedAt != null));
  }

  /** A revoked device was told to clear away what it took out. */
  @Transactional
  void toldToWipe(UUID id) {
    locks.lock(DeviceEntity.class, id).ifPresent(e -> e.wipedAt = clock.instant());
  }

  /** A device was in contact; null when whoever asks is none. */
  @Transactional
  public void contact(UUID id, DeviceReport report) {
    if (id == null || report == null) return;
    DeviceEntity e = locks.lock(DeviceEntity.class, id).orElse(null);
    if (e == null) return;
    Instant now = clock.instant();
    e.contactAt = now;
    e.version = report.version() == null ? "" : report.version();
    e.bytesLeft = report.left();
    e.carriesVisits = Math.max(0, report.visits());
    e.carriesPhotos = Math.max(0, report.photos());
    e.clockOffSeconds = report.at() == null ? null : Duration.between(now, report.at()).toSeconds();
    if (report.hasPlace() && positions.anywhere(e.account)) {
      e.lon = report.lon();
      e.lat = report.lat();
      e.positionAt = now;
    }
    if (e.carriesVisits + e.carriesPhotos == 0) {
      e.askedAt = null;
      e.askedBy = null;
    }
  }

  /** Since when a device is asked to hand in; empty when nobody asked, or it is none. */
  public Optional<Instant> asked(UUID id) {
    return id == null
        ? Optional.empty()
        : devices.findById(id).flatMap(e -> Optional.ofNullable(e.askedAt));
  }

  private DeviceEntity own(UUID id, Collection<String> accounts) {
    return locks
        .lock(DeviceEntity.class, id)
        .filter(e -> accounts.contains(e.account))
        .orElseThrow(() -> Refusal.notFound("thing.device"));
  }

  /**
   * A device of one of these people is let in no more. What it carries stays on it until it is
   * handed in by the same person; the session in which it was let in ends, too.
   */
  @Transactional
  public void revoke(UUID id, Collection<String> accounts, String by) {
    DeviceEntity e = own(id, accounts);
    if (e.revokedAt != null) return;
    e.revokedAt = clock.instant();
    e.revokedBy = by;
    if (e.sessionId != null) sessions.end(e.sessionId);
  }

  /** Asks a device to hand in what it carries; it says so at its next contact. */
  @Transactional
  public void ask(UUID id, Collection<String> accounts, String by) {
    DeviceEntity e = own(id, accounts);
    if (e.revokedAt != null || e.tokenHash == null)
      throw Refusal.conflict("refused.deviceNotLetIn");
    e.askedAt = clock.instant();
    e.askedBy = by;
  }

  /** Gives a device another name. */
  @Transactional
  void rename(UUID id, String account, String name) {
    String called = name.strip();
    if (called.isEmpty() || called.length() > LONGEST_NAME)
      throw Refusal.refused("refused.deviceName", "most", LONGEST_NAME);
    own(id, List.of(account)).name = called;
  }

  /** Whoever is signed out everywhere is so on devices too. */
  @EventListener
  @Transactional
  public void ended(AccessEnded e) {
    for (DeviceEntity d : devices.findByAccount(e.account()))
      if (d.revokedAt == null) d.tokenHash = null;
  }
}
