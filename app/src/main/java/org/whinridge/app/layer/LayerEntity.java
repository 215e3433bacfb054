package org.whinridge.app.layer;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;
import org.whinridge.core.said.Said;

@Entity
@Table(name = "layer")
class LayerEntity {
  @Id UUID id;
  @Version Long rowVersion;
  UUID projectId;
  String name;

  @Lob
  @Column(name = "layer_schema")
  String schema;

  int decimals;
  long revision;
  int featureCount;
  Double west;
  Double south;
  Double east;
  Double north;
  Said source;
  Instant madeAt;
  String madeBy;
  Instant changedAt;
  String summary = "";
  String tags = "";
  String systemCode = "EPSG:4326";
  @Lob String expectedArea;
  String state = "here";
  @Lob String look;
  long lookRevision;
}
