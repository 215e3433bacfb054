package org.whinridge.app.form;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface FormTrialRepository extends JpaRepository<FormTrialEntity, UUID> {
  /** A form's trials, the oldest first. */
  List<FormTrialEntity> findByFormIdOrderByKeptAtAscIdAsc(UUID form);

  Optional<FormTrialEntity> findByIdAndFormId(UUID id, UUID form);

  long countByFormId(UUID form);
}
