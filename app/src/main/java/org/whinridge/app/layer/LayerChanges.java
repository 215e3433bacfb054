package org.whinridge.app.layer;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Stream;
import org.hibernate.LockMode;
import org.hibernate.StatelessSession;
import org.locationtech.jts.geom.Geometry;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import org.whinridge.app.shell.Attempts;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.NewFeature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.merge.Merge;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * Acts that change many features of a layer at once: a tidy, a change of the fields, an import into
 * an existing layer. Each is one transaction, stands in the ledger feature by feature under one
 * group, and can be taken back as a whole.
 */
@Service
public class LayerChanges {
  static final String TAKEN_BACK = "taken back";
  static final String MADE_THE_LAYER = "{\"$layer\":\"none\"}";
  static final String SCHEMA = "$schema";
  static final String REMOVED = "$removed";
  private final Connections connections;
  private final TransactionTemplate transaction;
  private final List<LayerUse> uses;
  private final LayerNews news;
  private final ObjectProvider<GoesWithLayer> companions;
  private final Setting setting;
  private final ChangedSince since;

  LayerChanges(
      Connections connections,
      PlatformTransactionManager manager,
      List<LayerUse> uses,
      LayerNews news,
      ObjectProvider<GoesWithLayer> companions,
      Setting setting,
      ChangedSince since) {
    this.since = since;
    this.companions = companions;
    this.setting = setting;
    this.connections = connections;
    this.transaction = new TransactionTemplate(manager);
    this.uses = uses;
    this.news = news;
  }

  /** What an act does. */
  public interface Act {
    /** Changes features through the batch; nothing is kept when it throws. */
    void on(ChangeBatch batch) throws Exception;
  }

  /** What an act did. */
  public record Done(UUID group, int changed, int added, int removed, Said summary) {}

  /**
   * What taking back did.
   *
   * @param restored features that are as they were before
   * @param left features that were changed again since, for the fields that were
   */
  public record TakenBack(int restored, List<Said> left, boolean layerGone) {}

  /**
   * Carries out an act, once more when somebody was in the way.
   *
   * @param seen the layer as it was when the act was decided on: when its fields have changed
   *     since, the act is refused under the lock, since it may mean something else now. Values and
   *     features the act reads through its batch, as they are under the lock.
   * @param cause import, tidy, desk
   * @throws Exception whatever the act throws; nothing is kept then
   */
  public Done write(Layer seen, String cause, Said summary, String person, Act act)
      throws Exception {
    return write(seen, UUID.randomUUID(), cause, summary, person, act);
  }

  /**
   * As {@link #write(Layer, String, Said, String, Act)}, for an act that was shown before it is
   * done, with its effects counted: when anything on the layer has changed since {@code seen}, it
   * is refused with what did.
   */
  public Done writeAsShown(Layer seen, String cause, Said summary, String person, Act act)
      throws Exception {
    return write(
        seen,
        cause,
        summary,
        person,
        batch -> {
          if (batch.revision() != seen.revision()) throw since.refusal(seen, batch.revision());
          act.on(batch);
        });
  }

  /**
   * As {@link #write(Layer, String, Said, String, Act)}, under an id that whoever asks has made:
   * asked again, since the answer was lost, the act is not carried out again.
   */
  public Done write(Layer seen, UUID group, String cause, Said summary, String person, Act act)
      throws Exception {
    NewFeature.Setting now = setting.now(seen.projectId());
    return within(
        seen.id(),
        (s, l, touched) -> {
          LedgerEntity there = s.get(LedgerEntity.class, group);
          if (there != null) return again(there, seen, person, touched);
          if (!Schema.read(Json.parse(l.schema).asObject()).equals(seen.schema()))
            throw Refusal.conflict("refused.somebodyElseChangedFields", "name", l.name);
          ChangeBatch b =
              new ChangeBatch(s, l, group, cause, summary, person, Layers.now(), Optional.of(now));
          act.on(b);
          b.end();
          touched.by(b);
          return new Done(group, b.changed(), b.added(), b.removed(), b.summary());
        });
  }

  private static Done again(LedgerEntity there, Layer seen, String person, Touched touched) {
    if (!there.id.equals(there.groupId)
        || !seen.id().equals(there.layerId)
        || !there.person.equals(person)) throw Refusal.conflict("refused.actIdAnotherOne");
    touched.nothing();
    return new Done(there.id, 0, 0, 0, there.summary);
  }

