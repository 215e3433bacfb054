package org.whinridge.app.layer;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;

@Entity
@Table(name = "feature")
class FeatureEntity {
  @Id UUID id;
  UUID layerId;
  Geometry geom;

  @JdbcTypeCode(SqlTypes.JSON)
  String attrs;

  long version;
  Instant changedAt;
  String changedBy;
  UUID madeByEntry;
  int placeInLayer;
  boolean removed;

  /** A feature's first row; the layer's extent grows by it. */
  static FeatureEntity fresh(
      LayerEntity layer, Feature f, Schema schema, UUID entry, Instant now, String person) {
    FeatureEntity e = new FeatureEntity();
    e.id = UUID.fromString(f.id());
    e.layerId = layer.id;
    e.geom = f.geometry().orElse(null);
    e.attrs = schema.writeValues(f.values()).toString();
    e.version = 1;
    e.changedAt = now;
    e.changedBy = person;
    e.madeByEntry = entry;
    if (e.geom != null) Layers.grow(layer, e.geom.getEnvelopeInternal());
    return e;
  }
}
