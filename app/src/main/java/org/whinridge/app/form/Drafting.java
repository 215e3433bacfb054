package org.whinridge.app.form;

import com.eclipsesource.json.JsonObject;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Writing;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.LayerOfForm;
import org.whinridge.core.form.edit.EditSaid;
import org.whinridge.core.form.edit.FormDelta;
import org.whinridge.core.form.edit.FormEdit;
import org.whinridge.core.form.edit.StepState;
import org.whinridge.core.form.edit.WiredByName;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.said.Said;

/**
 * Changes of drafts. Each is stored as it is made, as a step that its maker can take back and do
 * again, also tomorrow. Two people may work in one draft: a change that was made on an older state
 * is taken when nothing that it touches was changed since.
 */
@Service
@Transactional(readOnly = true)
public class Drafting {
  private final FormStepRepository steps;
  private final Forms forms;
  private final Layers layers;
  private final Locks locks;
  private final Trials trials;

  Drafting(FormStepRepository steps, Forms forms, Layers layers, Locks locks, Trials trials) {
    this.trials = trials;
    this.layers = layers;
    this.steps = steps;
    this.forms = forms;
    this.locks = locks;
  }

  /** What somebody could take back and do again, in words; empty for nothing. */
  public record Reach(Optional<Said> undo, Optional<Said> redo) {}

  /** How far a person's own steps reach. */
  public Reach reach(UUID form, String person) {
    return new Reach(
        steps
            .findFirstByFormIdAndPersonAndStateOrderByNumberDesc(form, person, StepState.DONE)
            .map(s -> s.what),
        steps
            .findFirstByFormIdAndPersonAndStateOrderByNumber(form, person, StepState.UNDONE)
            .map(s -> s.what));
  }

  private FormEntity locked(UUID project, UUID id) {
    return locks
        .lock(FormEntity.class, id)
        .filter(e -> e.projectId.equals(project))
        .orElseThrow(() -> Refusal.notFound("thing.form"));
  }

  /**
   * Applies one edit to the draft.
   *
   * @param revision the one that the screen shows
   */
  @Writing
  public FormDraft edit(UUID project, UUID id, long revision, JsonObject edit, String person) {
    FormEntity e = locked(project, id);
    Form before = Forms.readable(e);
    FormDelta delta;
    Form after;
    try {
      after = WiredByName.after(before, FormEdit.apply(before, edit), schema(e));
      delta = FormDelta.between(before, after);
    } catch (IllegalArgumentException x) {
      if (revision != e.revision) throw Refusal.conflict("refused.somebodyElseOrAnother");
      throw Refusal.refused("refused.changeWasNotMade", "why", Refusal.said(x));
    }
    if (revision != e.revision && meets(id, revision, e.revision, delta))
      throw Refusal.conflict("refused.somebodyElseOrAnother");
    if (delta.isEmpty()) return forms.get(project, id);
    step(e, after, EditSaid.of(before, edit), delta, person);
    return forms.get(project, id);
  }

  /**
   * Puts a draft onto a layer, with its questions as they write to it; a step as any other.
   *
   * @param revision the one that the layer was made for
   */
  @Writing
  public void onto(UUID project, UUID id, long revision, Layer layer, Form after, String person) {
    FormEntity e = locked(project, id);
    if (e.revision != revision) throw Refusal.conflict("refused.somebodyElseOrAnother");
    if (e.layerId != null && !e.layerId.equals(layer.id()))
      throw Refusal.conflict("refused.formHasLayer");
    FormDelta delta = FormDelta.between(Forms.readable(e), after);
    e.layerId = layer.id();
    if (!delta.isEmpty())
      step(e, after, Said.of("formStep.layer", "layer", layer.name()), delta, person);
  }

  private void step(FormEntity e, Form after, Said what, FormDelta delta, String person) {
    UUID id = e.id;
    keep(e, after, person);
    steps.leave(id, person, StepState.UNDONE, StepState.LEFT);
    FormStepEntity s = new FormStepEntity();
    s.id = UUID.randomUUID();
    s.formId = id;
    s.number = steps.last(id) + 1;
    s.person = person;
    s.at = e.changedAt;
    s.what = what;
    s.delta = delta.text();
    s.state = StepState.DONE;
    s.touched = e.revision;
    steps.save(s);
  }

  /**
   * Whether what was done since touches what is to be done; so it is when the rest is not known.
   */
  private boolean meets(UUID form, long seen, long now, FormDelta delta) {
    List<FormStepEntity> since = steps.findByFormIdAndTouchedGreaterThan(form, seen);
    return seen > now
        || since.isEmpty()
        || since.stream().anyMatch(s -> FormDelta.read(s.delta).meets(delta));
  }

  private Schema schema(FormEntity e) {
    return e.layerId == null ? LayerOfForm.NONE : layers.byId(e.layerId).schema();
  }

  /** All that changes a draft goes through here. */
  private void keep(FormEntity e, Form now, String person) {
    trials.follow(e.id, () -> Forms.readable(e), now);
    e.draft = now.json().toString();
    e.revision++;
    e.changedAt = Layers.now();
    e.changedBy = person;
    int minutes = now.settings().publishAfterMinutes();
    e.publishesAt = minutes == 0 ? null : e.changedAt.plus(Duration.ofMinutes(minutes));
  }

  /** Takes the person's last step back. */
  @Writing
  public FormDraft undo(UUID project, UUID id, String person) {
    FormEntity e = locked(project, id);
    FormStepEntity s =
        steps
            .findFirstByFormIdAndPersonAndStateOrderByNumberDesc(id, person, StepState.DONE)
            .orElseThrow(() -> Refusal.conflict("refused.nothingToUndo"));
    return turn(e, s, StepState.UNDONE);
  }

  /** Does the step again that the person took back last. */
  @Writing
  public FormDraft redo(UUID project, UUID id, String person) {
    FormEntity e = locked(project, id);
    FormStepEntity s =
        steps
            .findFirstByFormIdAndPersonAndStateOrderByNumber(id, person, StepState.UNDONE)
            .orElseThrow(() -> Refusal.conflict("refused.nothingToRedo"));
    return turn(e, s, StepState.DONE);
  }

  private FormDraft turn(FormEntity e, FormStepEntity s, StepState to) {
    Form now = Forms.readable(e);
    FormDelta delta = FormDelta.read(s.delta);
    try {
      keep(e, to == StepState.DONE ? delta.redo(now) : delta.undo(now), s.person);
    } catch (IllegalArgumentException x) {
      throw Refusal.conflict("refused.sentence", "why", Refusal.said(x));
    }
    s.state = to;
    s.touched = e.revision;
    return forms.get(e.projectId, e.id);
  }
}
