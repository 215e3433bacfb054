package org.whinridge.app.people;

import org.springframework.data.jpa.repository.JpaRepository;

interface AccountRepository extends JpaRepository<AccountEntity, String> {
  boolean existsByNameIgnoreCase(String name);
}
