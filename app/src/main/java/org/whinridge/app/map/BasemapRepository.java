package org.whinridge.app.map;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface BasemapRepository extends JpaRepository<BasemapEntity, UUID> {
  List<BasemapEntity> findByProjectIdOrderByMadeAt(UUID project);

  Optional<BasemapEntity> findByIdAndProjectId(UUID id, UUID project);

  boolean existsByProjectIdAndName(UUID project, String name);
}
