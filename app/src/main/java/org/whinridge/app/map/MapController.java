package org.whinridge.app.map;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import java.io.IOException;
import java.nio.file.Path;
import java.security.Principal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestAttribute;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseBody;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Projects;
import org.whinridge.app.project.Rights;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.TusRequests;
import org.whinridge.app.shell.TusUploads;
import org.whinridge.core.access.Right;
import org.whinridge.formats.tiles.TilePictures;

/** The page of the project's map, and what maps read. */
@Controller
class MapController {
  private final DeskPage desk;
  private final Projects projects;
  private final ProjectMaps maps;
  private final Basemaps basemaps;
  private final TusUploads uploads;

  MapController(
      DeskPage desk, Projects projects, ProjectMaps maps, Basemaps basemaps, TusUploads uploads) {
    this.desk = desk;
    this.projects = projects;
    this.maps = maps;
    this.basemaps = basemaps;
    this.uploads = uploads;
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/map")
  String page(@PathVariable String project, @RequestAttribute Rights rights, Model model) {
    desk.open(project, "layers", model);
    model.addAttribute("may", rights.may(Right.CHANGE_LAYERS));
    return "project-map";
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/map")
  @ResponseBody
  ProjectMap map(@PathVariable String project) {
    return maps.of(projects.byKey(project).id());
  }

  /** Saves the map for everybody. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/api/p/{project}/map")
  @ResponseBody
  ProjectMap save(@PathVariable String project, @Valid @RequestBody MapChoice body) {
    return maps.save(projects.byKey(project).id(), body);
  }

  /** The basemaps there are, and which one is shown. */
  record Choice(List<Basemaps.Basemap> basemaps, String shown) {}

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/basemaps")
  @ResponseBody
  Choice basemaps(@PathVariable String project) {
    UUID p = projects.byKey(project).id();
    return new Choice(basemaps.list(p), maps.of(p).basemap());
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/basemaps/{id}/{z}/{x}/{y}")
  ResponseEntity<byte[]> tile(
      @PathVariable String project,
      @PathVariable UUID id,
      @PathVariable int z,
      @PathVariable int x,
      @PathVariable int y) {
    Optional<byte[]> b = basemaps.tile(projects.byKey(project).id(), id, z, x, y);
    if (b.isEmpty()) return ResponseEntity.noContent().build();
    return ResponseEntity.ok()
        .header("Cache-Control", "private, max-age=604800, immutable")
        .header("Content-Type", TilePictures.kind(b.get()).orElse("application/octet-stream"))
        .body(b.get());
  }

  @Needs(Right.CHANGE_LAYERS)
  @DeleteMapping(
      value = "/api/p/{project}/basemaps/{id}",
      produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> remove(@PathVariable String project, @PathVariable UUID id)
      throws IOException {
    basemaps.remove(projects.byKey(project).id(), id);
    return ResponseEntity.ok("{}");
  }

  @Needs(Right.CHANGE_LAYERS)
  @TusRequests({"/api/p/{project}/basemap-uploads", "/api/p/{project}/basemap-uploads/{id}"})
  void upload(
      @PathVariable String project,
      @PathVariable Optional<UUID> id,
      HttpServletRequest q,
      HttpServletResponse r,
      Principal person)
      throws IOException {
    UUID p = projects.byKey(project).id();
    uploads.handle(
        id,
        "/api/p/" + project + "/basemap-uploads",
        q,
        r,
        person.getName(),
        new OfABasemap(p, person.getName()));
  }

  private final class OfABasemap implements TusUploads.Target {
    private final UUID project;
    private final String person;

    OfABasemap(UUID project, String person) {
      this.project = project;
      this.person = person;
    }

    @Override
    public long limit() {
      return basemaps.limit();
    }

    @Override
    public String begin(Map<String, String> metadata, long length, String owner, long open) {
      return metadata.getOrDefault("name", "");
    }

    @Override
    public void complete(UUID upload, String about, Path file) throws IOException {
      basemaps.add(project, upload, about.replaceAll("\\.(mbtiles|gpkg)$", ""), file, person);
    }
  }
}
