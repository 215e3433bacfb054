package org.whinridge.app.ops;

import java.io.IOException;
import java.security.Principal;
import java.util.Map;
import java.util.function.Supplier;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import org.whinridge.app.people.AccountLinks;
import org.whinridge.app.people.Accounts;
import org.whinridge.app.people.Terms;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.ProjectMaking;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.QrCode;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Role;
import org.whinridge.core.said.Said;

/** The page of whoever looks after the installation. */
@Controller
class KeeperController {
  private static final String DEMO = "Isle of Ostrey";

  private final Accounts accounts;
  private final AccountLinks links;
  private final Terms terms;
  private final StoreKeeping keeping;
  private final DemoProject demo;
  private final ProjectMaking making;
  private final DiskRoom room;
  private final GoingBack goingBack;

  KeeperController(
      Accounts accounts,
      AccountLinks links,
      Terms terms,
      StoreKeeping keeping,
      DemoProject demo,
      ProjectMaking making,
      DiskRoom room,
      GoingBack goingBack) {
    this.goingBack = goingBack;
    this.accounts = accounts;
    this.links = links;
    this.terms = terms;
    this.keeping = keeping;
    this.demo = demo;
    this.making = making;
    this.room = room;
  }

  @OpenTo(OpenTo.Whom.KEEPER)
  @GetMapping("/keeper")
  String page(
      @RequestParam(defaultValue = "") String find,
      @RequestParam(defaultValue = "1") int page,
      Model model)
      throws IOException {
    model.addAttribute("accounts", accounts.list(find, page));
    model.addAttribute("find", find);
    Terms.Version now = terms.now().orElse(null);
    model.addAttribute("terms", now);
    model.addAttribute("acceptedBy", now == null ? 0 : terms.acceptedBy(now.number()));
    model.addAttribute("copies", keeping.copies());
    model.addAttribute("room", room.now());
    return "keeper";
  }

  private static String done(RedirectAttributes flash, Supplier<Said> deed) {
    try {
      flash.addFlashAttribute("done", deed.get());
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
    }
    return "redirect:/keeper";
  }

  @OpenTo(OpenTo.Whom.KEEPER)
  @PostMapping("/keeper/accounts/deactivate")
  String deactivate(@RequestParam String account, RedirectAttributes flash) {
    return done(
        flash,
        () -> {
          accounts.deactivate(account);
          return Said.of("told.deactivated", "name", account);
        });
  }

  @OpenTo(OpenTo.Whom.KEEPER)
  @PostMapping("/keeper/accounts/activate")
  String activate(@RequestParam String account, RedirectAttributes flash) {
    return done(
        flash,
        () -> {
          accounts.activate(account);
          return Said.of("told.activated", "name", account);
        });
  }

  @OpenTo(OpenTo.Whom.KEEPER)
  @PostMapping("/keeper/accounts/remove")
  String remove(
      @RequestParam String account,
      @RequestParam(defaultValue = "true") boolean keepName,
      RedirectAttributes flash) {
    return done(
        flash, () -> Said.of("told.accountRemoved", "name", accounts.remove(account, keepName)));
  }

  @OpenTo(OpenTo.Whom.KEEPER)
  @PostMapping("/keeper/accounts/keeper")
  String keeper(
      @RequestParam String account,
      @RequestParam(defaultValue = "false") boolean keeper,
      RedirectAttributes flash) {
    return done(
        flash,
        () -> {
          accounts.keeper(account, keeper);
          return Said.of(keeper ? "told.keeperMade" : "told.keeperNoMore", "name", account);
        });
  }

  /** A link to a new password, shown once. */
  @OpenTo(OpenTo.Whom.KEEPER)
  @PostMapping("/keeper/accounts/new-password")
  String newPassword(@RequestParam String account, Principal person, Model model)
      throws IOException {
    try {
      String address =
          ServletUriComponentsBuilder.fromCurrentContextPath()
              .path("/new-password")
              .queryParam("key", links.toNewPassword(account, person.getName()))
              .toUriString();
      model.addAttribute("link", address);
      model.addAttribute("picture", QrCode.picture(address));
      model.addAttribute("done", Said.of("told.passwordLink", "name", account));
    } catch (Refusal e) {
      model.addAttribute("problem", e.said());
    }
    return page(account, 1, model);
  }

  @OpenTo(OpenTo.Whom.KEEPER)
  @PostMapping("/keeper/terms")
  String terms(
      @RequestParam(defaultValue = "") String text, Principal person, RedirectAttributes flash) {
    return done(
        flash,
        () -> {
          terms.set(text, person.getName());
          return Said.of("told.termsSet");
        });
  }

  @OpenTo(OpenTo.Whom.KEEPER)
  @PostMapping("/keeper/copy")
  String copy(RedirectAttributes flash) {
    return done(
        flash,
        () -> {
          if (!keeping.copy()) throw Refusal.refused("refused.noCopyMade");
          return Said.of("told.copyMade");
        });
  }

  /** Goes back to a copy; the page waits until the server is there again. */
  @OpenTo(OpenTo.Whom.KEEPER)
  @PostMapping("/keeper/back-to")
  String goBack(
      @RequestParam(defaultValue = "") String copy,
      @RequestParam(defaultValue = "false") boolean sure,
      Principal person,
      Model model)
      throws IOException {
    try {
      goingBack.to(copy, sure, person.getName());
      return "going-back";
    } catch (Refusal e) {
      model.addAttribute("problem", e.said());
      return page("", 1, model);
    }
  }

  /** Adds the isle as a project of its own; the keeper is its coordinator and goes out in it. */
  @OpenTo(OpenTo.Whom.KEEPER)
  @PostMapping("/keeper/demo")
  String demo(Principal person) throws Exception {
    Project made =
        demo.make(
            making.keyFor(DEMO),
            DEMO,
            Map.of(person.getName(), Role.COORDINATOR),
            person.getName(),
            person.getName());
    return "redirect:/p/" + made.key() + "/desk";
  }
}
