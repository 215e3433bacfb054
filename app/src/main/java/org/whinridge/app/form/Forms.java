package org.whinridge.app.form;

import com.eclipsesource.json.Json;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.shell.Catalogue;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Writing;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.FormMembers;
import org.whinridge.core.form.LayerOfForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.compile.FormPart;
import org.whinridge.core.form.compile.FormProblem;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.said.Said;

/** Drafts, their edits, and published editions. Each edit is stored as it is made. */
@Service
@Transactional(readOnly = true)
public class Forms {
  private final FormRepository forms;
  private final EditionRepository editions;
  private final Layers layers;
  private final Locks locks;

  private final Catalogue catalogue;

  Forms(
      FormRepository forms,
      EditionRepository editions,
      Layers layers,
      Locks locks,
      Catalogue catalogue) {
    this.catalogue = catalogue;
    this.locks = locks;
    this.forms = forms;
    this.editions = editions;
    this.layers = layers;
  }

  private static FormDraft of(FormEntity e, int edition) {
    FormMembers.Stored stored = FormMembers.read(e.draft);
    return new FormDraft(
        e.id,
        e.projectId,
        Optional.ofNullable(e.layerId),
        stored.form(),
        e.revision,
        e.changedAt,
        e.changedBy == null ? "" : e.changedBy,
        edition,
        Optional.ofNullable(e.retiredAt),
        stored.trouble());
  }

  private static Edition of(EditionEntity e) {
    return new Edition(
        e.formId,
        e.number,
        Form.read(e.content),
        Schema.read(Json.parse(e.schema).asObject()),
        e.publishedAt,
        e.publishedBy);
  }

  /** A project's forms, the last changed first. */
  public List<FormDraft> list(UUID project) {
    List<FormEntity> all = forms.findByProjectIdOrderByChangedAtDesc(project);
    Map<UUID, List<EditionHead>> published = editions(all.stream().map(f -> f.id).toList());
    return all.stream().map(f -> of(f, number(published.get(f.id)))).toList();
  }

  /** The forms over a layer. */
  public List<FormDraft> onLayer(UUID layer) {
    return forms.findByLayerId(layer).stream().map(f -> of(f, 0)).toList();
  }

  /** How many forms a project has. */
  public long count(UUID project) {
    return forms.countByProjectId(project);
  }

  /** A form of a project. */
  public FormDraft get(UUID project, UUID id) {
    FormEntity e =
        forms.findByIdAndProjectId(id, project).orElseThrow(() -> Refusal.notFound("thing.form"));
    return of(e, newest(id).map(Edition::number).orElse(0));
  }

  /** The newest edition, if one was published. */
  public Optional<Edition> newest(UUID form) {
    return editions.findFirstByFormIdOrderByNumberDesc(form).map(Forms::of);
  }

  /** All editions without their documents, the newest first. */
  public List<EditionHead> editions(UUID form) {
    return editions.heads(List.of(form));
  }

  /** The editions of several forms without their documents, the newest first. */
  Map<UUID, List<EditionHead>> editions(Collection<UUID> of) {
    return editions.heads(of).stream().collect(Collectors.groupingBy(EditionHead::form));
  }

  private static int number(List<EditionHead> newestFirst) {
    return newestFirst == null ? 0 : newestFirst.get(0).number();
  }

  /** The revision of a form's draft, without the draft. */
  public long revision(UUID project, UUID id) {
    return forms.revision(id, project).orElseThrow(() -> Refusal.notFound("thing.form"));
  }

  /** The project of a form; empty for none. */
  public Optional<UUID> projectOf(UUID form) {
    return forms.project(form);
  }

  /** An edition by its number. */
  public Optional<Edition> edition(UUID form, int number) {
    return editions.findByFormIdAndNumber(form, number).map(Forms::of);
  }

  private FormEntity locked(UUID project, UUID id) {
    return locks
        .lock(FormEntity.class, id)
        .filter(e -> e.projectId.equals(project))
        .orElseThrow(() -> Refusal.notFound("thing.form"));
  }

  /**
   * Begins a form.
   *
   * @param layer empty for one that makes its layer later
   * @param person "" when nobody asked for it
   */
  @Writing
  public UUID begin(UUID project, Optional<UUID> layer, Form form, String person) {
    FormEntity e = new FormEntity();
    e.id = UUID.randomUUID();
    e.projectId = project;
    e.layerId = layer.orElse(null);
    e.draft = form.json().toString();
    e.revision = 1;
    e.changedAt = Layers.now();
    e.changedBy = person.isEmpty() ? null : person;
    forms.save(e);
    return e.id;
  }

