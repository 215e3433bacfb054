package org.whinridge.app.round;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface RoundRepository extends JpaRepository<RoundEntity, UUID> {
  /** Without people a round is for anyone. */
  String MINE =
      " from RoundEntity r where r.closedAt is null and r.projectId in :projects and"
          + " (exists (select 1 from RoundPersonEntity p where p.roundId = r.id and p.person = :person and p.takenOffAt is null)"
          + " or not exists (select 1 from RoundPersonEntity p where p.roundId = r.id))";

  List<RoundEntity> findByProjectIdOrderByMadeAtDesc(UUID project);

  @Query("select r" + MINE + " order by r.madeAt desc")
  List<RoundEntity> mine(String person, Collection<UUID> projects);

  @Query("select count(r)" + MINE + " and r.tellsPosition = true")
  long mineThatTell(String person, Collection<UUID> projects);

  Optional<RoundEntity> findByIdAndProjectId(UUID id, UUID project);

  /** A round, and where it is. */
  interface Where {
    UUID getId();

    UUID getProjectId();
  }

  List<Where> findByClosedAtIsNullOrderByMadeAtDesc();

  long countByProjectId(UUID project);
}
