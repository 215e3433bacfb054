package org.whinridge.app.form;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface FormFileRepository extends JpaRepository<FormFileEntity, UUID> {
  Optional<FormFileEntity> findByIdAndProjectId(UUID id, UUID project);

  boolean existsByIdAndProjectId(UUID id, UUID project);

  /** Which of some are pictures, without reading any. */
  @Query(
      "select f.id from FormFileEntity f where f.projectId = :project and f.id in :ids and f.mediaType like 'image/%'")
  List<UUID> pictures(UUID project, Collection<UUID> ids);

  /** The same bytes under the same name, without reading any. */
  @Query(
      "select f.id from FormFileEntity f where f.projectId = :project and f.sha256 = :sha256 and f.name = :name")
  List<UUID> same(UUID project, String sha256, String name);

  /** How many bytes a project's files have together. */
  @Query("select coalesce(sum(f.bytes), 0) from FormFileEntity f where f.projectId = :project")
  long bytes(UUID project);
}
