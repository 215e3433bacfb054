package org.whinridge.app.ops;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.Refusal;

/**
 * Goes back to one of the store's own copies. The store as it is now is copied first; then a note
 * in the data folder names the copy, and the application starts again, which finds the note before
 * it opens the store ({@link StoreOpening}).
 */
@Component
class GoingBack {
  private static final Logger LOG = LoggerFactory.getLogger(GoingBack.class);
  private final StoreKeeping keeping;
  private final Path data;
  private final ConfigurableApplicationContext context;

  /** Of two who ask at once one goes back: two starts would stand in each other's way. */
  private final AtomicBoolean begun = new AtomicBoolean();

  GoingBack(StoreKeeping keeping, DataFolder data, ConfigurableApplicationContext context) {
    this.keeping = keeping;
    this.data = data.folder("");
    this.context = context;
  }

  /**
   * Begins to go back.
   *
   * @param sure whether the person said that they mean it
   */
  void to(String copy, boolean sure, String person) throws IOException {
    if (!sure) throw Refusal.refused("refused.notSureToGoBack");
    Optional<StoreKeeping.Listed> there =
        keeping.copies().stream().filter(c -> c.name().equals(copy)).findFirst();
    if (there.isEmpty()) throw Refusal.notFound("thing.copy");
    if (!Starting.canStartAgain()) throw Refusal.conflict("refused.cantStartAgain", "name", copy);
    if (!begun.compareAndSet(false, true)) throw Refusal.conflict("refused.goesBackAlready");
    try {
      begin(copy, person);
    } catch (IOException | RuntimeException e) {
      begun.set(false);
      throw e;
    }
  }

  private void begin(String copy, String person) throws IOException {
    if (!keeping.copyKeepingAll()) throw Refusal.refused("refused.noCopyMade");
    StoreOpening.ask(data, copy);
    LOG.warn("{} goes back to the store's copy {}", person, copy);
    Starting.endAndStartAgain(context);
  }
}
