package org.whinridge.app.project;

import java.security.Principal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.whinridge.app.people.People;
import org.whinridge.app.people.Terms;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.Refusal;

/** Where an invitation leads. */
@Controller
class JoinController {
  private final Invitations invitations;
  private final Terms terms;

  JoinController(Invitations invitations, Terms terms) {
    this.terms = terms;
    this.invitations = invitations;
  }

  @OpenTo(OpenTo.Whom.EVERYBODY)
  @GetMapping("/join")
  String page(@RequestParam(defaultValue = "") String key, Principal person, Model model) {
    Invitations.Invitation i = invitations.find(key);
    model.addAttribute("name", i.name());
    return page(i, key, person, model);
  }

  private String page(Invitations.Invitation i, String key, Principal person, Model model) {
    model.addAttribute("invitation", i);
    model.addAttribute("terms", terms.now().orElse(null));
    model.addAttribute("key", key);
    model.addAttribute("person", person == null ? "" : person.getName());
    return "join";
  }

  /** Somebody new. */
  @OpenTo(OpenTo.Whom.EVERYBODY)
  @PostMapping("/join")
  String make(
      @RequestParam(defaultValue = "") String key,
      @RequestParam(defaultValue = "") String name,
      @RequestParam(defaultValue = "") String password,
      @RequestParam(defaultValue = "") String email,
      @RequestParam(defaultValue = "") String organisation,
      @RequestParam(defaultValue = "0") int terms,
      Principal person,
      Model model) {
    Invitations.Invitation i = invitations.find(key);
    try {
      invitations.accept(key, new People.Newcomer(name, password, email, organisation, terms));
      return "redirect:/sign-in?made";
    } catch (Refusal e) {
      model.addAttribute("name", name);
      model.addAttribute("email", email);
      model.addAttribute("organisation", organisation);
      model.addAttribute("fault", e.said());
      return page(i, key, person, model);
    }
  }

  /** Somebody who is signed in. */
  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @PostMapping("/join/as-i-am")
  String join(@RequestParam(defaultValue = "") String key, Principal person) {
    invitations.accept(key, person.getName());
    return "redirect:/";
  }
}
