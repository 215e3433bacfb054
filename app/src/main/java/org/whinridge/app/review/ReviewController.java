package org.whinridge.app.review;

import java.io.IOException;
import java.security.Principal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.TimeUnit;
import java.util.function.Function;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestAttribute;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.daybook.SetAsides;
import org.whinridge.app.daybook.Visits;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.photo.Photo;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.project.Rights;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Paged;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.said.Said;
import org.whinridge.core.visit.VisitState;

@Controller
class ReviewController {
  private final DeskPage desk;
  private final Projects projects;
  private final ReviewDesk review;
  private final Photos photos;
  private final SetAsides setAsides;

  ReviewController(
      DeskPage desk,
      Projects projects,
      ReviewDesk review,
      Photos photos,
      SetAsides setAsides,
      Layers layers) {
    this.layers = layers;
    this.setAsides = setAsides;
    this.desk = desk;
    this.projects = projects;
    this.review = review;
    this.photos = photos;
  }

  private final Layers layers;

  @Needs(Right.SEE_WORK)
  @GetMapping("/p/{project}/hand-ins")
  String list(
      @PathVariable String project,
      @RequestParam(defaultValue = "1") int page,
      @RequestParam(defaultValue = "1") int decided,
      Model model) {
    Project p = desk.open(project, "hand-ins", model);
    model.addAttribute("waiting", paged(p, Visits.OPEN, page));
    model.addAttribute("decided", paged(p, Visits.DECIDED, decided));
    model.addAttribute("setAside", setAsides.count(p.id(), SetAsides.OPEN));
    return "hand-ins";
  }

  private Paged<ReviewDesk.Line> paged(Project p, Set<VisitState> states, int page) {
    return Paged.of(
        review.count(p.id(), states), page, n -> review.list(p.id(), states, n, Paged.SIZE));
  }

  @Needs(Right.SEE_WORK)
  @GetMapping("/p/{project}/hand-ins/{visit}")
  String one(@PathVariable String project, @PathVariable UUID visit, Model model) {
    Project p = desk.open(project, "hand-ins", model);
    ReviewDesk.View view = review.view(p.id(), visit);
    model.addAttribute("view", view);
    Visits.Neighbours beside = review.neighbours(p.id(), view.visit());
    model.addAttribute("next", beside.below().map(UUID::toString).orElse(""));
    model.addAttribute("previous", beside.above().map(UUID::toString).orElse(""));
    return "visit";
  }

  @Needs(Right.REVIEW)
  @PostMapping("/p/{project}/hand-ins/{visit}/accept")
  String accept(
      @PathVariable String project,
      @PathVariable UUID visit,
      @RequestParam Map<String, String> all,
      Principal person,
      RedirectAttributes flash) {
    Map<String, String> decisions = new LinkedHashMap<>();
    all.forEach(
        (k, v) -> {
          if (k.startsWith("clash.")) decisions.put(k.substring(6), v);
        });
    return decide(
        project,
        visit,
        flash,
        p -> {
          int n = review.accept(p.id(), visit, decisions, person.getName());
          return n == 0 ? Said.of("told.acceptedAlready") : Said.of("told.accepted", "n", n);
        });
  }

  @Needs(Right.REVIEW)
  @PostMapping("/p/{project}/hand-ins/{visit}/send-back")
  String sendBack(
      @PathVariable String project,
      @PathVariable UUID visit,
      @RequestParam(defaultValue = "") String note,
      Principal person,
      RedirectAttributes flash) {
    return decide(
        project,
        visit,
        flash,
        p -> {
          review.sendBack(p.id(), visit, note, person.getName());
          return Said.of("told.sentBack");
        });
  }

  @Needs(Right.REVIEW)
  @PostMapping("/p/{project}/hand-ins/{visit}/take-back")
  String takeBack(
      @PathVariable String project,
      @PathVariable UUID visit,
      Principal person,
      RedirectAttributes flash) {
    return decide(
        project,
        visit,
        flash,
        p -> {
          List<Said> left = review.takeBack(p.id(), visit, person.getName());
          return left.isEmpty()
              ? Said.of("told.visitTakenBack")
              : Said.of("told.visitTakenBackBut", "left", Said.inARow(left, "list.then"));
        });
  }

  private String decide(
      String project, UUID visit, RedirectAttributes flash, Function<Project, Said> deed) {
    Project p = projects.byKey(project);
    try {
      flash.addFlashAttribute("done", deed.apply(p));
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
    }
    return "redirect:/p/" + p.key() + "/hand-ins/" + visit;
  }

  /** A photo of a visit of this project, small for the page or whole. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping(value = "/api/p/{project}/photos/{id}", produces = MediaType.IMAGE_JPEG_VALUE)
  ResponseEntity<byte[]> photo(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "false") boolean whole,
      @RequestAttribute Rights rights)
      throws IOException {
    Photo photo = photos.find(id).orElseThrow(() -> Refusal.notFound("thing.photo"));
    UUID of = projects.byKey(project).id();
    if (!maySee(photo, of, rights)) throw Refusal.notFound("thing.photo");
    var bytes = whole ? photos.bytes(photo).map(this::all) : photos.smallPicture(photo);
    return bytes
        .map(
            b ->
                ResponseEntity.ok()
                    .cacheControl(CacheControl.maxAge(7, TimeUnit.DAYS).cachePrivate())
                    .header("X-Content-Type-Options", "nosniff")
                    .body(b))
        .orElseThrow(() -> Refusal.notFound("thing.pictureForThisPhoto"));
  }

  /** Whether it is of this project; those of visits under way are for whoever sees work. */
  private boolean maySee(Photo photo, UUID project, Rights rights) {
    try {
      photo.of().ifPresent(f -> layers.get(project, f.layer()));
      return photo
          .visitId()
          .map(v -> review.visit(project, v))
          .filter(v -> v.state() != VisitState.ACCEPTED && !rights.may(Right.SEE_WORK))
          .isEmpty();
    } catch (Refusal e) {
      return false; // what it is of lies in another project
    }
  }

  private byte[] all(java.nio.file.Path p) {
    try {
      return java.nio.file.Files.readAllBytes(p);
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }
}
