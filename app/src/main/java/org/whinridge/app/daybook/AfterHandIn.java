package org.whinridge.app.daybook;

import java.util.UUID;

/** What follows when a visit has come in, told to the modules that build on visits. */
public interface AfterHandIn {
  /**
   * A visit was kept and is committed; outside of any transaction. Nothing that goes wrong here
   * takes it away again.
   */
  void kept(UUID visit);
}
