package org.whinridge.app.people;

import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.Refusal;

/** The first page of an empty installation. */
@Controller
class FirstStartController {
  private final FirstStart start;

  FirstStartController(FirstStart start) {
    this.start = start;
  }

  @OpenTo(OpenTo.Whom.EVERYBODY)
  @GetMapping("/first")
  String page(@RequestParam(defaultValue = "") String key, Model model) {
    if (!start.isKey(key)) throw Refusal.forbidden("refused.firstKey");
    model.addAttribute("key", key);
    return "first";
  }

  @OpenTo(OpenTo.Whom.EVERYBODY)
  @PostMapping("/first")
  String make(
      @RequestParam(defaultValue = "") String key,
      @RequestParam String name,
      @RequestParam String password,
      Model model) {
    if (!start.isKey(key)) throw Refusal.forbidden("refused.firstKey");
    try {
      start.make(name, password);
      return "redirect:/sign-in?made&next=/projects/new";
    } catch (Refusal e) {
      model.addAttribute("key", key);
      model.addAttribute("name", name);
      model.addAttribute("fault", e.said());
      return "first";
    }
  }
}
