package org.whinridge.app.layer;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface LedgerRepository extends JpaRepository<LedgerEntity, UUID> {
  @Query(
      "select e from LedgerEntity e where e.featureId = :feature or e.id = (select f.madeByEntry from FeatureEntity f where f.id = :feature) order by e.at desc, e.version desc")
  List<LedgerEntity> ofFeature(UUID feature);

  java.util.Optional<LedgerEntity> findFirstByVisitIdAndCauseAndTakenBackByIsNullOrderByVersionDesc(
      UUID visit, String cause);

  /** The entries of a feature beyond a version, without the import that made it. */
  @Query(
      "select e from LedgerEntity e where e.featureId = :feature and e.version > :version order by e.version")
  List<LedgerEntity> after(UUID feature, long version);

  @Query(
      "select e from LedgerEntity e where e.layerId = :layer and (e.groupId is null or e.id = e.groupId) order by e.at desc")
  List<LedgerEntity> acts(UUID layer, org.springframework.data.domain.Limit limit);
}
