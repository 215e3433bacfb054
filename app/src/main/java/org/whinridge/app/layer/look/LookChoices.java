package org.whinridge.app.layer.look;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.look.Breaks;
import org.whinridge.core.look.Colour;
import org.whinridge.core.look.Drawing;
import org.whinridge.core.look.Icons;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.Ramp;
import org.whinridge.core.look.Size;
import org.whinridge.core.look.Symbol;
import org.whinridge.core.said.Said;

/** What the page of looks offers to choose from. */
final class LookChoices {
  private LookChoices() {}

  /** A field, with what its type allows. */
  record OfField(String name, String label, String type, String unit, List<OfCode> codes) {
    static OfField of(Field f) {
      return new OfField(
          f.name(),
          f.label(),
          f.type().id(),
          f.unit(),
          f.codes().stream().map(c -> new OfCode(c.code(), c.label())).toList());
    }
  }

  /** A code of a field. */
  record OfCode(String code, String label) {}

  /** A shipped icon with its picture. */
  record Icon(String id, Said label, String svg) {}

  /**
   * How features are sorted, and how classes are broken: words in data.
   *
   * @param least the fewest classes
   * @param most the most classes
   */
  record Ways(List<String> by, List<String> methods, int least, int most) {}

  /** A row of colours. */
  record Colours(String id, Said label, String kind, List<String> colours) {}

  /** The fields, with what their type allows. */
  static List<OfField> fields(Schema schema) {
    return schema.fields().stream().map(OfField::of).toList();
  }

  /** The shipped icons, each with its picture. */
  static List<Icon> icons() {
    Look any = Look.one(List.of());
    return Icons.ids().stream()
        .map(
            id ->
                new Icon(
                    id,
                    Icons.said(id),
                    Drawing.markPicture(
                        any, new Symbol.Mark(id, "#1f2a30", Size.of(22), "", 0, "", 1), 22, 24)))
        .toList();
  }

  /** How features are sorted, and how classes are broken. */
  static Ways ways() {
    return new Ways(
        Arrays.stream(Look.By.values()).map(Look.By::id).toList(),
        Arrays.stream(Breaks.Method.values()).map(Breaks.Method::id).toList(),
        Breaks.LEAST,
        Breaks.MOST);
  }

  /** The rows of colours. */
  static List<Colours> ramps() {
    return Arrays.stream(Ramp.values())
        .map(
            r ->
                new Colours(
                    r.id(),
                    r.said(),
                    r.kind().name().toLowerCase(Locale.ROOT),
                    r.colours(r.kind() == Ramp.Kind.CODES ? 8 : 5).stream()
                        .map(Colour::hex)
                        .toList()))
        .toList();
  }
}
