package org.whinridge.app.people;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import org.whinridge.core.access.AccountState;
import org.whinridge.core.text.Word;

@Entity
@Table(name = "account")
class AccountEntity {
  @Id String name;
  String passwordHash;
  boolean keeper;
  String state = AccountState.ACTIVE.id();
  String email = "";
  boolean emailConfirmed;
  String organisation = "";
  String zone = "";
  String writtenStyle = "";
  boolean singleKeys = true;

  protected AccountEntity() {}

  AccountEntity(String name, String passwordHash, boolean keeper) {
    this.name = name;
    this.passwordHash = passwordHash;
    this.keeper = keeper;
  }

  AccountState state() {
    return Word.of(AccountState.values(), state).orElseThrow();
  }

  Account shown() {
    return new Account(
        name, keeper, state(), email, emailConfirmed, organisation, zone, writtenStyle, singleKeys);
  }
}
