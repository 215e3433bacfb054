package org.whinridge.app.layer.look;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.eclipsesource.json.ParseException;
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
import org.whinridge.app.shell.Refusal;
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
  private final Looks looks;
  private final LookTiles tiles;
  private final ReadModels models;

  LookApi(Projects projects, Layers layers, Looks looks, LookTiles tiles, ReadModels models) {
    this.projects = projects;
    this.layers = layers;
    this.looks = looks;
    this.tiles = tiles;
    this.models = models;
  }

  private Layer layer(String project, UUID id) {
    return layers.get(projects.byKey(project).id(), id);
  }

  private static JsonObject object(String body) {
    try {
      JsonValue v = Json.parse(body);
      if (v.isObject()) return v.asObject();
    } catch (ParseException e) {
      throw Refusal.refused("This is not JSON: " + e.getMessage() + ". Nothing was changed.");
    }
    throw Refusal.refused("A JSON object was expected. Nothing was changed.");
  }

  private static Look look(String json) {
    try {
      return Look.read(json);
    } catch (IllegalArgumentException e) {
      throw Refusal.refused("The look can't be used: " + e.getMessage() + ". Nothing was changed.");
    }
  }

  private static Look look(JsonObject body) {
    JsonValue v = body.get("look");
    if (v == null) throw Refusal.refused("The look is missing. Nothing was changed.");
    return look(v.toString());
  }

  /** The instructions by which maps draw the saved look; quick, since it counts nothing. */
  @GetMapping("/plan")
  String plan(@PathVariable String project, @PathVariable UUID id) {
    Layer layer = layer(project, id);
    return Drawing.plan(looks.ready(layer)).toString();
  }

  /** The saved look with all that its editor needs. */
  @GetMapping
  String saved(@PathVariable String project, @PathVariable UUID id) {
    Layer layer = layer(project, id);
    Looks.Saved s = looks.of(layer);
    return shown(layer, s.look(), "", List.of()).add("revision", s.revision()).toString();
  }

  /** Keeps a look for trying it on the map. */
  @PostMapping("/try")
  String tried(@PathVariable String project, @PathVariable UUID id, @RequestBody String body) {
    Layer layer = layer(project, id);
    JsonObject o = object(body);
    return tried(layer, look(o), ground(o));
  }

  private String tried(Layer layer, Look look, List<Colour> ground) {
    return shown(layer, look, looks.keep(look), ground).toString();
  }

  private static List<Colour> ground(JsonObject o) {
    List<Colour> out = new ArrayList<>();
    JsonValue v = o.get("ground");
    if (v != null && v.isArray())
      for (JsonValue c : v.asArray())
        if (c.isString() && out.size() < 12) Colour.read(c.asString()).ifPresent(out::add);
    return out;
  }

  private JsonObject shown(Layer layer, Look look, String key, List<Colour> ground) {
    ReadyLook ready = ReadyLook.of(look, layer.schema());
    JsonArray problems = new JsonArray();
    ready.problems().forEach(p -> problems.add(p.json()));
    JsonArray counts = new JsonArray();
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
    JsonArray drowning = new JsonArray();
    for (LookProblem p : Drowning.of(ready, ground)) drowning.add(p.json());
    return new JsonObject()
        .add("key", key)
        .add("look", look.json())
        .add("plan", Drawing.plan(ready))
        .add("problems", problems)
        .add("counts", counts)
        .add("drowning", drowning);
  }

  private static void unturned(Layer layer, String field, int n, JsonArray problems) {
    if (n == 0 || n == layer.count()) return;
    problems.add(
        new LookProblem(
                -1,
                n
                    + (n == 1 ? " feature has" : " features have")
                    + " no bearing of 0 to 360 degrees in “"
                    + layer.schema().field(field).map(Field::label).orElse(field)
                    + "” and "
                    + (n == 1 ? "is" : "are")
                    + " drawn upright",
                -1,
                -1)
            .json());
  }

  /** Makes classes from what the layer holds. */
  @PostMapping("/propose")
  String propose(@PathVariable String project, @PathVariable UUID id, @RequestBody String body) {
    Layer layer = layer(project, id);
    JsonObject o = object(body);
    Look before = look(o);
    if (o.get("same") != null && o.get("same").isNumber())
      return tried(
          layer, LookProposal.sameSymbols(before, (int) o.get("same").asDouble()), ground(o));
    return tried(layer, proposal(layer, models.of(layer), before, o), ground(o));
  }

  private static Look proposal(Layer layer, LayerColumns c, Look before, JsonObject o) {
    Look.By by = Look.By.of(o.getString("by", "")).orElse(Look.By.ONE);
    if (by == Look.By.RULE) return LookProposal.byRule(before, c);
    if (by == Look.By.ONE) return LookProposal.one(before, c);
    Field field =
        layer
            .schema()
            .field(o.getString("field", ""))
            .orElseThrow(
                () ->
                    Refusal.refused(
                        "Choose the field that sorts the features. Nothing was changed."));
    Ramp ramp =
        Ramp.of(o.getString("ramp", "")).orElse(by == Look.By.CODE ? Ramp.ASSORTED : Ramp.PEAT);
    if (by == Look.By.CODE) return LookProposal.byCode(before, c, field, ramp);
    Look made =
        LookProposal.byClass(
            before,
            c,
            field,
            Breaks.Method.of(o.getString("method", "")).orElse(Breaks.Method.NATURAL),
            o.getInt("classes", 5),
            ramp);
    if (made.classes().isEmpty())
      throw Refusal.refused(
          "“"
              + field.label()
              + "” has no numbers in this layer, so that no classes can be made of it. Choose another field; nothing was changed.");
    return made;
  }

  /** Saves a look for everybody. */
  @PostMapping
  String save(@PathVariable String project, @PathVariable UUID id, @RequestBody String body) {
    Layer layer = layer(project, id);
    JsonObject o = object(body);
    long revision = looks.save(layer, look(o), o.getLong("revision", -1));
    return new JsonObject().add("revision", revision).toString();
  }

  /** Cleans an SVG file to an icon. */
  @PostMapping("/icon")
  String icon(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "Own icon") String name,
      @RequestBody byte[] svg) {
    layer(project, id);
    try {
      IconReader.Read r = IconReader.read(svg, name.substring(0, Math.min(60, name.length())));
      JsonArray notes = new JsonArray();
      r.notes().forEach(notes::add);
      return new JsonObject().add("icon", r.icon().json()).add("notes", notes).toString();
    } catch (FileProblem e) {
      throw Refusal.refused(e.getMessage() + " Nothing was changed.");
    }
  }

  /** The look as SLD 1.1, and what that can't say. */
  @PostMapping("/sld")
  String sld(@PathVariable String project, @PathVariable UUID id, @RequestBody String body) {
    Layer layer = layer(project, id);
    SldWriter.Sld s =
        SldWriter.write(ReadyLook.of(look(object(body)), layer.schema()), layer.name());
    JsonArray notes = new JsonArray();
    s.notes().forEach(notes::add);
    return new JsonObject().add("xml", s.xml()).add("notes", notes).toString();
  }

  /** A picture of one symbol stack's legend for cards, by the saved look. */
  @GetMapping(value = "/symbol/{feature}.svg", produces = "image/svg+xml")
  ResponseEntity<String> symbol(
      @PathVariable String project, @PathVariable UUID id, @PathVariable UUID feature) {
    Layer layer = layer(project, id);
    ReadyLook ready = looks.ready(layer);
    int[] entries =
        ready
            .draw(
                layers.feature(layer, feature).orElseThrow(() -> Refusal.notFound("feature")),
                LayerQueries.clock())
            .entries();
    return ResponseEntity.ok(
        Drawing.legend(
            ready.look(),
            ready.entries().get(entries[entries.length - 1]).stack(),
            layer.schema().kind()));
  }
}
