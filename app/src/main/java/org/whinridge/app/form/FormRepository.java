package org.whinridge.app.form;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface FormRepository extends JpaRepository<FormEntity, UUID> {
  List<FormEntity> findByProjectIdOrderByChangedAtDesc(UUID project);

  Optional<FormEntity> findByIdAndProjectId(UUID id, UUID project);

  @Query("select f.revision from FormEntity f where f.id = :id and f.projectId = :project")
  Optional<Long> revision(UUID id, UUID project);

  @Query("select f.projectId from FormEntity f where f.id = :id")
  Optional<UUID> project(UUID id);

  List<FormEntity> findByLayerId(UUID layer);

  @Query("select f.id from FormEntity f where f.publishesAt <= :now order by f.publishesAt")
  List<UUID> due(java.time.Instant now);

  long countByProjectId(UUID project);
}
