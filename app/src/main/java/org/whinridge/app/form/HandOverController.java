package org.whinridge.app.form;

import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.QrCode;
import org.whinridge.core.access.Right;
import org.whinridge.core.form.Form;

/** A form is handed over: as a link, a QR code, a file, or on paper. */
@Controller
class HandOverController {
  private final DeskPage desk;
  private final Forms forms;
  private final Layers layers;

  HandOverController(DeskPage desk, Forms forms, Layers layers) {
    this.desk = desk;
    this.forms = forms;
    this.layers = layers;
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/forms/{id}/hand-over")
  String handOver(@PathVariable String project, @PathVariable UUID id, Model model) {
    Project p = desk.open(project, "forms", model);
    FormDraft draft = forms.get(p.id(), id);
    String address =
        ServletUriComponentsBuilder.fromCurrentContextPath()
            .path("/p/" + p.key() + "/forms/" + id)
            .toUriString();
    model.addAttribute("form", draft);
    model.addAttribute("address", address);
    model.addAttribute("picture", QrCode.picture(address));
    model.addAttribute("languages", draft.form().languages());
    return "form-hand-over";
  }

  /**
   * The blank sheet, to be printed.
   *
   * @param language of its texts; "" for the form's own
   */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/forms/{id}/blank")
  String blank(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "") String language,
      Model model) {
    Project p = desk.open(project, "forms", model);
    FormDraft draft = forms.get(p.id(), id);
    Form form = language.isEmpty() ? draft.form() : draft.form().in(language);
    model.addAttribute("form", draft);
    model.addAttribute("sheet", form);
    model.addAttribute("layer", draft.layer().map(l -> layers.byId(l).name()).orElse(""));
    model.addAttribute("rowsOfALayer", List.of(1, 2, 3));
    model.addAttribute(
        "picture",
        QrCode.picture(
            ServletUriComponentsBuilder.fromCurrentContextPath()
                .path("/p/" + p.key() + "/forms/" + id)
                .toUriString()));
    return "form-blank";
  }
}
