package org.whinridge.core.form.edit;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.FormNames;
import org.whinridge.core.form.NamedRule;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.Texts;
import org.whinridge.core.layer.Field;
import org.whinridge.core.said.Unfit;

/**
 * Edits of sections and of the blocks in them. Properties of a section: title, intro, askWhen,
 * startsPage, and rows ({least, most, fromLastVisit}, or null for a section that does not repeat);
 * of a block: title, intro, askWhen.
 */
final class SectionEdit {
  private SectionEdit() {}

  static Form apply(Form form, JsonObject edit) {
    int section = edit.getInt("section", 0);
    switch (edit.getString("op", "")) {
      case "section.add":
        return add(
            form,
            edit.getInt("at", form.sections().size()),
            edit.getString("title", "").trim(),
            edit.getBoolean("page", false));
      case "section.set":
        return set(form, section, edit.getString("property", ""), edit.get("value"));
      case "section.move":
        return move(form, section, edit.getInt("by", 0));
      case "section.of":
        return of(form, FormEdit.names(form, edit), edit.getString("title", "").trim());
      case "section.dissolve":
        return dissolve(form, section);
      case "section.remove":
        {
          FormEdit.section(form, section);
          List<Section> out = new ArrayList<>(form.sections());
          out.remove(section);
          return form.with(out);
        }
      case "block.of":
        return blockOf(form, FormEdit.names(form, edit), edit.getString("title", "").trim());
      case "block.set":
        return setBlock(
            form,
            section,
            edit.getString("block", ""),
            edit.getString("property", ""),
            edit.get("value"));
      case "block.dissolve":
        return dissolveBlock(form, section, edit.getString("block", ""));
      default:
        throw new Unfit("form.noSuchEdit", "op", edit.getString("op", ""));
    }
  }

  private static Form add(Form form, int at, String title, boolean page) {
    if (at < 0 || at > form.sections().size()) throw new Unfit("form.noSuchSection", "n", at);
    List<Section> out = new ArrayList<>(form.sections());
    out.add(at, Section.of(title, page, List.of()));
    return form.with(out);
  }

  private static Form set(Form form, int n, String property, JsonValue value) {
    Section s = FormEdit.section(form, n);
    Section now;
    switch (property) {
      case "title":
      case "intro":
        now =
            with(
                s, s.texts().with(property, value.asString().strip()), s.startsPage(), s.askWhen());
        break;
      case "askWhen":
        now = with(s, s.texts(), s.startsPage(), value.asString().strip());
        break;
      case "startsPage":
        now = with(s, s.texts(), value.asBoolean(), s.askWhen());
        break;
      case "rows":
        now = rows(form, s, value);
        break;
      default:
        throw new Unfit("form.noProperty", "property", property);
    }
    return Arranging.with(form, n, now);
  }

  private static Section with(Section s, Texts texts, boolean page, String askWhen) {
    return new Section(s.name(), texts, page, askWhen, s.rows(), s.blocks(), s.questions());
  }

  /** A section that begins to repeat gets a name out of its title, by which rules ask for it. */
  private static Section rows(Form form, Section s, JsonValue value) {
    if (value.isNull())
      return new Section(
          "", s.texts(), s.startsPage(), s.askWhen(), Optional.empty(), s.blocks(), s.questions());
    JsonObject o = value.asObject();
    Section.Rows rows =
        new Section.Rows(
            o.getInt("least", 0), o.getInt("most", 0), o.getBoolean("fromLastVisit", false));
    String name = s.name();
    if (name.isEmpty()) {
      if (s.title().isEmpty()) throw new Unfit("line.listNoTitle");
      name = free(form, s.title());
    }
    return new Section(
        name, s.texts(), s.startsPage(), s.askWhen(), Optional.of(rows), s.blocks(), s.questions());
  }

  private static String free(Form form, String title) {
    Set<String> taken = names(form);
    String name = Field.nameFrom(title, taken);
    while (FormNames.problemOfList(name).isPresent() || taken.contains(name)) {
      taken.add(name);
      name = Field.nameFrom(title + " list", taken);
    }
    return name;
  }

  /** All names that rules can use. */
  static Set<String> names(Form form) {
    Set<String> out = new TreeSet<>();
    for (Question q : form.questions()) out.add(q.name());
    for (Section s : form.sections()) {
      out.add(s.name());
      for (Section.Block b : s.blocks()) out.add(b.name());
    }
    for (NamedRule r : form.rules()) out.add(r.name());
    return out;
  }

  private static Form move(Form form, int n, int by) {
    Section s = FormEdit.section(form, n);
    int to = Math.max(0, Math.min(form.sections().size() - 1, n + Integer.signum(by)));
    List<Section> out = new ArrayList<>(form.sections());
    out.remove(n);
    out.add(to, s);
    return form.with(out);
  }

