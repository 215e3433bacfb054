package org.whinridge.app.layer;

import jakarta.persistence.EntityManager;
import jakarta.persistence.EntityManagerFactory;
import org.hibernate.HibernateException;
import org.hibernate.Session;
import org.hibernate.SessionFactory;
import org.hibernate.StatelessSession;
import org.springframework.orm.jpa.EntityManagerFactoryInfo;
import org.springframework.orm.jpa.JpaDialect;
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
  private final JpaDialect dialect;

  Connections(EntityManagerFactory factory, EntityManager entities) {
    this.dialect = ((EntityManagerFactoryInfo) factory).getJpaDialect();
    this.sessions = factory.unwrap(SessionFactory.class);
    this.entities = entities;
  }

  /** What is done with a session. */
  interface Work<T> {
    T in(StatelessSession s);
  }

  /**
   * Uses a session for reading, or for writing within the transaction that is there.
   *
   * @throws org.springframework.dao.DataAccessException what Hibernate threw, by the names that
   *     everything else throws: a lock that was not had in time is a ConcurrencyFailureException
   */
  <T> T with(Work<T> work) {
    try {
      return open(work);
    } catch (HibernateException e) {
      RuntimeException known = dialect.translateExceptionIfPossible(e);
      throw known == null ? e : known;
    }
  }

  private <T> T open(Work<T> work) {
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
