package org.whinridge.app.own;

import java.security.Principal;
import java.util.List;
import java.util.UUID;
import java.util.function.Consumer;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.said.Said;

/** The devices of a project's people. */
@Controller
class DevicesController {
  private final DeskPage desk;
  private final Projects projects;
  private final Members members;
  private final Devices devices;

  DevicesController(DeskPage desk, Projects projects, Members members, Devices devices) {
    this.desk = desk;
    this.projects = projects;
    this.members = members;
    this.devices = devices;
  }

  private List<String> outdoors(UUID project) {
    return members.outdoors(project);
  }

  @Needs(Right.MANAGE)
  @GetMapping("/p/{project}/devices")
  String page(@PathVariable String project, Model model) {
    Project p = desk.open(project, "", model);
    List<String> people = outdoors(p.id());
    List<Device> all = devices.in(p.id(), people);
    model.addAttribute("devices", all);
    model.addAttribute(
        "without",
        people.stream().filter(n -> all.stream().noneMatch(d -> d.account().equals(n))).toList());
    return "devices";
  }

  private String done(String project, RedirectAttributes flash, String told, Consumer<UUID> deed) {
    try {
      deed.accept(projects.byKey(project).id());
      flash.addFlashAttribute("done", Said.of(told));
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
    }
    return "redirect:/p/" + project + "/devices";
  }

  @Needs(Right.MANAGE)
  @PostMapping("/p/{project}/devices/{id}/revoke")
  String revoke(
      @PathVariable String project,
      @PathVariable UUID id,
      Principal person,
      RedirectAttributes flash) {
    return done(
        project,
        flash,
        "told.deviceRevoked",
        p -> devices.revoke(id, outdoors(p), person.getName()));
  }

  @Needs(Right.MANAGE)
  @PostMapping("/p/{project}/devices/{id}/ask")
  String ask(
      @PathVariable String project,
      @PathVariable UUID id,
      Principal person,
      RedirectAttributes flash) {
    return done(
        project, flash, "told.deviceAsked", p -> devices.ask(id, outdoors(p), person.getName()));
  }
}
