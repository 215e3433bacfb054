package org.whinridge.app.project;

import java.security.Principal;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import org.whinridge.app.people.AccountLinks;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.QrCode;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.access.Role;
import org.whinridge.core.said.Said;

/** The people of a project: who is what, and who is invited. */
@Controller
class PeopleController {
  private final DeskPage desk;
  private final Projects projects;
  private final Members members;
  private final Invitations invitations;
  private final AccountLinks links;

  PeopleController(
      DeskPage desk,
      Projects projects,
      Members members,
      Invitations invitations,
      AccountLinks links) {
    this.links = links;
    this.desk = desk;
    this.projects = projects;
    this.members = members;
    this.invitations = invitations;
  }

  /** A link that was just made, shown once. */
  record Link(String name, String address, String picture) {}

  @Needs(Right.MANAGE)
  @GetMapping("/p/{project}/people")
  String page(@PathVariable String project, Model model) {
    Project p = desk.open(project, "people", model);
    model.addAttribute("members", members.of(p.id()));
    model.addAttribute("invitations", invitations.open(p.id()));
    model.addAttribute("roles", Role.values());
    model.addAttribute("allRights", Right.values());
    return "people";
  }

  private interface Act {
    Said on(UUID project);
  }

  private String done(String project, RedirectAttributes flash, Act act) {
    try {
      flash.addFlashAttribute("done", act.on(projects.byKey(project).id()));
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
    }
    return "redirect:/p/" + project + "/people";
  }

  /** Links are in this answer alone: what is led on to another page would lie in the store. */
  private String withLinks(String project, Model model, Said done, String how, List<Link> links) {
    model.addAttribute("links", links);
    model.addAttribute("linksHow", how);
    model.addAttribute("done", done);
    return page(project, model);
  }

  private String refused(String project, Model model, Refusal e) {
    model.addAttribute("problem", e.said());
    return page(project, model);
  }

  @Needs(Right.MANAGE)
  @PostMapping("/p/{project}/people/invite")
  String invite(
      @PathVariable String project,
      @RequestParam(defaultValue = "") String names,
      @RequestParam(defaultValue = "") List<String> role,
      Principal person,
      Model model) {
    try {
      List<Link> links =
          invitations
              .make(projects.byKey(project).id(), names, Role.all(role), person.getName())
              .stream()
              .map(m -> link(m.name(), "/join", m.token()))
              .toList();
      Said done = Said.of("told.invited", "n", links.size());
      return withLinks(project, model, done, "page.people.linksHow", links);
    } catch (Refusal e) {
      return refused(project, model, e);
    }
  }

  /** A link to a new password for a member who has forgotten theirs. */
  @Needs(Right.MANAGE)
  @PostMapping("/p/{project}/people/new-password")
  String newPassword(
      @PathVariable String project, @RequestParam String account, Principal person, Model model) {
    try {
      Project p = projects.byKey(project);
      members.mayRenew(p.id(), account, person.getName());
      Link link = link(account, "/new-password", links.toNewPassword(account, person.getName()));
      Said done = Said.of("told.passwordLink", "name", account);
      return withLinks(project, model, done, "page.people.passwordHow", List.of(link));
    } catch (Refusal e) {
      return refused(project, model, e);
    }
  }

  private static Link link(String name, String path, String token) {
    String address =
        ServletUriComponentsBuilder.fromCurrentContextPath()
            .path(path)
            .queryParam("key", token)
            .toUriString();
    return new Link(name, address, QrCode.picture(address));
  }

  @Needs(Right.MANAGE)
  @PostMapping("/p/{project}/people/invitations/{id}/withdraw")
  String withdraw(@PathVariable String project, @PathVariable UUID id, RedirectAttributes flash) {
    return done(
        project,
        flash,
        p -> {
          invitations.withdraw(p, id);
          return Said.of("told.withdrawn");
        });
  }

  @Needs(Right.MANAGE)
  @PostMapping("/p/{project}/people/roles")
  String roles(
      @PathVariable String project,
      @RequestParam String account,
      @RequestParam(defaultValue = "") List<String> role,
      RedirectAttributes flash) {
    return done(
        project,
        flash,
        p -> {
          Set<Role> roles = Role.all(role);
          members.set(p, account, roles);
          return Said.of(roles.isEmpty() ? "told.takenOut" : "told.otherRoles", "name", account);
        });
  }
}
