package org.whinridge.app.form;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.shell.Catalogue;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Writing;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.line.FormText;
import org.whinridge.core.said.Said;

/** What forms are begun from: templates that are shipped, and forms that a project kept as such. */
@Service
@Transactional(readOnly = true)
public class FormTemplates {
  /** Templates that are shipped; their lines are texts of the catalogue. */
  static final List<String> SHIPPED =
      List.of("condition", "defects", "site", "count", "sign", "tree");

  private static final int MOST = 200;
  private static final int LONGEST_TITLE = 200;

  private final FormTemplateRepository templates;
  private final Forms forms;
  private final Catalogue catalogue;

  FormTemplates(FormTemplateRepository templates, Forms forms, Catalogue catalogue) {
    this.templates = templates;
    this.forms = forms;
    this.catalogue = catalogue;
  }

  /** A template that a project kept, without its content. */
  public record Kept(UUID id, String title, Instant keptAt, String keptBy) {}

  /** The templates that a project kept, by title. */
  public List<Kept> kept(UUID project) {
    return templates.heads(project);
  }

  /** A template by its id: one that is shipped, or a project's own. */
  Form form(UUID project, String id) {
    if (SHIPPED.contains(id)) {
      String text = catalogue.say(Said.of("formTemplate." + id));
      List<Section> sections = FormText.read(text, List.of()).sections();
      return new Form(catalogue.say(Said.of("formTemplateTitle." + id)), sections);
    }
    if (!id.matches("[0-9a-f-]{36}")) throw Refusal.notFound("thing.template");
    return templates
        .findByIdAndProjectId(UUID.fromString(id), project)
        .map(t -> Form.read(t.content))
        .orElseThrow(() -> Refusal.notFound("thing.template"));
  }

  /** Keeps a form's draft as a template; gives its title. */
  @Writing
  public String keep(UUID project, UUID form, String person) {
    if (templates.countByProjectId(project) >= MOST)
      throw Refusal.refused("refused.tooManyTemplates", "most", MOST);
    Form draft = forms.get(project, form).form();
    FormTemplateEntity t = new FormTemplateEntity();
    t.id = UUID.randomUUID();
    t.projectId = project;
    t.title = draft.title().substring(0, Math.min(LONGEST_TITLE, draft.title().length()));
    t.content = draft.json().toString();
    t.keptAt = Layers.now();
    t.keptBy = person;
    templates.save(t);
    return t.title;
  }

  /** Takes a template away; forms that were begun from it stay as they are. */
  @Writing
  public void remove(UUID project, UUID id) {
    templates.delete(
        templates
            .findByIdAndProjectId(id, project)
            .orElseThrow(() -> Refusal.notFound("thing.template")));
  }
}
