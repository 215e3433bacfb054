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
import org.whinridge.core.form.FormMembers;
import org.whinridge.core.form.LayerOfForm;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.edit.WiredByName;
import org.whinridge.core.layer.Field;
import org.whinridge.core.said.Said;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.xlsform.Told;
import org.whinridge.formats.xlsform.XlsFormReader;

/** From what forms are begun. */
@Service
public class FormBeginning {
  static final int MOST_BYTES = 20_000_000;

  private final Forms forms;
  private final Layers layers;
  private final Members members;
  private final Catalogue catalogue;
  private final FormTemplates templates;
  private final FormFiles files;

  private final FormsOfFiles ofFiles;

  FormBeginning(
      Forms forms,
      Layers layers,
      Members members,
      Catalogue catalogue,
      FormTemplates templates,
      FormFiles files,
      FormsOfFiles ofFiles) {
    this.ofFiles = ofFiles;
    this.templates = templates;
    this.files = files;
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
   * @param layerId the layer; empty for a form that makes its layer later, which begins from
   *     nothing, a template or a copy
   * @param template its id, for a start from one
   * @param copied the form, for a start from a copy; null else
   */
  public UUID begin(
      UUID project,
      Optional<UUID> layerId,
      Start start,
      String template,
      UUID copied,
      String person) {
    Optional<Layer> layer = layerId.map(id -> layers.get(project, id));
    Form form =
        switch (start) {
          case FIELDS -> {
            Layer on = on(layer);
            yield Form.fromLayer(title(layer), on.name(), on.schema());
          }
          case CAPTION -> new Form(title(layer), List.of(captions(on(layer))));
          case NOTHING -> new Form(title(layer), List.of(Section.of("", false, List.of())));
          case TEMPLATE -> onto(layer, templates.form(project, template));
          case COPY -> onto(layer, copy(Optional.ofNullable(copied), project, person));
        };
    return forms.begin(project, layerId, form, person);
  }

  private static Layer on(Optional<Layer> layer) {
    return layer.orElseThrow(() -> Refusal.refused("refused.startNeedsLayer"));
  }

  private static Form onto(Optional<Layer> layer, Form form) {
    return WiredByName.onto(form, layer.map(Layer::schema).orElse(LayerOfForm.NONE));
  }

  private String title(Optional<Layer> layer) {
    return catalogue.say(
        layer.map(l -> Said.of("form.visitOf", "layer", l.name())).orElse(Said.of("form.newForm")));
  }

  private static Section captions(Layer layer) {
    Set<String> names = new java.util.LinkedHashSet<>(layer.schema().captionFields());
    names.add(layer.schema().tagField());
    List<Question> questions = new ArrayList<>();
    for (Field f : layer.schema().fields())
      if (names.contains(f.name()) && !f.officeOnly()) questions.add(Question.forField(f));
    return Section.of(layer.name(), false, questions);
  }

  private Form copy(Optional<UUID> form, UUID into, String person) {
    return form.flatMap(forms::projectOf)
        .filter(members.projectsOf(person, Right.BUILD_FORMS)::contains)
        .map(p -> files.into(forms.get(p, form.get()).form(), p, into, person))
        .orElseThrow(() -> Refusal.notFound("thing.form"));
  }

  /** A form that was begun from a file. @param told what has no counterpart here */
  public record FromFile(UUID form, List<Said> told) {}

  /** Begins a form from a form file or an XLSForm workbook. */
  public FromFile fromFile(UUID project, Optional<UUID> layerId, Path file, String person)
      throws IOException {
    Optional<Layer> layer = layerId.map(id -> layers.get(project, id));
    if (Files.size(file) > MOST_BYTES)
      throw Refusal.tooLarge("refused.formFileTooLarge", "mb", MOST_BYTES / 1_000_000);
    try {
      if (isArchive(file)) {
        XlsFormReader.Read read = XlsFormReader.read(file);
        return new FromFile(
            forms.begin(project, layerId, onto(layer, read.form()), person),
            read.told().stream().map(Told::said).toList());
      }
      String text = Files.readString(file, StandardCharsets.UTF_8);
      if (JsonDepth.isOver(text)) throw Refusal.refused("refused.formFileOther");
      Form asSent = Form.read(text);
      Form form = onto(layer, asSent);
      List<Said> told = new ArrayList<>();
      for (String member : FormMembers.unknown(text))
        told.add(Said.of("told.memberLeftOut", "member", member));
      for (String id : form.files())
        if (!files.has(project, id)) told.add(Said.of("told.fileNotHere", "file", id));
      UUID begun = forms.begin(project, layerId, form, person);
      ofFiles.begun(begun, asSent);
      return new FromFile(begun, told);
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
