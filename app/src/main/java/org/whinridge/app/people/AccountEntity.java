package org.whinridge.app.people;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

@Entity
@Table(name = "account")
class AccountEntity {
  @Id String name;
  String role;
  String passwordHash;

  protected AccountEntity() {}

  AccountEntity(String name, String role, String passwordHash) {
    this.name = name;
    this.role = role;
    this.passwordHash = passwordHash;
  }
}
