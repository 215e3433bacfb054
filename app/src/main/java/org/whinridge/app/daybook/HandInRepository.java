package org.whinridge.app.daybook;

import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface HandInRepository extends JpaRepository<HandInEntity, UUID> {}
