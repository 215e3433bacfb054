package org.whinridge.app.layer;

import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Envelope;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.GeometryKind;

/**
 * What a file holds, before anything is imported.
 *
 * @param withoutPlace features that have no geometry
 * @param columns properties of the file in the order of their first appearance
 */
public record BringInReport(
    String fileName,
    long bytes,
    int count,
    GeometryKind kind,
    int withoutPlace,
    Optional<Envelope> extent,
    List<Column> columns) {
  /**
   * A property of the file: its own name, the field guessed for it with the evidence, the features
   * that have it, and some of its values.
   */
  public record Column(
      String source, Field field, String evidence, int filled, List<String> samples) {}
}
