package org.whinridge.app.photo;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "visit_photo")
class PhotoEntity {
  @Id UUID id;
  @Version Long rowVersion;

  /** Null for a picture of a feature. */
  UUID visitId;

  /** Null for a photo of a visit. */
  UUID layerId;

  UUID featureId;
  String question;
  String sha256;
  long bytes;
  @Lob String geotag;
  int placeInVisit;
  String person;
  String deviceId;
  Instant receivedAt;
}
