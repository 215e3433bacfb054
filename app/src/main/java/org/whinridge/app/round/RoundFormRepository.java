package org.whinridge.app.round;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface RoundFormRepository extends JpaRepository<RoundFormEntity, UUID> {
  List<RoundFormEntity> findByRoundIdInOrderByOrderInRound(Collection<UUID> rounds);
}
