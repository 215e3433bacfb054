package org.whinridge.formats.out;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.said.Unfit;
import org.whinridge.formats.file.CantWrite;

/**
 * A layer as it is to be written.
 *
 * @param name for people
 * @param schema its fields and its kind of geometry
 * @param codes what stands in columns of code lists
 * @param system the coordinate system to write in
 * @param mixed fields that have values which do not fit their type; formats that need one type per
 *     column write these as text, so that none is lost
 * @param multi whether a feature may have several parts; formats that tell single from multi-part
 *     then write all as multi-part
 * @param look how it is drawn, as the application writes it; "" for none
 */
public record OutLayer(
    String name,
    Schema schema,
    OutColumns.Codes codes,
    CoordinateSystem system,
    java.util.Set<String> mixed,
    boolean multi,
    String look) {
  /** A layer without a look. */
  public OutLayer(
      String name,
      Schema schema,
      OutColumns.Codes codes,
      CoordinateSystem system,
      java.util.Set<String> mixed,
      boolean multi) {
    this(name, schema, codes, system, mixed, multi, "");
  }

  /** The layer with its look, for files that can carry it. */
  public OutLayer drawn(String newLook) {
    return new OutLayer(name, schema, codes, system, mixed, multi, newLook);
  }

  /** The layer with codes in WGS 84. */
  public static OutLayer of(String name, Schema schema) {
    return new OutLayer(
        name, schema, OutColumns.Codes.CODES, CoordinateSystem.wgs84(), java.util.Set.of(), false);
  }

  /** The columns to write. */
  public List<OutColumns.Column> columns() {
    return OutColumns.of(schema, codes);
  }

  /** The feature's geometry in the layer's system. */
  public Optional<Geometry> geometry(Feature f) throws IOException {
    try {
      return f.geometry().filter(g -> !g.isEmpty()).map(system::fromWgs84);
    } catch (IllegalArgumentException e) {
      throw new CantWrite(
              "file.write.feature",
              "feature",
              schema.caption(f.values()),
              "id",
              f.id(),
              "why",
              Unfit.said(e))
          .because(e);
    }
  }
}
