package org.whinridge.app.shell;

import jakarta.persistence.EntityManager;
import jakarta.persistence.EntityNotFoundException;
import jakarta.persistence.LockModeType;
import java.util.Optional;
import org.springframework.stereotype.Repository;

/**
 * The one way to a row that is going to be changed: locked first, read after. A query that locks
 * gives back an entity as this transaction read it before it had the lock, so that nobody uses one;
 * a test holds that.
 *
 * <p>Order, for all: visit, layer, features by id, stops.
 */
@Repository
public class Locks {
  private final EntityManager entities;

  Locks(EntityManager entities) {
    this.entities = entities;
  }

  /**
   * The row of that id under a lock until the transaction ends, as it is now.
   *
   * @throws org.springframework.dao.ConcurrencyFailureException when the lock is not had in time
   */
  public <T> Optional<T> lock(Class<T> type, Object id) {
    entities.flush(); // what this transaction has changed is in the row before it is read again
    T e = entities.find(type, id);
    if (e == null) return Optional.empty();
    try {
      entities.refresh(e, LockModeType.PESSIMISTIC_WRITE);
      return Optional.of(e);
    } catch (EntityNotFoundException gone) {
      return Optional.empty();
    }
  }
}
