package org.whinridge.app.project;

import org.springframework.data.jpa.repository.Query;
import org.springframework.data.jpa.repository.Lock;
import jakarta.persistence.LockModeType;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface ProjectRepository extends JpaRepository<ProjectEntity, UUID> {
  Optional<ProjectEntity> findByProjectKey(String key);

  @Lock(LockModeType.PESSIMISTIC_WRITE)
  @Query("select p from ProjectEntity p where p.id = :id")
  Optional<ProjectEntity> lock(UUID id);
}
