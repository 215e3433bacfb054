package org.whinridge.app.ops;

import java.io.IOException;
import org.springframework.boot.health.contributor.Health;
import org.springframework.boot.health.contributor.HealthIndicator;
import org.springframework.stereotype.Component;

/** Not ready while the disk has no room for what would be acknowledged. */
@Component("room")
class RoomHealth implements HealthIndicator {
  private final DiskRoom room;

  RoomHealth(DiskRoom room) {
    this.room = room;
  }

  @Override
  public Health health() {
    try {
      DiskRoom.Room now = room.now();
      return (now.tooLow() ? Health.outOfService() : Health.up())
          .withDetail("freeBytes", now.free())
          .build();
    } catch (IOException e) {
      return Health.down(e).build();
    }
  }
}
