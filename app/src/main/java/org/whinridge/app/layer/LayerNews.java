package org.whinridge.app.layer;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * Tells of changes of layers after they are committed. A change that is written is never answered
 * as refused: what goes wrong in following it up stays here.
 */
@Component
class LayerNews {
  private static final Logger LOG = LoggerFactory.getLogger(LayerNews.class);
  private final ObjectProvider<AfterLayerChange> listeners;

  LayerNews(ObjectProvider<AfterLayerChange> listeners) {
    this.listeners = listeners;
  }

  /** Tells when the transaction that is there has been committed; at once when there is none. */
  void tell(LayerChanged change) {
    if (!TransactionSynchronizationManager.isSynchronizationActive()) {
      now(change);
      return;
    }
    TransactionSynchronizationManager.registerSynchronization(
        new TransactionSynchronization() {
          @Override
          public void afterCommit() {
            now(change);
          }
        });
  }

  private void now(LayerChanged change) {
    listeners.forEach(
        l -> {
          try {
            l.changed(change);
          } catch (RuntimeException | OutOfMemoryError e) {
            LOG.error(
                "{} could not follow the change of layer {} to revision {}; the change itself is written",
                l.getClass().getSimpleName(),
                change.layer(),
                change.revision(),
                e);
          }
        });
  }
}
