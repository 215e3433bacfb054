package org.whinridge.core.form;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonValue;
import java.util.OptionalDouble;
import java.util.function.BiConsumer;
import java.util.function.Function;
import org.whinridge.core.layer.Code;
import org.whinridge.core.prefill.Refresh;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.text.Numbers;

/**
 * Everything that can be said of a question, in one place: the member of the form file with its
 * JSON Schema, how it is written and read, whether an edit may set it, which column of a workbook
 * holds it and under which member a sheet view shows it. Who adds a property adds it here; a test
 * goes through them all.
 *
 * <p>A property that has its usual value is not written.
 */
public enum QuestionProperty {
  NAME(
      "name",
      "{\"$ref\": \"#/$defs/name\"}",
      "name",
      "name",
      q -> Json.value(q.name()),
      (p, v) -> p.name = v.asString()),
  LABEL(
      "label",
      Schemas.TEXT,
      "label",
      "label",
      q -> Json.value(q.label()),
      (p, v) -> p.texts = p.texts.with("label", v.asString())),
  TYPE(
      "type",
      Schemas.types(),
      "type",
      "type",
      q -> Json.value(q.type().id()),
      (p, v) -> p.type = type(v.asString())),
  HINT(
      "hint",
      Schemas.TEXT,
      "hint",
      "hint",
      q -> text(q.hint()),
      (p, v) -> p.texts = p.texts.with("hint", v.asString())),
  PLACEHOLDER(
      "placeholder",
      Schemas.TEXT,
      "",
      "placeholder",
      q -> text(q.texts().get("placeholder")),
      (p, v) -> p.texts = p.texts.with("placeholder", v.asString())),
  UNIT("unit", Schemas.TEXT, "", "unit", q -> text(q.unit()), (p, v) -> p.unit = v.asString()),
  DECIMALS(
      "decimals",
      Schemas.whole(-1, 12),
      "",
      "decimals",
      q -> q.decimals() < 0 ? null : Json.value(q.decimals()),
      (p, v) -> p.decimals = whole("decimals", v, -1)),
  FROM(
      "from",
      "{\"type\": \"number\"}",
      "constraint",
      "from_value",
      q -> number(q.limits().from()),
      (p, v) -> p.from = number("from", v)),
  TO(
      "to",
      "{\"type\": \"number\"}",
      "constraint",
      "to_value",
      q -> number(q.limits().to()),
      (p, v) -> p.to = number("to", v)),
  STEP(
      "step",
      "{\"type\": \"number\", \"minimum\": 0}",
      "",
      "step",
      q -> q.limits().step() > 0 ? Numbers.json(q.limits().step()) : null,
      (p, v) -> p.step = number("step", v).orElse(0)),
  LEAST(
      "least",
      Schemas.whole(0, Limits.LARGEST),
      "constraint",
      "least",
      q -> count(q.limits().least()),
      (p, v) -> p.least = whole("least", v, 0)),
  MOST(
      "most",
      Schemas.whole(0, Limits.LARGEST),
      "constraint",
      "most",
      q -> count(q.limits().most()),
      (p, v) -> p.most = whole("most", v, 0)),
  LINES(
      "lines",
      Schemas.whole(0, 100),
      "",
      "lines",
      q -> count(q.limits().lines()),
      (p, v) -> p.lines = whole("lines", v, 0)),
  NEED(
      "need",
      "{\"enum\": [\"needed\", \"wanted\", \"free\"]}",
      "required",
      "need",
      q -> q.need() == Question.Need.FREE ? null : Json.value(q.need().id()),
      (p, v) -> p.need = Question.Need.of(v.asString())),
  READ_ONLY(
      "readOnly",
      Schemas.FLAG,
      "read_only",
      "fixed",
      q -> flag(q.hand().readOnly()),
      (p, v) -> p.readOnly = v.asBoolean()),
  LOCK_ON_REVISIT(
      "lockOnRevisit",
      Schemas.FLAG,
      "",
      "",
      q -> flag(q.hand().lockOnRevisit()),
      (p, v) -> p.lockOnRevisit = v.asBoolean()),
  OFFICE_ONLY(
      "officeOnly",
      Schemas.FLAG,
      "",
      "",
      q -> flag(q.hand().officeOnly()),
      (p, v) -> p.officeOnly = v.asBoolean()),
  WRITES_TO(
      "writesTo",
      Schemas.TEXT,
      Workbook.LEFT_OUT,
      "",
      q -> text(q.writesTo()),
      (p, v) -> p.writesTo = v.asString()),
  NOT_ASKED(
      "notAsked",
      "{\"enum\": [\"left\", \"emptied\"]}",
      "",
      "",
      q -> q.wire().notAsked() == Question.NotAsked.EMPTIED ? Json.value("emptied") : null,
      (p, v) ->
          p.notAsked =
              v.asString().equals("emptied") ? Question.NotAsked.EMPTIED : Question.NotAsked.LEFT),
  UNIQUE(
      "unique",
      Schemas.FLAG,
      "",
      "",
      q -> flag(q.wire().unique()),
      (p, v) -> p.unique = v.asBoolean()),
  KEEP_ON_ASSET(
      "keepOnAsset",
      Schemas.FLAG,
      "",
      "",
      q -> flag(q.wire().keepOnAsset()),
      (p, v) -> p.keepOnAsset = v.asBoolean()),
  LAYER(
      "layer",
      Schemas.TEXT,
      "",
      "layer",
      q -> text(q.wire().layer()),
      (p, v) -> p.layer = v.asString()),
  CODES(
      "codes",
      Schemas.CODES,
      Workbook.CHOICES,
      "codes",
      q -> q.codes().isEmpty() ? null : Code.write(q.codes()),
      (p, v) -> p.codes = Code.read(v)),
  ASK_WHEN(
      "askWhen",
      Schemas.RULE,
      "relevant",
      "",
      q -> text(q.logic().askWhen()),
      (p, v) -> p.askWhen = v.asString()),
  WORK_OUT(
      "workOut",
      Schemas.RULE,
      "calculation",
      "workedOut",
      q -> text(q.logic().workOut()),
      (p, v) -> p.workOut = v.asString()),
  CHECKS(
      "checks",
      Schemas.CHECKS,
      "constraint",
      "",
      q -> q.logic().checks().isEmpty() ? null : Check.write(q.logic().checks()),
      (p, v) -> p.checks = Check.read(v)),
  PREFILL(
      "prefill",
      "{\"type\": \"array\", \"items\": {\"$ref\": \"#/$defs/source\"}}",
      "default",
      "",
      q -> q.prefill().isEmpty() ? null : Source.write(q.prefill()),
      (p, v) -> p.prefill = Source.read(v)),
  REFRESH(
      "refresh",
      "{\"enum\": [\"once\", \"follow\", \"always\"]}",
      "",
      "",
      q -> q.refresh() == Refresh.ONCE ? null : Json.value(q.refresh().id()),
      (p, v) -> p.refresh = refresh(v.asString())),
  AS(
      "as",
      "{\"enum\": [\"\", \"buttons\", \"list\", \"side by side\", \"compact\", \"bar\", \"stepper\"]}",
      "appearance",
      "as",
      q -> text(q.layout().as()),
      (p, v) -> p.as = v.asString()),
  WIDTH(
      "width",
      "{\"enum\": [\"full\", \"half\"]}",
      "",
      "half",
      q -> q.layout().half() ? Json.value("half") : null,
      (p, v) -> p.half = v.asString().equals("half")),
  PICTURE(
      "picture",
      Schemas.TEXT,
      "media::image",
      "picture",
      q -> text(q.layout().picture()),
      (p, v) -> p.picture = v.asString()),
  BLOCK(
      "block",
      Schemas.TEXT,
      Workbook.GROUP,
      "block",
      q -> text(q.layout().block()),
      (p, v) -> p.block = v.asString()),
  IN(
      "in",
      "{\"$ref\": \"#/$defs/others\"}",
      Workbook.LANGUAGES,
      "",
      q -> q.texts().othersJson().orElse(null),
      (p, v) -> p.texts = p.texts.withOthers(v, "label", "hint", "placeholder"));

