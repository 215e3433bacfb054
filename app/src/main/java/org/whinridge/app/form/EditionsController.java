package org.whinridge.app.form;

import com.eclipsesource.json.JsonObject;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.security.Principal;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.ContentDisposition;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.compile.FormProblem;
import org.whinridge.core.form.edit.FormChanges;
import org.whinridge.core.said.Said;
import org.whinridge.formats.xlsform.XlsFormWriter;

/** A form's editions: what changed between them, copying one back, taking a form out as a file. */
@Controller
class EditionsController {
  private static final MediaType WORKBOOK =
      MediaType.parseMediaType("application/vnd.openxmlformats-officedocument.spreadsheetml.sheet");
  private final DeskPage desk;
  private final Projects projects;
  private final Forms forms;
  private final Drafting drafting;
  private final LayersOfForms layersOf;

  EditionsController(
      DeskPage desk, Projects projects, Forms forms, Drafting drafting, LayersOfForms layersOf) {
    this.desk = desk;
    this.projects = projects;
    this.forms = forms;
    this.drafting = drafting;
    this.layersOf = layersOf;
  }

  /**
   * The page of editions; two of them are compared.
   *
   * @param from an edition's number; 0 for the newest
   * @param to an edition's number; 0 for the draft
   */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/forms/{id}/editions")
  String page(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "0") int from,
      @RequestParam(defaultValue = "0") int to,
      Model model) {
    Project p = desk.open(project, "forms", model);
    FormDraft draft = forms.get(p.id(), id);
    model.addAttribute("form", draft);
    model.addAttribute("editions", forms.editions(id));
    List<FormProblem> problems = forms.problems(draft);
    model.addAttribute("problems", problems);
    model.addAttribute("sound", problems.isEmpty() && draft.layer().isPresent());
    model.addAttribute("candidates", layersOf.candidates(draft));
    Optional<Form> before =
        from == 0 ? forms.newest(id).map(Edition::form) : Optional.of(edition(id, from).form());
    Form after = to == 0 ? draft.form() : edition(id, to).form();
    model.addAttribute("from", from == 0 ? draft.edition() : from);
    model.addAttribute("to", to);
    model.addAttribute("changes", before.map(b -> FormChanges.between(b, after)).orElse(List.of()));
    model.addAttribute(
        "outdoors", before.map(b -> FormChanges.outdoors(b, after)).orElse(List.of()));
    return "editions";
  }

  private Edition edition(UUID form, int number) {
    return forms.edition(form, number).orElseThrow(() -> Refusal.notFound("thing.edition"));
  }

  /** An old edition becomes the draft; that is a step, which can be taken back. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/p/{project}/forms/{id}/editions/copy")
  String copy(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam int number,
      Principal person,
      RedirectAttributes flash) {
    Project p = projects.byKey(project);
    FormDraft draft = forms.get(p.id(), id);
    drafting.edit(
        p.id(),
        id,
        draft.revision(),
        new JsonObject().add("op", "replace").add("form", edition(id, number).form().json()),
        person.getName());
    flash.addFlashAttribute("done", Said.of("told.editionCopied", "n", number));
    return "redirect:/p/" + p.key() + "/forms/" + id;
  }

  private static ResponseEntity.BodyBuilder file(String title, String ending, MediaType type) {
    return ResponseEntity.ok()
        .contentType(type)
        .header(
            "Content-Disposition",
            ContentDisposition.attachment()
                .filename(
                    title.replaceAll("[\\\\/:*?\"<>|]+", " ").strip() + ending,
                    StandardCharsets.UTF_8)
                .build()
                .toString());
  }

  /** The draft as a form file. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/forms/{id}/file")
  ResponseEntity<byte[]> formFile(@PathVariable String project, @PathVariable UUID id) {
    Form form = forms.get(projects.byKey(project).id(), id).form();
    return file(form.title(), ".form.json", MediaType.APPLICATION_JSON)
        .body(form.json().toString().getBytes(StandardCharsets.UTF_8));
  }

  /** The draft as an XLSForm workbook. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/forms/{id}/workbook")
  ResponseEntity<byte[]> workbook(@PathVariable String project, @PathVariable UUID id)
      throws IOException {
    FormDraft draft = forms.get(projects.byKey(project).id(), id);
    ExecutableForm form =
        FormCompiler.compile(draft.form(), forms.schema(draft))
            .form()
            .orElseThrow(() -> Refusal.conflict("refused.workbookOfUnsound"));
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    XlsFormWriter.write(form, out);
    return file(draft.form().title(), ".xlsx", WORKBOOK).body(out.toByteArray());
  }
}
