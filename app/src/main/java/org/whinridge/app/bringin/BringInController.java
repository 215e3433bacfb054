package org.whinridge.app.bringin;

import java.io.IOException;
import java.io.InputStream;
import java.security.Principal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
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
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.Repair;
import org.whinridge.core.profile.ColumnMatch;
import org.whinridge.core.profile.Survey;
import org.whinridge.core.said.Said;
import org.whinridge.formats.source.TableReading;

/** The pages of bringing in: choose, report, plan, result. */
@Controller
class BringInController {
  private final DeskPage desk;
  private final BringIn bringIn;
  private final Layers layers;

  BringInController(DeskPage desk, BringIn bringIn, Layers layers) {
    this.desk = desk;
    this.bringIn = bringIn;
    this.layers = layers;
  }

  private static String page(String project, UUID id) {
    return "redirect:/p/" + project + "/layers/bring-in/" + id;
  }

  @Needs(Right.CHANGE_LAYERS)
  @GetMapping("/p/{project}/layers/bring-in")
  String choose(@PathVariable String project, Model model) {
    desk.open(project, "layers", model);
    model.addAttribute("limitMb", bringIn.limit() / 1_000_000);
    return "bring-in";
  }

  /**
   * Files in one request, for scripts and browsers without scripts; the page itself uploads by tus.
   */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/p/{project}/layers/bring-in")
  String upload(
      @PathVariable String project,
      @RequestParam List<MultipartFile> file,
      Principal person,
      Model model,
      RedirectAttributes flash)
      throws IOException {
    Project p = desk.open(project, "layers", model);
    UUID id = bringIn.begin(p.id(), person.getName());
    try {
      for (MultipartFile f : file)
        if (!f.isEmpty() || f.getOriginalFilename() != null && !f.getOriginalFilename().isBlank())
          try (InputStream in = f.getInputStream()) {
            bringIn.add(p.id(), id, f.getOriginalFilename(), in);
          }
      bringIn.takeInventory(p.id(), id);
      return page(p.key(), id);
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
      return "redirect:/p/" + p.key() + "/layers/bring-in";
    }
  }

  @Needs(Right.CHANGE_LAYERS)
  @GetMapping("/p/{project}/layers/bring-in/{id}")
  String standing(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam Map<String, String> query,
      Model model,
      RedirectAttributes flash)
      throws IOException {
    Project p = desk.open(project, "layers", model);
    BringIn.Standing s = bringIn.standing(p.id(), id);
    model.addAttribute("lotId", id);
    if (!s.problem().isEmpty() && !model.containsAttribute("problem"))
      model.addAttribute("problem", s.problem());
    switch (s.stage()) {
      case "running" -> {
        model.addAttribute("job", s.job().orElseThrow());
        model.asMap().remove("problem");
        return "bring-in-job";
      }
      case "found" -> {
        report(p, s.lot().found(), query, model);
        return "bring-in-report";
      }
      case "planned" -> {
        model.addAttribute("plans", s.lot().plans());
        return "bring-in-plan";
      }
      case "done" -> {
        model.addAttribute("outcomes", s.lot().outcomes());
        return "bring-in-done";
      }
      case "gone" -> {
        flash.addFlashAttribute("done", Said.of("told.filesImported", "what", s.problem()));
        return "redirect:/p/" + project + "/layers";
      }
      default -> {
        flash.addFlashAttribute(
            "problem", s.problem().isEmpty() ? Said.of("told.filesCouldNotBe") : s.problem());
        bringIn.drop(p.id(), id);
        return "redirect:/p/" + project + "/layers/bring-in";
      }
    }
  }

