package org.whinridge.app.layer;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.RemovalCause;
import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.task.AsyncTaskExecutor;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.read.LayerColumns;

/**
 * The reading side of layers in memory. A model never changes: whoever asks gets the newest state
 * and may read it for as long as it likes, an edit puts the next state in its place. Made when
 * first asked for, from the file beside the store when that is of the layer's revision, else from
 * the store. Together they take a set share of the memory.
 */
@Component
public class ReadModels implements AfterLayerChange, GoesWithLayer {
  private static final Logger LOG = LoggerFactory.getLogger(ReadModels.class);
  private static final int BYTES_GUESSED = 120;
  private static final int BYTES_PER_FIELD = 24;

  /** Smaller layers are made quicker than their file is read. */
  private static final int WORTH_A_FILE = 20_000;

  private static final int MOST_AHEAD = 64;
  private static final long WAIT_MS = 300;
  private final Layers layers;
  private final ModelFiles files;
  private final AsyncTaskExecutor background;
  private final long most;
  private final Cache<UUID, State> states;
  private final Map<UUID, ReentrantLock> making = new ConcurrentHashMap<>();
  private final Map<UUID, List<LayerChanged>> meanwhile = new ConcurrentHashMap<>();
  private final Map<UUID, Long> onDisk = new ConcurrentHashMap<>();
  private final List<Consumer<LayerColumns>> leaving = new CopyOnWriteArrayList<>();

  /**
   * A model with the revision that it is of.
   *
   * @param ahead changes that were told before one that comes between
   */
  private record State(Layer layer, LayerColumns columns, List<LayerChanged> ahead) {
    long revision() {
      return layer.revision();
    }
  }

  ReadModels(
      Layers layers,
      ModelFiles files,
      AsyncTaskExecutor applicationTaskExecutor,
      @Value("${whinridge.read-model-share:0.45}") double share) {
    this.layers = layers;
    this.files = files;
    this.background = applicationTaskExecutor;
    this.most = (long) (Runtime.getRuntime().maxMemory() * share);
    this.states =
        Caffeine.newBuilder()
            .maximumWeight(Math.max(1, most >> 10))
            .weigher(
                (UUID id, State s) -> (int) Math.min(Integer.MAX_VALUE, s.columns.bytes() >> 10))
            .executor(Runnable::run)
            .removalListener(
                (UUID id, State s, RemovalCause why) -> leaving.forEach(l -> l.accept(s.columns)))
            .build();
  }

  /**
   * Hears of models that are not the newest any more or had to make room, so that whoever keeps
   * what is made of one lets it go: the memory is bounded only if nobody else holds them.
   */
  public void whenLeft(Consumer<LayerColumns> hears) {
    leaving.add(hears);
  }

  /** Whether a model is the one that is kept of a layer now. */
  public boolean holds(UUID layer, LayerColumns columns) {
    State s = states.getIfPresent(layer);
    return s != null && s.columns == columns;
  }

  /**
   * A layer's model, at least as new as the layer that was asked with.
   *
   * @throws Refusal when the layer is too large for the memory set aside
   */
  public LayerColumns of(Layer layer) {
    State s = current(layer);
    if (s != null) return s.columns;
    ReentrantLock lock = making.computeIfAbsent(layer.id(), x -> new ReentrantLock());
    lock.lock();
    try {
      s = states.getIfPresent(layer.id());
      if (s != null && s.revision() >= layer.revision()) return s.columns;
      return made(layer).columns;
    } finally {
      lock.unlock();
    }
  }

  /** The state that is there, when it is new enough or becomes so in a moment. */
  private State current(Layer layer) {
    State s = states.getIfPresent(layer.id());
    for (long waited = 0; s != null && s.revision() < layer.revision(); waited += 5) {
      if (waited >= WAIT_MS) return null; // the news of a commit that was just made did not come
      try {
        Thread.sleep(5);
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        return null;
      }
      s = states.getIfPresent(layer.id());
    }
    return s;
  }

