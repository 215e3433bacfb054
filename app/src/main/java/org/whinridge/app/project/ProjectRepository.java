package org.whinridge.app.project;

import jakarta.persistence.LockModeType;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface ProjectRepository extends JpaRepository<ProjectEntity, UUID> {
  Optional<ProjectEntity> findByProjectKey(String key);

  @Lock(LockModeType.PESSIMISTIC_WRITE)
  @Query("select p from ProjectEntity p where p.id = :id")
  Optional<ProjectEntity> lock(UUID id);
}
