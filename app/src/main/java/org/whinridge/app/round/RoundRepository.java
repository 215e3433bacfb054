package org.whinridge.app.round;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface RoundRepository extends JpaRepository<RoundEntity, UUID> {
  List<RoundEntity> findByProjectIdOrderByMadeAtDesc(UUID project);

  List<RoundEntity> findByPersonOrderByMadeAtDesc(String person);

  Optional<RoundEntity> findByIdAndProjectId(UUID id, UUID project);

  long countByProjectId(UUID project);

  boolean existsByPersonAndTellsPositionTrue(String person);

  boolean existsByProjectIdAndPersonAndTellsPositionTrue(UUID project, String person);
}
