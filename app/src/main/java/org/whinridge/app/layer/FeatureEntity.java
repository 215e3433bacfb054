package org.whinridge.app.layer;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.locationtech.jts.geom.Geometry;

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
}
