package org.whinridge.app.layer;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Sha256;
import org.whinridge.app.shell.Writing;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.ReadyLook;

/**
 * How layers are drawn: the look saved with a layer, and looks that somebody is trying out, kept in
 * memory for a while under the hash of what they say.
 */
@Service
public class Looks {
  private static final long MOST_TRIED = 64_000_000;
  private final LayerRepository layers;
  private final Locks locks;
  private final Cache<String, String> tried =
      Caffeine.newBuilder()
          .maximumWeight(MOST_TRIED)
          .weigher((String key, String json) -> json.length())
          .executor(Runnable::run)
          .build();

  Looks(LayerRepository layers, Locks locks) {
    this.layers = layers;
    this.locks = locks;
  }

  /**
   * A look with what is needed to save it again.
   *
   * @param revision counts how often the layer's look was saved
   */
  public record Saved(Look look, long revision) {}

  /** The look of a layer; the plain one until somebody saves another. */
  @Transactional(readOnly = true)
  public Saved of(Layer layer) {
    LayerEntity e = entity(layer.id());
    return new Saved(
        Optional.ofNullable(e.look).map(Look::read).orElse(Look.plain(layer.schema().kind())),
        e.lookRevision);
  }

  private LayerEntity entity(UUID id) {
    return layers.findById(id).orElseThrow(() -> Refusal.notFound("layer"));
  }

  /** The saved look made ready. */
  public ReadyLook ready(Layer layer) {
    return ReadyLook.of(of(layer).look(), layer.schema());
  }

  /**
   * Keeps a look to be tried on the map.
   *
   * @return the key under which tiles and features are drawn by it
   */
  String keep(Look look) {
    String json = look.json().toString();
    String key = Sha256.of(json.getBytes(StandardCharsets.UTF_8)).substring(0, 32);
    tried.put(key, json);
    return key;
  }

  /** The look under a key, "" for the saved one; a look that is no longer kept is the saved one. */
  Look by(Layer layer, String key) {
    String json = key.isEmpty() ? null : tried.getIfPresent(key);
    return json == null ? of(layer).look() : Look.read(json);
  }

  /**
   * Saves a look for everybody.
   *
   * @param revision the revision that it was made from
   * @return the new revision
   */
  @Writing
  public long save(Layer layer, Look look, long revision) {
    LayerEntity e =
        locks.lock(LayerEntity.class, layer.id()).orElseThrow(() -> Refusal.notFound("layer"));
    if (e.lookRevision != revision)
      throw Refusal.conflict(
          "Somebody else saved a look for “"
              + layer.name()
              + "” meanwhile. Yours is still on this page: take it out as a file, load the page again and bring it in, or make your changes to the newer one.");
    e.look = look.json().toString();
    return ++e.lookRevision;
  }
}
