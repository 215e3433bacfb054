package org.whinridge.app.project;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;
import org.whinridge.core.access.ProjectState;
import org.whinridge.core.place.Units;

@Entity
@Table(name = "project")
class ProjectEntity {
  @Id UUID id;
  @Version Long rowVersion;
  String projectKey;
  String name;
  String systemCode;
  String systemDefinition;

  @Column(columnDefinition = "CHARACTER LARGE OBJECT")
  @jakarta.persistence.Lob
  String basemap;

  @jakarta.persistence.Lob String map;
  long mapRevision;
  String units = Units.METRIC.id();
  String zone = "UTC";
  @jakarta.persistence.Lob String expectedArea;
  Instant madeAt;
  Instant closedAt;
  String closedBy;
  Instant removedAt;
  String removedBy;

  ProjectState state() {
    if (removedAt != null) return ProjectState.REMOVED;
    return closedAt != null ? ProjectState.CLOSED : ProjectState.OPEN;
  }

  protected ProjectEntity() {}

  ProjectEntity(
      UUID id,
      String key,
      String name,
      String systemCode,
      String systemDefinition,
      String basemap) {
    this.id = id;
    this.projectKey = key;
    this.name = name;
    this.systemCode = systemCode;
    this.systemDefinition = systemDefinition;
    this.basemap = basemap;
    this.madeAt = Instant.now();
  }
}
