package org.whinridge.app.own;

import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface PairingRepository extends JpaRepository<PairingEntity, UUID> {
  Optional<PairingEntity> findByCodeHash(String hash);

  void deleteByAccount(String account);
}
