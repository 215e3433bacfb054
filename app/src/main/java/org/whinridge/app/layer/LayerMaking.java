package org.whinridge.app.layer;

import jakarta.persistence.EntityManagerFactory;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.function.Consumer;
import org.hibernate.SessionFactory;
import org.hibernate.StatelessSession;
import org.hibernate.exception.ConstraintViolationException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationStartedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.layer.SchemaChange;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.Said;

/** Makes a layer with all its features: it is there whole, or not at all. */
@Service
public class LayerMaking {
  private static final Logger LOG = LoggerFactory.getLogger(LayerMaking.class);
  private static final String ARRIVING = "arriving";
  private static final int BATCH = 1000;
  private static final int COMMIT = 5;
  private final SessionFactory sessions;
  private final LayerRepository layers;
  private final ReadModels models;
  private final Projects projects;

  LayerMaking(
      EntityManagerFactory factory, LayerRepository layers, ReadModels models, Projects projects) {
    this.projects = projects;
    this.models = models;
    this.sessions = factory.unwrap(SessionFactory.class);
    this.layers = layers;
  }

  /** Gives features one after the other to a taker. */
  public interface Features {
    /** Calls {@code take} for each feature, in order. */
    void each(Consumer<Feature> take) throws Exception;
  }

  /**
   * What a new layer is besides its features.
   *
   * @param source where it came from, for the ledger: "import of structures.geojson"
   * @param systemCode the coordinate system it came in, or is meant for
   * @param expectedArea a GeoJSON geometry, or "" for where the project expects them
   */
  public record NewLayer(
      UUID project,
      String name,
      Schema schema,
      Said source,
      String summary,
      List<String> tags,
      String systemCode,
      String expectedArea) {
    /** A layer of WGS 84 without the finer points. */
    public static NewLayer of(UUID project, String name, Schema schema, Said source) {
      return new NewLayer(project, name, schema, source, "", List.of(), "EPSG:4326", "");
    }
  }

  /** A layer of WGS 84; see {@link #make(NewLayer, String, Features)}. */
  public UUID make(
      UUID project, String name, Schema schema, Said source, String person, Features from)
      throws Exception {
    return make(NewLayer.of(project, name, schema, source), person, from);
  }

  /** Refuses a name that can't be a layer's, before any work is done. */
  public void checkName(UUID project, String name) {
    String clean = name.strip();
    if (clean.isEmpty() || clean.length() > 120)
      throw Refusal.refused("refused.layerNeedsNameCharacters");
    if (layers.existsByProjectIdAndName(project, clean)) throw taken(clean);
  }

  /**
   * Makes the layer. Rows are committed by the thousand, since the store can't hold a million in
   * one transaction; until the last one is there the layer is <i>arriving</i> and nobody sees it.
   * What did not come to its end is taken away: here, or when the server starts anew.
   *
   * @throws Exception whatever the source of features throws; nothing is kept then
   */
  public UUID make(NewLayer plan, String person, Features from) throws Exception {
    checkName(plan.project(), plan.name());
    SchemaChange.check(plan.schema());
    Instant now = Layers.now();
    LayerEntity l = entity(plan, area(plan), person, now);
    try (StatelessSession s = sessions.openStatelessSession()) {
      try {
        s.beginTransaction();
        insert(s, l);
        s.getTransaction().commit();
        s.beginTransaction();
        UUID entry = UUID.randomUUID();
        Batch batch = new Batch(s, l, entry, now, person);
        from.each(f -> batch.add(f, plan.schema()));
        batch.flush();
        l.featureCount = batch.count;
        l.state = Layers.HERE;
        s.update(l);
        s.insert(entry(l, entry, batch.count, now, person));
        s.getTransaction().commit();
        models.prepare(l.id, batch.count);
        return l.id;
      } catch (Exception | OutOfMemoryError e) {
        if (s.getTransaction().isActive()) s.getTransaction().rollback();
        away(s, l.id);
        throw e;
      }
    }
  }

  /** Makes layers without features, all or none. */
  public List<UUID> makeEmpty(List<NewLayer> plans, String person) throws Exception {
    List<UUID> made = new ArrayList<>();
    try {
      for (NewLayer plan : plans) made.add(make(plan, person, take -> {}));
      return made;
    } catch (Exception | OutOfMemoryError e) {
      try (StatelessSession s = sessions.openStatelessSession()) {
        made.forEach(id -> away(s, id));
      }
      throw e;
    }
  }

