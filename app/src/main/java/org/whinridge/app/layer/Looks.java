package org.whinridge.app.layer;

import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Sha256;
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
  private final Map<String, String> tried = new LinkedHashMap<>(16, 0.75f, true);
  private long triedLength;

  Looks(LayerRepository layers) {
    this.layers = layers;
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
    synchronized (tried) {
      if (tried.put(key, json) == null) triedLength += json.length();
      var oldest = tried.entrySet().iterator();
      while (triedLength > MOST_TRIED && tried.size() > 1) {
        triedLength -= oldest.next().getValue().length();
        oldest.remove();
      }
    }
    return key;
  }

  /** The look under a key, "" for the saved one; a look that is no longer kept is the saved one. */
  Look by(Layer layer, String key) {
    if (key.isEmpty()) return of(layer).look();
    synchronized (tried) {
      String json = tried.get(key);
      if (json != null) return Look.read(json);
    }
    return of(layer).look();
  }

  /**
   * Saves a look for everybody.
   *
   * @param revision the revision that it was made from
   * @return the new revision
   */
  @Transactional
  public long save(Layer layer, Look look, long revision) {
    LayerEntity e = layers.lock(layer.id()).orElseThrow(() -> Refusal.notFound("layer"));
    if (e.lookRevision != revision)
      throw Refusal.conflict(
          "Somebody else saved a look for “"
              + layer.name()
              + "” meanwhile. Yours is still on this page: take it out as a file, load the page again and bring it in, or make your changes to the newer one.");
    e.look = look.json().toString();
    return ++e.lookRevision;
  }
}
