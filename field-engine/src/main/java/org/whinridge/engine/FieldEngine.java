package org.whinridge.engine;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.teavm.jso.JSExport;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.compile.FormProblem;
import org.whinridge.core.form.line.FormText;
import org.whinridge.core.form.line.LineView;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.look.Drawing;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.ReadyLook;
import org.whinridge.core.photo.ExifWriter;
import org.whinridge.core.photo.Geotag;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.read.Clock;
import org.whinridge.core.round.StopOrder;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.travel.FormFromFile;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.value.ValueType;
import org.whinridge.core.visit.DryRun;
import org.whinridge.core.visit.Filling;
import org.whinridge.core.visit.TakenValues;
import org.whinridge.core.visit.VisitStart;

/**
 * The exported functions and objects of the compiled engine. All text is JSON in the forms that
 * core writes.
 */
public final class FieldEngine {
  private FieldEngine() {}

  /** Nothing happens by itself. */
  public static void main(String[] args) {}

  private static JsonObject object(String json) {
    return Json.parse(json).asObject();
  }

  /** What is wrong with a form for a schema: a JSON array, empty when it can be filled. */
  @JSExport
  public static String problems(String form, String schema) {
    JsonArray a = new JsonArray();
    try {
      for (FormProblem p :
          FormCompiler.compile(Form.read(form), Schema.read(object(schema))).problems())
        a.add(p.json());
    } catch (IllegalArgumentException e) {
      a.add(
          new JsonObject()
              .add("question", "")
              .add("part", Said.of("formPart.FORM").json())
              .add("message", Unfit.said(e).json()));
    }
    return a.toString();
  }

  /**
   * A form file that was opened on a device, see {@link FormFromFile#json}; "layers" is a JSON
   * object of schemas by layer. {why} when it is no form file.
   */
  @JSExport
  public static String formFile(String text, String layers) {
    Map<String, Schema> at = new LinkedHashMap<>();
    for (JsonObject.Member m : object(layers))
      at.put(m.getName(), Schema.read(m.getValue().asObject()));
    try {
      return FormFromFile.read(text, at).json(text).toString();
    } catch (IllegalArgumentException e) {
      return new JsonObject().add("why", Unfit.said(e).json()).toString();
    }
  }

  /** What keeps nothing back, but a form's author should know: a JSON array. */
  @JSExport
  public static String notes(String form, String schema) {
    JsonArray a = new JsonArray();
    for (FormProblem p : FormCompiler.compile(Form.read(form), Schema.read(object(schema))).notes())
      a.add(p.json());
    return a.toString();
  }

  /** The rules of a form while they are written. */
  @JSExport
  public static RuleDesk rules(String form, String schema) {
    return new RuleDesk(Form.read(form), Schema.read(object(schema)));
  }

  /** The names of the last call, since each key asks with the same ones. */
  private static String takenText = "[]";

  private static List<String> takenNames = List.of();

  /**
   * What is understood of lines while they are typed, see {@link LineView}; "taken" is a JSON array
   * of names.
   */
  @JSExport
  public static String lines(String text, String taken) {
    if (!taken.equals(takenText)) {
      takenNames = texts(taken);
      takenText = taken;
    }
    return LineView.of(text, takenNames).toString();
  }

  private static List<String> texts(String array) {
    List<String> out = new ArrayList<>();
    for (JsonValue v : Json.parse(array).asArray()) out.add(v.asString());
    return out;
  }

  /**
   * A form as text, or of some of its questions each its line. "questions" is a JSON array of
   * names, empty for the whole.
   */
  @JSExport
  public static String formText(String form, String questions) {
    Form f = Form.read(form);
    List<String> names = texts(questions);
    if (names.isEmpty()) return FormText.of(f);
    StringBuilder b = new StringBuilder();
    for (Question q : f.questions())
      if (names.contains(q.name())) b.append(FormText.line(q)).append('\n');
    return b.toString();
  }

