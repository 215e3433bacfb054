package org.whinridge.app.layer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Consumer;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/** What follows a commit is no part of the answer of the act. */
class LayerNewsTest {
  private final List<String> heard = new ArrayList<>();
  private final LayerChanged change =
      new LayerChanged(UUID.randomUUID(), 2, Instant.EPOCH, Optional.empty());

  @SuppressWarnings("unchecked")
  private final ObjectProvider<AfterLayerChange> listeners = mock(ObjectProvider.class);

  @BeforeEach
  void twoListeners() {
    AfterLayerChange failing =
        c -> {
          throw new ArrayIndexOutOfBoundsException("as a model of no feature once did");
        };
    AfterLayerChange second = c -> heard.add("second");
    doAnswer(
            call -> {
              List.of(failing, second).forEach(call.<Consumer<AfterLayerChange>>getArgument(0));
              return null;
            })
        .when(listeners)
        .forEach(any());
  }

  @Test
  void aListenerThatFailsReachesNeitherTheActNorTheOthers() {
    new LayerNews(listeners).tell(change);
    assertThat(heard).containsExactly("second");
  }

  @Test
  void nothingIsToldBeforeTheCommit() {
    TransactionSynchronizationManager.initSynchronization();
    try {
      new LayerNews(listeners).tell(change);
      assertThat(heard).isEmpty();
      TransactionSynchronizationManager.getSynchronizations().forEach(s -> s.afterCommit());
      assertThat(heard).containsExactly("second");
    } finally {
      TransactionSynchronizationManager.clearSynchronization();
    }
  }
}
