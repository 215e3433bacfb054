package org.whinridge.app.round;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.UUID;

@Entity
@Table(name = "round_form")
class RoundFormEntity {
  @Id UUID id;
  UUID roundId;
  UUID formId;

  @Column(name = "place_in_round")
  int orderInRound;
}
