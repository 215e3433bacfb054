package org.whinridge.core.form;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.said.Unfit;

/**
 * A titled run of questions.
 *
 * @param name names it in the form; a list section needs one, others may have ""
 * @param texts its title and intro
 * @param startsPage whether it begins a new screen
 * @param askWhen a rule that covers all its questions; "" for always
 * @param rows present when the section repeats: one row per defect, say
 * @param blocks the titled runs inside it, in order; a question names its block
 */
public record Section(
    String name,
    Texts texts,
    boolean startsPage,
    String askWhen,
    Optional<Rows> rows,
    List<Block> blocks,
    List<Question> questions) {
  /**
   * How a list section repeats.
   *
   * @param least fewest rows, 0 for any
   * @param most most rows, 0 for any
   * @param fromLastVisit whether the rows of the last visit come back, each to be confirmed as
   *     still there, mended or gone
   */
  public record Rows(int least, int most, boolean fromLastVisit) {
    private static final int MOST_ROWS = 1000;

    public Rows {
      if (least < 0 || most < 0 || least > MOST_ROWS || most > MOST_ROWS)
        throw new Unfit("form.rows", "most", 1000);
    }

    /** Whether one more row may come to so many that are there; no list holds more than 1,000. */
    public boolean takesMore(long there) {
      return there < (most > 0 ? most : MOST_ROWS);
    }
  }

  /** A titled run inside a section, with its own ask when. */
  public record Block(String name, Texts texts, String askWhen) {
    Block in(String language) {
      return new Block(name, texts.in(language), askWhen);
    }
  }

  public Section {
    questions = List.copyOf(questions);
    blocks = List.copyOf(blocks);
  }

  /** A plain section. */
  public static Section of(String title, boolean startsPage, List<Question> questions) {
    return new Section(
        "", Texts.of("title", title), startsPage, "", Optional.empty(), List.of(), questions);
  }

  /** The title that people read. */
  public String title() {
    return texts.get("title");
  }

  /** Whether it repeats. */
  public boolean isList() {
    return rows.isPresent();
  }

  /** The block of that name. */
  public Optional<Block> block(String wanted) {
    return blocks.stream().filter(b -> b.name.equals(wanted)).findFirst();
  }

  /** The section with other questions. */
  public Section with(List<Question> others) {
    return new Section(name, texts, startsPage, askWhen, rows, blocks, others);
  }

  Section in(String language) {
    return new Section(
        name,
        texts.in(language),
        startsPage,
        askWhen,
        rows,
        blocks.stream().map(b -> b.in(language)).toList(),
        questions.stream().map(q -> q.in(language)).toList());
  }

  /** The JSON form. */
  public JsonObject json() {
    JsonObject o = new JsonObject().add("title", title());
    if (!name.isEmpty()) o.add("name", name);
    if (!texts.get("intro").isEmpty()) o.add("intro", texts.get("intro"));
    if (startsPage) o.add("startsPage", true);
    if (!askWhen.isEmpty()) o.add("askWhen", askWhen);
    rows.ifPresent(
        r -> {
          JsonObject list = new JsonObject();
          if (r.least > 0) list.add("least", r.least);
          if (r.most > 0) list.add("most", r.most);
          if (r.fromLastVisit) list.add("fromLastVisit", true);
          o.add("rows", list);
        });
    if (!blocks.isEmpty()) {
      JsonArray bs = new JsonArray();
      for (Block b : blocks) {
        JsonObject one = new JsonObject().add("name", b.name).add("title", b.texts.get("title"));
        if (!b.texts.get("intro").isEmpty()) one.add("intro", b.texts.get("intro"));
        if (!b.askWhen.isEmpty()) one.add("askWhen", b.askWhen);
        b.texts.writeOthers(one);
        bs.add(one);
      }
      o.add("blocks", bs);
    }
    texts.writeOthers(o);
    JsonArray qs = new JsonArray();
    for (Question q : questions) qs.add(q.json());
    return o.add("questions", qs);
  }

  static Section read(JsonObject o) {
    List<Question> qs = new ArrayList<>();
    JsonValue list = o.get("questions");
    if (list != null) for (JsonValue v : list.asArray()) qs.add(Question.read(v.asObject()));
    List<Block> blocks = new ArrayList<>();
    if (o.get("blocks") != null)
      for (JsonValue v : o.get("blocks").asArray()) {
        JsonObject b = v.asObject();
        blocks.add(
            new Block(
                b.getString("name", ""),
                Texts.read(b, "title", "intro"),
                b.getString("askWhen", "")));
      }
    JsonValue rows = o.get("rows");
    return new Section(
        o.getString("name", ""),
        Texts.read(o, "title", "intro"),
        o.getBoolean("startsPage", false),
        o.getString("askWhen", ""),
        rows == null || rows.isNull()
            ? Optional.empty()
            : Optional.of(
                new Rows(
                    rows.asObject().getInt("least", 0),
                    rows.asObject().getInt("most", 0),
                    rows.asObject().getBoolean("fromLastVisit", false))),
        blocks,
        qs);
  }
}
