package org.whinridge.app.people;

import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface TermsAcceptedRepository extends JpaRepository<TermsAcceptedEntity, UUID> {
  boolean existsByAccountAndVersion(String account, int version);

  long countByVersion(int version);
}
