package org.whinridge.app.photo;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface PhotoRepository extends JpaRepository<PhotoEntity, UUID> {
  List<PhotoEntity> findByVisitIdInOrderByPlaceInVisit(Collection<UUID> visits);

  List<PhotoEntity> findByLayerIdAndFeatureIdInOrderByFeatureIdAscPlaceInVisitAsc(
      UUID layer, Collection<UUID> features);

  List<PhotoEntity> findByLayerIdOrderByFeatureIdAscPlaceInVisitAsc(UUID layer);

  boolean existsBySha256(String sha256);

  /** The bytes of all photos of a person that arrived since a moment. */
  @Query(
      "select coalesce(sum(p.bytes), 0) from PhotoEntity p where p.person = :person and p.receivedAt >= :since")
  long bytesSince(String person, Instant since);
}
