package org.whinridge.app.daybook;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.data.domain.Limit;
import org.springframework.data.domain.Pageable;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;
import org.whinridge.app.round.VisitsForRounds;
import org.whinridge.core.visit.VisitState;

interface VisitRepository extends JpaRepository<VisitEntity, UUID> {
  String LINE =
      "select new org.whinridge.app.daybook.VisitLine(v.id, v.layerId, v.featureId, v.newFeature, v.person, v.endedAt, v.receivedAt, v.findings, v.state, v.clash, v.decidedAt, v.decidedBy) from VisitEntity v ";
  String HEAD =
      "select new org.whinridge.app.daybook.VisitHead(v.id, v.state, v.clash, v.reason, v.documentHash, v.receivedAt) from VisitEntity v ";

  /** Lines of a list, newest first, without documents. */
  @Query(
      LINE
          + "where v.layerId in :layers and v.state in :states order by v.receivedAt desc, v.id desc")
  List<VisitLine> lines(Collection<UUID> layers, Collection<VisitState> states, Pageable page);

  long countByLayerIdInAndStateIn(Collection<UUID> layers, Collection<VisitState> states);

  @Query(
      "select v.id from VisitEntity v where v.layerId in :layers and v.state in :states and (v.receivedAt < :at or v.receivedAt = :at and v.id < :id) order by v.receivedAt desc, v.id desc")
  List<UUID> below(
      Collection<UUID> layers, Collection<VisitState> states, Instant at, UUID id, Limit limit);

  @Query(
      "select v.id from VisitEntity v where v.layerId in :layers and v.state in :states and (v.receivedAt > :at or v.receivedAt = :at and v.id > :id) order by v.receivedAt, v.id")
  List<UUID> above(
      Collection<UUID> layers, Collection<VisitState> states, Instant at, UUID id, Limit limit);

  /** Visits that were kept without a round were sent by no device, and are told to none. */
  @Query(HEAD + "where v.person = :person and v.roundId is not null order by v.receivedAt desc")
  List<VisitHead> heads(String person, Limit limit);

  @Query(HEAD + "where v.person = :person and v.roundId is not null and v.id in :ids")
  List<VisitHead> heads(String person, Collection<UUID> ids);

  @Query(
      "select v.formId, count(v) from VisitEntity v where v.formId in :forms and v.startedAt >= :from group by v.formId")
  List<Object[]> countSince(Collection<UUID> forms, Instant from);

  String FILLED =
      "v.formId = :form and v.edition > 0 and v.state in (org.whinridge.core.visit.VisitState.WAITING, org.whinridge.core.visit.VisitState.ACCEPTED)";

  /** How many past visits there are, and when the last of them was accepted; null for none. */
  interface Past {
    long getN();

    Instant getNewest();
  }

  /** The past visits with a form, or that came in files for its layer. */
  @Query(
      "select count(v) as n, max(v.decidedAt) as newest from VisitEntity v where (v.formId = :form or v.edition = 0 and v.layerId = :layer) and v.state = org.whinridge.core.visit.VisitState.ACCEPTED")
  Past past(UUID form, UUID layer);

  /** How many visits filled with a form wait or are accepted. */
  @Query("select count(v) from VisitEntity v where " + FILLED)
  long countFilled(UUID form);

  /** These visits, the newest first. */
  @Query("select v from VisitEntity v where " + FILLED + " order by v.receivedAt desc, v.id desc")
  List<VisitEntity> filled(UUID form, Limit limit);

  /** The same below one of them. */
  @Query(
      "select v from VisitEntity v where "
          + FILLED
          + " and (v.receivedAt < :at or v.receivedAt = :at and v.id < :id) order by v.receivedAt desc, v.id desc")
  List<VisitEntity> filledBelow(UUID form, Instant at, UUID id, Limit limit);

  /** Visit and feature of all accepted visits of a layer, the oldest first. */
  @Query(
      "select v.id, v.featureId from VisitEntity v where v.layerId = :layer and v.state = org.whinridge.core.visit.VisitState.ACCEPTED order by v.endedAt")
  List<Object[]> acceptedOf(UUID layer);

  /**
   * The last accepted visit of each feature with a form, or that came in a file for the layer; a
   * day in the future is none that was.
   */
  @Query(
      "select v from VisitEntity v where (v.formId = :form or v.edition = 0 and v.layerId = :layer) and v.state = org.whinridge.core.visit.VisitState.ACCEPTED and v.featureId in :features and v.endedAt = (select max(w.endedAt) from VisitEntity w where (w.formId = :form or w.edition = 0 and w.layerId = :layer) and w.state = org.whinridge.core.visit.VisitState.ACCEPTED and w.endedAt <= :now and w.featureId = v.featureId)")
  List<VisitEntity> last(UUID form, UUID layer, Collection<UUID> features, Instant now);

  /** The accepted visits of a feature, the newest first. */
  @Query(
      "select v from VisitEntity v where v.layerId = :layer and v.featureId = :feature and v.state = org.whinridge.core.visit.VisitState.ACCEPTED order by v.endedAt desc, v.id desc")
  List<VisitEntity> ofFeature(UUID layer, UUID feature, Limit limit);

  /** Hand-in, moment, who brought it in, where it came from, and how many: of past visits. */
  @Query(
      "select v.handInId, min(v.receivedAt), min(v.decidedBy), min(v.reason), count(v) from VisitEntity v where v.layerId = :layer and v.edition = 0 group by v.handInId order by min(v.receivedAt) desc")
  List<Object[]> broughtTo(UUID layer);

  /**
   * The forms with which a feature was visited in a round; what was sent back is to be done again.
   */
  @Query(
      "select distinct v.formId from VisitEntity v where v.roundId = :round and v.featureId = :feature and v.state <> org.whinridge.core.visit.VisitState.SENT_BACK")
  Set<UUID> formsAt(UUID round, UUID feature);

  /** The visits of a round, the oldest first. */
  @Query(
      "select new org.whinridge.app.round.VisitsForRounds$Made(v.id, v.layerId, v.featureId, v.newFeature, v.person, v.endedAt, v.state) from VisitEntity v where v.roundId = :round order by v.endedAt, v.id")
  List<VisitsForRounds.Made> ofRound(UUID round);

  /** The features of a layer with a visit that ended then or later and was not sent back. */
  @Query(
      "select distinct v.featureId from VisitEntity v where v.layerId = :layer and v.endedAt >= :from and v.state in (org.whinridge.core.visit.VisitState.WAITING, org.whinridge.core.visit.VisitState.ACCEPTED)")
  Set<UUID> visitedSince(UUID layer, Instant from);

  @Query("select v.person from VisitEntity v where v.id = :id")
  Optional<String> personOf(UUID id);

  List<VisitEntity> findByHandInId(UUID handIn);

  /** Visits of a layer with an edition of its form; 0 is that of visits which came in files. */
  List<VisitEntity> findByLayerIdAndEdition(UUID layer, int edition);
}
