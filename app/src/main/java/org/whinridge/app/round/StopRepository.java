package org.whinridge.app.round;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface StopRepository extends JpaRepository<StopEntity, UUID> {
  List<StopEntity> findByRoundIdInOrderByOrderInRound(Collection<UUID> rounds);

  Optional<StopEntity> findByRoundIdAndFeatureId(UUID round, UUID feature);
}
