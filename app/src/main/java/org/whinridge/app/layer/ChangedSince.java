package org.whinridge.app.layer;

import java.util.List;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.said.Said;

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
    List<Said> since =
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
                    .map(e -> Said.of("told.actBy", "what", e.summary, "person", e.person))
                    .toList());
    long more = now - seen.revision() - since.size();
    return Refusal.conflict(
        more > 0 ? "refused.changedSinceMore" : "refused.changedSince",
        "name",
        seen.name(),
        "since",
        Said.row(since, "list.also", "list.also"),
        "more",
        more);
  }
}