  /** The draft; refused when it would lose something by being read and written here. */
  static Form readable(FormEntity e) {
    FormMembers.Stored stored = FormMembers.read(e.draft);
    stored
        .trouble()
        .ifPresent(
            why -> {
              throw Refusal.conflict("refused.draftStaysAsItIs", "why", why);
            });
    return stored.form();
  }

  /** Begins a form with a question for every field of a layer. */
  @Writing
  public UUID fromLayer(UUID project, UUID layerId) {
    Layer layer = layers.get(project, layerId);
    return begin(
        project,
        Optional.of(layer.id()),
        Form.fromLayer(
            catalogue.say(Said.of("form.visitOf", "layer", layer.name())),
            layer.name(),
            layer.schema()),
        "");
  }

  /** The schema of a draft's layer; without fields as long as it has none. */
  public Schema schema(FormDraft draft) {
    return draft.layer().map(l -> layers.byId(l).schema()).orElse(LayerOfForm.NONE);
  }

  /** What keeps the draft from being published, look-ups to layers that are gone included. */
  public List<FormProblem> problems(FormDraft draft) {
    Map<String, Layer> known =
        layers.list(draft.projectId()).stream()
            .collect(Collectors.toMap(l -> l.id().toString(), l -> l));
    Map<String, Schema> schemas = new LinkedHashMap<>();
    known.forEach((layer, l) -> schemas.put(layer, l.schema()));
    List<FormProblem> found =
        new ArrayList<>(FormCompiler.compile(draft.form(), schema(draft), schemas).problems());
    draft
        .form()
        .otherLayers()
        .forEach(
            (layer, name) -> {
              if (!known.containsKey(layer))
                found.add(
                    FormProblem.of("", FormPart.Kind.LOOK_UP, FormProblem.Reason.LAYER_GONE, name));
            });
    return found;
  }

  /** What keeps nothing back, but the draft's author should know. */
  public List<FormProblem> notes(FormDraft draft) {
    return FormCompiler.compile(draft.form(), schema(draft)).notes();
  }

  /** Publishes the draft as the next edition. */
  @Writing
  public int publish(UUID project, UUID id, String person) {
    FormEntity e = locked(project, id);
    if (e.layerId == null) throw Refusal.refused("refused.formWithoutLayer");
    readable(e);
    int next = newest(id).map(Edition::number).orElse(0) + 1;
    List<FormProblem> problems = problems(of(e, next - 1));
    if (!problems.isEmpty())
      throw Refusal.refused("refused.formCantBePublished", "problems", problems.size());
    EditionEntity n = new EditionEntity();
    n.id = UUID.randomUUID();
    n.formId = id;
    n.number = next;
    n.content = e.draft;
    n.schema = layers.byId(e.layerId).schema().json().toString();
    n.publishedAt = Layers.now();
    n.publishedBy = person;
    editions.save(n);
    e.publishesAt = null;
    return next;
  }

  /** Takes a form out of use, or into use again; its editions and visits stay. */
  @Writing
  public void retire(UUID project, UUID id, boolean whether, String person) {
    FormEntity e = locked(project, id);
    e.retiredAt = whether ? Layers.now() : null;
    e.retiredBy = whether ? person : null;
  }

  /** The forms whose drafts nobody has touched for as long as their settings say. */
  List<UUID> due(Instant now) {
    return forms.due(now);
  }

  /** Publishes a draft whose time has come, if it is sound; it is asked once for each change. */
  @Writing
  public void publishDue(UUID id) {
    FormEntity e = locks.lock(FormEntity.class, id).orElse(null);
    if (e == null || e.publishesAt == null || e.publishesAt.isAfter(Layers.now())) return;
    e.publishesAt = null;
    FormDraft draft = of(e, 0);
    if (draft.layer().isEmpty()
        || draft.trouble().isPresent()
        || e.retiredAt != null
        || !problems(draft).isEmpty()) return;
    if (newest(id).filter(n -> n.form().equals(draft.form())).isPresent()) return;
    publish(e.projectId, id, draft.changedBy());
  }
}
