package org.whinridge.app.form;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import org.springframework.stereotype.Service;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerFilter;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Project;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.compile.OnLayer;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.visit.DryRun;
import org.whinridge.core.visit.RuleTally;
import org.whinridge.core.visit.TakenValues;
import org.whinridge.core.visit.VisitStart;

/**
 * Runs drafts over the features of their layers, as if each were visited now; in lots, so that an
 * answer is there soon however many there are.
 */
@Service
class DraftRuns {
  /** So many features are visited for one answer at most. */
  static final int LOT = 20_000;

  /** So long is visited for one answer, in milliseconds. */
  private static final long LONG = 600;

  /** So many features are run before the time is looked at. */
  private static final int STEP = 250;

  /** So many features of a look-up layer are at hand; of a larger one none is. */
  private static final int MOST_LOOKED_UP = 50_000;

  /** So many features are named. */
  private static final int NAMED = 12;

  private final Forms forms;
  private final Layers layers;
  private final LayerQueries queries;

  DraftRuns(Forms forms, Layers layers, LayerQueries queries) {
    this.forms = forms;
    this.layers = layers;
    this.queries = queries;
  }

  /** A feature by its id and what it is called. */
  record Named(String id, String caption) {}

  /**
   * For how many features a condition holds.
   *
   * @param fails for how many it is not; for the others it is unknown
   * @param features those that were asked
   * @param of those that the layer has
   * @param first the first of those for which it holds
   * @param filter the condition as a filter of the layer; "" where it is more than that
   */
  record Tally(int holds, int fails, int features, int of, List<Named> first, String filter) {}

  /**
   * Counts for how many features of its layer a condition holds while a draft is made; empty when
   * the draft has no layer, or it or the condition can't be run.
   */
  Optional<Tally> tally(Project project, FormDraft draft, String rule, String person) {
    if (draft.layer().isEmpty()) return Optional.empty();
    Layer layer = layers.byId(draft.layerId());
    Schema schema = forms.schema(draft);
    Optional<String> filter = OnLayer.of(draft.form(), schema, rule);
    if (filter.isPresent()) return Optional.of(counted(layer, filter.get()));
    VisitStart start = start(project, draft.form(), person, VisitStart.NOTHING_TAKEN);
    return RuleTally.of(draft.form(), schema, rule, f -> start).map(t -> tallied(layer, t));
  }

  private Tally counted(Layer layer, String filter) {
    return queries.where(
        layer,
        LayerFilter.written(filter),
        (columns, rows) ->
            new Tally(
                rows.cardinality(),
                queries.count(layer, LayerFilter.written("NOT (" + filter + ")")),
                layer.count(),
                layer.count(),
                rows.stream()
                    .limit(NAMED)
                    .mapToObj(columns::feature)
                    .map(f -> named(layer, f))
                    .toList(),
                filter));
  }

  private Tally tallied(Layer layer, RuleTally tally) {
    List<Named> first = new ArrayList<>();
    inLots(
        layer,
        0,
        f -> {
          if (tally.add(f) && first.size() < NAMED) first.add(named(layer, f));
        });
    return new Tally(tally.holds(), tally.fails(), tally.features(), layer.count(), first, "");
  }

  private static Named named(Layer layer, Feature f) {
    return new Named(f.id(), layer.schema().caption(f.values()));
  }

  /**
   * A dry run of a lot.
   *
   * @param better how many fail under the edition in use, and pass now
   * @param worse how many pass under it, and fail now
   * @param next how many features were run so far; empty when none is left
   */
  record Lot(
      DryRun.Report report,
      int better,
      int worse,
      Map<String, String> captions,
      OptionalInt next,
      int of) {}

  /**
   * Runs a draft over a lot of its layer's features; empty when the draft has no layer, or can't be
   * run.
   *
   * @param from how many features were run before
   */
  Optional<Lot> dryRun(Project project, FormDraft draft, int from, String person) {
    if (draft.layer().isEmpty()) return Optional.empty();
    Layer layer = layers.byId(draft.layerId());
    Optional<ExecutableForm> form = FormCompiler.compile(draft.form(), forms.schema(draft)).form();
    if (form.isEmpty()) return Optional.empty();
    VisitStart.Taken taken = taken(layer);
    DryRun run = new DryRun(form.get(), start(project, draft.form(), person, taken));
    Optional<DryRun.Comparison> both =
        edition(project, draft, person, taken).map(older -> new DryRun.Comparison(older, run));
    Map<String, String> captions = new LinkedHashMap<>();
    int done =
        inLots(
            layer,
            from,
            f -> {
              boolean fails = !both.map(b -> b.add(f)).orElseGet(() -> run.add(f)).isEmpty();
              if (fails && captions.size() < DryRun.NAMED)
                captions.put(f.id(), layer.schema().caption(f.values()));
            });
    // a lot without any is the last, also when features went while it was asked for
    boolean more = done > from && done < layer.count();
    return Optional.of(
        new Lot(
            run.report(),
            both.map(b -> b.difference().better().size()).orElse(0),
            both.map(b -> b.difference().worse().size()).orElse(0),
            captions,
            more ? OptionalInt.of(done) : OptionalInt.empty(),
            layer.count()));
  }

  /** The same over the edition in use; empty when there is none, or it can't be run any more. */
  private Optional<DryRun> edition(
      Project project, FormDraft draft, String person, VisitStart.Taken taken) {
    return forms
        .newest(draft.id())
        .flatMap(
            e ->
                FormCompiler.compile(e.form(), forms.schema(draft))
                    .form()
                    .map(f -> new DryRun(f, start(project, e.form(), person, taken))));
  }

  private interface Each {
    void visit(Feature f);
  }

  /** Visits features in the layer's order until a lot is full or the time is up; how far it got. */
  private int inLots(Layer layer, int from, Each each) {
    long until = System.nanoTime() + LONG * 1_000_000;
    int at = Math.max(0, from);
    int last = at + LOT;
    while (at < last && System.nanoTime() < until) {
      List<Feature> some = queries.inOrder(layer, at, STEP);
      some.forEach(each::visit);
      at += some.size();
      if (some.size() < STEP) break;
    }
    return at;
  }

  private VisitStart.Taken taken(Layer layer) {
    boolean unique = layer.schema().fields().stream().anyMatch(Field::unique);
    return unique && layer.count() <= MOST_LOOKED_UP
        ? new TakenValues(layer.schema(), queries.inOrder(layer, 0, MOST_LOOKED_UP))
        : VisitStart.NOTHING_TAKEN;
  }

  private VisitStart start(Project project, Form form, String person, VisitStart.Taken taken) {
    Map<String, PlaceIndex> around = new LinkedHashMap<>();
    Set<String> asked = form.otherLayers().keySet();
    for (Layer l : layers.list(project.id()))
      if (asked.contains(l.id().toString()) && l.count() <= MOST_LOOKED_UP)
        around.put(l.id().toString(), queries.places(l));
    Instant now = Layers.now();
    return new VisitStart(
        Optional.empty(),
        VisitStart.Last.NONE,
        person,
        "",
        now,
        project.zone().getRules().getOffset(now).getTotalSeconds() / 60,
        0,
        VisitStart.Fix.NONE,
        around,
        CoordinateSystem.of(project.systemCode(), project.systemDefinition()),
        taken,
        VisitStart.Turn.OUTDOORS);
  }
}
