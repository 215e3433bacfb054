package org.whinridge.app.round;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;
import org.whinridge.core.round.StopState;

interface StopRepository extends JpaRepository<StopEntity, UUID> {
  List<StopEntity> findByRoundIdInOrderByOrderInRound(Collection<UUID> rounds);

  Optional<StopEntity> findByRoundIdAndFeatureId(UUID round, UUID feature);

  List<StopEntity> findByRoundIdAndFeatureIdIn(UUID round, Collection<UUID> features);

  /** How many stops of a round are in a state. */
  interface InState {
    UUID getRound();

    StopState getState();

    long getN();
  }

  @Query(
      "select s.roundId as round, s.state as state, count(s) as n from StopEntity s"
          + " where s.roundId in (select r.id from RoundEntity r where r.projectId = :project) group by s.roundId, s.state")
  List<InState> states(UUID project);
}
