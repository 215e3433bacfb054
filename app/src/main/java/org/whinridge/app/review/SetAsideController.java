package org.whinridge.app.review;

import java.security.Principal;
import java.util.EnumSet;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.daybook.ReadingAgain;
import org.whinridge.app.daybook.SetAside;
import org.whinridge.app.daybook.SetAsides;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Paged;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.said.Said;

/** What could not be read as visits, and what is done with it. */
@Controller
class SetAsideController {
  private final DeskPage desk;
  private final Projects projects;
  private final SetAsides setAsides;
  private final ReadingAgain readingAgain;
  private final Members members;

  SetAsideController(
      DeskPage desk,
      Projects projects,
      SetAsides setAsides,
      ReadingAgain readingAgain,
      Members members) {
    this.desk = desk;
    this.projects = projects;
    this.setAsides = setAsides;
    this.readingAgain = readingAgain;
    this.members = members;
  }

  /** What could not be read as a visit: those that wait for somebody, or all. */
  @Needs(Right.REVIEW)
  @GetMapping("/p/{project}/hand-ins/set-aside")
  String setAside(
      @PathVariable String project,
      @RequestParam(defaultValue = "1") int page,
      @RequestParam(defaultValue = "false") boolean all,
      Model model) {
    Project p = desk.open(project, "hand-ins", model);
    Set<SetAside.Fate> fates = all ? EnumSet.allOf(SetAside.Fate.class) : SetAsides.OPEN;
    model.addAttribute(
        "texts",
        Paged.of(
            setAsides.count(p.id(), fates),
            page,
            n -> setAsides.page(p.id(), fates, n, Paged.SIZE)));
    model.addAttribute("all", all);
    model.addAttribute("people", members.outdoors(p.id()));
    return "set-aside";
  }

  /** The text as it arrived, to be read or taken away. */
  @Needs(Right.REVIEW)
  @GetMapping(
      value = "/p/{project}/hand-ins/set-aside/{id}/text",
      produces = MediaType.TEXT_PLAIN_VALUE)
  ResponseEntity<String> text(@PathVariable String project, @PathVariable UUID id) {
    return ResponseEntity.ok()
        .contentType(new MediaType(MediaType.TEXT_PLAIN, java.nio.charset.StandardCharsets.UTF_8))
        .header("X-Content-Type-Options", "nosniff")
        .body(setAsides.text(projects.byKey(project).id(), id));
  }

  @Needs(Right.REVIEW)
  @PostMapping("/p/{project}/hand-ins/set-aside/{id}/read-again")
  String readAgain(
      @PathVariable String project,
      @PathVariable UUID id,
      Principal person,
      RedirectAttributes flash) {
    return onSetAside(
        project,
        flash,
        p ->
            readingAgain.read(p.id(), id, person.getName())
                ? Said.of("told.couldBeRead")
                : Said.of("told.stillNot"));
  }

  @Needs(Right.REVIEW)
  @PostMapping("/p/{project}/hand-ins/set-aside/{id}/give")
  String give(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "") String to,
      @RequestParam(defaultValue = "") String note,
      Principal person,
      RedirectAttributes flash) {
    return onSetAside(
        project,
        flash,
        p -> {
          setAsides.give(p.id(), id, to, note, person.getName());
          return Said.of("told.findsIt", "person", to);
        });
  }

  @Needs(Right.REVIEW)
  @PostMapping("/p/{project}/hand-ins/set-aside/{id}/put-away")
  String putAway(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "") String reason,
      Principal person,
      RedirectAttributes flash) {
    return onSetAside(
        project,
        flash,
        p -> {
          setAsides.putAway(p.id(), id, reason, person.getName());
          return Said.of("told.putAway");
        });
  }

  private String onSetAside(
      String project, RedirectAttributes flash, Function<Project, Said> deed) {
    Project p = projects.byKey(project);
    try {
      flash.addFlashAttribute("done", deed.apply(p));
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
    }
    return "redirect:/p/" + p.key() + "/hand-ins/set-aside";
  }
}
