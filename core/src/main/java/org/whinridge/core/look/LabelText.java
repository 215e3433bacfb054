package org.whinridge.core.look;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * A label's template, read once: text with the names of fields in braces. A line of which every
 * field is empty is left out, so that no bare unit or comma stands there.
 */
final class LabelText {
  private record Piece(String text, Optional<Field> field) {}

  private final List<List<Piece>> lines = new ArrayList<>();
  private final List<String> unknown = new ArrayList<>();

  LabelText(String template, Schema schema) {
    for (String line : template.split("\n")) {
      List<Piece> pieces = new ArrayList<>();
      int at = 0;
      while (at < line.length()) {
        int open = line.indexOf('{', at);
        int close = open < 0 ? -1 : line.indexOf('}', open);
        if (close < 0) {
          pieces.add(new Piece(line.substring(at), Optional.empty()));
          break;
        }
        if (open > at) pieces.add(new Piece(line.substring(at, open), Optional.empty()));
        String name = line.substring(open + 1, close).strip();
        Optional<Field> f = schema.field(name);
        if (f.isPresent()) pieces.add(new Piece("", f));
        else unknown.add(name);
        at = close + 1;
      }
      if (!pieces.isEmpty()) lines.add(pieces);
    }
  }

  /** The names between braces in a template. */
  static List<String> names(String template) {
    return new LabelText(template, new Schema(GeometryKind.TABLE, List.of(), "", List.of()))
        .unknown();
  }

  List<String> unknown() {
    return unknown;
  }

  boolean isEmpty() {
    return lines.isEmpty();
  }

  Said of(Function<String, Value> values) {
    Line all = new Line();
    for (List<Piece> line : lines) {
      boolean anyField = false;
      boolean anyValue = false;
      Line said = new Line();
      for (Piece p : line)
        if (p.field.isEmpty()) said.add(p.text);
        else {
          Value v = values.apply(p.field.get().name());
          anyField = true;
          anyValue |= !v.isEmpty();
          said.add(p.field.get().shown(v));
        }
      if (anyValue || !anyField) all.below(said);
    }
    return all.said();
  }

  /** What is told one behind the other; texts that stand beside each other are one. */
  private static final class Line {
    private final List<Said> parts = new ArrayList<>();
    private final StringBuilder text = new StringBuilder();

    void add(String s) {
      text.append(s);
    }

    void add(Said s) {
      if (s.isText()) add(s.toString());
      else {
        end();
        parts.add(s);
      }
    }

    /** Another line below this one, without the blanks at its ends. */
    void below(Line other) {
      other.end();
      List<Said> theirs = other.parts;
      if (!parts.isEmpty() || text.length() > 0) text.append('\n');
      for (int i = 0; i < theirs.size(); i++) {
        Said s = theirs.get(i);
        if (!s.isText()) add(s);
        else if (theirs.size() == 1) add(s.toString().strip());
        else if (i == 0) add(s.toString().stripLeading());
        else add(i == theirs.size() - 1 ? s.toString().stripTrailing() : s.toString());
      }
    }

    private void end() {
      if (text.length() > 0) parts.add(Said.text(text.toString()));
      text.setLength(0);
    }

    Said said() {
      end();
      return Said.inARow(parts, "value.beside");
    }
  }
}
