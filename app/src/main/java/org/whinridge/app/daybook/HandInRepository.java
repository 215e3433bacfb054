package org.whinridge.app.daybook;

import java.time.Instant;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface HandInRepository extends JpaRepository<HandInEntity, UUID> {
  /** The bytes of all that a person handed in since a moment. */
  @Query(
      "select coalesce(sum(h.bytes), 0) from HandInEntity h where h.person = :person and h.receivedAt >= :since")
  long bytesSince(String person, Instant since);

  /** Counts one more text of a hand-in. */
  @Modifying
  @Query(
      "update HandInEntity h set h.visits = h.visits + 1, h.bytes = h.bytes + :bytes where h.id = :id")
  void count(UUID id, long bytes);
}
