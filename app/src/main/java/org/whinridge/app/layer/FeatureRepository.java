package org.whinridge.app.layer;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface FeatureRepository extends JpaRepository<FeatureEntity, UUID> {
  @Query(
      "select f from FeatureEntity f where f.layerId = :layer and f.removed = false order by f.placeInLayer")
  List<FeatureEntity> firstInLayer(UUID layer, Limit limit);

  List<FeatureEntity> findByLayerIdAndIdInOrderByPlaceInLayer(UUID layer, Collection<UUID> ids);

  Optional<FeatureEntity> findByIdAndLayerId(UUID id, UUID layer);
}
