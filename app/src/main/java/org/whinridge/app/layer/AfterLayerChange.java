package org.whinridge.app.layer;

/** Hears of changes of layers once they are written. Whatever it does is no part of the act. */
public interface AfterLayerChange {
  /** Called after the commit; what it throws is noted in the log and reaches nobody. */
  void changed(LayerChanged change);
}
