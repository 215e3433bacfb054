package org.whinridge.app.layer.values;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.ReadModels;
import org.whinridge.app.shell.Jobs;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.profile.FieldProfile;
import org.whinridge.core.profile.NearDuplicates;
import org.whinridge.core.profile.ValueCount;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.said.Said;

/**
 * Unlike spellings of one value, found once for each state of a layer: at once where there are few
 * values, else in the background while the page is there already.
 */
@Component
class Spellings {
  /** So many different values are compared while a page waits: some tens of milliseconds. */
  static final int AT_ONCE = 3_000;

  private final ReadModels models;
  private final Jobs jobs;
  private final Cache<String, List<NearDuplicates.Group>> found =
      Caffeine.newBuilder()
          .maximumWeight(200_000)
          .weigher(
              (String k, List<NearDuplicates.Group> g) ->
                  1 + g.stream().mapToInt(x -> x.values().size()).sum())
          .build();

  Spellings(ReadModels models, Jobs jobs) {
    this.models = models;
    this.jobs = jobs;
  }

  /**
   * The groups of a field.
   *
   * @return none while they are still being looked for
   */
  Optional<List<NearDuplicates.Group>> of(Layer layer, FieldProfile profile) {
    return of(layer, profile.field(), profile.distinct(), profile::values);
  }

  /** As {@link #of(Layer, FieldProfile)}; {@code values} are asked only when they are few. */
  Optional<List<NearDuplicates.Group>> of(
      Layer layer, Field f, int distinct, Supplier<List<ValueCount>> values) {
    if (f.type() != FieldType.TEXT && f.type() != FieldType.CODE) return Optional.of(List.of());
    String key = layer.id() + " " + layer.revision() + " " + f.name();
    List<NearDuplicates.Group> known = found.getIfPresent(key);
    if (known != null) return Optional.of(known);
    if (distinct > AT_ONCE) {
      UUID id = UUID.nameUUIDFromBytes(key.getBytes(StandardCharsets.UTF_8));
      if (jobs.find(id).filter(j -> !j.isOver()).isEmpty())
        jobs.start(id, Jobs.Size.SMALL, job -> compared(layer, f, key, job));
      return Optional.empty();
    }
    List<NearDuplicates.Group> now = NearDuplicates.groups(values.get(), stated(f));
    found.put(key, now);
    return Optional.of(now);
  }

  private Object compared(Layer layer, Field f, String key, Jobs.Job job) {
    job.now(Said.of("job.comparingSpellings", "label", f.label()), -1);
    LayerColumns c = models.of(layer);
    found.put(key, NearDuplicates.groups(FieldProfile.counts(f, c, c.all()), stated(f)));
    return key;
  }

  /** Values that somebody stated to be right; a list that was only found states nothing. */
  private static Set<String> stated(Field f) {
    Set<String> out = new LinkedHashSet<>();
    if (!f.codesFound())
      for (Code c : f.codes()) {
        out.add(c.code());
        out.add(c.label());
      }
    return out;
  }
}
