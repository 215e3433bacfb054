package org.whinridge.app.own;

import jakarta.servlet.http.HttpServletRequest;
import java.security.Principal;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.TreeSet;
import java.util.UUID;
import java.util.function.Supplier;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import org.whinridge.app.people.Account;
import org.whinridge.app.people.AccountLinks;
import org.whinridge.app.people.Accounts;
import org.whinridge.app.people.Mails;
import org.whinridge.app.people.Terms;
import org.whinridge.app.people.WrittenStyle;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.QrCode;
import org.whinridge.app.shell.ReadersChoice;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.PairingCode;
import org.whinridge.core.access.Right;
import org.whinridge.core.said.Said;

/** The page on which people see to their own account and devices. */
@Controller
class OwnController {
  private final Accounts accounts;
  private final AccountLinks links;
  private final Mails mails;
  private final Terms terms;
  private final Devices devices;
  private final Pairing pairing;
  private final Members members;
  private final Projects projects;

  OwnController(
      Accounts accounts,
      AccountLinks links,
      Mails mails,
      Terms terms,
      Devices devices,
      Pairing pairing,
      Members members,
      Projects projects) {
    this.accounts = accounts;
    this.links = links;
    this.mails = mails;
    this.terms = terms;
    this.devices = devices;
    this.pairing = pairing;
    this.members = members;
    this.projects = projects;
  }

  /** A style with what a day and a number look like in it. */
  record Style(String tag, String example) {
    private static final double NUMBER = 1234.5;

    static Style of(String tag) {
      Locale l = Locale.forLanguageTag(tag);
      return new Style(
          tag,
          java.time.LocalDate.of(2026, 5, 24)
                  .format(
                      DateTimeFormatter.ofLocalizedDate(java.time.format.FormatStyle.MEDIUM)
                          .withLocale(l))
              + " · "
              + java.text.NumberFormat.getInstance(l).format(NUMBER));
    }
  }

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @GetMapping("/me")
  String page(Principal person, Model model) {
    Account a = accounts.get(person.getName());
    model.addAttribute("account", a);
    model.addAttribute("mail", mails.canSend());
    model.addAttribute("terms", terms.open(a.name()).orElse(null));
    model.addAttribute("styles", WrittenStyle.ALL.stream().map(Style::of).toList());
    model.addAttribute(
        "zones",
        new TreeSet<>(WrittenStyle.zones()).stream().filter(z -> z.contains("/")).toList());
    model.addAttribute("devices", devices.of(List.of(a.name())));
    model.addAttribute("goesOut", !members.projectsOf(a.name(), Right.GO_OUT).isEmpty());
    model.addAttribute("projects", projects.of(a.name()));
    return "me";
  }

  private static String done(RedirectAttributes flash, Supplier<Said> deed) {
    try {
      flash.addFlashAttribute("done", deed.get());
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
    }
    return "redirect:/me";
  }

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @PostMapping("/me/password")
  String password(
      @RequestParam(defaultValue = "") String old,
      @RequestParam(defaultValue = "") String password,
      Principal person,
      HttpServletRequest q,
      RedirectAttributes flash) {
    return done(
        flash,
        () -> {
          accounts.changePassword(person.getName(), old, password, q.getSession().getId());
          return Said.of("told.passwordChanged");
        });
  }

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @PostMapping("/me/about")
  String about(
      @RequestParam(defaultValue = "") String email,
      @RequestParam(defaultValue = "") String organisation,
      Principal person,
      Locale locale,
      RedirectAttributes flash) {
    return done(
        flash,
        () -> {
          boolean other = accounts.about(person.getName(), email, organisation);
          if (!other || email.isBlank() || !mails.canSend()) return Said.of("told.aboutSaved");
          String address = email.strip();
          String token = links.toConfirm(person.getName(), address);
          mails.send(address, person.getName(), "confirm", "/confirm-email?key=" + token, locale);
          return Said.of("told.mailSent", "email", address);
        });
  }

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @PostMapping("/me/style")
  String style(
      @RequestParam(defaultValue = "") String zone,
      @RequestParam(defaultValue = "") String style,
      @RequestParam(defaultValue = "false") boolean keys,
      Principal person,
      HttpServletRequest q,
      RedirectAttributes flash) {
    return done(
        flash,
        () -> {
          accounts.style(person.getName(), zone, style, keys);
          ReadersChoice.keep(q.getSession(), zone, style, keys);
          return Said.of("told.styleSaved");
        });
  }

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @PostMapping("/me/terms")
  String accept(
      @RequestParam(defaultValue = "0") int terms, Principal person, RedirectAttributes flash) {
    return done(
        flash,
        () -> {
          this.terms.accept(person.getName(), terms);
          return Said.of("told.termsAccepted");
        });
  }

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @PostMapping("/me/sign-out-everywhere")
  String signOutEverywhere(Principal person) {
    accounts.signOutEverywhere(person.getName());
    return "redirect:/sign-in?out";
  }

  /** A code, shown once. */
  record Code(String shown, String address, String picture, long minutes) {}

  /** The code is in this answer alone: what is led on to another page would lie in the store. */
  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @PostMapping("/me/pair")
  String pair(Principal person, Model model) {
    String code = pairing.make(person.getName());
    // behind the #, which browsers keep to themselves: it stands in no log
    String address =
        ServletUriComponentsBuilder.fromCurrentContextPath().path("/day").toUriString()
            + "#pair="
            + code;
    model.addAttribute(
        "code",
        new Code(
            PairingCode.shown(code), address, QrCode.picture(address), Pairing.WORKS.toMinutes()));
    return page(person, model);
  }

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @PostMapping("/me/devices/{id}/rename")
  String rename(
      @PathVariable UUID id,
      @RequestParam(defaultValue = "") String name,
      Principal person,
      RedirectAttributes flash) {
    return done(
        flash,
        () -> {
          devices.rename(id, person.getName(), name);
          return Said.of("told.deviceRenamed");
        });
  }

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @PostMapping("/me/devices/{id}/revoke")
  String revoke(@PathVariable UUID id, Principal person, RedirectAttributes flash) {
    return done(
        flash,
        () -> {
          devices.revoke(id, List.of(person.getName()), person.getName());
          return Said.of("told.deviceRevoked");
        });
  }
}