  /** Whether an act of a person on a layer was written. */
  public boolean isWritten(Layer layer, UUID act, String person) {
    return connections.with(
        s -> {
          LedgerEntity e = s.get(LedgerEntity.class, act);
          return e != null && layer.id().equals(e.layerId) && e.person.equals(person);
        });
  }

  private interface Step<T> {
    T on(StatelessSession s, LayerEntity l, Touched touched) throws Exception;
  }

  /** The features of an act, as long as they are few enough to be told one by one. */
  private static final class Touched {
    private static final int FEW = 500;
    private Set<UUID> ids;
    private boolean nothing;

    void nothing() {
      nothing = true;
    }

    void by(ChangeBatch b) {
      ids = b.schemaChanged() || b.touched().size() > FEW ? null : b.touched();
    }

    /** They as they are at the act's end; empty when anything may have changed. */
    Optional<LayerChanged.Few> few(StatelessSession s, LayerEntity l) {
      if (ids == null) return Optional.empty();
      Schema schema = Schema.read(Json.parse(l.schema).asObject());
      List<Feature> now = new ArrayList<>();
      List<String> gone = new ArrayList<>();
      for (UUID id : ids) {
        FeatureEntity e = s.get(FeatureEntity.class, id);
        if (e == null || e.removed) gone.add(id.toString());
        else now.add(Layers.of(e, schema));
      }
      return Optional.of(new LayerChanged.Few(now, gone));
    }
  }

  /** A checked exception on its way out of a transaction. */
  private static final class Carried extends RuntimeException {
    private static final long serialVersionUID = 1;

    Carried(Exception e) {
      super(e);
    }
  }

  private <T> T within(UUID layer, Step<T> step) throws Exception {
    try {
      return Attempts.twice(
          () -> transaction.execute(t -> connections.with(s -> one(s, layer, step))));
    } catch (Carried e) {
      throw (Exception) e.getCause();
    }
  }

  private <T> T one(StatelessSession s, UUID layer, Step<T> step) {
    try {
      LayerEntity l = s.get(LayerEntity.class, layer, LockMode.PESSIMISTIC_WRITE);
      if (l == null) throw Refusal.notFound("thing.layer");
      Touched touched = new Touched();
      T out = step.on(s, l, touched);
      if (touched.nothing) return out;
      Optional<LayerChanged.Few> few = touched.few(s, l);
      l.revision++;
      s.update(l);
      news.tell(new LayerChanged(layer, l.revision, l.changedAt, few));
      return out;
    } catch (RuntimeException e) {
      throw e;
    } catch (Exception e) {
      throw new Carried(e);
    }
  }

  /**
   * Takes an act back: values return where nobody has changed them since, features that it made go,
   * features that it removed return. For a layer that an import made, the layer goes as a whole,
   * unless something is built on it.
   */
  public TakenBack takeBack(UUID layer, UUID group, String person) {
    try {
      return within(
          layer,
          (s, l, touched) -> {
            LedgerEntity act = s.get(LedgerEntity.class, group);
            if (act == null || !layer.equals(act.layerId) || !group.equals(act.groupId))
              throw Refusal.notFound("thing.actInTheLedger");
            if (act.takenBackBy != null) throw Refusal.conflict("refused.wasTakenBackAlready");
            if (act.cause.equals(TAKEN_BACK)) throw Refusal.refused("refused.whatWasTakenBack");
            if (act.beforeValues.equals(MADE_THE_LAYER)) return layerGone(s, l, act, person);
            return undo(s, l, act, person, touched);
          });
    } catch (RuntimeException e) {
      throw e;
    } catch (Exception e) {
      throw new IllegalStateException("taking back failed, nothing was changed", e);
    }
  }

