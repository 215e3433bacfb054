package org.whinridge.app.layer;

import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Writing;

/** The texts of looks as they are stored with their layers. What they mean: {@code layer.look}. */
@Component
public class StoredLooks {
  private final LayerRepository layers;
  private final Locks locks;

  StoredLooks(LayerRepository layers, Locks locks) {
    this.layers = layers;
    this.locks = locks;
  }

  /**
   * A stored look.
   *
   * @param json empty until somebody saved one
   * @param revision counts how often the layer's look was saved
   */
  public record Stored(Optional<String> json, long revision) {}

  /** The look of a layer. */
  @Transactional(readOnly = true)
  public Stored of(UUID layer) {
    LayerEntity e = layers.findById(layer).orElseThrow(() -> Refusal.notFound("thing.layer"));
    return new Stored(Optional.ofNullable(e.look), e.lookRevision);
  }

  /**
   * Saves a look for everybody.
   *
   * @param revision the revision that it was made from
   * @return the new revision
   */
  @Writing
  public long save(Layer layer, String json, long revision) {
    LayerEntity e =
        locks
            .lock(LayerEntity.class, layer.id())
            .orElseThrow(() -> Refusal.notFound("thing.layer"));
    if (e.lookRevision != revision)
      throw Refusal.conflict("refused.somebodyElseSavedLook", "name", layer.name());
    e.look = json;
    return ++e.lookRevision;
  }
}