  /** What would become of a form as this text: {"form"} or {"problems": [{number, line, why}]}. */
  @JSExport
  public static String readFormText(String form, String text) {
    Form f = Form.read(form);
    JsonArray problems = new JsonArray();
    try {
      FormText.Read read = FormText.read(text, f);
      for (FormText.Problem p : read.problems())
        problems.add(
            new JsonObject()
                .add("number", p.number())
                .add("line", p.line())
                .add("why", p.why().json()));
      if (problems.isEmpty())
        return new JsonObject().add("form", f.with(read.sections()).json()).toString();
    } catch (IllegalArgumentException e) {
      problems.add(
          new JsonObject().add("number", 1).add("line", "").add("why", Unfit.said(e).json()));
    }
    return new JsonObject().add("problems", problems).toString();
  }

  /**
   * What a person who builds a form wants to know of it, by {@code op}, see {@link WorkshopBorder}.
   */
  @JSExport
  public static String workshop(String json) {
    return WorkshopBorder.run(object(json)).toString();
  }

  /** The question for a field of a layer. */
  @JSExport
  public static String questionFor(String field) {
    return Question.forField(Field.read(object(field))).json().toString();
  }

  /** A dry run over features: one long-lived object that takes them in lots. */
  @JSExport
  public static Dry dryRun(OpenForm form, String start, Layers layers) {
    return new Dry(
        new DryRun(
            form.form,
            VisitStart.read(
                object(start), Optional.empty(), layers.indexes, Optional.empty(), form.form)),
        form.form.schema());
  }

  /** An executable form; null when it has problems. */
  @JSExport
  public static OpenForm form(String form, String schema) {
    return formIn(form, schema, "");
  }

  /** An executable form in another language, "" for its own; null when it has problems. */
  @JSExport
  public static OpenForm formIn(String form, String schema, String language) {
    return FormCompiler.compile(Form.read(form).in(language), Schema.read(object(schema)))
        .form()
        .map(OpenForm::new)
        .orElse(null);
  }

  /** An empty set of look-up layers. */
  @JSExport
  public static Layers layers() {
    return new Layers();
  }

  /**
   * A list of features that can be sorted by distance any number of times; takes {schema, features:
   * […]}.
   */
  @JSExport
  public static Stops stops(String json) {
    JsonObject o = object(json);
    return new Stops(features(o.get("features"), Schema.read(o.get("schema").asObject())));
  }

  /**
   * How far, and which way, positions lie from somebody: takes longitude and latitude of each,
   * gives metres and degrees clockwise from north of each.
   */
  @JSExport
  public static double[] far(double[] positions, double longitude, double latitude) {
    return StopOrder.from(new Coordinate(longitude, latitude), positions);
  }

  /**
   * The JPEG with position, time and direction in its EXIF; null when it is not a JPEG or has no
   * room for it.
   */
  @JSExport
  public static byte[] geotag(byte[] jpeg, String tag) {
    return ExifWriter.write(jpeg, Geotag.read(object(tag))).orElse(null);
  }

  /** Measures and reshapes: see {@link ShapeBorder}. */
  @JSExport
  public static String shape(String json) {
    return ShapeBorder.run(object(json)).toString();
  }

  /** Checks what is typed into a layer's fields: see {@link FieldBorder}. */
  @JSExport
  public static String fields(String json) {
    return FieldBorder.run(object(json)).toString();
  }

  /**
   * A look made ready for a schema. A look that can't be read is the plain one of the layer's kind.
   */
  @JSExport
  public static Painting painting(String look, String schema) {
    Schema of = Schema.read(object(schema));
    Look l;
    try {
      l = Look.read(look);
    } catch (IllegalArgumentException e) {
      l = Look.plain(of.kind());
    }
    return new Painting(ReadyLook.of(l, of));
  }

  /** A look at work. */
  public static final class Painting {
    private final ReadyLook ready;

    Painting(ReadyLook ready) {
      this.ready = ready;
    }

    /** The instructions for a map, JSON. */
    @JSExport
    public String plan() {
      return Drawing.plan(ready).toString();
    }

    /**
     * How features are drawn: a JSON array, in the order of those given.
     *
     * @param features a JSON array of features
     * @param now the moment, as ISO 8601
     */
    @JSExport
    public String drawn(String features, String now) {
      Instant at = Instant.parse(now);
      Clock clock = new Clock(at.atOffset(ZoneOffset.UTC).toLocalDate(), at);
      JsonArray out = new JsonArray();
      for (JsonValue f : Json.parse(features).asArray())
        out.add(ready.draw(Feature.read(f.asObject(), ready.schema()), clock).json());
      return out.toString();
    }
  }

