package org.whinridge.app.layer;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface LayerRepository extends JpaRepository<LayerEntity, UUID> {
  List<LayerEntity> findByProjectIdOrderByName(UUID project);

  Optional<LayerEntity> findByIdAndProjectId(UUID id, UUID project);

  boolean existsByProjectIdAndName(UUID project, String name);

  long countByProjectId(UUID project);
}
