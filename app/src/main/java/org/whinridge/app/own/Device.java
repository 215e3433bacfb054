package org.whinridge.app.own;

import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.whinridge.core.access.DeviceClock;
import org.whinridge.core.access.DeviceState;

/**
 * A device of a person as it is shown.
 *
 * @param bytesLeft what its store has room for, as it told
 * @param clockOffSeconds by how much its clock is ahead of the server's
 */
public record Device(
    UUID id,
    String account,
    String name,
    DeviceState state,
    Instant pairedAt,
    Optional<Instant> contactAt,
    String version,
    Optional<Long> bytesLeft,
    int visits,
    int photos,
    Optional<Long> clockOffSeconds,
    Optional<Position> position,
    Optional<Instant> askedAt,
    String revokedBy,
    Optional<Instant> wipedAt) {
  /** Where it was at a contact, in degrees of WGS 84. */
  public record Position(double lon, double lat, Instant at) {}

  /** Whether its clock is so far off that somebody should see to it. */
  public boolean clockIsOff() {
    return clockOffSeconds.filter(DeviceClock::isOff).isPresent();
  }

  Device withoutPosition() {
    return new Device(
        id,
        account,
        name,
        state,
        pairedAt,
        contactAt,
        version,
        bytesLeft,
        visits,
        photos,
        clockOffSeconds,
        Optional.empty(),
        askedAt,
        revokedBy,
        wipedAt);
  }

  static Device of(DeviceEntity e) {
    DeviceState state =
        e.revokedAt != null
            ? DeviceState.REVOKED
            : e.tokenHash == null ? DeviceState.SIGNED_OUT : DeviceState.PAIRED;
    return new Device(
        e.id,
        e.account,
        e.name,
        state,
        e.pairedAt,
        Optional.ofNullable(e.contactAt),
        e.version,
        Optional.ofNullable(e.bytesLeft),
        e.carriesVisits,
        e.carriesPhotos,
        Optional.ofNullable(e.clockOffSeconds),
        e.positionAt == null
            ? Optional.empty()
            : Optional.of(new Position(e.lon, e.lat, e.positionAt)),
        Optional.ofNullable(e.askedAt),
        e.revokedBy == null ? "" : e.revokedBy,
        Optional.ofNullable(e.wipedAt));
  }
}
