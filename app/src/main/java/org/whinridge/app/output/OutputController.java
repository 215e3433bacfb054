package org.whinridge.app.output;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerFilter;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Jobs;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.said.Said;
import org.whinridge.formats.out.OutColumns;

@Controller
class OutputController {
  private final DeskPage desk;
  private final Projects projects;
  private final Layers layers;
  private final LayerQueries queries;
  private final Exports exports;
  private final OutputJobs large;

  OutputController(
      DeskPage desk,
      Projects projects,
      Layers layers,
      LayerQueries queries,
      Exports exports,
      OutputJobs large) {
    this.large = large;
    this.desk = desk;
    this.projects = projects;
    this.layers = layers;
    this.queries = queries;
    this.exports = exports;
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/outputs")
  String page(
      @PathVariable String project,
      @RequestParam(defaultValue = "") List<UUID> layer,
      @RequestParam(defaultValue = "") String filter,
      @RequestParam(defaultValue = "") Set<UUID> only,
      Model model) {
    Project p = desk.open(project, "outputs", model);
    List<Layer> all = layers.list(p.id());
    model.addAttribute("layers", all);
    model.addAttribute("chosen", layer);
    model.addAttribute("filter", filter);
    model.addAttribute("filterLike", all.isEmpty() ? "" : all.get(0).ruleLike());
    model.addAttribute("only", only.stream().map(UUID::toString).collect(Collectors.joining(",")));
    model.addAttribute("onlyCount", only.size());
    model.addAttribute("formats", Order.Format.values());
    model.addAttribute("codes", OutColumns.Codes.values());
    if (!filter.isBlank() && layer.size() == 1)
      try {
        Layer l = layers.get(p.id(), layer.get(0));
        model.addAttribute("matching", queries.count(l, LayerFilter.written(filter)));
      } catch (Refusal e) {
        model.addAttribute("problem", e.said());
      }
    return "outputs";
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/outputs/file")
  String file(
      @PathVariable String project,
      @RequestParam(defaultValue = "") List<UUID> layer,
      @RequestParam(defaultValue = "gpkg") String format,
      @RequestParam(defaultValue = "") String filter,
      @RequestParam(defaultValue = "") Set<UUID> only,
      @RequestParam(defaultValue = "CODES") String codes,
      @RequestParam(defaultValue = "") String system,
      @RequestParam(defaultValue = "false") boolean wkt,
      HttpServletResponse r,
      RedirectAttributes back)
      throws IOException {
    UUID id = projects.byKey(project).id();
    try {
      Order o =
          new Order(
              layer.stream().map(l -> layers.get(id, l)).toList(),
              Order.Format.of(format),
              filter,
              only,
              OutColumns.Codes.of(codes),
              Order.system(system),
              wkt);
      if (OutputJobs.isLarge(o))
        return "redirect:/p/" + project + "/outputs/job/" + large.start(id, o);
      send(o, r);
      return null;
    } catch (Refusal e) {
      back.addFlashAttribute("problem", e.said());
      return "redirect:/p/"
          + project
          + "/outputs?filter="
          + org.springframework.web.util.UriUtils.encode(filter, StandardCharsets.UTF_8)
          + "&layer="
          + layer.stream().map(UUID::toString).collect(Collectors.joining(","));
    }
  }

  /** How far a large output is, and its file once it is written. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/outputs/job/{job}")
  String job(@PathVariable String project, @PathVariable UUID job, Model model) throws IOException {
    Project p = desk.open(project, "outputs", model);
    model.addAttribute("job", large.job(p.id(), job));
    model.addAttribute("jobId", job);
    Optional<OutputJobs.Ordered> done = large.done(p.id(), job);
    if (done.isPresent()) {
      model.addAttribute("name", done.get().written().name());
      model.addAttribute("bytes", Files.size(done.get().written().file()));
    }
    return "output-job";
  }

  /** How far the writing of an output is. */
  record State(String stage, Said doing, long done, long total, long seconds) {}

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/outputs/job/{job}")
  @ResponseBody
  State state(@PathVariable String project, @PathVariable UUID job) {
    Jobs.Job j = large.job(projects.byKey(project).id(), job);
    return new State(j.isOver() ? "over" : "running", j.doing(), j.done(), j.total(), j.seconds());
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/outputs/job/{job}/file")
  void taken(@PathVariable String project, @PathVariable UUID job, HttpServletResponse r)
      throws IOException {
    OutputJobs.Ordered o =
        large
            .done(projects.byKey(project).id(), job)
            .orElseThrow(() -> Refusal.notFound("thing.outputThatIsWritten"));
    send(o.order(), o.written(), r);
  }

  @Needs(Right.SEE_REGISTER)
  @PostMapping("/p/{project}/outputs/job/{job}/cancel")
  String cancel(@PathVariable String project, @PathVariable UUID job, RedirectAttributes flash) {
    large.cancel(projects.byKey(project).id(), job);
    flash.addFlashAttribute("done", Said.of("told.outputNoLongerWritten"));
    return "redirect:/p/" + project + "/outputs";
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/outputs/{layer}/{format}")
  void download(
      @PathVariable String project,
      @PathVariable UUID layer,
      @PathVariable String format,
      HttpServletResponse r)
      throws IOException {
    Layer l = layers.get(projects.byKey(project).id(), layer);
    send(
        new Order(
            List.of(l),
            Order.Format.of(format),
            "",
            Set.of(),
            OutColumns.Codes.CODES,
            CoordinateSystem.wgs84(),
            false),
        r);
  }

  private void send(Order o, HttpServletResponse r) throws IOException {
    Exports.Written w = exports.write(o);
    try {
      send(o, w, r);
    } finally {
      exports.drop(w);
    }
  }

  private static void send(Order o, Exports.Written w, HttpServletResponse r) throws IOException {
    r.setContentType(o.zipped() ? "application/zip" : o.format().type());
    r.setHeader(
        HttpHeaders.CONTENT_DISPOSITION,
        ContentDisposition.attachment().filename(w.name()).build().toString());
    r.setContentLengthLong(Files.size(w.file()));
    Files.copy(w.file(), r.getOutputStream());
  }
}
