package org.whinridge.app.shell;

import java.util.Comparator;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.core.access.Right;

/** What every desk page shows around its own content. */
@Component
public class Frame {
  private final List<BandStation> stations;

  Frame(List<BandStation> stations) {
    this.stations = stations.stream().sorted(Comparator.comparingInt(BandStation::order)).toList();
  }

  /** One station as drawn. */
  public record Station(
      String path,
      String href,
      String key,
      Right needs,
      long count,
      boolean needsSomebody,
      boolean here) {}

  /** The work's path for a project; {@code here} is the station that the page belongs to. */
  public List<Station> path(UUID project, String projectKey, String here) {
    return stations.stream()
        .map(
            s -> {
              long n = s.count(project);
              return new Station(
                  s.path(),
                  "/p/" + projectKey + "/" + s.path(),
                  s.key(),
                  s.needs(),
                  n,
                  s.needsSomebody() && n > 0,
                  s.path().equals(here));
            })
        .toList();
  }
}
