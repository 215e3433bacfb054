package org.whinridge.app.project;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface ProjectRepository extends JpaRepository<ProjectEntity, UUID> {
  Optional<ProjectEntity> findByProjectKey(String key);

  List<ProjectEntity> findByRemovedAtIsNotNullOrderByRemovedAtDesc();

  @Query(
      "select p from ProjectEntity p where p.removedAt is null and p.id in (select m.projectId from MemberEntity m where m.account = :account) order by p.name")
  List<ProjectEntity> of(String account);
}
