package org.whinridge.core.merge;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Which act each value on a feature comes from, told from the feature's ledger. Taking an act back
 * takes back its own: a field on which another act has written since is that act's, whether or not
 * it wrote the same value; where that act was itself taken back, the field is the earlier one's
 * again.
 */
public final class Standing {
  private Standing() {}

  /**
   * One entry of a feature's ledger.
   *
   * @param act names the act that it belongs to
   * @param fields what it wrote, the geometry under {@link Merge#GEOMETRY}
   * @param takesBack the act that it takes back; "" when it takes none back
   */
  public record Written(String act, Set<String> fields, String takesBack) {}

  /** The fields whose value still comes from an act. */
  public static Set<String> of(String act, List<Written> oldestFirst) {
    Map<String, Deque<String>> writers = new LinkedHashMap<>();
    for (Written w : oldestFirst)
      for (String f : w.fields()) {
        Deque<String> on = writers.computeIfAbsent(f, x -> new ArrayDeque<>());
        if (!w.takesBack().isEmpty() && w.takesBack().equals(on.peek())) on.pop();
        else on.push(w.act());
      }
    Set<String> out = new LinkedHashSet<>();
    writers.forEach(
        (f, on) -> {
          if (act.equals(on.peek())) out.add(f);
        });
    return out;
  }
}
