package org.whinridge.app.daybook;

import jakarta.persistence.LockModeType;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface VisitRepository extends JpaRepository<VisitEntity, UUID> {
  List<VisitEntity> findByLayerIdInAndStateInOrderByReceivedAtDesc(
      Collection<UUID> layers, Collection<String> states, Limit limit);

  List<VisitEntity> findByStateOrderByReceivedAtDesc(String state, Limit limit);

  long countByLayerIdInAndStateIn(Collection<UUID> layers, Collection<String> states);

  List<VisitEntity> findByPersonOrderByReceivedAtDesc(String person, Limit limit);

  List<VisitEntity> findByLayerIdAndStateOrderByEndedAt(UUID layer, String state);

  List<VisitEntity> findByFormIdAndStateAndFeatureIdInOrderByEndedAt(
      UUID form, String state, Collection<UUID> features);

  List<VisitEntity> findByHandInId(UUID handIn);

  @Lock(LockModeType.PESSIMISTIC_WRITE)
  @Query("select v from VisitEntity v where v.id = :id")
  Optional<VisitEntity> lock(UUID id);
}
