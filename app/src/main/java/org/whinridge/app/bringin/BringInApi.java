package org.whinridge.app.bringin;

import com.fasterxml.jackson.annotation.JsonInclude;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.file.Path;
import java.security.Principal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.ResponseEntity;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.TusRefusal;
import org.whinridge.app.shell.TusRequests;
import org.whinridge.app.shell.TusUploads;
import org.whinridge.core.access.Right;
import org.whinridge.core.said.Said;
import org.whinridge.formats.crs.CoordinateSystems;

/** What the pages of bringing in ask by script: uploads, progress, previews, systems. */
@RestController
class BringInApi {
  private final Projects projects;
  private final BringIn bringIn;
  private final TusUploads uploads;

  BringInApi(Projects projects, BringIn bringIn, TusUploads uploads) {
    this.projects = projects;
    this.bringIn = bringIn;
    this.uploads = uploads;
  }

  /** A lot of files that was begun, and the most bytes of one. */
  record Begun(UUID id, long limit) {}

  /** Where to go on. */
  record Next(String page) {}

  /** Where a lot stands; what a job does only while one runs. */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record State(String stage, Said problem, Said doing, Long done, Long total, Long seconds) {}

  private static <T> ResponseEntity<T> fresh(T body) {
    return ResponseEntity.ok().header("Cache-Control", "no-store").body(body);
  }

  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/api/p/{project}/bring-in")
  ResponseEntity<Begun> begin(@PathVariable String project, Principal person) throws IOException {
    UUID id = bringIn.begin(projects.byKey(project).id(), person.getName());
    return fresh(new Begun(id, bringIn.limit()));
  }

  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/api/p/{project}/bring-in/{id}/inventory")
  ResponseEntity<Next> inventory(@PathVariable String project, @PathVariable UUID id)
      throws IOException {
    bringIn.takeInventory(projects.byKey(project).id(), id);
    return fresh(new Next("/p/" + project + "/layers/bring-in/" + id));
  }

  /** The decisions of the report's form; what is wrong with them is answered at once. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/api/p/{project}/bring-in/{id}/decide")
  ResponseEntity<Next> decide(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam MultiValueMap<String, String> form,
      Principal person)
      throws IOException {
    bringIn.decide(projects.byKey(project).id(), id, form, person.getName());
    return fresh(new Next("/p/" + project + "/layers/bring-in/" + id));
  }

  @Needs(Right.CHANGE_LAYERS)
  @GetMapping("/api/p/{project}/bring-in/{id}/state")
  ResponseEntity<State> state(@PathVariable String project, @PathVariable UUID id)
      throws IOException {
    BringIn.Standing s = bringIn.standing(projects.byKey(project).id(), id);
    return fresh(
        s.job()
            .map(
                j -> new State(s.stage(), s.problem(), j.doing(), j.done(), j.total(), j.seconds()))
            .orElse(new State(s.stage(), s.problem(), null, null, null, null)));
  }

  @Needs(Right.CHANGE_LAYERS)
  @GetMapping("/api/p/{project}/bring-in/{id}/preview")
  ResponseEntity<Preview.Shown> preview(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam int part,
      @RequestParam(defaultValue = "") String system,
      @RequestParam(defaultValue = "") String x,
      @RequestParam(defaultValue = "") String y,
      @RequestParam(defaultValue = "") String wkt,
      @RequestParam(defaultValue = "") String repair)
      throws IOException {
    return fresh(
        bringIn.preview(
            projects.byKey(project).id(), id, part, new Preview.Asked(system, x, y, wkt, repair)));
  }

  /** Coordinate systems that were found. */
  record Systems(List<System> systems) {
    /** One of them. */
    record System(String code, String name) {}
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/systems")
  Systems systems(@PathVariable String project, @RequestParam(defaultValue = "") String q) {
    projects.byKey(project);
    return new Systems(
        CoordinateSystems.find(q, 30).stream()
            .map(c -> new Systems.System("EPSG:" + c.epsg(), c.name()))
            .toList());
  }

  @Needs(Right.CHANGE_LAYERS)
  @TusRequests({"/api/p/{project}/bring-in/uploads", "/api/p/{project}/bring-in/uploads/{id}"})
  void upload(
      @PathVariable String project,
      @PathVariable Optional<UUID> id,
      HttpServletRequest q,
      HttpServletResponse r,
      Principal person)
      throws IOException {
    UUID p = projects.byKey(project).id();
    uploads.handle(
        id, "/api/p/" + project + "/bring-in/uploads", q, r, person.getName(), new OfAFile(p));
  }

  private final class OfAFile implements TusUploads.Target {
    private final UUID project;

    OfAFile(UUID project) {
      this.project = project;
    }

    @Override
    public long limit() {
      return bringIn.limit();
    }

    @Override
    public String begin(Map<String, String> metadata, long length, String owner, long open)
        throws TusRefusal {
      try {
        UUID lot = UUID.fromString(metadata.getOrDefault("lot", ""));
        bringIn.check(project, lot);
        return lot + "|" + metadata.getOrDefault("name", "file");
      } catch (IllegalArgumentException e) {
        throw new TusRefusal(400, Said.of("refused.metadataNameNoLot"));
      } catch (Refusal e) {
        throw new TusRefusal(404, e.said());
      }
    }

    @Override
    public void complete(UUID upload, String about, Path file) throws IOException {
      bringIn.add(
          project, UUID.fromString(about.substring(0, 36)), about.substring(37), upload, file);
    }
  }
}
