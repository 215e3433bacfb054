package org.whinridge.app.layer;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.locationtech.jts.geom.Envelope;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.said.Said;

/**
 * A layer as other modules see it.
 *
 * @param decimals precision of its coordinates, decimals of a degree
 * @param revision grows with every change to any of its features
 * @param systemCode the coordinate system that it came in or is meant for: "EPSG:32629"
 * @param expectedArea where its features should lie, as a GeoJSON geometry; "" for anywhere
 * @param lookRevision counts how often its look was saved
 * @param extent the box around its features in degrees; empty when it has none with a place
 */
public record Layer(
    UUID id,
    UUID projectId,
    String name,
    Schema schema,
    int decimals,
    long revision,
    int count,
    Optional<Envelope> extent,
    Said source,
    Instant madeAt,
    String madeBy,
    Instant changedAt,
    String summary,
    List<String> tags,
    String systemCode,
    String expectedArea,
    long lookRevision) {
  /** The source of a layer that was made at the desk. */
  public static final String MADE_HERE = "ledger.madeAtTheDesk";

  /** The same layer at a later revision. */
  Layer at(long newRevision, Instant newChangedAt) {
    return new Layer(
        id,
        projectId,
        name,
        schema,
        decimals,
        newRevision,
        count,
        extent,
        source,
        madeAt,
        madeBy,
        newChangedAt,
        summary,
        tags,
        systemCode,
        expectedArea,
        lookRevision);
  }

  /** The layer as somebody saw it who was shown that revision. */
  public Layer asSeen(long shown) {
    return at(shown, changedAt);
  }

  /** Whether it was made at the desk and not brought in. */
  public boolean isMadeHere() {
    return source.key().equals(MADE_HERE) || source.toString().startsWith("made");
  }

  /** A filter that could be asked of the layer, for who has not written one yet. */
  public String ruleLike() {
    return LayerScope.example(schema);
  }
}
