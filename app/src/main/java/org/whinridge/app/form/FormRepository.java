package org.whinridge.app.form;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface FormRepository extends JpaRepository<FormEntity, UUID> {
  List<FormEntity> findByProjectIdOrderByChangedAtDesc(UUID project);

  Optional<FormEntity> findByIdAndProjectId(UUID id, UUID project);

  List<FormEntity> findByLayerId(UUID layer);

  long countByProjectId(UUID project);

  @Lock(LockModeType.PESSIMISTIC_WRITE)
  @Query("select f from FormEntity f where f.id = :id and f.projectId = :project")
  Optional<FormEntity> lock(UUID id, UUID project);
}
