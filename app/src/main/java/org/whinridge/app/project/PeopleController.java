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

  PeopleController(DeskPage desk, Projects projects, Members members, Invitations invitations) {
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

  @Needs(Right.MANAGE)
  @PostMapping("/p/{project}/people/invite")
  String invite(
      @PathVariable String project,
      @RequestParam(defaultValue = "") String names,
      @RequestParam(defaultValue = "") List<String> role,
      Principal person,
      RedirectAttributes flash) {
    return done(
        project,
        flash,
        p -> {
          List<Link> links =
              invitations.make(p, names, Role.all(role), person.getName()).stream()
                  .map(PeopleController::link)
                  .toList();
          flash.addFlashAttribute("links", links);
          return Said.of("told.invited", "n", links.size());
        });
  }

  private static Link link(Invitations.Made made) {
    String address =
        ServletUriComponentsBuilder.fromCurrentContextPath()
            .path("/join")
            .queryParam("key", made.token())
            .toUriString();
    return new Link(made.name(), address, QrCode.picture(address));
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
