package org.whinridge.app.project;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface MemberRepository extends JpaRepository<MemberEntity, UUID> {
  @Query(
      "select m from MemberEntity m, ProjectEntity p where p.id = m.projectId and p.projectKey = :key and p.removedAt is null and m.account = :account")
  List<MemberEntity> inProject(String key, String account);

  /** A person's roles in all projects that were not removed. */
  @Query(
      "select m from MemberEntity m, ProjectEntity p where p.id = m.projectId and p.removedAt is null and m.account = :account")
  List<MemberEntity> ofAccount(String account);

  List<MemberEntity> findByAccount(String account);

  List<MemberEntity> findByProjectIdOrderByAccount(UUID projectId);
}
