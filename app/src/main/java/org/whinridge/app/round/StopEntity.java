package org.whinridge.app.round;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.util.UUID;
import org.whinridge.core.round.StopState;

@Entity
@Table(name = "stop")
class StopEntity {
  @Id UUID id;
  @Version Long rowVersion;
  UUID roundId;
  UUID layerId;
  UUID featureId;

  @Column(name = "place_in_round")
  int orderInRound;

  StopState state;
  String reason;
  String note;

  /** As {@link org.whinridge.core.round.Note#pictureList} writes them. */
  String pictures;

  String person;
}
