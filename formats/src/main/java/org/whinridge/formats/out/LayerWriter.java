package org.whinridge.formats.out;

import java.io.IOException;
import org.whinridge.core.layer.Feature;

/** Writes features of one layer, one after the other; closing it ends the layer. */
public interface LayerWriter extends AutoCloseable {
  /**
   * Adds a feature, its geometry in WGS 84; the writer projects it.
   *
   * @throws IOException when the file can't be written, or the feature can't be in the format
   */
  void add(Feature f) throws IOException;

  @Override
  void close() throws IOException;
}
