package org.whinridge.app.layer.fields;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.eclipsesource.json.ParseException;
import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerChanges;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.values.LayerValues;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.CodesFrom;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.layer.SchemaChange;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.profile.CodeProposal;
import org.whinridge.core.profile.ColumnMatch;
import org.whinridge.core.profile.NearDuplicates;
import org.whinridge.core.profile.PastedCodes;
import org.whinridge.core.profile.ValueCount;
import org.whinridge.formats.crs.CoordinateSystems;

/** What the editor of fields asks and sends: making layers, changing fields, code lists. */
@RestController
class FieldsApi {
  private static final int LONGEST = 2_000_000;
  private final Projects projects;
  private final Layers layers;
  private final LayerMaking making;
  private final LayerFields fields;
  private final LayerValues values;

  FieldsApi(
      Projects projects,
      Layers layers,
      LayerMaking making,
      LayerFields fields,
      LayerValues values) {
    this.projects = projects;
    this.layers = layers;
    this.making = making;
    this.fields = fields;
    this.values = values;
  }

  private static ResponseEntity<String> json(JsonValue v) {
    return ResponseEntity.ok().contentType(MediaType.APPLICATION_JSON).body(v.toString());
  }

  private static JsonObject parsed(String body) {
    try {
      if (body.length() > LONGEST) throw Refusal.refused("This is more than can be read at once.");
      return Json.parse(body).asObject();
    } catch (ParseException | UnsupportedOperationException e) {
      throw Refusal.refused("This can't be read; nothing was changed. Load the page again.");
    }
  }

  /** A schema as the editor sends it; a field without a storage name gets one from its label. */
  private static Schema schema(JsonValue v) {
    try {
      JsonObject o = v.asObject();
      List<String> names = new ArrayList<>();
      for (JsonValue f : o.get("fields").asArray()) {
        JsonObject field = f.asObject();
        String name = field.getString("name", "");
        if (name.isBlank()) {
          String base = Field.nameFrom(field.getString("label", ""));
          name = base;
          for (int i = 2; names.contains(name); i++) name = base + "_" + i;
          field.set("name", name);
        }
        if (!Field.isName(name))
          throw Refusal.refused(
              "“"
                  + name
                  + "” can't be a storage name: it has letters, digits and underscores, begins with no digit, and at most 63 characters. Nothing was changed.");
        names.add(name);
      }
      Schema s = Schema.read(o);
      SchemaChange.check(s);
      return s;
    } catch (UnsupportedOperationException | NullPointerException | ClassCastException e) {
      throw Refusal.refused("The fields can't be read; nothing was changed. Load the page again.");
    } catch (IllegalArgumentException e) {
      throw Refusal.refused("The fields can't be so: " + e.getMessage() + ". Nothing was changed.");
    }
  }

  /** Makes layers, all or none. */
  @PostMapping("/api/p/{project}/layers")
  ResponseEntity<String> make(
      @PathVariable String project, @RequestBody String body, Principal person) throws Exception {
    Project p = projects.byKey(project);
    JsonValue list = parsed(body).get("layers");
    if (list == null || !list.isArray() || list.asArray().isEmpty())
      throw Refusal.refused("There is no layer to make.");
    List<LayerMaking.NewLayer> plans = new ArrayList<>();
    for (JsonValue v : list.asArray()) {
      LayerMaking.NewLayer plan = plan(p.id(), v.asObject());
      making.checkName(p.id(), plan.name());
      if (plans.stream().anyMatch(x -> x.name().equals(plan.name())))
        throw Refusal.refused("Two layers are called “" + plan.name() + "”. Nothing was made.");
      plans.add(plan);
    }
    JsonArray made = new JsonArray();
    making.makeEmpty(plans, person.getName()).forEach(id -> made.add(id.toString()));
    return json(new JsonObject().add("made", made));
  }

  private static LayerMaking.NewLayer plan(UUID project, JsonObject o) {
    String area =
        o.get("area") == null || !o.get("area").isObject() ? "" : o.get("area").toString();
    if (!area.isEmpty() && GeometryJson.parse(area).isEmpty())
      throw Refusal.refused("The expected area can't be read; draw it again. Nothing was made.");
    String system = o.getString("system", "EPSG:4326").replaceAll(" .*", "");
    if (CoordinateSystems.code(system).isEmpty())
      throw Refusal.refused(
          "“"
              + system
              + "” is no coordinate system that is known here; give its EPSG number, such as EPSG:27700. Nothing was made.");
    List<String> tags = new ArrayList<>();
    for (String t : o.getString("tags", "").split(",")) if (!t.isBlank()) tags.add(t.strip());
    return new LayerMaking.NewLayer(
        project,
        o.getString("name", "").strip(),
        ColumnMatch.named(schema(o.get("schema"))),
        "made at the desk",
        o.getString("summary", ""),
        tags,
        CoordinateSystems.code(system).orElseThrow().code(),
        area);
  }

  @GetMapping("/api/p/{project}/layers/{id}/schema")
  ResponseEntity<String> schema(@PathVariable String project, @PathVariable UUID id) {
    return json(layers.get(projects.byKey(project).id(), id).schema().json());
  }

