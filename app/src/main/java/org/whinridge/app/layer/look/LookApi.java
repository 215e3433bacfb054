package org.whinridge.app.layer.look;

import com.eclipsesource.json.JsonObject;
import com.fasterxml.jackson.annotation.JsonInclude;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerFilter;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.ReadModels;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Catalogue;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.layer.Field;
import org.whinridge.core.look.Breaks;
import org.whinridge.core.look.Colour;
import org.whinridge.core.look.Drawing;
import org.whinridge.core.look.Drowning;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.LookProblem;
import org.whinridge.core.look.LookProposal;
import org.whinridge.core.look.Ramp;
import org.whinridge.core.look.ReadyLook;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.said.Said;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.look.IconReader;
import org.whinridge.formats.look.SldWriter;

/** A layer's look: seen, tried, proposed, saved, and as files. */
@RestController
@RequestMapping(
    value = "/api/p/{project}/layers/{id}/look",
    produces = MediaType.APPLICATION_JSON_VALUE)
class LookApi {
  private final Projects projects;
  private final Layers layers;
  private final LayerQueries queries;
  private final Looks looks;
  private final LookTiles tiles;
  private final ReadModels models;
  private final Catalogue catalogue;

  LookApi(
      Projects projects,
      Layers layers,
      Looks looks,
      LookTiles tiles,
      ReadModels models,
      Catalogue catalogue,
      LayerQueries queries) {
    this.queries = queries;
    this.catalogue = catalogue;
    this.projects = projects;
    this.layers = layers;
    this.looks = looks;
    this.tiles = tiles;
    this.models = models;
  }

  private Layer layer(String project, UUID id) {
    return layers.get(projects.byKey(project).id(), id);
  }

  /** A look to be tried, and the colours of the basemap that it lies on. */
  record Tried(@NotNull(message = "border.isMissing") JsonObject look, List<String> ground) {}

  /**
   * What classes are to be made of: {@code by} a field, in so many classes; or all with the symbols
   * of one class.
   */
  record Asked(
      @NotNull(message = "border.isMissing") JsonObject look,
      List<String> ground,
      String by,
      String field,
      String ramp,
      String method,
      Integer classes,
      Integer same) {}

  /** A look to be saved, and the revision that it was made from. */
  record Made(@NotNull(message = "border.isMissing") JsonObject look, Long revision) {}

  /** The revision of the look that was saved. */
  record Saved(long revision) {}

  private static Look look(JsonObject json) {
    try {
      return Look.read(json.toString());
    } catch (IllegalArgumentException e) {
      throw Refusal.refused("refused.lookCantBeUsed", "why", Refusal.said(e));
    }
  }

