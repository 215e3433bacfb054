package org.whinridge.app.form;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** Who has a draft open now, and at which question. Kept in memory alone, for some seconds. */
@Component
class Presence {
  private static final Duration GONE_AFTER = Duration.ofSeconds(15);
  private static final int MOST = 10_000;

  /** A window in which a draft is open. */
  private record Window(UUID form, String client) {}

  /** Where somebody is: {@code question} is "" for none in particular. */
  record Where(String person, String question) {}

  private final Cache<Window, Where> open =
      Caffeine.newBuilder().maximumSize(MOST).expireAfterWrite(GONE_AFTER).build();

  /** Notes where a window is, and gives where the others are. */
  List<Where> others(UUID form, String client, Where here) {
    open.put(new Window(form, client), here);
    return open.asMap().entrySet().stream()
        .filter(e -> e.getKey().form().equals(form) && !e.getKey().client().equals(client))
        .map(java.util.Map.Entry::getValue)
        .sorted(java.util.Comparator.comparing(Where::person).thenComparing(Where::question))
        .toList();
  }
}