  /** One golden vector: see {@link Golden}. */
  @JSExport
  public static String golden(String kind, String input) {
    return Golden.run(kind, input);
  }

  static Envelope box(String array) {
    JsonArray b = Json.parse(array).asArray();
    return new Envelope(
        b.get(0).asDouble(), b.get(2).asDouble(), b.get(1).asDouble(), b.get(3).asDouble());
  }

  private static List<Feature> features(JsonValue list, Schema schema) {
    List<Feature> out = new ArrayList<>();
    if (list != null)
      for (JsonValue v : list.asArray()) out.add(Feature.read(v.asObject(), schema));
    return out;
  }

  /** Look-up layers, indexed once. */
  public static final class Layers {
    private final Map<String, PlaceIndex> indexes = new LinkedHashMap<>();
    private VisitStart.Taken taken = VisitStart.NOTHING_TAKEN;

    Layers() {}

    /**
     * Adds a layer; gives the number of features that have a place. "complete" is a JSON array
     * [west, south, east, north]: where all of its features are there; "" for everywhere.
     */
    @JSExport
    public int add(String layerId, String schema, String features, String complete) {
      Schema of = Schema.read(object(schema));
      List<Feature> all = features(Json.parse(features), of);
      PlaceIndex index =
          complete.isEmpty() ? new PlaceIndex(of, all) : new PlaceIndex(of, all, box(complete));
      indexes.put(layerId, index);
      return index.size();
    }

    /**
     * Adds a layer as a pack brings it: {layer, schema, features, complete}, where "complete" is
     * the box of which all features are there, null for everywhere. One that is missing at the
     * office ({missing: true}) is left out.
     */
    @JSExport
    public void addPart(String part) {
      JsonObject o = object(part);
      if (o.get("features") == null) return;
      Schema of = Schema.read(o.get("schema").asObject());
      List<Feature> all = features(o.get("features"), of);
      JsonValue complete = o.get("complete");
      indexes.put(
          o.getString("layer", ""),
          complete == null || complete.isNull()
              ? new PlaceIndex(of, all)
              : new PlaceIndex(of, all, box(complete.toString())));
    }

    /** The features of the pack, whose values in unique fields are taken. */
    @JSExport
    public void peers(String schema, String features) {
      Schema of = Schema.read(object(schema));
      taken = new TakenValues(of, features(Json.parse(features), of));
    }
  }

  /** A form ready to be filled. */
  public static final class OpenForm {
    private final ExecutableForm form;

    OpenForm(ExecutableForm form) {
      this.form = form;
    }

    /**
     * Opens a visit, or goes on with one when {@code saved} is not "". {@code feature} is "" for a
     * new one.
     */
    @JSExport
    public Visit visit(String start, String feature, Layers layers, String saved) {
      VisitStart s = start(start, feature, layers);
      return new Visit(
          form, saved.isEmpty() ? Filling.open(form, s) : Filling.resume(form, s, object(saved)));
    }

    /** Opens a visit and does in it what a person did in another, see {@link Filling#again}. */
    @JSExport
    public Visit again(String start, String feature, Layers layers, String saved) {
      return new Visit(form, Filling.again(form, start(start, feature, layers), object(saved)));
    }

    private VisitStart start(String start, String feature, Layers layers) {
      JsonObject o = object(start);
      Optional<Feature> f =
          feature.isEmpty()
              ? Optional.empty()
              : Optional.of(Feature.read(object(feature), form.schema()));
      Optional<CoordinateSystem> system =
          o.get("system") == null || !o.get("system").isObject()
              ? Optional.empty()
              : CoordinateSystem.of(
                  o.get("system").asObject().getString("code", ""),
                  o.get("system").asObject().getString("definition", ""));
      return VisitStart.read(o, f, layers.indexes, system, form).with(layers.taken);
    }
  }

  /** A visit being filled. */
  public static final class Visit {
    private final ExecutableForm form;
    private final Filling filling;

    Visit(ExecutableForm form, Filling filling) {
      this.form = form;
      this.filling = filling;
    }

    /** The sheet to draw, whole. */
    @JSExport
    public String view() {
      return filling.viewText();
    }

    /**
     * The sheet with what changed since the answer of that turn; a question that is as it was then
     * stands there by its name.
     */
    @JSExport
    public String changes(int since) {
      return filling.changesText(since);
    }

