package org.whinridge.app.layer;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface LayerRepository extends JpaRepository<LayerEntity, UUID> {
  List<LayerEntity> findByProjectIdAndStateOrderByName(UUID project, String state);

  Optional<LayerEntity> findByIdAndProjectId(UUID id, UUID project);

  @Lock(LockModeType.PESSIMISTIC_WRITE)
  @Query("select l from LayerEntity l where l.id = :id")
  Optional<LayerEntity> lock(UUID id);

  boolean existsByProjectIdAndName(UUID project, String name);

  long countByProjectIdAndState(UUID project, String state);
}
