package org.whinridge.app.form;

import com.eclipsesource.json.JsonObject;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerFilter;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Project;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.FormUses;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.compile.OnLayer;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.visit.DryRun;
import org.whinridge.core.visit.RuleTally;
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

  /** So many features are read at once. */
  private static final int STEP = 250;

  /** So many visits are run before the time is looked at. */
  private static final int STEP_OF_VISITS = 50;

  /** So many features are named when nobody says how many. */
  static final int NAMED = 12;

  /** So many are named at most. */
  static final int MOST_NAMED = 200;

  private static final JsonObject NO_LAST_VISIT = new JsonObject();

  private final Forms forms;
  private final Layers layers;
  private final LayerQueries queries;
  private final AroundForms around;
  private final VisitsOfForms visits;

  DraftRuns(
      Forms forms, Layers layers, LayerQueries queries, AroundForms around, VisitsOfForms visits) {
    this.around = around;
    this.visits = visits;
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
   *
   * @param most how many of them are named
   */
  Optional<Tally> tally(Project project, FormDraft draft, String rule, int most, String person) {
    if (draft.layer().isEmpty()) return Optional.empty();
    Layer layer = layers.byId(draft.layerId());
    Schema schema = forms.schema(draft);
    Optional<String> filter = OnLayer.of(draft.form(), schema, rule);
    if (filter.isPresent()) return Optional.of(counted(layer, filter.get(), most));
    VisitStart start = start(project, draft.form(), person, VisitStart.NOTHING_TAKEN);
    return RuleTally.of(draft.form(), schema, rule, f -> start)
        .map(t -> tallied(layer, draft, t, most));
  }

  private Tally counted(Layer layer, String filter, int most) {
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
                    .limit(most)
                    .mapToObj(columns::feature)
                    .map(f -> named(layer, f))
                    .toList(),
                filter));
  }

  private Tally tallied(Layer layer, FormDraft draft, RuleTally tally, int most) {
    List<Named> first = new ArrayList<>();
    inLots(
        layer,
        0,
        lastVisits(layer, draft, FormUses.readsLastVisit(tally.form().form())),
        (f, last) -> {
          if (tally.add(f, VisitStart.Last.read(last, tally.form())) && first.size() < most)
            first.add(named(layer, f));
        });
    return new Tally(tally.holds(), tally.fails(), tally.features(), layer.count(), first, "");
  }

  private static Named named(Layer layer, Feature f) {
    return new Named(f.id(), layer.schema().caption(f.values()));
  }

  /**
   * A feature that failed.
   *
   * @param at where its mark stands, longitude and latitude; null when it has no place
   */
  record Failed(String caption, double[] at) {
    static Failed of(Layer layer, Feature f) {
      return new Failed(
          layer.schema().caption(f.values()),
          f.geometry()
              .filter(g -> !g.isEmpty())
              .map(Geodesy::anchor)
              .map(c -> new double[] {c.x, c.y})
              .orElse(null));
    }
  }

  /**
   * A dry run of a lot.
   *
   * @param better how many fail under the edition in use, and pass now
   * @param worse how many pass under it, and fail now
   * @param named features that failed, by id
   * @param next how many features were run so far; empty when none is left
   */
  record Lot(
      DryRun.Report report,
      int better,
      int worse,
      Map<String, Failed> named,
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
    VisitStart.Taken taken = around.taken(layer);
    DryRun run = new DryRun(form.get(), start(project, draft.form(), person, taken));
    Optional<ExecutableForm> edition =
        forms
            .newest(draft.id())
            .flatMap(e -> FormCompiler.compile(e.form(), forms.schema(draft)).form());
    Optional<DryRun.Comparison> both =
        edition.map(
            e ->
                new DryRun.Comparison(new DryRun(e, start(project, e.form(), person, taken)), run));
    Map<String, Failed> named = new LinkedHashMap<>();
    int done =
        inLots(
            layer,
            from,
            lastVisits(
                layer,
                draft,
                FormUses.readsLastVisit(draft.form())
                    || edition.filter(e -> FormUses.readsLastVisit(e.form())).isPresent()),
            (f, last) -> {
              VisitStart.Last now = VisitStart.Last.read(last, form.get());
              boolean fails =
                  !both.map(b -> b.add(f, VisitStart.Last.read(last, edition.get()), now))
                      .orElseGet(() -> run.add(f, now))
                      .isEmpty();
              if (fails) named.put(f.id(), Failed.of(layer, f));
            });
    DryRun.Report report = run.report();
    Set<String> listed = new LinkedHashSet<>();
    report.failing().forEach(x -> listed.addAll(x.features()));
    named.keySet().retainAll(listed);
    // a lot without any is the last, also when features went while it was asked for
    boolean more = done > from && done < layer.count();
    return Optional.of(
        new Lot(
            report,
            both.map(b -> b.difference().better().size()).orElse(0),
            both.map(b -> b.difference().worse().size()).orElse(0),
            named,
            more ? OptionalInt.of(done) : OptionalInt.empty(),
            layer.count()));
  }

  private interface Each {
    /** {@code last}: the members last and lastDay of a start, none for no last visit. */
    void visit(Feature f, JsonObject last);
  }

  private interface LastVisitsOf {
    Map<UUID, JsonObject> of(List<UUID> features);
  }

  /** The last visits of some features; none when nobody asks for them. */
  private LastVisitsOf lastVisits(Layer layer, FormDraft draft, boolean asked) {
    return asked ? features -> visits.last(draft, layer, features) : features -> Map.of();
  }

  /** Visits features in the layer's order until a lot is full or the time is up; how far it got. */
  private int inLots(Layer layer, int from, LastVisitsOf lastVisits, Each each) {
    long until = System.nanoTime() + LONG * 1_000_000;
    int at = Math.max(0, from);
    int end = at + LOT;
    while (at < end) {
      List<Feature> some = queries.inOrder(layer, at, STEP);
      Map<UUID, JsonObject> last =
          lastVisits.of(some.stream().map(f -> UUID.fromString(f.id())).toList());
      for (Feature f : some) {
        each.visit(f, last.getOrDefault(UUID.fromString(f.id()), NO_LAST_VISIT));
        at++;
        // a look-up in a large layer may take long for a single feature
        if (System.nanoTime() > until) return at;
      }
      if (some.size() < STEP) break;
    }
    return at;
  }

  private VisitStart start(Project project, Form form, String person, VisitStart.Taken taken) {
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
        around.lookups(project, form),
        AroundForms.system(project),
        taken,
        VisitStart.Turn.OUTDOORS);
  }

  /**
   * A visit that came in.
   *
   * @param caption what its feature is called; "" for a new one
   */
  record NamedVisit(UUID id, String caption, String person, Instant endedAt) {}

  private static NamedVisit named(VisitsOfForms.Received v, Schema schema) {
    return new NamedVisit(
        v.id(),
        v.feature().isObject()
            ? schema.caption(Feature.read(v.feature().asObject(), schema).values())
            : "",
        v.person(),
        v.endedAt());
  }

  /** The newest visits that came in, at most so many. */
  List<NamedVisit> newestVisits(FormDraft draft, int most) {
    Schema schema = forms.schema(draft);
    return visits.received(draft.id(), Optional.empty(), most).stream()
        .map(v -> named(v, schema))
        .toList();
  }

  /**
   * How a lot of the visits that came in would fare.
   *
   * @param report in it visits stand for features
   * @param named those that would be held back, by id
   * @param next below which to go on; empty when none is left
   */
  record VisitLot(
      DryRun.Report report, Map<UUID, NamedVisit> named, Optional<UUID> next, long of) {}

  /**
   * Runs a draft over a lot of the visits that came in with editions of its form, as they came;
   * empty when the draft can't be run.
   *
   * @param below the visit below which to go on; empty for the newest
   */
  Optional<VisitLot> received(Project project, FormDraft draft, Optional<UUID> below) {
    Schema schema = forms.schema(draft);
    Optional<ExecutableForm> form = FormCompiler.compile(draft.form(), schema).form();
    if (form.isEmpty()) return Optional.empty();
    DryRun run = new DryRun(form.get(), start(project, draft.form(), "", VisitStart.NOTHING_TAKEN));
    Map<UUID, NamedVisit> named = new LinkedHashMap<>();
    long until = System.nanoTime() + LONG * 1_000_000;
    Optional<UUID> at = below;
    boolean more = true;
    while (more && System.nanoTime() < until) {
      List<VisitsOfForms.Received> some = visits.received(draft.id(), at, STEP_OF_VISITS);
      for (VisitsOfForms.Received v : some) {
        boolean held =
            !run.addVisit(v.id().toString(), begun(project, v, form.get()), v.saved(), v.open())
                .isEmpty();
        if (held && named.size() < DryRun.NAMED) named.put(v.id(), named(v, schema));
        at = Optional.of(v.id());
      }
      more = some.size() == STEP_OF_VISITS;
    }
    return Optional.of(
        new VisitLot(run.report(), named, more ? at : Optional.empty(), visits.count(draft.id())));
  }

  private static VisitStart begun(Project project, VisitsOfForms.Received v, ExecutableForm form) {
    return VisitStart.read(
        v.start(),
        v.feature().isObject()
            ? Optional.of(Feature.read(v.feature().asObject(), form.schema()))
            : Optional.empty(),
        Map.of(),
        AroundForms.system(project),
        form);
  }
}
