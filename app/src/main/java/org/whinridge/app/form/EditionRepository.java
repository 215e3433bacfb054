package org.whinridge.app.form;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface EditionRepository extends JpaRepository<EditionEntity, UUID> {
  Optional<EditionEntity> findByFormIdAndNumber(UUID form, int number);

  Optional<EditionEntity> findFirstByFormIdOrderByNumberDesc(UUID form);

  /** All editions of forms without their documents, the newest first. */
  @Query(
      "select new org.whinridge.app.form.EditionHead(e.formId, e.number, e.publishedAt, e.publishedBy) from EditionEntity e where e.formId in :forms order by e.number desc")
  List<EditionHead> heads(Collection<UUID> forms);
}