  /** What a change of the fields would do. */
  @PostMapping("/api/p/{project}/layers/{id}/fields/preview")
  ResponseEntity<String> preview(
      @PathVariable String project, @PathVariable UUID id, @RequestBody String body) {
    Layer layer = layers.get(projects.byKey(project).id(), id);
    Schema after = schema(parsed(body).get("schema"));
    LayerFields.Preview p = fields.preview(layer, after);
    JsonArray effects = new JsonArray();
    for (SchemaChange.Effect e : p.effects()) {
      JsonArray told = new JsonArray();
      e.told()
          .forEach(
              t ->
                  told.add(
                      new JsonObject()
                          .add("feature", t.feature())
                          .add("caption", t.caption())
                          .add("value", t.value())));
      effects.add(
          new JsonObject()
              .add("field", e.field())
              .add("kind", e.kind().name())
              .add("said", e.kind().said())
              .add("count", e.count())
              .add("told", told));
    }
    JsonArray uses = new JsonArray();
    p.uses().forEach(uses::add);
    return json(
        new JsonObject()
            .add("effects", effects)
            .add("uses", uses)
            .add("seen", layer.revision())
            .add("same", after.equals(layer.schema())));
  }

  /** Changes the fields. */
  @PostMapping("/api/p/{project}/layers/{id}/fields")
  ResponseEntity<String> change(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestBody String body,
      Principal person) {
    Layer layer = layers.get(projects.byKey(project).id(), id);
    JsonObject sent = parsed(body);
    JsonValue seen = sent.get("seen");
    if (seen == null || !seen.isNumber())
      throw Refusal.refused("Look first at what this does. Nothing was changed.");
    LayerChanges.Done d =
        fields.changeAsShown(
            layer.asSeen(seen.asLong()), schema(sent.get("schema")), person.getName());
    return json(new JsonObject().add("changed", d.changed()).add("act", d.group().toString()));
  }

  /** The storage name that a label gives. */
  @GetMapping("/api/p/{project}/field-name")
  ResponseEntity<String> name(@PathVariable String project, @RequestParam String label) {
    projects.byKey(project);
    return json(new JsonObject().add("name", Field.nameFrom(label)));
  }

  /** Codes out of pasted lines or a CSV of code and label. */
  @PostMapping("/api/p/{project}/codes")
  ResponseEntity<String> pasted(@PathVariable String project, @RequestBody String body) {
    projects.byKey(project);
    JsonObject o = parsed(body);
    CodeProposal how = CodeProposal.valueOf(o.getString("codes", "SAME"));
    PastedCodes got = PastedCodes.read(o.getString("text", ""), how, Code.read(o.get("there")));
    return json(
        new JsonObject()
            .add("codes", Code.write(got.codes()))
            .add("told", Json.array(got.told().toArray(new String[0]))));
  }

  /** Codes out of two columns of a layer, or the values in use of one of its fields. */
  @GetMapping("/api/p/{project}/layers/{id}/codes")
  ResponseEntity<String> codes(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam String code,
      @RequestParam(defaultValue = "") String label,
      @RequestParam(defaultValue = "SAME") String codes) {
    Layer layer = layers.get(projects.byKey(project).id(), id);
    if (!label.isEmpty())
      return json(Code.write(fields.codesOf(layer, new CodesFrom(id.toString(), code, label))));
    List<String> used =
        values.profile(layer, LayerValues.field(layer, code)).values().stream()
            .map(v -> v.value())
            .limit(2_000)
            .toList();
    return json(Code.write(CodeProposal.valueOf(codes).codes(used)));
  }

  /** Spellings that look like one value of a field; null while they are being compared. */
  @GetMapping("/api/p/{project}/layers/{id}/spellings")
  ResponseEntity<String> spellings(
      @PathVariable String project, @PathVariable UUID id, @RequestParam String field) {
    Layer layer = layers.get(projects.byKey(project).id(), id);
    var found =
        values.nearDuplicates(layer, values.profile(layer, LayerValues.field(layer, field)));
    if (found.isEmpty()) return json(Json.NULL);
    JsonArray out = new JsonArray();
    for (NearDuplicates.Group g : found.get())
      out.add(Json.array(g.values().stream().map(ValueCount::value).toArray(String[]::new)));
    return json(out);
  }

  /** The layers of a project, for choosing one. */
  @GetMapping("/api/p/{project}/layer-names")
  ResponseEntity<String> names(@PathVariable String project) {
    JsonArray a = new JsonArray();
    for (Layer l : layers.list(projects.byKey(project).id()))
      a.add(new JsonObject().add("id", l.id().toString()).add("name", l.name()));
    return json(a);
  }

  /** The types of fields, for the editor. */
  @GetMapping("/api/p/{project}/field-types")
  ResponseEntity<String> types(@PathVariable String project) {
    projects.byKey(project);
    JsonArray a = new JsonArray();
    for (FieldType t : FieldType.values())
      a.add(new JsonObject().add("id", t.id()).add("said", t.said()));
    return json(a);
  }
}
