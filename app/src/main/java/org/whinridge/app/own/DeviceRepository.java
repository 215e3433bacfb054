package org.whinridge.app.own;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface DeviceRepository extends JpaRepository<DeviceEntity, UUID> {
  Optional<DeviceEntity> findByTokenHash(String hash);

  List<DeviceEntity> findByAccountInOrderByPairedAtDesc(Collection<String> accounts);

  List<DeviceEntity> findByAccountAndOwnIdAndRevokedAtIsNull(String account, String ownId);

  List<DeviceEntity> findByAccount(String account);
}
