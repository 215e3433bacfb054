package org.whinridge.core.form.line;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.Texts;
import org.whinridge.core.layer.Field;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;

/**
 * A whole form as text, one line for each question, section, block and page, and back. Lines that
 * stand as they were give exactly what was there; of a changed line what it can't say is kept from
 * the question of its name. Title, shared rules and look-ups are not in the text and stay.
 */
public final class FormText {
  /** The longest text, in characters. */
  public static final int MOST_CHARACTERS = 1_000_000;

  private FormText() {}

  /** A line that can't be read. @param number from 1 @param why a sentence for people */
  public record Problem(int number, String line, Said why) {}

  /** What a text gave. @param problems lines that were passed over */
  public record Read(List<Section> sections, List<Problem> problems) {
    public Read {
      sections = List.copyOf(sections);
      problems = List.copyOf(problems);
    }

    /** All questions that were read. */
    public List<Question> questions() {
      List<Question> out = new ArrayList<>();
      for (Section s : sections) out.addAll(s.questions());
      return out;
    }
  }

  /** A question as its line. */
  public static String line(Question q) {
    return Lines.text(q);
  }

  /** A form as text, each line ended. */
  public static String of(Form form) {
    StringBuilder b = new StringBuilder();
    boolean first = true;
    for (Section s : form.sections()) {
      if (s.startsPage()) b.append("--- page\n");
      // an untitled section at the very beginning needs no line, unless a page would hide it
      boolean holds = !s.questions().isEmpty() || !s.blocks().isEmpty();
      if (!(first && isPlain(s) && !s.startsPage() && holds)) b.append(head(s)).append('\n');
      first = false;
      String block = "";
      Set<String> seen = new TreeSet<>();
      for (Question q : s.questions()) {
        String own = blockOf(s, q);
        if (!own.equals(block)) {
          b.append(own.isEmpty() ? "##" : Lines.of(s.block(own).get()).write()).append('\n');
          block = own;
          seen.add(own);
        }
        b.append(Lines.text(q)).append('\n');
      }
      for (Section.Block left : s.blocks())
        if (!seen.contains(left.name())) b.append(Lines.of(left).write()).append('\n');
    }
    return b.toString();
  }

  /** The block that a question stands in; "" when its section has none of that name. */
  private static String blockOf(Section s, Question q) {
    return s.block(q.layout().block()).isPresent() ? q.layout().block() : "";
  }

  private static boolean isPlain(Section s) {
    return s.title().isEmpty() && s.name().isEmpty() && s.rows().isEmpty();
  }

  private static String head(Section s) {
    HeadLine h = Lines.of(s);
    boolean all =
        s.askWhen().isEmpty() && s.texts().get("intro").isEmpty() && s.texts().others().isEmpty();
    return all ? h.write() : h.write() + " " + QuestionLine.MORE;
  }

  /** Reads lines that are new: what they say is all there is. @param taken names that are there */
  public static Read read(String text, List<String> taken) {
    return new Reading(new Form("", List.of()), taken).read(text);
  }

  /** Reads a form's text, with what the text can't say from the form as it is. */
  public static Read read(String text, Form form) {
    return new Reading(form, List.of()).read(text);
  }

  /** The lines of a text, also the empty ones. */
  static String[] lines(String text) {
    boolean one = text.indexOf('\n') < 0 && text.indexOf('\r') < 0;
    return one ? new String[] {text} : text.split("\r\n|\r|\n", -1);
  }

  /** The name that a line gives; empty when it gives none or can't be read. */
  static Optional<String> given(String line) {
    if (line.isBlank()) return Optional.empty();
    try {
      Optional<HeadLine> head = HeadLine.read(line);
      String name = head.isPresent() ? head.get().name() : QuestionLine.read(line).name();
      return name.isEmpty() ? Optional.empty() : Optional.of(name);
    } catch (IllegalArgumentException e) {
      return Optional.empty(); // told when the line itself is read
    }
  }

  /** A text being read, line by line. */
  private static final class Reading {
    private final Map<String, Question> before = new LinkedHashMap<>();
    private final Map<String, Question> byLine = new LinkedHashMap<>();
    private final Map<String, String> blockBefore = new LinkedHashMap<>();
    private final List<Section> sectionsBefore;
    private final Set<Integer> used = new TreeSet<>();
    private final Set<String> names;
    private final Set<String> said = new TreeSet<>();
    private final List<Section> sections = new ArrayList<>();
    private final List<Problem> problems = new ArrayList<>();
    private Section open;
    private List<Question> questions = new ArrayList<>();
    private List<Section.Block> blocks = new ArrayList<>();
    private String block = "";
    private boolean page;

    Reading(Form form, List<String> taken) {
      names = new TreeSet<>(taken);
      sectionsBefore = form.sections();
      for (Section s : form.sections())
        for (Question q : s.questions()) {
          before.put(q.name(), q);
          byLine.put(Lines.text(q), q);
          blockBefore.put(q.name(), blockOf(s, q));
        }
    }

