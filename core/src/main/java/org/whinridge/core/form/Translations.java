package org.whinridge.core.form;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import org.whinridge.core.layer.Code;
import org.whinridge.core.said.Unfit;

/** All texts of a form beside their counterparts in another language. */
public final class Translations {
  private static final int LONGEST_TAG = 35;

  private Translations() {}

  /**
   * One text.
   *
   * @param key names it: the kind of thing, what names the thing in the form, and which of its
   *     texts, with slashes between ("question/silt/label")
   * @param question the question that it belongs to; "" for none
   * @param own in the form's own language, never ""
   * @param other in the other language; "" when it is missing
   */
  public record Row(String key, String question, String own, String other) {}

  /** All texts that the form has in its own language, in the order of the sheet. */
  public static List<Row> of(Form form, String language) {
    List<Row> out = new ArrayList<>();
    texts(out, "form//", "", form.texts(), language);
    for (int s = 0; s < form.sections().size(); s++) {
      Section section = form.sections().get(s);
      texts(out, "section/" + s + "/", "", section.texts(), language);
      for (Section.Block b : section.blocks())
        texts(out, "block/" + s + "." + b.name() + "/", "", b.texts(), language);
      for (Question q : section.questions()) question(out, q, language);
    }
    return out;
  }

  private static void question(List<Row> out, Question q, String language) {
    texts(out, "question/" + q.name() + "/", q.name(), q.texts(), language);
    for (Code c : q.codes())
      add(out, "code/" + q.name() + "/" + c.code(), q.name(), c.label(), c.labels().get(language));
    for (int i = 0; i < q.logic().checks().size(); i++)
      texts(
          out,
          "check/" + q.name() + "." + i + "/",
          q.name(),
          q.logic().checks().get(i).texts(),
          language);
  }

  private static void texts(
      List<Row> out, String key, String question, Texts texts, String language) {
    Map<String, String> others = texts.others().getOrDefault(language, Map.of());
    texts.own().forEach((what, own) -> add(out, key + what, question, own, others.get(what)));
  }

  private static void add(List<Row> out, String key, String question, String own, String other) {
    if (!own.isBlank()) out.add(new Row(key, question, own, other == null ? "" : other));
  }

  /** How many texts a language does not have. */
  public static int missing(Form form, String language) {
    int n = 0;
    for (Row r : of(form, language)) if (r.other().isEmpty()) n++;
    return n;
  }

  /** For a screen: {rows: [{key, question, own, other}], missing}. */
  public static JsonObject json(Form form, String language) {
    JsonArray rows = new JsonArray();
    for (Row r : of(form, language))
      rows.add(
          new JsonObject()
              .add("key", r.key())
              .add("question", r.question())
              .add("own", r.own())
              .add("other", r.other()));
    return new JsonObject().add("rows", rows).add("missing", missing(form, language));
  }

  /**
   * The form with some texts in another language.
   *
   * @param language a language tag (BCP 47)
   * @param texts what they say by {@link Row#key}; "" takes a text away
   * @throws Unfit for a key that the form does not have, or what is no language tag
   */
  public static Form with(Form form, String language, Map<String, String> texts) {
    if (!language.matches("[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*") || language.length() > LONGEST_TAG)
      throw new Unfit("form.language", "language", language);
    Map<String, String> left = new TreeMap<>(texts);
    UnaryOperator<String> take = left::remove;
    Texts own = put(form.texts(), "form//", language, take);
    List<Section> sections = new ArrayList<>();
    for (int s = 0; s < form.sections().size(); s++)
      sections.add(section(form.sections().get(s), s, language, take));
    if (!left.isEmpty()) throw new Unfit("form.noSuchText", "key", left.keySet().iterator().next());
    return new Form(
        own,
        sections,
        form.rules(),
        form.lookUps(),
        form.allowed(),
        form.settings(),
        form.guidance());
  }

  private static Section section(Section s, int n, String language, UnaryOperator<String> take) {
    Texts texts = put(s.texts(), "section/" + n + "/", language, take);
    List<Section.Block> blocks = new ArrayList<>();
    for (Section.Block b : s.blocks())
      blocks.add(
          new Section.Block(
              b.name(),
              put(b.texts(), "block/" + n + "." + b.name() + "/", language, take),
              b.askWhen()));
    List<Question> questions = new ArrayList<>();
    for (Question q : s.questions()) questions.add(question(q, language, take));
    return new Section(s.name(), texts, s.startsPage(), s.askWhen(), s.rows(), blocks, questions);
  }

  private static Question question(Question q, String language, UnaryOperator<String> take) {
    JsonObject now = q.json();
    put(q.texts(), "question/" + q.name() + "/", language, take)
        .othersJson()
        .ifPresentOrElse(in -> now.set("in", in), () -> now.remove("in"));
    List<Code> codes = new ArrayList<>();
    for (Code c : q.codes()) {
      String said = take.apply("code/" + q.name() + "/" + c.code());
      codes.add(said == null ? c : c.saying(language, said.strip()));
    }
    if (!codes.isEmpty()) now.set("codes", Code.write(codes));
    List<Check> checks = new ArrayList<>();
    for (int i = 0; i < q.logic().checks().size(); i++) {
      Check c = q.logic().checks().get(i);
      String key = "check/" + q.name() + "." + i + "/";
      checks.add(
          new Check(c.rule(), put(c.texts(), key, language, take), c.weight(), c.writtenFor()));
    }
    if (!checks.isEmpty()) now.set("checks", Check.write(checks));
    return Question.read(now);
  }

  private static Texts put(Texts texts, String key, String language, UnaryOperator<String> take) {
    Texts now = texts;
    for (String what : texts.own().keySet()) {
      String said = take.apply(key + what);
      if (said != null) now = now.with(what, language, said.strip());
    }
    return now;
  }
}
