package org.whinridge.app.layer.fields;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
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
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
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
import org.whinridge.core.said.Said;
import org.whinridge.formats.crs.CoordinateSystems;

/** What the editor of fields asks and sends: making layers, changing fields, code lists. */
@RestController
class FieldsApi {
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

  /** A layer to be made, as the page sends it. */
  record Wanted(
      @NotNull(message = "border.isMissing") String name,
      String summary,
      String tags,
      String system,
      @NotNull(message = "border.isMissing") JsonObject schema,
      JsonObject area) {}

  /** Layers to be made, all or none. */
  record AllWanted(
      @NotEmpty(message = "border.hasNoLayerToMake") List<@Valid @NotNull Wanted> layers) {}

  /** Which layers were made. */
  record Made(List<UUID> made) {}

  /** The fields as the editor has them. */
  record Proposed(@NotNull(message = "border.isMissing") JsonObject schema) {}

  /** The fields, and the revision of the layer that they were looked at with. */
  record Decided(
      @NotNull(message = "border.isMissingLookFirstAt") Long seen,
      @NotNull(message = "border.isMissing") JsonObject schema) {}

  /** What was changed, and under which act it can be taken back. */
  record Changed(int changed, UUID act) {}

  /** Lines out of which codes are made. */
  record Pasted(CodeProposal codes, String text, JsonArray there) {}

  /** Codes that were read out of lines, and what is to be told of them. */
  record Read(JsonArray codes, List<Said> told) {}

  /** A storage name. */
  record Named(String name) {}

  /** A layer or a type to choose. */
  record Choice(String id, String name, Said said) {}

  private static ResponseEntity<String> json(JsonValue v) {
    return ResponseEntity.ok().contentType(MediaType.APPLICATION_JSON).body(v.toString());
  }

  /** A schema as the editor sends it; a field without a storage name gets one from its label. */
  private static Schema schema(JsonObject o) {
    String at = "schema.fields";
    try {
      List<String> names = new ArrayList<>();
      for (JsonValue f : o.get("fields").asArray()) {
        at = "schema.fields[" + names.size() + "]";
        JsonObject field = f.asObject();
        String name = field.getString("name", "");
        if (name.isBlank()) {
          name = Field.nameFrom(field.getString("label", ""), names);
          field.set("name", name);
        }
        if (!Field.isName(name)) throw Refusal.refused("refused.cantBeStorageName", "name", name);
        Field.read(field);
        names.add(name);
      }
      at = "schema";
      Schema s = Schema.read(o);
      SchemaChange.check(s);
      return s;
    } catch (UnsupportedOperationException | NullPointerException | ClassCastException e) {
      throw Refusal.wrongKind(at);
    } catch (IllegalArgumentException e) {
      throw Refusal.refused("refused.fieldsCantBeSo", "why", Refusal.said(e));
    }
  }

  /** Makes layers, all or none. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/api/p/{project}/layers")
  Made make(@PathVariable String project, @Valid @RequestBody AllWanted body, Principal person)
      throws Exception {
    Project p = projects.byKey(project);
    List<LayerMaking.NewLayer> plans = new ArrayList<>();
    for (Wanted w : body.layers) {
      LayerMaking.NewLayer plan = plan(p.id(), w);
      making.checkName(p.id(), plan.name());
      if (plans.stream().anyMatch(x -> x.name().equals(plan.name())))
        throw Refusal.refused("refused.twoLayersCalledNothing", "name", plan.name());
      plans.add(plan);
    }
    return new Made(making.makeEmpty(plans, person.getName()));
  }

  private static String or(String text, String otherwise) {
    return text == null ? otherwise : text;
  }

  private static LayerMaking.NewLayer plan(UUID project, Wanted w) {
    String area = w.area == null ? "" : w.area.toString();
    if (!area.isEmpty() && GeometryJson.parse(area).isEmpty())
      throw Refusal.refused("refused.expectedAreaCantBe");
    String system = or(w.system, "EPSG:4326").replaceAll(" .*", "");
    if (CoordinateSystems.code(system).isEmpty())
      throw Refusal.refused("refused.unknownSystemOfLayer", "system", system);
    List<String> tags = new ArrayList<>();
    for (String t : or(w.tags, "").split(",")) if (!t.isBlank()) tags.add(t.strip());
    return new LayerMaking.NewLayer(
        project,
        w.name.strip(),
        ColumnMatch.named(schema(w.schema)),
        Said.of(Layer.MADE_HERE),
        or(w.summary, ""),
        tags,
        CoordinateSystems.code(system).orElseThrow().code(),
        area);
  }

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/layers/{id}/schema")
  ResponseEntity<String> schema(@PathVariable String project, @PathVariable UUID id) {
    return json(layers.get(projects.byKey(project).id(), id).schema().json());
  }

  /** A feature that a change would touch, and its value. */
  record Touched(String feature, String caption, String value) {}

