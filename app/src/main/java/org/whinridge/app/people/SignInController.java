package org.whinridge.app.people;

import java.security.Principal;
import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.whinridge.app.shell.OpenTo;

@Controller
class SignInController {
  private final People people;

  SignInController(People people) {
    this.people = people;
  }

  @OpenTo(OpenTo.Whom.EVERYBODY)
  @GetMapping("/sign-in")
  String page(
      @RequestParam(required = false) String next,
      @RequestParam(defaultValue = "0") int wait,
      Principal person,
      Model model) {
    model.addAttribute("next", OwnPath.isOne(next) ? next : "");
    model.addAttribute("wait", wait);
    model.addAttribute("demoAccounts", people.isDemo() ? People.DEMO_ACCOUNTS : List.of());
    model.addAttribute("demoPassword", people.isDemo() ? People.DEMO_PASSWORD : "");
    model.addAttribute("person", person == null ? "" : person.getName());
    return "sign-in";
  }
}
