package org.whinridge.app.layer.look;

import jakarta.servlet.http.HttpServletRequest;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerPage;

/** The page on which a layer's look is made. */
@Controller
class LookController {
  private final LayerPage page;

  LookController(LayerPage page) {
    this.page = page;
  }

  @GetMapping("/p/{project}/layers/{id}/look")
  String look(
      @PathVariable String project, @PathVariable UUID id, HttpServletRequest q, Model model) {
    Layer layer = page.open(project, id, model);
    model.addAttribute("may", q.isUserInRole("coordinator"));
    model.addAttribute("fields", LookChoices.fields(layer.schema()).toString());
    model.addAttribute("icons", LookChoices.icons().toString());
    model.addAttribute("ramps", LookChoices.ramps().toString());
    model.addAttribute("ways", LookChoices.ways().toString());
    return "layer-look";
  }
}
