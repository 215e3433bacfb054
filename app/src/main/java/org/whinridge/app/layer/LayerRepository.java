package org.whinridge.app.layer;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface LayerRepository extends JpaRepository<LayerEntity, UUID> {
  List<LayerEntity> findByProjectIdAndStateOrderByName(UUID project, String state);

  Optional<LayerEntity> findByIdAndProjectId(UUID id, UUID project);

  boolean existsByProjectIdAndName(UUID project, String name);

  long countByProjectIdAndState(UUID project, String state);
}
