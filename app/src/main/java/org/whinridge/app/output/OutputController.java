package org.whinridge.app.output;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.UUID;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.JobProblem;
import org.whinridge.core.layer.Field;

@Controller
class OutputController {
  private final DeskPage desk;
  private final Projects projects;
  private final Layers layers;
  private final Exports exports;

  OutputController(DeskPage desk, Projects projects, Layers layers, Exports exports) {
    this.desk = desk;
    this.projects = projects;
    this.layers = layers;
    this.exports = exports;
  }

  @GetMapping("/p/{project}/outputs")
  String page(@PathVariable String project, Model model) {
    Project p = desk.open(project, "outputs", "Outputs", model);
    model.addAttribute("layers", layers.list(p.id()));
    return "outputs";
  }

  @GetMapping("/p/{project}/outputs/{layer}/{format}")
  void download(
      @PathVariable String project,
      @PathVariable UUID layer,
      @PathVariable String format,
      HttpServletResponse r)
      throws IOException {
    Layer l = layers.get(projects.byKey(project).id(), layer);
    String name = Field.nameFrom(l.name());
    switch (format) {
      case "geojson" -> {
        headers(r, name + ".geojson", "application/geo+json");
        exports.geoJson(l, r.getOutputStream());
      }
      case "gpkg" -> {
        Path file = exports.geoPackage(l);
        try {
          headers(r, name + ".gpkg", "application/geopackage+sqlite3");
          r.setContentLengthLong(Files.size(file));
          Files.copy(file, r.getOutputStream());
        } finally {
          Files.deleteIfExists(file);
        }
      }
      default -> throw JobProblem.notFound("output format");
    }
  }

  private static void headers(HttpServletResponse r, String fileName, String type) {
    r.setContentType(type);
    r.setHeader(
        HttpHeaders.CONTENT_DISPOSITION,
        ContentDisposition.attachment().filename(fileName).build().toString());
  }
}