    /**
     * Sets an answer, given as JSON; text from an input is read by the question's type. False when
     * it can't be changed.
     */
    @JSExport
    public boolean set(String name, String json) {
      return setIn(name, "", json);
    }

    /** Sets an answer in a row, see {@link #set}. */
    @JSExport
    public boolean setIn(String name, String row, String json) {
      ValueType type =
          form.form().question(name).map(q -> q.valueType(form.schema())).orElse(ValueType.TEXT);
      return filling.set(name, row, ValueJson.read(Json.parse(json), type));
    }

    /** Taps a code of a choice; false when nothing changed. */
    @JSExport
    public boolean tap(String name, String row, String code) {
      return filling.tap(name, row, code);
    }

    /**
     * What each source of a question's prefill chain would give now, see {@link Filling#sources}.
     */
    @JSExport
    public String sources(String name) {
      return filling.sources(name).toString();
    }

    /** Confirms a prefilled answer of a row. */
    @JSExport
    public boolean confirmIn(String name, String row) {
      return filling.confirm(name, row);
    }

    /** Takes the newer value that a source offers. */
    @JSExport
    public boolean takeOffer(String name, String row) {
      return filling.takeOffer(name, row);
    }

    /** Adds a row to a list section; the id is made by the caller. */
    @JSExport
    public boolean addRow(String list, String row) {
      return filling.addRow(list, row);
    }

    /** Takes a row away that this visit added. */
    @JSExport
    public boolean removeRow(String row) {
      return filling.removeRow(row);
    }

    /** Says of a row of the last visit: "still there", "mended" or "gone". */
    @JSExport
    public boolean markRow(String row, String state) {
      return filling.markRow(row, state);
    }

    /** Takes the last step back; false when there is none. */
    @JSExport
    public boolean undo() {
      return filling.undo();
    }

    /** Gives the visit another place, as GeoJSON; false when it can't be read. */
    @JSExport
    public boolean reshape(String geometry) {
      Optional<Geometry> g = GeometryJson.parse(geometry);
      g.ifPresent(filling::reshape);
      return g.isPresent();
    }

    /** Confirms a prefilled answer. */
    @JSExport
    public boolean confirm(String name) {
      return filling.confirm(name);
    }

    /** Confirms all prefilled answers of a section. */
    @JSExport
    public int confirmSection(int section) {
      return filling.confirmSection(section);
    }

    /** Confirms a soft point. */
    @JSExport
    public boolean confirmSoft(String key) {
      return filling.confirmSoft(key);
    }

    /** Moves the visit's position. */
    @JSExport
    public void moveTo(double longitude, double latitude) {
      filling.moveTo(new Coordinate(longitude, latitude));
    }

    /** Whether nothing holds the visit back. */
    @JSExport
    public boolean isComplete() {
      return filling.isComplete();
    }

    /** What to store on the device. */
    @JSExport
    public String saved() {
      return filling.saved().toString();
    }

    /** What to send to the office. */
    @JSExport
    public String result() {
      return filling.result().toString();
    }
  }

  /** A dry run. */
  public static final class Dry {
    private final DryRun run;
    private final Schema schema;

    Dry(DryRun run, Schema schema) {
      this.run = run;
      this.schema = schema;
    }

    /** Runs the form over some more features, a JSON array of them. */
    @JSExport
    public void add(String features) {
      for (Feature f : features(Json.parse(features), schema)) run.add(f);
    }

    /** How they fared so far. */
    @JSExport
    public String report() {
      return run.report().json().toString();
    }
  }

  /** Features sorted by distance. */
  public static final class Stops {
    private final List<Feature> features;

    Stops(List<Feature> features) {
      this.features = features;
    }

    /** The stops nearest first: [{id, distanceM, bearingDeg}]. */
    @JSExport
    public String from(double longitude, double latitude) {
      JsonArray a = new JsonArray();
      for (StopOrder.Seen s : StopOrder.byDistance(new Coordinate(longitude, latitude), features))
        a.add(
            new JsonObject()
                .add("id", s.featureId())
                .add("distanceM", Numbers.json(Numbers.round(s.distanceM(), 1)))
                .add("bearingDeg", Numbers.json(Numbers.round(s.bearingDeg(), 1))));
      return a.toString();
    }
  }
}
