package org.whinridge.app.layer.fields;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.task.AsyncTaskExecutor;
import org.springframework.stereotype.Service;
import org.whinridge.app.layer.AfterLayerChange;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerChanged;
import org.whinridge.app.layer.LayerChanges;
import org.whinridge.app.layer.LayerUse;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.ReadModels;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.CodesFrom;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.layer.SchemaChange;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** Changes of a layer's fields: told before they are made, written with an undo. */
@Service
public class LayerFields implements AfterLayerChange {
  /** How many fields the ledger names of one change. */
  private static final int MOST_SAID = 12;

  private static final Logger LOG = LoggerFactory.getLogger(LayerFields.class);
  private static final int MOST_CODES = 5_000;
  private final Layers layers;
  private final LayerChanges changes;
  private final ReadModels models;
  private final List<LayerUse> uses;
  private final AsyncTaskExecutor background;

  LayerFields(
      Layers layers,
      LayerChanges changes,
      ReadModels models,
      List<LayerUse> uses,
      AsyncTaskExecutor applicationTaskExecutor) {
    this.background = applicationTaskExecutor;
    this.layers = layers;
    this.changes = changes;
    this.models = models;
    this.uses = uses;
  }

  /**
   * What a change would do.
   *
   * @param uses what is built on fields that go or change their type
   */
  public record Preview(List<SchemaChange.Effect> effects, List<Said> uses) {}

  /** Looks over all features and says what the change would do to how many; changes nothing. */
  public Preview preview(Layer layer, Schema after) {
    SchemaChange change = between(layer, after);
    LayerColumns c = models.of(layer);
    for (int row = 0; row < c.rows(); row++) if (c.has(row)) change.see(c.feature(row));
    List<Said> built = new ArrayList<>();
    for (Field f : layer.schema().fields())
      if (after.field(f.name()).filter(x -> x.type() == f.type()).isEmpty())
        uses.forEach(
            u ->
                u.of(layer.id(), f.name())
                    .forEach(x -> built.add(Said.of("uses.field", "what", x, "field", f.label()))));
    return new Preview(change.effects(), built);
  }

  private static SchemaChange between(Layer layer, Schema after) {
    try {
      return SchemaChange.between(layer.schema(), after);
    } catch (IllegalArgumentException e) {
      throw Refusal.refused("refused.fieldsCantBeSo", "why", Refusal.said(e));
    }
  }

  /** Makes the change. */
  public LayerChanges.Done change(Layer layer, Schema after, String person) {
    return change(
        layer,
        after,
        "fields",
        Said.of("ledger.fieldsChanged", "what", said(layer.schema(), after)),
        person,
        false);
  }

  /** Makes the change as it was shown; refused when the layer has changed since. */
  public LayerChanges.Done changeAsShown(Layer seen, Schema after, String person) {
    return change(
        seen,
        after,
        "fields",
        Said.of("ledger.fieldsChanged", "what", said(seen.schema(), after)),
        person,
        true);
  }

  private LayerChanges.Done change(
      Layer layer, Schema after, String cause, Said summary, String person, boolean asShown) {
    SchemaChange change = between(layer, after);
    try {
      LayerChanges.Act act =
          batch -> {
            batch.schema(after);
            batch.each(
                f -> {
                  Map<String, Value> set = change.rewrite(f);
                  if (!set.isEmpty()) batch.set(UUID.fromString(f.id()), set, Optional.empty());
                });
          };
      return asShown
          ? changes.writeAsShown(layer, cause, summary, person, act)
          : changes.write(layer, cause, summary, person, act);
    } catch (RuntimeException e) {
      throw e;
    } catch (Exception e) {
      throw new IllegalStateException("changing the fields failed, nothing was changed", e);
    }
  }

  private static Said said(Schema before, Schema after) {
    List<Said> out = new ArrayList<>();
    for (Field f : after.fields()) {
      Optional<Field> was = before.field(f.name());
      if (was.isEmpty()) out.add(Said.of("ledger.fieldAdded", "field", f.label()));
      else if (!was.get().type().equals(f.type()))
        out.add(Said.of("ledger.fieldIsNow", "field", f.label(), "type", f.type().said()));
      else if (!was.get().equals(f)) out.add(Said.text(f.label()));
    }
    for (Field f : before.fields())
      if (after.field(f.name()).isEmpty())
        out.add(Said.of("ledger.fieldTakenAway", "field", f.label()));
    return out.isEmpty() ? Said.of("ledger.fieldOrder") : Said.some(out, MOST_SAID);
  }

  /** The codes that two columns of a layer give, in the order of their first appearance. */
  public List<Code> codesOf(Layer from, CodesFrom c) {
    Field code = field(from, c.code());
    String label = from.schema().field(c.label()).isPresent() ? c.label() : code.name();
    Map<String, String> out = new LinkedHashMap<>();
    LayerColumns columns = models.of(from);
    for (int row = 0; row < columns.rows() && out.size() < MOST_CODES; row++) {
      if (!columns.has(row)) continue;
      Feature f = columns.feature(row);
      String stored = f.value(code.name()).plain().strip();
      if (stored.isEmpty()) continue;
      String said = f.value(label).plain().strip();
      out.putIfAbsent(stored, said.isEmpty() ? stored : said);
    }
    return out.entrySet().stream().map(e -> Code.of(e.getKey(), e.getValue())).toList();
  }

  private static Field field(Layer layer, String name) {
    return layer
        .schema()
        .field(name)
        .orElseThrow(
            () -> Refusal.refused("refused.noField", "layer", layer.name(), "field", name));
  }

  /**
   * Keeps code lists in step with the layer that they are taken from: new codes are added, labels
   * follow, codes that are gone there are retired here, never taken away.
   */
  @Override
  public void changed(LayerChanged e) {
    background.execute(() -> inStep(e.layer()));
  }

  private void inStep(UUID layer) {
    Layer source = layers.byId(layer);
    for (Layer l : layers.list(source.projectId())) {
      if (l.id().equals(source.id())) continue;
      List<Field> fields = new ArrayList<>();
      for (Field f : l.schema().fields())
        fields.add(
            f.codesFrom().filter(c -> c.layer().equals(source.id().toString())).isPresent()
                ? f.with(merged(f.codes(), codesOf(source, f.codesFrom().get())))
                : f);
      Schema after =
          new Schema(l.schema().kind(), fields, l.schema().tagField(), l.schema().captionFields());
      if (after.equals(l.schema())) continue;
      try {
        change(
            l,
            after,
            "in step",
            Said.of("ledger.inStep", "layer", source.name()),
            "Whinridge",
            false);
      } catch (Refusal p) {
        LOG.warn(
            "code lists of {} could not follow {}: {}", l.name(), source.name(), p.getMessage());
      }
    }
  }

  private static List<Code> merged(List<Code> here, List<Code> there) {
    Map<String, Code> out = new LinkedHashMap<>();
    for (Code c : here)
      out.put(c.code(), new Code(c.code(), c.label(), true, c.fitsWhen(), c.alone()));
    for (Code c : there) {
      Code was = out.get(c.code());
      out.put(
          c.code(),
          was == null ? c : new Code(c.code(), c.label(), false, was.fitsWhen(), was.alone()));
    }
    return List.copyOf(out.values());
  }
}
