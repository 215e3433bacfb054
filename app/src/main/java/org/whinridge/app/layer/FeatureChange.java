package org.whinridge.app.layer;

import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * A change to write: what to set on one feature, with its cause.
 *
 * @param isNew whether the feature is made by this change
 * @param geometry the new geometry; empty leaves it
 * @param cause visit, desk, import, taken back
 * @param takesBack the ledger entry that this change takes back
 */
public record FeatureChange(
    UUID layerId,
    UUID featureId,
    boolean isNew,
    Map<String, Value> set,
    Optional<Geometry> geometry,
    String person,
    String cause,
    Optional<UUID> visitId,
    Optional<UUID> takesBack,
    Said summary,
    Instant at) {}