  /** What stands for the column of a workbook where no single one holds a property. */
  public static final class Workbook {
    /** Left out, and told. */
    public static final String LEFT_OUT = "-";

    /** The sheet of choices. */
    public static final String CHOICES = "choices";

    /** A group around the question. */
    public static final String GROUP = "begin group";

    /** A column for each language. */
    public static final String LANGUAGES = "label::language";

    private Workbook() {}
  }

  private final String id;
  private final String schema;
  private final String column;
  private final String shownAs;
  private final Function<Question, JsonValue> write;
  private final BiConsumer<QuestionParts, JsonValue> read;

  QuestionProperty(
      String id,
      String schema,
      String column,
      String shownAs,
      Function<Question, JsonValue> write,
      BiConsumer<QuestionParts, JsonValue> read) {
    this.id = id;
    this.schema = schema;
    this.column = column;
    this.shownAs = shownAs;
    this.write = write;
    this.read = read;
  }

  /** The member of the form file, which edits name too. */
  public String id() {
    return id;
  }

  /** What the member may hold, as JSON Schema (draft 2020-12). */
  public String schema() {
    return schema;
  }

  /**
   * The column of an XLSForm workbook that holds it, or one of {@link Workbook}; "" when the
   * convention has none, so that it goes into a column of our own.
   */
  public String column() {
    return column;
  }

