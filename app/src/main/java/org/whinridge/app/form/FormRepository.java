package org.whinridge.app.form;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface FormRepository extends JpaRepository<FormEntity, UUID> {
  List<FormEntity> findByProjectIdOrderByChangedAtDesc(UUID project);

  Optional<FormEntity> findByIdAndProjectId(UUID id, UUID project);

  List<FormEntity> findByLayerId(UUID layer);

  long countByProjectId(UUID project);
}
