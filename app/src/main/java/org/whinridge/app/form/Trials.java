package org.whinridge.app.form;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Supplier;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Project;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Writing;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.edit.FormRename;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.trial.Difference;
import org.whinridge.core.trial.Trial;
import org.whinridge.core.visit.VisitStart;

/** Filled examples that are kept with a draft and run again at each change. */
@Service
@Transactional(readOnly = true)
public class Trials {
  /** So many trials a form may have. */
  static final int MOST = 60;

  /**
   * So many characters a trial may have: a feature with many vertices, answers, what is expected.
   */
  private static final int LARGEST = 1_000_000;

  private final FormTrialRepository trials;
  private final Locks locks;
  private final Forms forms;
  private final Layers layers;
  private final AroundForms around;
  private final VisitsOfForms visits;

  Trials(
      FormTrialRepository trials,
      Locks locks,
      Forms forms,
      Layers layers,
      AroundForms around,
      VisitsOfForms visits) {
    this.trials = trials;
    this.locks = locks;
    this.forms = forms;
    this.layers = layers;
    this.around = around;
    this.visits = visits;
  }

  /**
   * A trial, run with the draft as it is.
   *
   * @param feature what the feature is called; "" for a new one
   * @param holding how many points are expected to hold the visit back
   * @param differences what is other than expected; nothing when the draft can't be run
   */
  public record Ran(
      UUID id,
      String name,
      String feature,
      Instant keptAt,
      String keptBy,
      int holding,
      List<Difference> differences) {}

  /**
   * All trials of a draft.
   *
   * @param ran whether the draft can be run
   */
  public record All(boolean ran, List<Ran> trials) {}

  /** A draft that can be run, and what lies around it. */
  private record Ready(ExecutableForm form, Trial.Around around) {}

  private Optional<Ready> ready(Project p, FormDraft draft) {
    return FormCompiler.compile(draft.form(), forms.schema(draft))
        .form()
        .map(
            f ->
                new Ready(
                    f,
                    new Trial.Around(
                        around.lookups(p, draft.form()),
                        AroundForms.system(p),
                        draft
                            .layer()
                            .map(l -> around.taken(layers.byId(l)))
                            .orElse(VisitStart.NOTHING_TAKEN))));
  }

  /**
   * The draft as it is, with its form locked until the end: a trial is kept by the names that the
   * draft has, and follows when another person gives a question another name.
   */
  private FormDraft locked(Project p, UUID form) {
    locks.lock(FormEntity.class, form);
    return forms.get(p.id(), form);
  }

  private Ready sound(Project p, FormDraft draft) {
    return ready(p, draft).orElseThrow(() -> Refusal.conflict("refused.draftCantBeRun"));
  }

  /** Runs all trials of a draft. */
  public All run(Project p, FormDraft draft) {
    List<FormTrialEntity> all = trials.findByFormIdOrderByKeptAtAscIdAsc(draft.id());
    Optional<Ready> ready = all.isEmpty() ? Optional.empty() : ready(p, draft);
    Schema schema = forms.schema(draft);
    return new All(
        all.isEmpty() || ready.isPresent(), all.stream().map(t -> ran(t, schema, ready)).toList());
  }

  private static Ran ran(FormTrialEntity t, Schema schema, Optional<Ready> ready) {
    Trial trial = Trial.read(t.content);
    return new Ran(
        t.id,
        t.name,
        caption(trial, schema),
        t.keptAt,
        t.keptBy,
        trial.expected().holding(),
        ready.map(r -> trial.differences(r.form, r.around)).orElse(List.of()));
  }

  private static String caption(Trial trial, Schema schema) {
    if (!trial.feature().isObject()) return "";
    JsonValue values = trial.feature().asObject().get("properties");
    return values == null || !values.isObject()
        ? ""
        : schema.caption(schema.readValues(values.asObject()));
  }

  /** What a trial keeps, to be filled again. */
  public Trial get(UUID form, UUID id) {
    return Trial.read(entity(form, id).content);
  }

  private FormTrialEntity entity(UUID form, UUID id) {
    return trials.findByIdAndFormId(id, form).orElseThrow(() -> Refusal.notFound("thing.trial"));
  }

  /** Keeps what was filled as a trial; what comes of it now is expected. */
  @Writing
  public UUID keep(
      Project p,
      UUID form,
      String name,
      JsonValue feature,
      JsonObject start,
      JsonObject saved,
      String person) {
    FormDraft draft = locked(p, form);
    if (trials.countByFormId(form) >= MOST)
      throw Refusal.refused("refused.tooManyTrials", "most", MOST);
    Ready r = sound(p, draft);
    FormTrialEntity t = new FormTrialEntity();
    t.id = UUID.randomUUID();
    t.formId = form;
    t.name = name.strip();
    put(t, Trial.kept(feature, start, saved, r.form, r.around));
    t.keptAt = Layers.now();
    t.keptBy = person;
    trials.save(t);
    return t.id;
  }

  /** Keeps a visit that came in as a trial. */
  @Writing
  public UUID keepVisit(Project p, UUID form, String name, UUID visit, String person) {
    VisitsOfForms.Received v =
        visits.received(form, visit).orElseThrow(() -> Refusal.notFound("thing.visit"));
    return keep(p, form, name, v.feature(), v.start(), v.saved(), person);
  }

  private static void put(FormTrialEntity t, Trial trial) {
    String text = trial.text();
    if (text.length() > LARGEST) throw Refusal.refused("refused.trialTooLarge", "most", LARGEST);
    t.content = text;
  }

  /** What comes of a trial now is expected from now on. */
  @Writing
  public void expectNow(Project p, UUID form, UUID id) {
    FormDraft draft = locked(p, form);
    FormTrialEntity t = entity(form, id);
    Ready r = sound(p, draft);
    put(t, Trial.read(t.content).expectingNow(r.form, r.around));
  }

  /** Gives a trial another name. */
  @Writing
  public void rename(UUID form, UUID id, String name) {
    locks.lock(FormEntity.class, form); // its content may just follow another name of a question
    entity(form, id).name = name.strip();
  }

  /** Takes a trial away. */
  @Writing
  public void remove(UUID form, UUID id) {
    locks.lock(FormEntity.class, form);
    trials.delete(entity(form, id));
  }

  /** The draft got another state: where questions have other names, its trials follow. */
  @Transactional(propagation = Propagation.MANDATORY)
  void follow(UUID form, Supplier<Form> before, Form after) {
    if (trials.countByFormId(form) == 0) return;
    Map<String, String> names = FormRename.between(before.get(), after);
    if (names.isEmpty()) return;
    for (FormTrialEntity t : trials.findByFormIdOrderByKeptAtAscIdAsc(form))
      t.content = Trial.read(t.content).renamed(names).text();
  }
}
