package org.whinridge.engine;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.LinkedHashMap;
import java.util.Map;
import org.teavm.jso.JSExport;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.FormUses;
import org.whinridge.core.form.compile.RulePlace;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.rules.RuleWords;
import org.whinridge.core.rules.saying.Operand;
import org.whinridge.core.rules.saying.SentenceParts;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.value.ValueType;

/**
 * The rules of one form while they are written, by parts or as text. {@code list} is always the
 * list section in which a rule stands, "" outside of lists.
 */
public final class RuleDesk {
  private final Form form;
  private final Schema schema;
  private final Map<String, RulePlace> places = new LinkedHashMap<>();

  RuleDesk(Form form, Schema schema) {
    this.form = form;
    this.schema = schema;
  }

  private RulePlace place(String list) {
    return places.computeIfAbsent(list, l -> new RulePlace(form, schema, l));
  }

  /** A rule as its author sees it, see {@link RulePlace#view}; type is "condition" or "". */
  @JSExport
  public String view(String list, String text, String type) {
    ValueType wanted = type.equals("condition") ? ValueType.YES_NO : ValueType.EMPTY;
    return place(list).view(text, wanted).toString();
  }

  /** What could be written where the cursor stands, see {@link RulePlace#completion}. */
  @JSExport
  public String complete(String list, String text, int at) {
    return place(list).completion(text, at).toString();
  }

  /** What pickers offer, see {@link RulePlace#choices}. */
  @JSExport
  public String choices(String list) {
    return place(list).choices().toString();
  }

  /** What depends on what, see {@link FormUses}. */
  @JSExport
  public String uses() {
    return FormUses.json(FormUses.of(form)).toString();
  }

  /** The words of a text by kind: a JSON array of [from, to, kind]. */
  @JSExport
  public String words(String text) {
    JsonArray out = new JsonArray();
    for (RuleWords.Word w : RuleWords.of(text))
      out.add(new JsonArray().add(w.at().from()).add(w.at().to()).add(w.kind().id()));
    return out.toString();
  }

  /** The text of parts ({join, parts}) or of an operand ({kind}): {text}, or {problem} in words. */
  @JSExport
  public String text(String json) {
    try {
      JsonObject o = Json.parse(json).asObject();
      String text = o.get("parts") != null ? SentenceParts.read(o).text() : Operand.read(o).text();
      return new JsonObject().add("text", text).toString();
    } catch (IllegalArgumentException e) {
      return new JsonObject().add("problem", Unfit.said(e).json()).toString();
    }
  }
}