  private TakenBack layerGone(StatelessSession s, LayerEntity l, LedgerEntity act, String person) {
    List<Said> built = uses.stream().flatMap(u -> u.of(l.id).stream()).toList();
    if (!built.isEmpty())
      throw Refusal.conflict(
          "refused.cantBeTakenBack", "name", l.name, "built", Said.row(built, "list.and"));
    Long later =
        s.createSelectionQuery(
                "select count(*) from LedgerEntity e where e.layerId = :layer and e.groupId = e.id and e.id <> :act and e.takenBackBy is null and e.cause <> :back",
                Long.class)
            .setParameter("layer", l.id)
            .setParameter("act", act.id)
            .setParameter("back", TAKEN_BACK)
            .getSingleResult();
    if (later > 0) throw Refusal.conflict("refused.wasChangedSinceWas", "name", l.name);
    companions.forEach(c -> c.gone(l.id));
    LedgerEntity e = entry(l, act, person);
    s.insert(e);
    act.takenBackBy = e.id;
    s.update(act);
    l.state = Layers.TAKEN_BACK;
    // the name is free again for another try
    String end = " (taken back " + e.id.toString().substring(0, 8) + ")";
    l.name = l.name.substring(0, Math.min(120 - end.length(), l.name.length())) + end;
    return new TakenBack(l.featureCount, List.of(), true);
  }

  private static LedgerEntity entry(LayerEntity l, LedgerEntity act, String person) {
    LedgerEntity e = new LedgerEntity();
    e.id = UUID.randomUUID();
    e.groupId = e.id;
    e.layerId = l.id;
    e.version = 0;
    e.at = Layers.now();
    e.person = person;
    e.cause = TAKEN_BACK;
    e.summary = Said.of("ledger.takenBack", "what", act.summary);
    e.beforeValues = "{}";
    e.afterValues = "{}";
    return e;
  }

  private TakenBack undo(
      StatelessSession s, LayerEntity l, LedgerEntity act, String person, Touched touched) {
    ChangeBatch b =
        new ChangeBatch(
            s,
            l,
            UUID.randomUUID(),
            TAKEN_BACK,
            Said.of("ledger.takenBack", "what", act.summary),
            person,
            Layers.now(),
            Optional.empty());
    JsonObject before = Json.parse(act.beforeValues).asObject();
    JsonObject after = Json.parse(act.afterValues).asObject();
    if (after.get(SCHEMA) != null) {
      if (!Schema.read(after.get(SCHEMA).asObject())
          .json()
          .toString()
          .equals(Schema.read(Json.parse(l.schema).asObject()).json().toString()))
        throw Refusal.conflict("refused.fieldsWereChangedAgain");
      b.schema(Schema.read(before.get(SCHEMA).asObject()));
    }
    b.takesBack(act.id);
    Undo undo = new Undo(b);
    try (Stream<LedgerEntity> all =
        s.createSelectionQuery(
                "from LedgerEntity e where e.groupId = :group and e.featureId is not null order by e.featureId, e.version desc",
                LedgerEntity.class)
            .setParameter("group", act.id)
            .setFetchSize(500)
            .getResultStream()) {
      all.forEach(undo::entry);
    }
    try (Stream<UUID> made =
        s.createSelectionQuery(
                "select f.id from FeatureEntity f where f.madeByEntry = :act and f.removed = false",
                UUID.class)
            .setParameter("act", act.id)
            .setFetchSize(500)
            .getResultStream()) {
      made.toList().forEach(undo::made);
    }
    b.end();
    touched.by(b);
    act.takenBackBy = b.group();
    s.update(act);
    return new TakenBack(b.changed() + b.removed() + b.added(), undo.left(b), false);
  }

  /** Undoes entries of a group one by one. */
  private static final class Undo {
    private final ChangeBatch batch;

    Undo(ChangeBatch batch) {
      this.batch = batch;
    }

    void entry(LedgerEntity e) {
      Schema schema = batch.schemaOfValues();
      Map<String, Value> before =
          new LinkedHashMap<>(schema.readValues(Json.parse(e.beforeValues).asObject()));
      Map<String, Value> after =
          new LinkedHashMap<>(schema.readValues(Json.parse(e.afterValues).asObject()));
      boolean wasRemoved = after.remove(REMOVED) != null;
      before.remove(REMOVED);
      if (wasRemoved) batch.restore(e.featureId);
      else batch.undo(e.featureId, before, after);
    }

    void made(UUID feature) {
      batch.removeIfUntouched(feature);
    }

    List<Said> left(ChangeBatch b) {
      return b.left();
    }
  }

  /** A geometry out of values as the ledger has them. */
  static Optional<Geometry> geometry(Map<String, Value> values) {
    return values.remove(Merge.GEOMETRY) instanceof Value.Place p
        ? Optional.of(p.geometry())
        : Optional.empty();
  }
}