  /** The member of a question in a sheet view that shows it; "" when no sheet shows it. */
  public String shownAs() {
    return shownAs;
  }

  /** Whether an edit may set it: a name is changed by renaming, the field is chosen when made. */
  public boolean isEditable() {
    return this != NAME && this != WRITES_TO;
  }

  /** The member's value; null when the question has the usual one. */
  JsonValue write(Question q) {
    return write.apply(q);
  }

  /** Reads the member into what a question is made of. */
  void read(QuestionParts parts, JsonValue v) {
    read.accept(parts, v);
  }

  /** The property of that id; null when there is none. */
  public static QuestionProperty of(String id) {
    for (QuestionProperty p : values()) if (p.id.equals(id)) return p;
    return null;
  }

  private static JsonValue text(String s) {
    return s.isEmpty() ? null : Json.value(s);
  }

  private static JsonValue flag(boolean set) {
    return set ? Json.TRUE : null;
  }

  private static JsonValue count(int n) {
    return n > 0 ? Json.value(n) : null;
  }

  private static JsonValue number(OptionalDouble d) {
    return d.isPresent() ? Numbers.json(d.getAsDouble()) : null;
  }

  private static QuestionType type(String id) {
    return QuestionType.of(id).orElseThrow(() -> new Unfit("form.noType", "type", id));
  }

  private static Refresh refresh(String id) {
    return Refresh.of(id).orElseThrow(() -> new Unfit("form.refresh"));
  }

  private static OptionalDouble number(String member, JsonValue v) {
    if (v.isNull()) return OptionalDouble.empty();
    double d = v.asDouble();
    if (Double.isInfinite(d) || Double.isNaN(d))
      throw new Unfit("form.takesNumber", "member", member);
    return OptionalDouble.of(d);
  }

  private static int whole(String member, JsonValue v, int usual) {
    OptionalDouble d = number(member, v);
    if (d.isEmpty()) return usual;
    if (d.getAsDouble() != Math.floor(d.getAsDouble()) || Math.abs(d.getAsDouble()) > 1e9)
      throw new Unfit("form.takesWhole", "member", member);
    return (int) d.getAsDouble();
  }

  /** JSON Schemas that several properties share, or that are long. */
  private static final class Schemas {
    static final String TEXT = "{\"type\": \"string\"}";
    static final String FLAG = "{\"type\": \"boolean\"}";
    static final String RULE = "{\"$ref\": \"#/$defs/cql\"}";
    static final String CODES =
        """
        {"type": "array", "items": {"type": "object", "required": ["code"], "properties": {
          "code": {"type": "string"}, "label": {"type": "string"}, "retired": {"type": "boolean"},
          "fitsWhen": {"$ref": "#/$defs/cql"}, "alone": {"type": "boolean"},
          "in": {"type": "object", "additionalProperties": {"type": "string"}},
          "picture": {"type": "string"}},
          "additionalProperties": false}}""";
    static final String CHECKS =
        """
        {"type": "array", "items": {"type": "object", "required": ["rule"], "properties": {
          "rule": {"$ref": "#/$defs/cql"}, "message": {"type": "string"},
          "weight": {"enum": ["firm", "soft"]}, "writtenFor": {"$ref": "#/$defs/cql"},
          "in": {"$ref": "#/$defs/others"}}, "additionalProperties": false}}""";

    private Schemas() {}

    static String whole(int least, int most) {
      return "{\"type\": \"integer\", \"minimum\": " + least + ", \"maximum\": " + most + "}";
    }

    static String types() {
      StringBuilder b = new StringBuilder("{\"enum\": [");
      for (QuestionType t : QuestionType.values())
        b.append(t.ordinal() == 0 ? "\"" : ", \"").append(t.id()).append('"');
      return b.append("]}").toString();
    }
  }
}
