package org.whinridge.app.form;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Members;
import org.whinridge.app.shell.Catalogue;
import org.whinridge.app.shell.JsonDepth;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.line.FormText;
import org.whinridge.core.layer.Field;
import org.whinridge.core.said.Said;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.xlsform.Told;
import org.whinridge.formats.xlsform.XlsFormReader;

/** From what forms are begun. */
@Service
public class FormBeginning {
  /** Templates that are shipped; their lines are texts of the catalogue. */
  static final List<String> TEMPLATES =
      List.of("condition", "defects", "site", "count", "sign", "tree");

  private static final int MOST_BYTES = 20_000_000;

  private final Forms forms;
  private final Layers layers;
  private final Members members;
  private final Catalogue catalogue;

  FormBeginning(Forms forms, Layers layers, Members members, Catalogue catalogue) {
    this.forms = forms;
    this.layers = layers;
    this.members = members;
    this.catalogue = catalogue;
  }

  /** From what a form over a layer is begun. */
  enum Start {
    FIELDS,
    CAPTION,
    NOTHING,
    TEMPLATE,
    COPY
  }

  /** A form that can be copied, and its project. */
  record Copied(UUID project, UUID form, String title) {}

  /** The forms of all projects in which somebody builds forms. */
  List<Copied> copies(String person) {
    List<Copied> out = new ArrayList<>();
    for (UUID p : members.projectsOf(person, Right.BUILD_FORMS))
      for (FormDraft f : forms.list(p)) out.add(new Copied(p, f.id(), f.form().title()));
    return out;
  }

  /**
   * Begins a form.
   *
   * @param template its id, for a start from one
   * @param copied the form, for a start from a copy; null else
   */
  public UUID begin(
      UUID project, UUID layerId, Start start, String template, UUID copied, String person) {
    Layer layer = layers.get(project, layerId);
    String title = catalogue.say(Said.of("form.visitOf", "layer", layer.name()));
    Form form =
        switch (start) {
          case FIELDS -> Form.fromLayer(title, layer.name(), layer.schema());
          case CAPTION -> new Form(title, List.of(captions(layer)));
          case NOTHING -> new Form(title, List.of(Section.of("", false, List.of())));
          case TEMPLATE -> template(template);
          case COPY -> copy(Optional.ofNullable(copied), person);
        };
    return forms.begin(project, layer.id(), form);
  }

  private static Section captions(Layer layer) {
    Set<String> names = new java.util.LinkedHashSet<>(layer.schema().captionFields());
    names.add(layer.schema().tagField());
    List<Question> questions = new ArrayList<>();
    for (Field f : layer.schema().fields())
      if (names.contains(f.name()) && !f.officeOnly()) questions.add(Question.forField(f));
    return Section.of(layer.name(), false, questions);
  }

  private Form template(String id) {
    if (!TEMPLATES.contains(id)) throw Refusal.notFound("thing.template");
    String text = catalogue.say(Said.of("formTemplate." + id));
    return new Form(
        catalogue.say(Said.of("formTemplateTitle." + id)),
        FormText.read(text, List.of()).sections());
  }

  private Form copy(Optional<UUID> form, String person) {
    return form.flatMap(forms::projectOf)
        .filter(members.projectsOf(person, Right.BUILD_FORMS)::contains)
        .map(p -> forms.get(p, form.get()).form())
        .orElseThrow(() -> Refusal.notFound("thing.form"));
  }

  /** A form that was begun from a file. @param told what has no counterpart here */
  record FromFile(UUID form, List<Said> told) {}

  /** Begins a form from a form file or an XLSForm workbook. */
  public FromFile fromFile(UUID project, UUID layerId, Path file) throws IOException {
    Layer layer = layers.get(project, layerId);
    if (Files.size(file) > MOST_BYTES)
      throw Refusal.tooLarge("refused.formFileTooLarge", "mb", MOST_BYTES / 1_000_000);
    try {
      if (isArchive(file)) {
        XlsFormReader.Read read = XlsFormReader.read(file);
        return new FromFile(
            forms.begin(project, layer.id(), read.form()),
            read.told().stream().map(Told::said).toList());
      }
      String text = Files.readString(file, StandardCharsets.UTF_8);
      if (JsonDepth.isOver(text)) throw Refusal.refused("refused.formFileOther");
      return new FromFile(forms.begin(project, layer.id(), Form.read(text)), List.of());
    } catch (FileProblem | IllegalArgumentException e) {
      throw Refusal.refused("refused.nothingWasKept", "why", Refusal.said(e));
    } catch (java.nio.charset.CharacterCodingException e) {
      throw Refusal.refused("refused.formFileOther");
    }
  }

  private static boolean isArchive(Path file) throws IOException {
    try (var in = Files.newInputStream(file)) {
      byte[] head = in.readNBytes(2);
      return head.length == 2 && head[0] == 'P' && head[1] == 'K';
    }
  }
}
