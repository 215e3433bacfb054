package org.whinridge.app.bringin;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** Keeps visits that came in files; the module that has visits offers it. */
public interface PastVisits {
  /**
   * A visit as a file has it.
   *
   * @param answers by field or question name
   * @param photos JPEG files, copied by whoever keeps the visit
   */
  record PastVisit(
      UUID feature, Instant at, String person, Map<String, Value> answers, List<Path> photos) {}

  /**
   * Keeps visits of a layer as accepted ones, all or none.
   *
   * @param source where they came from: "import of visits.csv"
   * @return the hand-in that they were kept under
   */
  UUID keep(UUID layer, Said source, String person, List<PastVisit> visits);

  /** Takes visits that came in one file away again; gives how many there were. */
  int takeBack(UUID handIn, String person);
}
