package org.whinridge.app.photo;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface PhotoRepository extends JpaRepository<PhotoEntity, UUID> {
  List<PhotoEntity> findByVisitIdInOrderByPlaceInVisit(Collection<UUID> visits);
}
