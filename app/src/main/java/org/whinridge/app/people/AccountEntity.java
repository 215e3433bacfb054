package org.whinridge.app.people;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

@Entity
@Table(name = "account")
class AccountEntity {
  @Id String name;
  String passwordHash;
  boolean keeper;

  protected AccountEntity() {}

  AccountEntity(String name, String passwordHash, boolean keeper) {
    this.name = name;
    this.passwordHash = passwordHash;
    this.keeper = keeper;
  }
}