  /**
   * A section of questions that stand in one section, where the first of them stands; what comes
   * after it there goes into a section of its own, as the one that it was.
   */
  private static Form of(Form form, List<String> chosen, String title) {
    int n = sectionOf(form, chosen);
    Section s = form.sections().get(n);
    if (s.isList()) throw new Unfit("form.notInAList");
    List<Question> before = new ArrayList<>();
    List<Question> within = new ArrayList<>();
    List<Question> after = new ArrayList<>();
    for (Question q : s.questions())
      if (chosen.contains(q.name())) within.add(Arranging.inBlock(q, ""));
      else if (within.isEmpty()) before.add(q);
      else after.add(q);
    List<Section> out = new ArrayList<>(form.sections());
    out.remove(n);
    int at = n;
    Section made = Section.of(title, before.isEmpty() && s.startsPage(), within);
    if (!before.isEmpty()) out.add(at++, left(s, before));
    out.add(at++, made);
    if (!after.isEmpty())
      out.add(
          at,
          before.isEmpty()
              ? with(left(s, after), s.texts(), false, s.askWhen())
              : new Section(
                  "",
                  Texts.of(),
                  false,
                  s.askWhen(),
                  Optional.empty(),
                  left(s, after).blocks(),
                  after));
    return form.with(out);
  }

  /** A section with some of its questions; blocks whose questions all went are gone. */
  private static Section left(Section s, List<Question> questions) {
    List<Section.Block> blocks = new ArrayList<>();
    for (Section.Block b : s.blocks())
      if (holds(questions, b) || !holds(s.questions(), b)) blocks.add(b);
    return withBlocks(s, blocks).with(questions);
  }

  private static boolean holds(List<Question> questions, Section.Block b) {
    return questions.stream().anyMatch(q -> q.layout().block().equals(b.name()));
  }

  /** The one section in which these questions stand. */
  private static int sectionOf(Form form, List<String> chosen) {
    int out = -1;
    for (int i = 0; i < form.sections().size(); i++)
      for (Question q : form.sections().get(i).questions())
        if (chosen.contains(q.name())) {
          if (out >= 0 && out != i) throw new Unfit("form.severalSections");
          out = i;
        }
    return out;
  }

  /** Its questions go on in the section before it, or the first one's in the one after it. */
  private static Form dissolve(Form form, int n) {
    Section s = FormEdit.section(form, n);
    if (form.sections().size() == 1) {
      if (s.isList()) throw new Unfit("form.onlyList");
      return form.with(List.of(Section.of("", s.startsPage(), plain(s))));
    }
    int into = n > 0 ? n - 1 : 1;
    Section other = form.sections().get(into);
    if (other.isList() != s.isList() || s.isList()) throw new Unfit("form.listDissolved");
    List<Question> all = new ArrayList<>(n > 0 ? other.questions() : plain(s));
    all.addAll(n > 0 ? plain(s) : other.questions());
    List<Section> out = new ArrayList<>(form.sections());
    out.set(into, other.with(all));
    out.remove(n);
    return form.with(out);
  }

  private static List<Question> plain(Section s) {
    return s.questions().stream().map(q -> Arranging.inBlock(q, "")).toList();
  }

  private static Form blockOf(Form form, List<String> chosen, String title) {
    if (title.isEmpty()) throw new Unfit("form.blockNoTitle");
    int n = sectionOf(form, chosen);
    Section s = form.sections().get(n);
    String name = Field.nameFrom(title, names(form));
    List<Section.Block> blocks = new ArrayList<>(s.blocks());
    blocks.add(new Section.Block(name, Texts.of("title", title), ""));
    List<Question> questions = new ArrayList<>();
    List<Question> within = new ArrayList<>();
    for (Question q : s.questions())
      if (chosen.contains(q.name())) within.add(Arranging.inBlock(q, name));
    for (Question q : s.questions())
      if (!chosen.contains(q.name())) questions.add(q);
      else if (q.name().equals(within.get(0).name())) questions.addAll(within);
    return Arranging.with(form, n, withBlocks(s, blocks).with(questions));
  }

  private static Section withBlocks(Section s, List<Section.Block> blocks) {
    return new Section(
        s.name(), s.texts(), s.startsPage(), s.askWhen(), s.rows(), blocks, s.questions());
  }

  private static Form setBlock(Form form, int n, String name, String property, JsonValue value) {
    Section s = FormEdit.section(form, n);
    if (s.block(name).isEmpty()) throw new Unfit("form.noSuchBlock", "name", name);
    String text = value.asString().strip();
    List<Section.Block> out = new ArrayList<>();
    for (Section.Block b : s.blocks())
      if (!b.name().equals(name)) out.add(b);
      else if (property.equals("askWhen")) out.add(new Section.Block(name, b.texts(), text));
      else if (property.equals("title") || property.equals("intro")) {
        if (property.equals("title") && text.isEmpty()) throw new Unfit("form.blockNoTitle");
        out.add(new Section.Block(name, b.texts().with(property, text), b.askWhen()));
      } else throw new Unfit("form.noProperty", "property", property);
    return Arranging.with(form, n, withBlocks(s, out));
  }

  private static Form dissolveBlock(Form form, int n, String name) {
    Section s = FormEdit.section(form, n);
    if (s.block(name).isEmpty()) throw new Unfit("form.noSuchBlock", "name", name);
    List<Section.Block> left = s.blocks().stream().filter(b -> !b.name().equals(name)).toList();
    List<Question> questions =
        s.questions().stream()
            .map(q -> q.layout().block().equals(name) ? Arranging.inBlock(q, "") : q)
            .toList();
    return Arranging.with(form, n, withBlocks(s, left).with(questions));
  }
}
