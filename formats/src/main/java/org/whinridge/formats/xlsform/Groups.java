package org.whinridge.formats.xlsform;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.Texts;

/**
 * Groups and repeats of a workbook, nested however deep, as sections with blocks: an outermost
 * group is a section, an outermost repeat a section of rows, all that lies deeper a block. Where
 * something stands in several of them, it is asked when all of their conditions hold, also behind
 * the end of an inner one.
 */
final class Groups {
  /**
   * A group or repeat that is open.
   *
   * @param key what tells it from others of that name: its row
   * @param list its name as a list section; "" for a group
   * @param askWhen its own condition
   */
  record Frame(
      int key, String list, Texts texts, String askWhen, Optional<Section.Rows> rows, String name) {
    boolean isRepeat() {
      return rows.isPresent();
    }
  }

  private static final class Open {
    private final List<Integer> of;
    private final Section made;
    private final List<Section.Block> blocks = new ArrayList<>();
    private final List<Question> questions = new ArrayList<>();
    private List<Integer> block = List.of();
    private String blockName = "";

    Open(List<Integer> of, Section made) {
      this.of = of;
      this.made = made;
    }

    Section section() {
      return new Section(
          made.name(),
          made.texts(),
          made.startsPage(),
          made.askWhen(),
          made.rows(),
          blocks,
          questions);
    }
  }

  private final List<Frame> frames = new ArrayList<>();
  private final List<Section> sections = new ArrayList<>();
  private final Set<Integer> begun = new LinkedHashSet<>();
  private final Map<String, Integer> rows = new LinkedHashMap<>();
  private final Names names;
  private Open open;

  Groups(Names names) {
    this.names = names;
  }

  void begin(Frame f) {
    frames.add(f);
    // a repeat is there even when it has no questions of its own
    if (f.isRepeat() && outermostRepeat() == frames.size() - 1) place();
  }

  /** Ends the innermost; false when it is of the other kind, or there is none. */
  boolean end(boolean repeat) {
    if (frames.isEmpty() || frames.get(frames.size() - 1).isRepeat() != repeat) return false;
    frames.remove(frames.size() - 1);
    return true;
  }

  List<Frame> frames() {
    return frames;
  }

  /** The list section in which something would stand now; "" for none. */
  String list() {
    int r = outermostRepeat();
    return r < 0 ? "" : frames.get(r).list;
  }

  private int outermostRepeat() {
    for (int i = 0; i < frames.size(); i++) if (frames.get(i).isRepeat()) return i;
    return -1;
  }

  /** Adds a question where things stand now. */
  void add(java.util.function.Function<String, Question> inBlock) {
    place();
    open.questions.add(inBlock.apply(open.blockName));
  }

  private static List<Integer> keys(List<Frame> frames) {
    return frames.stream().map(Frame::key).toList();
  }

  /** Opens the section and the block of what is open, unless they are. */
  private void place() {
    int own = Math.max(outermostRepeat(), frames.isEmpty() ? -1 : 0);
    List<Frame> outer = frames.subList(0, own + 1);
    List<Frame> inner = frames.subList(own + 1, frames.size());
    if (open == null || !open.of.equals(keys(outer))) {
      close();
      open = new Open(keys(outer), section(outer));
    }
    if (open.block.equals(keys(inner))) return;
    open.block = keys(inner);
    if (inner.isEmpty()) open.blockName = "";
    else {
      Frame last = inner.get(inner.size() - 1);
      open.blockName = names.addList(last.name.isEmpty() ? "block" : last.name);
      // what goes on behind an inner group does so under the same condition, without its title
      // again
      Texts texts = begun.add(last.key) ? last.texts : Texts.of("title", "");
      rows.put(open.blockName, last.key);
      open.blocks.add(new Section.Block(open.blockName, texts, all(inner)));
    }
  }

  private Section section(List<Frame> outer) {
    if (outer.isEmpty())
      return new Section(
          "",
          Texts.of("title", ""),
          sections.isEmpty(),
          "",
          Optional.empty(),
          List.of(),
          List.of());
    Frame own = outer.get(outer.size() - 1);
    Texts texts = own.texts.get("title").isEmpty() ? own.texts.with("title", own.name) : own.texts;
    begun.add(own.key);
    rows.putIfAbsent(own.list.isEmpty() ? texts.get("title") : own.list, own.key);
    return new Section(own.list, texts, true, all(outer), own.rows, List.of(), List.of());
  }

  /** The conditions of all of these at once. */
  private static String all(List<Frame> frames) {
    List<String> parts = frames.stream().map(Frame::askWhen).filter(w -> !w.isEmpty()).toList();
    if (parts.size() < 2) return parts.isEmpty() ? "" : parts.get(0);
    return String.join(
        " AND ", parts.stream().map(p -> p.contains(" OR ") ? "(" + p + ")" : p).toList());
  }

  private void close() {
    if (open != null) sections.add(open.section());
    open = null;
  }

  /** The row that began a section or block, by its name, or title where it has none; 0 for none. */
  int rowOf(String name) {
    return rows.getOrDefault(name, 0);
  }

  /** All sections that hold something. */
  List<Section> sections() {
    close();
    return sections.stream().filter(s -> !s.questions().isEmpty() || s.isList()).toList();
  }
}