  /** What a change would do to the values of a field, and to some features. */
  record Effect(String field, String kind, Said said, int count, List<Touched> told) {
    static Effect of(SchemaChange.Effect e) {
      return new Effect(
          e.field(),
          e.kind().name(),
          e.kind().said(),
          e.count(),
          e.told().stream().map(t -> new Touched(t.feature(), t.caption(), t.value())).toList());
    }
  }

  /**
   * What a change would do.
   *
   * @param uses what is built on the fields that go
   * @param seen the revision of the layer that it was worked out with
   * @param same whether it changes nothing
   */
  record Preview(List<Effect> effects, List<Said> uses, long seen, boolean same) {}

  /** What a change of the fields would do. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/api/p/{project}/layers/{id}/fields/preview")
  Preview preview(
      @PathVariable String project, @PathVariable UUID id, @Valid @RequestBody Proposed body) {
    Layer layer = layers.get(projects.byKey(project).id(), id);
    Schema after = schema(body.schema);
    LayerFields.Preview p = fields.preview(layer, after);
    return new Preview(
        p.effects().stream().map(Effect::of).toList(),
        p.uses(),
        layer.revision(),
        after.equals(layer.schema()));
  }

  /** Changes the fields. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/api/p/{project}/layers/{id}/fields")
  Changed change(
      @PathVariable String project,
      @PathVariable UUID id,
      @Valid @RequestBody Decided body,
      Principal person) {
    Layer layer = layers.get(projects.byKey(project).id(), id);
    LayerChanges.Done d =
        fields.changeAsShown(layer.asSeen(body.seen), schema(body.schema), person.getName());
    return new Changed(d.changed(), d.group());
  }

  /** The storage name that a label gives. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/field-name")
  Named name(@PathVariable String project, @RequestParam String label) {
    projects.byKey(project);
    return new Named(Field.nameFrom(label));
  }

  /** Codes out of pasted lines or a CSV of code and label. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/api/p/{project}/codes")
  Read pasted(@PathVariable String project, @Valid @RequestBody Pasted body) {
    projects.byKey(project);
    CodeProposal how = body.codes == null ? CodeProposal.SAME : body.codes;
    PastedCodes got = PastedCodes.read(or(body.text, ""), how, there(body.there));
    return new Read(Code.write(got.codes()), got.told());
  }

  private static List<Code> there(JsonArray codes) {
    try {
      return codes == null ? List.of() : Code.read(codes);
    } catch (UnsupportedOperationException | NullPointerException e) {
      throw Refusal.wrongKind("there");
    }
  }

  /** Codes out of two columns of a layer, or the values in use of one of its fields. */
  @Needs(Right.SEE_REGISTER)
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
  @Needs(Right.SEE_REGISTER)
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
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/layer-names")
  List<Choice> names(@PathVariable String project) {
    return layers.list(projects.byKey(project).id()).stream()
        .map(l -> new Choice(l.id().toString(), l.name(), Said.text(l.name())))
        .toList();
  }

  /** The types of fields, for the editor. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/field-types")
  List<Choice> types(@PathVariable String project) {
    projects.byKey(project);
    return java.util.Arrays.stream(FieldType.values())
        .map(t -> new Choice(t.id(), t.id(), t.said()))
        .toList();
  }
}
