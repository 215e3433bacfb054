package org.whinridge.app.people;

import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface TermsRepository extends JpaRepository<TermsEntity, Integer> {
  Optional<TermsEntity> findFirstByOrderByVersionDesc();
}
