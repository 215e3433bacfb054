package org.whinridge.app.layer;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.locks.ReentrantReadWriteLock;
import java.util.function.Function;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.read.LayerColumns;

/**
 * The reading side of layers in memory, built when first asked for, keyed by the layer's revision,
 * patched after an edit of one feature, else built anew. Together they take at most a set share of
 * the memory; the one that was not used for longest goes first.
 */
@Component
public class ReadModels {
  private static final Logger LOG = LoggerFactory.getLogger(ReadModels.class);
  private static final int BYTES_GUESSED = 120;
  private static final int BYTES_PER_FIELD = 24;
  private final Layers layers;
  private final long most;
  private final Map<UUID, Kept> kept = new LinkedHashMap<>(16, 0.75f, true);

  private static final class Kept {
    final ReentrantReadWriteLock lock = new ReentrantReadWriteLock();
    LayerColumns columns;
    long revision = -1;
  }

  ReadModels(Layers layers, @Value("${whinridge.read-model-share:0.45}") double share) {
    this.layers = layers;
    this.most = (long) (Runtime.getRuntime().maxMemory() * share);
  }

  /**
   * Reads in a layer's model, which does not change meanwhile.
   *
   * @throws Refusal when the layer is too large for the memory set aside
   */
  public <T> T read(Layer layer, Function<LayerColumns, T> use) {
    Kept k;
    synchronized (kept) {
      k = kept.computeIfAbsent(layer.id(), x -> new Kept());
    }
    while (true) {
      k.lock.readLock().lock();
      try {
        if (k.columns != null && k.revision >= layer.revision()) return use.apply(k.columns);
      } finally {
        k.lock.readLock().unlock();
      }
      build(k, layers.byId(layer.id()));
    }
  }

  private void build(Kept k, Layer layer) {
    k.lock.writeLock().lock();
    try {
      if (k.columns != null && k.revision >= layer.revision()) return;
      k.columns = null;
      long guess =
          (long) layer.count()
              * (BYTES_GUESSED + (long) BYTES_PER_FIELD * layer.schema().fields().size());
      if (guess > most)
        throw Refusal.refused(
            "“"
                + layer.name()
                + "” has "
                + layer.count()
                + " features, more than the memory of this server can hold for filters and profiles. Nothing was changed; give the server more memory, or bring the layer in in parts.");
      makeRoom(k, guess);
      long t = System.nanoTime();
      LayerColumns c = new LayerColumns(layer.schema());
      layers.each(layer, c::add);
      c.trim();
      k.columns = c;
      k.revision = layer.revision();
      if (layer.count() > 50_000)
        LOG.info(
            "read model of {}: {} features, {} MB, {} ms",
            layer.name(),
            c.count(),
            c.bytes() >> 20,
            (System.nanoTime() - t) / 1_000_000);
    } finally {
      k.lock.writeLock().unlock();
    }
  }

  /** Drops models, those not used for longest first, until so many bytes fit. */
  private void makeRoom(Kept mine, long wanted) {
    synchronized (kept) {
      long taken = 0;
      for (Kept k : kept.values()) if (k != mine && k.columns != null) taken += k.columns.bytes();
      for (Kept k : kept.values()) {
        if (taken + wanted <= most) return;
        if (k == mine || k.columns == null || !k.lock.writeLock().tryLock()) continue;
        try {
          taken -= k.columns.bytes();
          k.columns = null;
        } finally {
          k.lock.writeLock().unlock();
        }
      }
    }
  }

  /** How many bytes all models take now. */
  long bytes() {
    synchronized (kept) {
      return kept.values().stream().mapToLong(k -> k.columns == null ? 0 : k.columns.bytes()).sum();
    }
  }

  @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT, fallbackExecution = true)
  void changed(LayerChanged e) {
    Kept k;
    synchronized (kept) {
      k = kept.get(e.layer());
    }
    if (k == null) return;
    k.lock.writeLock().lock();
    try {
      if (k.columns == null) return;
      if (e.only().isPresent() && k.revision == e.revision() - 1) {
        e.only().get().now().forEach(k.columns::patch);
        e.only().get().gone().forEach(k.columns::remove);
        k.revision = e.revision();
      } else if (k.revision < e.revision()) k.columns = null;
    } finally {
      k.lock.writeLock().unlock();
    }
  }
}
