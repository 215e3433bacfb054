package org.whinridge.app.layer;

import java.util.UUID;

/** What came with a layer and goes with it when it is taken back as a whole. */
public interface GoesWithLayer {
  /** Takes away what came with the layer; within the transaction that takes the layer back. */
  void gone(UUID layer);
}
