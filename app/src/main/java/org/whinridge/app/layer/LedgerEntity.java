package org.whinridge.app.layer;

import com.eclipsesource.json.Json;
import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.Set;
import java.util.UUID;
import org.whinridge.core.merge.Standing;
import org.whinridge.core.said.Said;

@Entity
@Table(name = "ledger_entry")
class LedgerEntity {
  @Id UUID id;
  UUID layerId;
  UUID featureId;
  long version;
  Instant at;
  String person;
  String cause;
  UUID visitId;
  Said summary;
  UUID groupId;
  UUID takenBackBy;

  /** The act that this entry takes back. */
  UUID takesBack;

  @Lob
  @Column(name = "before_values")
  String beforeValues;

  @Lob
  @Column(name = "after_values")
  String afterValues;

  /** The act that it belongs to: its group, or the entry itself when it stands alone. */
  UUID act() {
    return groupId == null ? id : groupId;
  }

  /** What core needs to tell which act a value comes from. */
  Standing.Written written() {
    Set<String> fields = new LinkedHashSet<>(Json.parse(afterValues).asObject().names());
    fields.removeIf(f -> f.startsWith("$")); // what the act itself needs to be taken back
    return new Standing.Written(
        act().toString(), fields, takesBack == null ? "" : takesBack.toString());
  }
}
