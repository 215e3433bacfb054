package org.whinridge.app.people;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.Refusal;

/** Forgotten passwords, and what mails lead to. */
@Controller
class PasswordController {
  private final AccountLinks links;
  private final ForgottenPasswords forgotten;
  private final Mails mails;
  private final CommonPasswords common;

  PasswordController(
      AccountLinks links, ForgottenPasswords forgotten, Mails mails, CommonPasswords common) {
    this.links = links;
    this.forgotten = forgotten;
    this.mails = mails;
    this.common = common;
  }

  @OpenTo(OpenTo.Whom.EVERYBODY)
  @GetMapping("/forgotten")
  String page(Model model) {
    model.addAttribute("mail", mails.canSend());
    return "forgotten";
  }

  /** The answer is the same whoever is named, and whether they are known or not. */
  @OpenTo(OpenTo.Whom.EVERYBODY)
  @PostMapping("/forgotten")
  String send(
      @RequestParam(defaultValue = "") String who,
      Locale locale,
      HttpServletRequest q,
      Model model) {
    Duration wait = forgotten.ask(who, q.getRemoteAddr(), locale);
    model.addAttribute("mail", mails.canSend());
    model.addAttribute("sent", wait.isZero());
    model.addAttribute("wait", wait.toSeconds());
    return "forgotten";
  }

  @OpenTo(OpenTo.Whom.EVERYBODY)
  @GetMapping("/new-password")
  String newPassword(@RequestParam(defaultValue = "") String key, Model model) {
    model.addAttribute("account", links.forPassword(key));
    model.addAttribute("key", key);
    return "new-password";
  }

  @OpenTo(OpenTo.Whom.EVERYBODY)
  @PostMapping("/new-password")
  String set(
      @RequestParam(defaultValue = "") String key,
      @RequestParam(defaultValue = "") String password,
      Model model) {
    try {
      links.renew(key, password);
      return "redirect:/sign-in?renewed";
    } catch (Refusal e) {
      String page = newPassword(key, model);
      model.addAttribute("fault", e.said());
      return page;
    }
  }

  @OpenTo(OpenTo.Whom.EVERYBODY)
  @GetMapping("/confirm-email")
  String confirm(@RequestParam(defaultValue = "") String key) {
    links.confirm(key);
    return "redirect:/me?confirmed";
  }

  /** How well a password keeps, while it is typed: the id of its word, "" for none. */
  @OpenTo(OpenTo.Whom.EVERYBODY)
  @PostMapping("/api/password-strength")
  ResponseEntity<Map<String, String>> strength(
      @RequestParam(defaultValue = "") String password,
      @RequestParam(defaultValue = "") String name) {
    return ResponseEntity.ok()
        .header("Cache-Control", "no-store")
        .body(Map.of("strength", common.strength(password, Optional.of(name))));
  }
}
