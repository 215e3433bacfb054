package org.whinridge.app.people;

import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface AccountLinkRepository extends JpaRepository<AccountLinkEntity, UUID> {
  Optional<AccountLinkEntity> findByTokenHash(String hash);

  long countByAccountAndMadeAtAfter(String account, Instant at);

  void deleteByAccountAndKindAndUsedAtIsNull(String account, String kind);
}
