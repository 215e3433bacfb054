package org.whinridge.core.form.line;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.whinridge.core.form.FormNames;
import org.whinridge.core.form.Section;
import org.whinridge.core.said.Unfit;

/**
 * What a line says that is no question: {@code # Defects {defects} x0..20 again} begins a section,
 * {@code ## Access} a block in it, each alone ends it, {@code --- page} lets the next section begin
 * a page.
 *
 * @param title "" for the end of a section or block
 * @param name "" when the line gives none
 * @param rows of a list section
 */
record HeadLine(Kind kind, String title, String name, Optional<Section.Rows> rows) {
  /** What it begins. */
  enum Kind {
    SECTION,
    BLOCK,
    PAGE
  }

  private static final Pattern PAGE = Pattern.compile("^-{3,}\\s*(page)?\\s*(-{3,})?$");
  private static final Pattern NAME = Pattern.compile("^(.*?)\\s*\\{([^{}]*)}\\s*(.*)$");
  private static final Pattern ROWS =
      Pattern.compile("^(.*?)\\s*\\bx(\\d{0,4})\\.\\.(\\d{0,4})(\\s+again)?$");

  /** What a line says of these; empty when it is a question's. */
  static Optional<HeadLine> read(String line) {
    String s = line.strip();
    if (PAGE.matcher(s).matches())
      return Optional.of(new HeadLine(Kind.PAGE, "", "", Optional.empty()));
    if (s.startsWith("##")) return Optional.of(head(Kind.BLOCK, s.substring(2).strip()));
    return s.startsWith("#")
        ? Optional.of(head(Kind.SECTION, s.substring(1).strip()))
        : Optional.empty();
  }

  private static HeadLine head(Kind kind, String said) {
    String rest = said;
    if (!rest.isEmpty() && Signs.last(rest, QuestionLine.MORE) == rest.length() - 1)
      rest = rest.substring(0, rest.length() - 1).stripTrailing();
    Optional<Section.Rows> rows = Optional.empty();
    Matcher r = ROWS.matcher(rest);
    if (kind == Kind.SECTION && r.matches()) {
      rows =
          Optional.of(new Section.Rows(number(r.group(2)), number(r.group(3)), r.group(4) != null));
      rest = r.group(1);
    }
    String name = "";
    int open = Signs.find(rest, "{", 0);
    if (open >= 0) {
      Matcher n = NAME.matcher(rest);
      if (!n.matches() || !n.group(3).isEmpty()) throw new Unfit("line.openName");
      name = n.group(2);
      (kind == Kind.SECTION ? FormNames.problemOfList(name) : FormNames.problem(name))
          .ifPresent(
              p -> {
                throw new Unfit(p);
              });
      rest = n.group(1);
    }
    String title = Signs.meant(rest);
    if (rows.isPresent() && name.isEmpty() && title.isEmpty()) throw new Unfit("line.listNoTitle");
    return new HeadLine(kind, title, name, rows);
  }

  private static int number(String s) {
    return s.isEmpty() ? 0 : Integer.parseInt(s);
  }

  /** Whether it ends a section or a block without beginning another. */
  boolean isEnd() {
    return kind != Kind.PAGE && title.isEmpty() && name.isEmpty() && rows.isEmpty();
  }

  /** The line that says this. */
  String write() {
    if (kind == Kind.PAGE) return "--- page";
    StringBuilder b = new StringBuilder(kind == Kind.SECTION ? "#" : "##");
    if (!title.isEmpty()) b.append(' ').append(Signs.written(title));
    if (!name.isEmpty()) b.append(" {").append(name).append('}');
    rows.ifPresent(
        r ->
            b.append(" x")
                .append(r.least() > 0 ? r.least() : "")
                .append("..")
                .append(r.most() > 0 ? r.most() : "")
                .append(r.fromLastVisit() ? " again" : ""));
    return b.toString();
  }
}
