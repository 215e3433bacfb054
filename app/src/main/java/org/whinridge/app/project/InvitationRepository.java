package org.whinridge.app.project;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface InvitationRepository extends JpaRepository<InvitationEntity, UUID> {
  Optional<InvitationEntity> findByTokenHash(String hash);

  List<InvitationEntity> findByProjectIdAndUsedAtIsNullOrderByMadeAtDesc(UUID project);
}
