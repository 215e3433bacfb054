package org.whinridge.app.layer;

import java.util.List;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.Refusal;

/** What changed on a layer since somebody was shown an act that is not done yet. */
@Component
public class ChangedSince {
  private static final int MOST_TOLD = 3;
  private final Connections connections;

  ChangedSince(Connections connections) {
    this.connections = connections;
  }

  /** Why an act that was shown at a revision is not done any more: with what changed since. */
  public Refusal refusal(Layer seen, long now) {
    int n = (int) Math.max(1, Math.min(MOST_TOLD, now - seen.revision()));
    List<String> since =
        connections.with(
            s ->
                s
                    .createSelectionQuery(
                        "from LedgerEntity e where e.layerId = :layer and (e.groupId is null or e.id = e.groupId) order by e.at desc",
                        LedgerEntity.class)
                    .setParameter("layer", seen.id())
                    .setMaxResults(n)
                    .getResultList()
                    .stream()
                    .map(e -> e.summary + " (" + e.person + ")")
                    .toList());
    long more = now - seen.revision() - since.size();
    return Refusal.conflict(
        "“"
            + seen.name()
            + "” has changed since this was shown: "
            + String.join("; ", since)
            + (more > 0 ? "; and " + more + " more" : "")
            + ". Nothing was changed; look at it again.");
  }
}
