package org.whinridge.core.form;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.OptionalDouble;
import org.whinridge.core.layer.Code;
import org.whinridge.core.prefill.Refresh;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.text.Numbers;

/** The JSON form of a question: one flat object, so that an edit names one member. */
final class QuestionJson {
  private QuestionJson() {}

  static JsonObject write(Question q) {
    JsonObject o =
        new JsonObject().add("name", q.name()).add("label", q.label()).add("type", q.type().id());
    text(o, "hint", q.hint());
    text(o, "placeholder", q.texts().get("placeholder"));
    limits(o, q.limits());
    if (q.need() != Question.Need.FREE) o.add("need", q.need().id());
    flag(o, "readOnly", q.hand().readOnly());
    flag(o, "lockOnRevisit", q.hand().lockOnRevisit());
    flag(o, "officeOnly", q.hand().officeOnly());
    text(o, "writesTo", q.writesTo());
    if (q.wire().notAsked() == Question.NotAsked.EMPTIED) o.add("notAsked", "emptied");
    flag(o, "unique", q.wire().unique());
    flag(o, "keepOnAsset", q.wire().keepOnAsset());
    text(o, "layer", q.wire().layer());
    if (!q.codes().isEmpty()) o.add("codes", Code.write(q.codes()));
    text(o, "askWhen", q.logic().askWhen());
    text(o, "workOut", q.logic().workOut());
    if (!q.logic().checks().isEmpty()) o.add("checks", Check.write(q.logic().checks()));
    if (!q.prefill().isEmpty()) o.add("prefill", Source.write(q.prefill()));
    if (q.refresh() != Refresh.ONCE) o.add("refresh", q.refresh().id());
    text(o, "as", q.layout().as());
    if (q.layout().half()) o.add("width", "half");
    text(o, "picture", q.layout().picture());
    text(o, "block", q.layout().block());
    q.texts().writeOthers(o);
    return o;
  }

  private static void limits(JsonObject o, Limits l) {
    text(o, "unit", l.unit());
    if (l.decimals() >= 0) o.add("decimals", l.decimals());
    l.from().ifPresent(d -> o.add("from", Numbers.json(d)));
    l.to().ifPresent(d -> o.add("to", Numbers.json(d)));
    if (l.step() > 0) o.add("step", Numbers.json(l.step()));
    if (l.least() > 0) o.add("least", l.least());
    if (l.most() > 0) o.add("most", l.most());
    if (l.lines() > 0) o.add("lines", l.lines());
  }

  private static void text(JsonObject o, String member, String text) {
    if (!text.isEmpty()) o.add(member, text);
  }

  private static void flag(JsonObject o, String member, boolean set) {
    if (set) o.add(member, true);
  }

  static Question read(JsonObject o) {
    String type = o.getString("type", "text");
    String need = o.getString("need", "free");
    Texts texts = Texts.read(o, "label", "hint", "placeholder");
    String name = o.getString("name", "");
    return new Question(
        name,
        texts.get("label").isEmpty() ? texts.with("label", name) : texts,
        QuestionType.of(type)
            .orElseThrow(
                () -> new IllegalArgumentException("there is no question type ‘" + type + "’")),
        readLimits(o),
        need.equals("needed")
            ? Question.Need.NEEDED
            : need.equals("wanted") ? Question.Need.WANTED : Question.Need.FREE,
        new Question.Hand(
            o.getBoolean("readOnly", false),
            o.getBoolean("lockOnRevisit", false),
            o.getBoolean("officeOnly", false)),
        new Question.Wire(
            o.getString("writesTo", ""),
            o.getString("notAsked", "left").equals("emptied")
                ? Question.NotAsked.EMPTIED
                : Question.NotAsked.LEFT,
            o.getBoolean("unique", false),
            o.getBoolean("keepOnAsset", false),
            o.getString("layer", "")),
        Code.read(o.get("codes")),
        new Question.Logic(
            o.getString("askWhen", ""), o.getString("workOut", ""), Check.read(o.get("checks"))),
        Source.read(o.get("prefill")),
        Refresh.of(o.getString("refresh", "once"))
            .orElseThrow(() -> new IllegalArgumentException("refresh is once, follow or always")),
        new Question.Layout(
            o.getString("as", ""),
            o.getString("width", "full").equals("half"),
            o.getString("picture", ""),
            o.getString("block", "")));
  }

  private static Limits readLimits(JsonObject o) {
    return new Limits(
        o.getString("unit", ""),
        whole(o, "decimals", -1),
        number(o, "from"),
        number(o, "to"),
        number(o, "step").orElse(0),
        whole(o, "least", 0),
        whole(o, "most", 0),
        whole(o, "lines", 0));
  }

  private static int whole(JsonObject o, String member, int usual) {
    OptionalDouble d = number(o, member);
    if (d.isEmpty()) return usual;
    if (d.getAsDouble() != Math.floor(d.getAsDouble()) || Math.abs(d.getAsDouble()) > 1e9)
      throw new IllegalArgumentException(member + " takes a whole number");
    return (int) d.getAsDouble();
  }

  private static OptionalDouble number(JsonObject o, String member) {
    JsonValue v = o.get(member);
    if (v == null || v.isNull()) return OptionalDouble.empty();
    double d = v.asDouble();
    if (Double.isInfinite(d) || Double.isNaN(d))
      throw new IllegalArgumentException(member + " takes a number that can be kept");
    return OptionalDouble.of(d);
  }
}