  /** The instructions by which maps draw the saved look; quick, since it counts nothing. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/plan")
  JsonObject plan(@PathVariable String project, @PathVariable UUID id) {
    Layer layer = layer(project, id);
    return Drawing.plan(looks.ready(layer));
  }

  /** The saved look with all that its editor needs. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping
  Shown saved(@PathVariable String project, @PathVariable UUID id) {
    Layer layer = layer(project, id);
    Looks.Saved s = looks.of(layer);
    return shown(layer, s.look(), "", List.of(), s.revision());
  }

  /** Keeps a look for trying it on the map. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/try")
  Shown tried(@PathVariable String project, @PathVariable UUID id, @Valid @RequestBody Tried body) {
    Layer layer = layer(project, id);
    return tried(layer, look(body.look), ground(body.ground));
  }

  private Shown tried(Layer layer, Look look, List<Colour> ground) {
    return shown(layer, look, looks.keep(look), ground, null);
  }

  private static List<Colour> ground(List<String> sent) {
    List<Colour> out = new ArrayList<>();
    if (sent != null)
      for (String c : sent) if (c != null && out.size() < 12) Colour.read(c).ifPresent(out::add);
    return out;
  }

  /**
   * A look with all that its editor needs.
   *
   * @param key under which it is tried; "" for the saved one
   * @param plan by what maps draw it
   * @param counts of the features of each entry
   * @param drowning what can't be told from the basemap
   * @param revision of the saved look; null while it is tried
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record Shown(
      String key,
      JsonObject look,
      JsonObject plan,
      List<JsonObject> problems,
      List<Integer> counts,
      List<JsonObject> drowning,
      Long revision) {}

  private Shown shown(Layer layer, Look look, String key, List<Colour> ground, Long revision) {
    ReadyLook ready = ReadyLook.of(look, layer.schema());
    List<JsonObject> problems = new ArrayList<>();
    ready.problems().forEach(p -> problems.add(p.json()));
    List<Integer> counts = new ArrayList<>();
    tiles.with(
        layer,
        key,
        LayerFilter.ALL,
        (c, s) -> {
          for (int n : s.rows.counts()) counts.add(n);
          for (String field : ready.turns())
            if (layer.schema().field(field).isPresent())
              unturned(layer, field, s.rows.unturned(field), problems);
          return null;
        });
    return new Shown(
        key,
        look.json(),
        Drawing.plan(ready),
        problems,
        counts,
        Drowning.of(ready, ground).stream().map(LookProblem::json).toList(),
        revision);
  }

  private static void unturned(Layer layer, String field, int n, List<JsonObject> problems) {
    if (n == 0 || n == layer.count()) return;
    problems.add(
        new LookProblem(
                -1,
                Said.of(
                    "lookProblem.unturned",
                    "n",
                    n,
                    "field",
                    layer.schema().field(field).map(Field::label).orElse(field)),
                -1,
                -1)
            .json());
  }

  /** Makes classes from what the layer holds. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/propose")
  Shown propose(
      @PathVariable String project, @PathVariable UUID id, @Valid @RequestBody Asked body) {
    Layer layer = layer(project, id);
    Look before = look(body.look);
    Look made =
        body.same == null
            ? proposal(layer, models.of(layer), before, body)
            : LookProposal.sameSymbols(before, body.same);
    return tried(layer, made, ground(body.ground));
  }

  private static String or(String text) {
    return text == null ? "" : text;
  }

  private static Look proposal(Layer layer, LayerColumns c, Look before, Asked o) {
    Look.By by = Look.By.of(or(o.by)).orElse(Look.By.ONE);
    if (by == Look.By.RULE) return LookProposal.byRule(before, c);
    if (by == Look.By.ONE) return LookProposal.one(before, c);
    Field field =
        layer
            .schema()
            .field(or(o.field))
            .orElseThrow(() -> Refusal.refused("refused.chooseFieldSortsFeatures"));
    Ramp ramp = Ramp.of(or(o.ramp)).orElse(by == Look.By.CODE ? Ramp.ASSORTED : Ramp.PEAT);
    if (by == Look.By.CODE) return LookProposal.byCode(before, c, field, ramp);
    Look made =
        LookProposal.byClass(
            before,
            c,
            field,
            Breaks.Method.of(or(o.method)).orElse(Breaks.Method.NATURAL),
            o.classes == null ? 5 : o.classes,
            ramp);
    if (made.classes().isEmpty())
      throw Refusal.refused("refused.noNumbersLayerSo", "label", field.label());
    return made;
  }

  /** Saves a look for everybody. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping
  Saved save(@PathVariable String project, @PathVariable UUID id, @Valid @RequestBody Made body) {
    return new Saved(
        looks.save(
            layer(project, id), look(body.look), body.revision == null ? -1 : body.revision));
  }

  /** An icon made of an SVG file, and what of it was left out. */
  record Cleaned(JsonObject icon, List<Said> notes) {}

  /** Cleans an SVG file to an icon. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/icon")
  Cleaned icon(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "") String name,
      @RequestBody byte[] svg) {
    layer(project, id);
    try {
      IconReader.Read r = IconReader.read(svg, name.substring(0, Math.min(60, name.length())));
      return new Cleaned(r.icon().json(), r.notes());
    } catch (FileProblem e) {
      throw Refusal.refused("refused.whyNothingChanged", "why", Refusal.said(e));
    }
  }

  /** A look as SLD, and what that can't say. */
  record Sld(String xml, List<Said> notes) {}

  /** The look as SLD 1.1. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/sld")
  Sld sld(@PathVariable String project, @PathVariable UUID id, @Valid @RequestBody Tried body) {
    Layer layer = layer(project, id);
    SldWriter.Sld s =
        SldWriter.write(
            ReadyLook.of(look(body.look), layer.schema()), layer.name(), catalogue::say);
    return new Sld(s.xml(), s.notes());
  }

  /** A picture of one symbol stack's legend for cards, by the saved look. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping(value = "/symbol/{feature}.svg", produces = "image/svg+xml")
  ResponseEntity<String> symbol(
      @PathVariable String project, @PathVariable UUID id, @PathVariable UUID feature) {
    Layer layer = layer(project, id);
    ReadyLook ready = looks.ready(layer);
    int[] entries =
        ready
            .draw(
                layers.feature(layer, feature).orElseThrow(() -> Refusal.notFound("thing.feature")),
                queries.clock(layer))
            .entries();
    return ResponseEntity.ok(
        Drawing.legend(
            ready.look(),
            ready.entries().get(entries[entries.length - 1]).stack(),
            layer.schema().kind()));
  }
}
