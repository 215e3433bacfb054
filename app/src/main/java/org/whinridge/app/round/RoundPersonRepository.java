package org.whinridge.app.round;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface RoundPersonRepository extends JpaRepository<RoundPersonEntity, UUID> {
  boolean existsByRoundIdAndPerson(UUID round, String person);

  List<RoundPersonEntity> findByRoundIdInOrderByPerson(Collection<UUID> rounds);

  Optional<RoundPersonEntity> findByRoundIdAndPerson(UUID round, String person);
}
