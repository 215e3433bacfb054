package org.whinridge.app.people;

import java.util.List;
import org.springframework.data.domain.Pageable;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;
import org.whinridge.core.access.AccountState;

interface AccountRepository extends JpaRepository<AccountEntity, String> {
  boolean existsByNameIgnoreCase(String name);

  List<AccountEntity> findByEmailIgnoreCaseAndEmailConfirmedTrue(String email);

  String WITH =
      "from AccountEntity a where locate(:text, lower(a.name)) > 0 or locate(:text, lower(a.organisation)) > 0";

  @Query("select a " + WITH + " order by a.name")
  List<AccountEntity> with(String text, Pageable page);

  @Query("select count(a) " + WITH)
  long countWith(String text);

  List<AccountEntity> findByKeeperTrueOrderByName();

  @Query("select count(a) from AccountEntity a where a.keeper = true and a.state = :state")
  long keepersWho(String state);

  /** How many keepers may sign in. */
  default long keepers() {
    return keepersWho(AccountState.ACTIVE.id());
  }
}
