package org.whinridge.app.form;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface FormTemplateRepository extends JpaRepository<FormTemplateEntity, UUID> {
  /** A project's templates without their content, by title. */
  @Query(
      "select new org.whinridge.app.form.FormTemplates$Kept(t.id, t.title, t.keptAt, t.keptBy) from FormTemplateEntity t where t.projectId = :project order by lower(t.title), t.keptAt")
  List<FormTemplates.Kept> heads(UUID project);

  Optional<FormTemplateEntity> findByIdAndProjectId(UUID id, UUID project);

  long countByProjectId(UUID project);
}
