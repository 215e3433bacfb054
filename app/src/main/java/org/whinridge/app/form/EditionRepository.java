package org.whinridge.app.form;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface EditionRepository extends JpaRepository<EditionEntity, UUID> {
  Optional<EditionEntity> findByFormIdAndNumber(UUID form, int number);

  Optional<EditionEntity> findFirstByFormIdOrderByNumberDesc(UUID form);

  List<EditionEntity> findByFormIdOrderByNumberDesc(UUID form);

  List<EditionEntity> findByFormIdInOrderByNumber(Collection<UUID> forms);
}
