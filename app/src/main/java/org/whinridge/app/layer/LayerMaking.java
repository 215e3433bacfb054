package org.whinridge.app.layer;

import jakarta.persistence.EntityManagerFactory;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.hibernate.SessionFactory;
import org.hibernate.StatelessSession;
import org.hibernate.Transaction;
import org.springframework.stereotype.Service;
import org.whinridge.app.shell.JobProblem;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;

/** Makes a layer with all its features in one transaction: it is there whole, or not at all. */
@Service
public class LayerMaking {
  private static final int BATCH = 500;
  private final SessionFactory sessions;
  private final LayerRepository layers;

  LayerMaking(EntityManagerFactory factory, LayerRepository layers) {
    this.sessions = factory.unwrap(SessionFactory.class);
    this.layers = layers;
  }

  /** Gives features one after the other to a taker. */
  public interface Features {
    /** Calls {@code take} for each feature, in order. */
    void each(java.util.function.Consumer<Feature> take) throws Exception;
  }

  /**
   * Makes the layer.
   *
   * @param source where it came from, for the ledger: "import of structures.geojson"
   * @throws Exception whatever the source of features throws; nothing is kept then
   */
  public UUID make(
      UUID project, String name, Schema schema, String source, String person, Features from)
      throws Exception {
    String clean = name.strip();
    if (clean.isEmpty() || clean.length() > 120)
      throw JobProblem.refused(
          "A layer needs a name of 1 to 120 characters. Nothing was imported.");
    if (layers.existsByProjectIdAndName(project, clean))
      throw JobProblem.refused(
          "This project already has a layer called “"
              + clean
              + "”. Choose another name; nothing was imported.");
    Instant now = Layers.now();
    try (StatelessSession s = sessions.openStatelessSession()) {
      Transaction t = s.beginTransaction();
      try {
        LayerEntity l = new LayerEntity();
        l.id = UUID.randomUUID();
        l.projectId = project;
        l.name = clean;
        l.schema = schema.json().toString();
        l.decimals = 8;
        l.revision = 1;
        l.source = source.substring(0, Math.min(300, source.length()));
        l.madeAt = now;
        l.madeBy = person;
        l.changedAt = now;
        s.insert(l);
        UUID entry = UUID.randomUUID();
        Batch batch = new Batch(s, l, entry, now, person);
        from.each(f -> batch.add(f, schema));
        batch.flush();
        l.featureCount = batch.count;
        s.update(l);
        s.insert(entry(l, entry, batch.count, now, person));
        t.commit();
        return l.id;
      } catch (Exception e) {
        t.rollback();
        throw e;
      }
    }
  }

  private static LedgerEntity entry(LayerEntity l, UUID id, int count, Instant now, String person) {
    LedgerEntity e = new LedgerEntity();
    e.id = id;
    e.layerId = l.id;
    e.version = 1;
    e.at = now;
    e.person = person;
    e.cause = "import";
    e.summary =
        (l.source + ", " + count + " features")
            .substring(0, Math.min(300, l.source.length() + 11 + String.valueOf(count).length()));
    e.beforeValues = "{}";
    e.afterValues = "{}";
    return e;
  }

  private static final class Batch {
    private final StatelessSession session;
    private final LayerEntity layer;
    private final UUID entry;
    private final Instant now;
    private final String person;
    private final List<FeatureEntity> rows = new ArrayList<>(BATCH);
    private int count;

    Batch(StatelessSession session, LayerEntity layer, UUID entry, Instant now, String person) {
      this.session = session;
      this.layer = layer;
      this.entry = entry;
      this.now = now;
      this.person = person;
    }

    void add(Feature f, Schema schema) {
      FeatureEntity e = new FeatureEntity();
      e.id = UUID.fromString(f.id());
      e.layerId = layer.id;
      e.geom = f.geometry().orElse(null);
      e.attrs = schema.writeValues(f.values()).toString();
      e.version = 1;
      e.changedAt = now;
      e.changedBy = person;
      e.madeByEntry = entry;
      e.placeInLayer = count++;
      if (e.geom != null) Layers.grow(layer, e.geom.getEnvelopeInternal());
      rows.add(e);
      if (rows.size() == BATCH) flush();
    }

    void flush() {
      session.insertMultiple(rows);
      rows.clear();
    }
  }
}
