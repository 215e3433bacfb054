package org.whinridge.app.layer;

import jakarta.persistence.EntityManager;
import jakarta.persistence.EntityManagerFactory;
import org.hibernate.Session;
import org.hibernate.SessionFactory;
import org.hibernate.StatelessSession;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * Stateless sessions for many rows. Inside a transaction they use its connection and never take a
 * second one, so that whoever holds one waits for none; outside they bring their own.
 */
@Component
class Connections {
  private final SessionFactory sessions;
  private final EntityManager entities;

  Connections(EntityManagerFactory factory, EntityManager entities) {
    this.sessions = factory.unwrap(SessionFactory.class);
    this.entities = entities;
  }

  /** What is done with a session. */
  interface Work<T> {
    T in(StatelessSession s);
  }

  /** Uses a session for reading, or for writing within the transaction that is there. */
  <T> T with(Work<T> work) {
    if (!TransactionSynchronizationManager.isActualTransactionActive())
      try (StatelessSession s = sessions.openStatelessSession()) {
        return work.in(s);
      }
    entities.flush();
    return entities
        .unwrap(Session.class)
        .doReturningWork(
            c -> {
              try (StatelessSession s =
                  sessions.withStatelessOptions().connection(c).openStatelessSession()) {
                return work.in(s);
              }
            });
  }
}
