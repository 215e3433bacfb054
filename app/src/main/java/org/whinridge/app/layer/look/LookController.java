package org.whinridge.app.layer.look;

import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestAttribute;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerPage;
import org.whinridge.app.project.Rights;
import org.whinridge.app.shell.Needs;
import org.whinridge.core.access.Right;
import tools.jackson.databind.json.JsonMapper;

/** The page on which a layer's look is made. */
@Controller
class LookController {
  private final LayerPage page;
  private final JsonMapper json;

  LookController(LayerPage page, JsonMapper json) {
    this.json = json;
    this.page = page;
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/layers/{id}/look")
  String look(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestAttribute Rights rights,
      Model model) {
    Layer layer = page.open(project, id, model);
    model.addAttribute("may", rights.may(Right.CHANGE_LAYERS));
    model.addAttribute("fields", json.writeValueAsString(LookChoices.fields(layer.schema())));
    model.addAttribute("icons", json.writeValueAsString(LookChoices.icons()));
    model.addAttribute("ramps", json.writeValueAsString(LookChoices.ramps()));
    model.addAttribute("ways", json.writeValueAsString(LookChoices.ways()));
    return "layer-look";
  }
}