    Read read(String text) {
      if (text.length() > MOST_CHARACTERS) throw new Unfit("line.textTooLong", "most", 1_000_000);
      String[] lines = lines(text);
      for (String l : lines) named(l);
      for (int i = 0; i < lines.length; i++) {
        String line = lines[i].strip();
        if (line.isEmpty()) continue;
        try {
          line(line);
        } catch (IllegalArgumentException e) {
          problems.add(new Problem(i + 1, line, Unfit.said(e)));
        }
      }
      if (page) ready();
      close();
      return new Read(sections, problems);
    }

    /** Names that lines give are theirs, wherever they stand. */
    private void named(String line) {
      if (byLine.containsKey(line.strip())) names.add(byLine.get(line.strip()).name());
      else given(line).ifPresent(names::add);
    }

    private void line(String line) {
      Optional<HeadLine> head = HeadLine.read(line);
      if (head.isEmpty()) question(line);
      else if (head.get().kind() == HeadLine.Kind.PAGE) {
        if (page) ready(); // a page with nothing on it
        close();
        page = true;
      } else if (head.get().kind() == HeadLine.Kind.SECTION) section(head.get());
      else block(head.get());
    }

    private void section(HeadLine h) {
      close();
      HeadLine whole = h;
      if (h.rows().isPresent() && h.name().isEmpty()) {
        String name = Field.nameFrom(h.title(), names);
        names.add(name);
        whole = new HeadLine(h.kind(), h.title(), name, h.rows());
      }
      begin(whole);
    }

    private void begin(HeadLine h) {
      Optional<Section> was = sectionBefore(h);
      Texts texts = was.map(Section::texts).orElse(Texts.of());
      if (!texts.get("title").equals(h.title())) texts = texts.with("title", h.title());
      open =
          new Section(
              h.name(),
              texts,
              page,
              was.map(Section::askWhen).orElse(""),
              h.rows(),
              was.map(Section::blocks).orElse(List.of()),
              List.of());
      page = false;
      block = "";
    }

    /** The section that a line stands for: by name, by title, else by its place. */
    private Optional<Section> sectionBefore(HeadLine h) {
      int at = -1;
      for (int pass = 0; pass < 2 && at < 0; pass++)
        for (int i = 0; i < sectionsBefore.size() && at < 0; i++) {
          Section s = sectionsBefore.get(i);
          boolean same =
              pass == 0
                  ? !h.name().isEmpty() && s.name().equals(h.name())
                  : s.title().equals(h.title()) && s.name().equals(h.name());
          if (same && !used.contains(i)) at = i;
        }
      int place = sections.size();
      if (at < 0
          && place < sectionsBefore.size()
          && !used.contains(place)
          && sectionsBefore.get(place).name().equals(h.name())) at = place;
      if (at < 0) return Optional.empty();
      used.add(at);
      return Optional.of(sectionsBefore.get(at));
    }

    private void ready() {
      if (open == null) begin(new HeadLine(HeadLine.Kind.SECTION, "", "", Optional.empty()));
    }

    private void block(HeadLine h) {
      ready();
      if (h.isEnd()) {
        block = "";
        return;
      }
      String name = h.name().isEmpty() ? Field.nameFrom(h.title(), names) : h.name();
      names.add(name);
      Texts texts = Texts.of("title", h.title());
      String askWhen = "";
      for (Section.Block b : open.blocks())
        if (b.name().equals(name)) {
          texts =
              b.texts().get("title").equals(h.title())
                  ? b.texts()
                  : b.texts().with("title", h.title());
          askWhen = b.askWhen();
        }
      Section.Block made = new Section.Block(name, texts, askWhen);
      if (blocks.stream().noneMatch(b -> b.name().equals(name))) blocks.add(made);
      block = name;
    }

    private void question(String line) {
      Question q = byLine.get(line);
      if (q == null) {
        QuestionLine read = QuestionLine.read(line);
        Question was = before.get(read.name());
        q = was == null ? Lines.made(read, names) : Lines.onto(was, read);
      }
      if (!said.add(q.name())) throw new Unfit("form.questionTwice", "name", q.name());
      names.add(q.name());
      ready();
      questions.add(inBlock(q));
    }

    private Question inBlock(Question q) {
      Question.Layout l = q.layout();
      if (l.block().equals(block) || block.equals(blockBefore.get(q.name()))) return q;
      return new Question(
          q.name(),
          q.texts(),
          q.type(),
          q.limits(),
          q.need(),
          q.hand(),
          q.wire(),
          q.codes(),
          q.logic(),
          q.prefill(),
          q.refresh(),
          new Question.Layout(l.as(), l.half(), l.picture(), block));
    }

    private void close() {
      if (open == null) return;
      List<Section.Block> inOrder = new ArrayList<>(blocks);
      if (names(blocks).equals(names(open.blocks()))) {
        inOrder.clear();
        for (Section.Block b : open.blocks())
          blocks.stream().filter(x -> x.name().equals(b.name())).forEach(inOrder::add);
      }
      sections.add(
          new Section(
              open.name(),
              open.texts(),
              open.startsPage(),
              open.askWhen(),
              open.rows(),
              inOrder,
              questions));
      open = null;
      questions = new ArrayList<>();
      blocks = new ArrayList<>();
      block = "";
    }

    private static Set<String> names(List<Section.Block> blocks) {
      Set<String> out = new TreeSet<>();
      for (Section.Block b : blocks) out.add(b.name());
      return out;
    }
  }
}
