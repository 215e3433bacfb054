package org.whinridge.app.daybook;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.domain.Limit;
import org.springframework.data.domain.Pageable;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface VisitRepository extends JpaRepository<VisitEntity, UUID> {
  String LINE =
      "select new org.whinridge.app.daybook.VisitLine(v.id, v.layerId, v.featureId, v.person, v.endedAt, v.receivedAt, v.findings, v.state, v.decidedAt, v.decidedBy) from VisitEntity v ";
  String HEAD =
      "select new org.whinridge.app.daybook.VisitHead(v.id, v.state, v.reason, v.documentHash, v.receivedAt) from VisitEntity v ";

  /** Lines of a list, newest first, without documents. */
  @Query(
      LINE
          + "where v.layerId in :layers and v.state in :states order by v.receivedAt desc, v.id desc")
  List<VisitLine> lines(Collection<UUID> layers, Collection<String> states, Pageable page);

  long countByLayerIdInAndStateIn(Collection<UUID> layers, Collection<String> states);

  @Query(
      "select v.id from VisitEntity v where v.layerId in :layers and v.state in :states and (v.receivedAt < :at or v.receivedAt = :at and v.id < :id) order by v.receivedAt desc, v.id desc")
  List<UUID> below(
      Collection<UUID> layers, Collection<String> states, Instant at, UUID id, Limit limit);

  @Query(
      "select v.id from VisitEntity v where v.layerId in :layers and v.state in :states and (v.receivedAt > :at or v.receivedAt = :at and v.id > :id) order by v.receivedAt, v.id")
  List<UUID> above(
      Collection<UUID> layers, Collection<String> states, Instant at, UUID id, Limit limit);

  @Query(HEAD + "where v.person = :person order by v.receivedAt desc")
  List<VisitHead> heads(String person, Limit limit);

  @Query(HEAD + "where v.person = :person and v.id in :ids")
  List<VisitHead> heads(String person, Collection<UUID> ids);

  /** Visit and feature of all accepted visits of a layer, the oldest first. */
  @Query(
      "select v.id, v.featureId from VisitEntity v where v.layerId = :layer and v.state = 'accepted' order by v.endedAt")
  List<Object[]> acceptedOf(UUID layer);

  /** The last accepted visit of each feature with a form. */
  @Query(
      "select v from VisitEntity v where v.formId = :form and v.state = 'accepted' and v.featureId in :features and v.endedAt = (select max(w.endedAt) from VisitEntity w where w.formId = :form and w.state = 'accepted' and w.featureId = v.featureId)")
  List<VisitEntity> last(UUID form, Collection<UUID> features);

  @Query("select v.person from VisitEntity v where v.id = :id")
  Optional<String> personOf(UUID id);

  List<VisitEntity> findByHandInId(UUID handIn);

  /** Visits of a layer with an edition of its form; 0 is that of visits which came in files. */
  List<VisitEntity> findByLayerIdAndEdition(UUID layer, int edition);
}