  private State made(Layer asked) {
    if (TransactionSynchronizationManager.isActualTransactionActive()
        && !TransactionSynchronizationManager.isCurrentTransactionReadOnly())
      throw new IllegalStateException(
          "a read model is asked for before a writing transaction begins, never within it");
    meanwhile.put(asked.id(), new ArrayList<>());
    try {
      Layer layer = layers.byId(asked.id());
      long guess =
          (long) layer.count()
              * (BYTES_GUESSED + (long) BYTES_PER_FIELD * layer.schema().fields().size());
      if (guess > most)
        throw Refusal.refused(
            "refused.featuresMoreThanMemory", "name", layer.name(), "count", layer.count());
      makeRoom(guess);
      long t = System.nanoTime();
      Optional<LayerColumns> kept =
          layer.count() < WORTH_A_FILE ? Optional.empty() : files.read(layer);
      State s = new State(layer, kept.orElseGet(() -> fromStore(layer)), List.of());
      if (kept.isPresent()) onDisk.put(layer.id(), layer.revision());
      if (layer.count() >= WORTH_A_FILE)
        LOG.info(
            "read model of {}: {} features, {} MB, {} ms, {}",
            layer.name(),
            s.columns.count(),
            s.columns.bytes() >> 20,
            (System.nanoTime() - t) / 1_000_000,
            kept.isPresent() ? "from its file" : "from the store");
      return put(s);
    } finally {
      meanwhile.remove(asked.id());
    }
  }

  /** Drops models, those used least first, until so many bytes fit beside the others. */
  private void makeRoom(long bytes) {
    states
        .policy()
        .eviction()
        .ifPresent(
            e -> {
              e.setMaximum(Math.max(0, most - bytes) >> 10);
              states.cleanUp();
              e.setMaximum(Math.max(1, most >> 10));
            });
  }

  private LayerColumns fromStore(Layer layer) {
    LayerColumns.Builder b = new LayerColumns.Builder(layer.schema());
    layers.each(layer, b::add);
    return b.build();
  }

  /** Puts a state in its place, with what was told while it was made. */
  private State put(State made) {
    List<LayerChanged> told = meanwhile.get(made.layer.id());
    synchronized (told) {
      State s = made;
      for (LayerChanged e : told) {
        State next = after(s, e);
        if (next != null) s = next;
      }
      states.put(made.layer.id(), s);
      meanwhile.remove(made.layer.id());
      return s;
    }
  }

  /**
   * The state after a change; null when it can't be told, since anything may have changed or what
   * comes between did not arrive.
   */
  private static State after(State s, LayerChanged e) {
    if (e.revision() <= s.revision()) return s;
    if (e.revision() > s.revision() + 1) {
      if (s.ahead.size() >= MOST_AHEAD) return null;
      List<LayerChanged> ahead = new ArrayList<>(s.ahead);
      ahead.add(e);
      return new State(s.layer, s.columns, List.copyOf(ahead));
    }
    if (e.only().isEmpty()) return null;
    LayerChanged.Few few = e.only().get();
    State next =
        new State(
            s.layer.at(e.revision(), e.at()), s.columns.with(few.now(), few.gone()), List.of());
    for (LayerChanged later : s.ahead) next = next == null ? null : after(next, later);
    return next;
  }

  @Override
  public void changed(LayerChanged e) {
    List<LayerChanged> told = meanwhile.get(e.layer());
    if (told != null)
      synchronized (told) {
        if (meanwhile.get(e.layer()) == told) {
          told.add(e);
          return;
        }
      }
    states.asMap().computeIfPresent(e.layer(), (id, s) -> after(s, e));
  }

  /** Makes a layer's model in the background, so that its first map need not wait for it. */
  void prepare(UUID layer, int features) {
    if (features < WORTH_A_FILE) return;
    background.execute(
        () -> {
          try {
            of(layers.byId(layer));
          } catch (Refusal e) {
            LOG.info("the model of layer {} is not made ahead: {}", layer, e.getMessage());
          }
        });
  }

  /** How many bytes all models take now. */
  long bytes() {
    return states.asMap().values().stream().mapToLong(s -> s.columns.bytes()).sum();
  }

  /** The model of a layer that is taken back, and its file, are not needed any more. */
  @Override
  public void gone(UUID layer) {
    states.invalidate(layer);
    onDisk.remove(layer);
    files.drop(layer);
  }

  /** Forgets all models, as a start does. */
  void forget() {
    states.invalidateAll();
    onDisk.clear();
  }

  /** Writes models of large layers that have no file of their revision, those at rest first. */
  @Scheduled(initialDelay = 20_000, fixedDelay = 20_000)
  void keep() {
    keep(states.asMap(), 15_000);
  }

  @PreDestroy
  void keepAll() {
    keep(states.asMap(), 0);
  }

  private void keep(ConcurrentMap<UUID, State> all, long restMs) {
    all.forEach(
        (id, s) -> {
          boolean written = onDisk.getOrDefault(id, -1L) == s.revision();
          boolean rests = s.layer.changedAt().toEpochMilli() <= System.currentTimeMillis() - restMs;
          if (written || !rests || s.columns.count() < WORTH_A_FILE) return;
          if (files.write(s.layer, s.columns)) onDisk.put(id, s.revision());
        });
  }
}
