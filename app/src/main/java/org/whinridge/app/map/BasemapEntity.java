package org.whinridge.app.map;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "basemap")
class BasemapEntity {
  @Id UUID id;
  UUID projectId;
  String name;
  @Lob String grid;
  String ground;
  @Lob String notes;
  long bytes;
  Instant madeAt;
  String madeBy;
}
