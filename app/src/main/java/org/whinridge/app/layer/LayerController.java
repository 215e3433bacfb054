package org.whinridge.app.layer;

import java.io.IOException;
import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.shell.JobProblem;
import org.whinridge.core.layer.FieldType;

@Controller
class LayerController {
  private final DeskPage desk;
  private final Layers layers;
  private final BringIn bringIn;

  LayerController(DeskPage desk, Layers layers, BringIn bringIn) {
    this.desk = desk;
    this.layers = layers;
    this.bringIn = bringIn;
  }

  @GetMapping("/p/{project}/layers")
  String list(@PathVariable String project, Model model) {
    Project p = desk.open(project, "layers", "Layers", model);
    model.addAttribute("layers", layers.list(p.id()));
    return "layers";
  }

  @GetMapping("/p/{project}/layers/bring-in")
  String chooseFile(@PathVariable String project, Model model) {
    desk.open(project, "layers", "Bring in", model);
    return "bring-in";
  }

  @PostMapping("/p/{project}/layers/bring-in")
  String upload(
      @PathVariable String project,
      @RequestParam MultipartFile file,
      Model model,
      RedirectAttributes flash)
      throws IOException {
    Project p = desk.open(project, "layers", "Bring in", model);
    try (var in = file.getInputStream()) {
      return "redirect:/p/"
          + p.key()
          + "/layers/bring-in/"
          + bringIn.stage(file.getOriginalFilename(), in);
    } catch (JobProblem e) {
      flash.addFlashAttribute("problem", e.getMessage());
      flash.addFlashAttribute("problemFile", file.getOriginalFilename());
      return "redirect:/p/" + p.key() + "/layers/bring-in";
    }
  }

  @GetMapping("/p/{project}/layers/bring-in/{id}")
  String report(@PathVariable String project, @PathVariable UUID id, Model model)
      throws IOException {
    desk.open(project, "layers", "Bring in", model);
    BringInReport r = bringIn.report(id);
    model.addAttribute("report", r);
    model.addAttribute("types", FieldType.values());
    String name =
        r.fileName()
            .replaceAll("\\.[A-Za-z]{3,8}$", "")
            .replace('_', ' ')
            .replace('-', ' ')
            .strip();
    model.addAttribute(
        "name",
        name.isEmpty()
            ? "New layer"
            : name.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + name.substring(1));
    return "bring-in-report";
  }

  @PostMapping("/p/{project}/layers/bring-in/{id}")
  String importFile(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam String name,
      @RequestParam MultiValueMap<String, String> all,
      Principal person,
      Model model,
      RedirectAttributes flash)
      throws IOException {
    Project p = desk.open(project, "layers", "Bring in", model);
    // the map keeps each value whole; a List<String> parameter would split a single label at its
    // commas
    List<String> source = all.getOrDefault("source", List.of());
    List<String> label = all.getOrDefault("label", List.of());
    List<String> type = all.getOrDefault("type", List.of());
    List<String> take = all.getOrDefault("take", List.of());
    List<BringIn.Decision> decisions = new ArrayList<>();
    for (int i = 0; i < Math.min(source.size(), Math.min(label.size(), type.size())); i++)
      decisions.add(
          new BringIn.Decision(
              source.get(i), take.contains(String.valueOf(i)), label.get(i), type.get(i)));
    try {
      BringIn.Imported done = bringIn.importAs(id, p.id(), name, decisions, person.getName());
      flash.addFlashAttribute("done", done.count() + " features imported.");
      flash.addFlashAttribute("notes", done.notes());
      return "redirect:/p/" + p.key() + "/layers/" + done.layer();
    } catch (JobProblem e) {
      flash.addFlashAttribute("problem", e.getMessage());
      return "redirect:/p/" + p.key() + "/layers/bring-in/" + id;
    }
  }

  @GetMapping("/p/{project}/layers/{id}")
  String layer(@PathVariable String project, @PathVariable UUID id, Model model) {
    Project p = desk.open(project, "layers", "Layer", model);
    Layer layer = layers.get(p.id(), id);
    model.addAttribute("title", layer.name());
    model.addAttribute("layer", layer);
    model.addAttribute("history", layers.history(layer));
    return "layer";
  }
}
