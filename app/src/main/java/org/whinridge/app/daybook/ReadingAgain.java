package org.whinridge.app.daybook;

import java.util.UUID;
import org.springframework.stereotype.Service;

/** Reads a text that was set aside once more as a visit. */
@Service
public class ReadingAgain {
  private final HandIns handIns;

  ReadingAgain(HandIns handIns) {
    this.handIns = handIns;
  }

  /** Whether it is a visit now; when not, the reason stands with it. */
  public boolean read(UUID project, UUID setAside, String by) {
    try {
      return handIns.readAgain(project, setAside, by);
    } catch (RuntimeException e) {
      throw e;
    } catch (Exception e) {
      throw new IllegalStateException("reading it again failed, it stays as it is", e);
    }
  }
}