  /**
   * Of two that are made under one name at once the store takes the first; the row is committed at
   * once, so that the other is told now and does not wait for a million features.
   */
  private static void insert(StatelessSession s, LayerEntity l) {
    try {
      s.insert(l);
    } catch (ConstraintViolationException e) {
      throw taken(l.name);
    }
  }

  private static Refusal taken(String name) {
    return Refusal.refused("refused.projectAlreadyLayerCalled", "name", name);
  }

  /** Takes away a layer that did not arrive whole. */
  private static void away(StatelessSession s, UUID layer) {
    int gone;
    do {
      s.beginTransaction();
      gone =
          s.createNativeMutationQuery("delete from feature where layer_id = :layer limit 5000")
              .setParameter("layer", layer)
              .executeUpdate();
      s.getTransaction().commit();
    } while (gone > 0);
    s.beginTransaction();
    s.createMutationQuery("delete from LedgerEntity e where e.layerId = :layer")
        .setParameter("layer", layer)
        .executeUpdate();
    s.createMutationQuery("delete from LayerEntity l where l.id = :layer")
        .setParameter("layer", layer)
        .executeUpdate();
    s.getTransaction().commit();
  }

  /** What was arriving when the server stopped is gone. */
  @EventListener(ApplicationStartedEvent.class)
  void sweep() {
    try (StatelessSession s = sessions.openStatelessSession()) {
      List<UUID> arriving =
          s.createSelectionQuery(
                  "select l.id from LayerEntity l where l.state = :state", UUID.class)
              .setParameter("state", ARRIVING)
              .getResultList();
      for (UUID id : arriving) {
        LOG.warn("the layer {} was arriving when the server stopped; it is taken away", id);
        away(s, id);
      }
    }
  }

  /** Where it expects its features: as said, else where the project does; a table nowhere. */
  private String area(NewLayer plan) {
    if (plan.schema().kind() == GeometryKind.TABLE) return "";
    return plan.expectedArea().isEmpty()
        ? projects.byId(plan.project()).expectedArea()
        : plan.expectedArea();
  }

  private static LayerEntity entity(NewLayer plan, String area, String person, Instant now) {
    LayerEntity l = new LayerEntity();
    l.id = UUID.randomUUID();
    l.projectId = plan.project();
    l.name = plan.name().strip();
    l.schema = plan.schema().json().toString();
    l.decimals = 8;
    l.revision = 1;
    l.source = plan.source();
    l.state = ARRIVING;
    l.madeAt = now;
    l.madeBy = person;
    l.changedAt = now;
    l.summary = cut(plan.summary().strip(), 1000);
    l.tags = cut(String.join(",", plan.tags()), 300);
    l.systemCode = plan.systemCode();
    l.expectedArea = area.isEmpty() ? null : area;
    return l;
  }

  private static String cut(String s, int most) {
    return s.substring(0, Math.min(most, s.length()));
  }

  private static LedgerEntity entry(LayerEntity l, UUID id, int count, Instant now, String person) {
    LedgerEntity e = new LedgerEntity();
    e.id = id;
    e.groupId = id;
    e.layerId = l.id;
    e.version = 1;
    e.at = now;
    e.person = person;
    e.cause = count == 0 ? "desk" : "import";
    e.summary =
        count == 0 ? l.source : Said.of("ledger.withFeatures", "what", l.source, "n", count);
    e.beforeValues = LayerChanges.MADE_THE_LAYER;
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
    private int batches;

    Batch(StatelessSession session, LayerEntity layer, UUID entry, Instant now, String person) {
      this.session = session;
      this.layer = layer;
      this.entry = entry;
      this.now = now;
      this.person = person;
    }

    void add(Feature f, Schema schema) {
      FeatureEntity e = FeatureEntity.fresh(layer, f, schema, entry, now, person);
      e.placeInLayer = count++;
      rows.add(e);
      if (rows.size() == BATCH) flush();
    }

    void flush() {
      session.insertMultiple(rows);
      rows.clear();
      if (++batches % COMMIT == 0) {
        session.getTransaction().commit();
        session.beginTransaction();
      }
    }
  }
}
