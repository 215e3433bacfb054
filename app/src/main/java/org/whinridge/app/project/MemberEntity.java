package org.whinridge.app.project;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.UUID;
import org.whinridge.core.access.Role;
import org.whinridge.core.text.Word;

/** One role of a person in a project. */
@Entity
@Table(name = "member")
class MemberEntity {
  @Id UUID id;
  UUID projectId;
  String account;
  String role;

  protected MemberEntity() {}

  MemberEntity(UUID projectId, String account, Role role) {
    this.id = UUID.randomUUID();
    this.projectId = projectId;
    this.account = account;
    this.role = role.id();
  }

  Role role() {
    return Word.of(Role.values(), role).orElseThrow();
  }
}
