package org.whinridge.app.layer.look;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import org.springframework.stereotype.Service;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.StoredLooks;
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
  private final StoredLooks stored;
  private final Cache<String, String> tried =
      Caffeine.newBuilder()
          .maximumWeight(MOST_TRIED)
          .weigher((String key, String json) -> json.length())
          .executor(Runnable::run)
          .build();

  Looks(StoredLooks stored) {
    this.stored = stored;
  }

  /**
   * A look with what is needed to save it again.
   *
   * @param revision counts how often the layer's look was saved
   */
  public record Saved(Look look, long revision) {}

  /** The look of a layer; the plain one until somebody saves another. */
  public Saved of(Layer layer) {
    StoredLooks.Stored s = stored.of(layer.id());
    return new Saved(
        s.json().map(Look::read).orElse(Look.plain(layer.schema().kind())), s.revision());
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
  public Look by(Layer layer, String key) {
    String json = key.isEmpty() ? null : tried.getIfPresent(key);
    return json == null ? of(layer).look() : Look.read(json);
  }

  /**
   * Saves a look for everybody.
   *
   * @param revision the revision that it was made from
   * @return the new revision
   */
  public long save(Layer layer, Look look, long revision) {
    return stored.save(layer, look.json().toString(), revision);
  }
}
