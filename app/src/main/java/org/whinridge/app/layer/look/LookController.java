package org.whinridge.app.layer.look;

import jakarta.servlet.http.HttpServletRequest;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerPage;
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

  @GetMapping("/p/{project}/layers/{id}/look")
  String look(
      @PathVariable String project, @PathVariable UUID id, HttpServletRequest q, Model model) {
    Layer layer = page.open(project, id, model);
    model.addAttribute("may", q.isUserInRole("coordinator"));
    model.addAttribute("fields", json.writeValueAsString(LookChoices.fields(layer.schema())));
    model.addAttribute("icons", json.writeValueAsString(LookChoices.icons()));
    model.addAttribute("ramps", json.writeValueAsString(LookChoices.ramps()));
    model.addAttribute("ways", json.writeValueAsString(LookChoices.ways()));
    return "layer-look";
  }
}
