package org.whinridge.app.people;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface AccountRepository extends JpaRepository<AccountEntity, String> {
  List<AccountEntity> findByRoleOrderByName(String role);
}
