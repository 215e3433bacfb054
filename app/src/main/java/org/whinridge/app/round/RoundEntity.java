package org.whinridge.app.round;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.time.LocalDate;
import java.util.UUID;
import org.whinridge.core.round.RoundAllows;

@Entity
@Table(name = "round")
class RoundEntity {
  @Id UUID id;
  @Version Long rowVersion;
  UUID projectId;
  String name;
  String note;

  /** As {@link org.whinridge.core.round.Note#pictureList} writes them. */
  String pictures;

  LocalDate starts;
  LocalDate due;
  int expected;
  RoundAllows allows;
  @Lob String area;
  @Lob String way;
  Instant madeAt;
  String madeBy;
  boolean tellsPosition;
  Instant closedAt;
  String closedBy;
}
