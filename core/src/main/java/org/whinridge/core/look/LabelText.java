package org.whinridge.core.look;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
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

  String of(Function<String, Value> values) {
    StringBuilder b = new StringBuilder();
    for (List<Piece> line : lines) {
      boolean anyField = false;
      boolean anyValue = false;
      StringBuilder text = new StringBuilder();
      for (Piece p : line)
        if (p.field.isEmpty()) text.append(p.text);
        else {
          Value v = values.apply(p.field.get().name());
          anyField = true;
          anyValue |= !v.isEmpty();
          text.append(p.field.get().shown(v));
        }
      if (anyValue || !anyField)
        b.append(b.length() == 0 ? "" : "\n").append(text.toString().strip());
    }
    return b.toString();
  }
}