  /** Reads a table as somebody said: the row with the names, quotation marks literally. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/p/{project}/layers/bring-in/{id}/read-as/{part}")
  String readAs(
      @PathVariable String project,
      @PathVariable UUID id,
      @PathVariable int part,
      @RequestParam Map<String, String> form,
      Model model)
      throws IOException {
    Project p = desk.open(project, "layers", model);
    String row = form.getOrDefault("row_" + part, "").strip();
    bringIn.readAs(
        p.id(),
        id,
        part,
        new TableReading(
            row.matches("\\d{1,2}") ? OptionalInt.of(Integer.parseInt(row)) : OptionalInt.empty(),
            form.containsKey("quotes_" + part)));
    return "redirect:/p/" + project + "/layers/bring-in/" + id;
  }

  private void report(Project p, Found found, Map<String, String> query, Model model) {
    List<Layer> all = layers.list(p.id());
    model.addAttribute("found", found);
    model.addAttribute("types", FieldType.values());
    model.addAttribute("repairs", Repair.values());
    model.addAttribute("layers", all);
    Map<Integer, Layer> into = new LinkedHashMap<>();
    Map<Integer, String> targets = new LinkedHashMap<>();
    Map<Integer, Map<String, String>> mapping = new LinkedHashMap<>();
    Map<Integer, String> keys = new LinkedHashMap<>();
    Map<Integer, String> names = new LinkedHashMap<>();
    for (Found.Part part : found.parts()) {
      names.put(part.index(), freeName(part.title(), all, names));
      Optional<Layer> layer =
          all.stream()
              .filter(l -> l.id().toString().equals(query.get("into" + part.index())))
              .findFirst();
      if (layer.isEmpty()) continue;
      into.put(part.index(), layer.get());
      targets.put(
          part.index(), "visits".equals(query.get("target" + part.index())) ? "visits" : "update");
      Schema schema = layer.get().schema();
      Map<String, String> fields = ColumnMatch.fields(names(part.columns()), schema);
      mapping.put(part.index(), fields);
      keys.put(part.index(), ColumnMatch.key(fields, names(part.keys()), schema));
    }
    model.addAttribute("into", into);
    model.addAttribute("targets", targets);
    model.addAttribute("mapping", mapping);
    model.addAttribute("keys", keys);
    model.addAttribute("names", names);
  }

  private static List<String> names(List<Survey.Column> columns) {
    return columns.stream().map(Survey.Column::source).toList();
  }

  private static String freeName(String title, List<Layer> all, Map<Integer, String> others) {
    String name = title;
    for (int i = 2; taken(name, all, others); i++) name = title + " " + i;
    return name;
  }

  private static boolean taken(String name, List<Layer> all, Map<Integer, String> others) {
    return others.containsValue(name) || all.stream().anyMatch(l -> l.name().equals(name));
  }

  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/p/{project}/layers/bring-in/{id}")
  String decide(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam MultiValueMap<String, String> form,
      Principal person,
      Model model,
      RedirectAttributes flash)
      throws IOException {
    Project p = desk.open(project, "layers", model);
    try {
      bringIn.decide(p.id(), id, form, person.getName());
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
    }
    return page(p.key(), id);
  }

  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/p/{project}/layers/bring-in/{id}/{act}")
  String act(
      @PathVariable String project,
      @PathVariable UUID id,
      @PathVariable String act,
      Principal person,
      Model model,
      RedirectAttributes flash)
      throws IOException {
    Project p = desk.open(project, "layers", model);
    try {
      switch (act) {
        case "confirm" -> bringIn.confirm(p.id(), id, person.getName());
        case "reconsider" -> bringIn.reconsider(p.id(), id);
        case "cancel" -> bringIn.cancel(p.id(), id);
        case "take-back" -> {
          flash.addFlashAttribute("done", bringIn.takeBack(p.id(), id, person.getName()));
          return "redirect:/p/" + p.key() + "/layers";
        }
        case "drop" -> {
          bringIn.drop(p.id(), id);
          flash.addFlashAttribute("done", Said.of("told.filesWereDroppedNothing"));
          return "redirect:/p/" + p.key() + "/layers";
        }
        default -> throw Refusal.notFound("thing.page");
      }
    } catch (Refusal e) {
      if (e.status().value() == 404) throw e;
      flash.addFlashAttribute("problem", e.said());
    }
    return page(p.key(), id);
  }
}
