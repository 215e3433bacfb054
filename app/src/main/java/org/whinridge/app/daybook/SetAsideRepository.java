package org.whinridge.app.daybook;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.springframework.data.domain.Pageable;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface SetAsideRepository extends JpaRepository<SetAsideEntity, UUID> {
  /** Without the texts, newest first; what belongs to no project that is known is everybody's. */
  @Query(
      "select new org.whinridge.app.daybook.SetAsideLine(s.id, s.sentId, s.person, s.device, s.receivedAt, s.reason, s.fate, s.fateReason, s.givenTo, s.decidedAt, s.decidedBy) "
          + "from SetAsideEntity s where (s.projectId = :project or s.projectId is null) and s.fate in :fates order by s.receivedAt desc, s.id desc")
  List<SetAsideLine> lines(UUID project, Collection<SetAside.Fate> fates, Pageable page);

  @Query(
      "select count(s) from SetAsideEntity s where (s.projectId = :project or s.projectId is null) and s.fate in :fates")
  long count(UUID project, Collection<SetAside.Fate> fates);

  @Query(
      "select new org.whinridge.app.daybook.SetAsideLine(s.id, s.sentId, s.person, s.device, s.receivedAt, s.reason, s.fate, s.fateReason, s.givenTo, s.decidedAt, s.decidedBy) "
          + "from SetAsideEntity s where s.givenTo = :person and s.fate = org.whinridge.app.daybook.SetAside.Fate.GIVEN order by s.receivedAt desc")
  List<SetAsideLine> givenTo(String person, Pageable page);

  @Query(
      "select new org.whinridge.app.daybook.SetAsideLine(s.id, s.sentId, s.person, s.device, s.receivedAt, s.reason, s.fate, s.fateReason, s.givenTo, s.decidedAt, s.decidedBy) "
          + "from SetAsideEntity s where s.sentId in :sentIds and s.person = :person order by s.receivedAt")
  List<SetAsideLine> sent(Collection<String> sentIds, String person);
}
