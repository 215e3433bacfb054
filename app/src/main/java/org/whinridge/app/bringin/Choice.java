package org.whinridge.app.bringin;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.locationtech.jts.geom.Envelope;
import org.springframework.util.MultiValueMap;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.Repair;
import org.whinridge.core.profile.DayOrder;
import org.whinridge.core.profile.NearDuplicates;
import org.whinridge.core.profile.PlaceColumns;
import org.whinridge.core.profile.Survey;
import org.whinridge.core.text.Blanks;
import org.whinridge.core.value.Value;
import org.whinridge.formats.crs.CoordinateSystems;
import org.whinridge.formats.source.RawFeature;

/**
 * What was decided about one part of what was found.
 *
 * @param target new, update or visits
 * @param into the layer to update, or whose features were visited
 * @param tag the column that names a feature of a new layer; "" for none
 * @param repair how polygons that cross themselves are made sound; empty to leave them
 * @param repairAll whether those are repaired too whose area changes by more than a little
 * @param unsure whether positions are taken though nobody knows how far they are off
 * @param key the column that tells which feature a row is
 * @param visitor the column with who made a visit; "" for whoever brings it in
 * @param order which number of a date comes first, where both could be and somebody said
 * @param orderAsked whether the page asked for it
 * @param date the column with the day of a visit
 * @param place whether geometry is taken too when a layer is updated
 * @param removeMissing whether features that the file does not have are removed
 * @param emptyEmpties whether an empty cell empties the layer's value
 */
record Choice(
    Found.Part part,
    String target,
    Optional<UUID> into,
    String name,
    Optional<CoordinateSystem> system,
    Optional<PlaceColumns> places,
    String tag,
    Optional<Repair> repair,
    boolean repairAll,
    boolean unsure,
    String key,
    String date,
    String visitor,
    Optional<Reading> order,
    boolean orderAsked,
    boolean place,
    boolean removeMissing,
    boolean emptyEmpties,
    List<Choice.ColumnChoice> columns) {
  /**
   * What was decided about one column: the field it becomes, or the field it goes into.
   *
   * @param merged the good spelling for each that comes in as another one
   */
  record ColumnChoice(Survey.Column column, Field field, Map<String, String> merged) {
    ColumnChoice(Survey.Column column, Field field) {
      this(column, field, Map.of());
    }

    /** A value of the file in the spelling that was chosen for it. */
    Value spelt(Value v) {
      if (merged.isEmpty() || !(v instanceof Value.Text t)) return v;
      String good = merged.get(Blanks.strip(t.value()));
      return good == null ? v : Value.text(good);
    }
  }

  /** Reads the decisions about all parts that are to be taken out of the page's form. */
  static List<Choice> read(Found found, MultiValueMap<String, String> form) {
    List<Choice> out = new ArrayList<>();
    for (Found.Part p : found.parts()) {
      Form f = new Form(p.index(), form);
      if (!f.has("take")) continue;
      String target = f.text("target");
      Optional<UUID> into = uuid(f.text("into"));
      boolean fresh = into.isEmpty();
      out.add(
          new Choice(
              p,
              fresh ? "new" : target.equals("visits") ? "visits" : "update",
              into,
              f.text("name"),
              system(p, f.has("system") ? f.text("system") : p.systemCode(), places(f)),
              places(f),
              f.has("tag") ? f.text("tag") : p.tag(),
              f.text("repair").isEmpty()
                  ? Optional.empty()
                  : Optional.of(Repair.of(f.text("repair"))),
              f.has("repairall"),
              f.has("unsure"),
              f.text("key"),
              f.text("date"),
              f.text("visitor"),
              Optional.of(Reading.of(f.text("order"))).filter(r -> r != Reading.PLAIN),
              f.has("order"),
              f.has("place"),
              f.has("remove"),
              f.has("empties"),
              columns(p, f)));
    }
    if (out.isEmpty()) throw Refusal.refused("refused.chooseLayerToImport");
    return out;
  }

  /** How the texts of a column are read, by what somebody said of the order of its dates. */
  Reading reading(Survey.Column c) {
    Reading guessed = c.guess().reading();
    boolean ordered = guessed == Reading.DAY_FIRST || guessed == Reading.MONTH_FIRST;
    return ordered && c.guess().dayOrder() == DayOrder.UNSURE ? order.orElse(guessed) : guessed;
  }

  /** Whether somebody must say which number of a date comes first. */
  boolean mustSayOrder() {
    boolean visits = target.equals("visits");
    return (visits || orderAsked)
        && columns.stream()
            .filter(k -> !visits || k.column().source().equals(date))
            .filter(
                k ->
                    visits
                        || k.field().type() == FieldType.DATE
                        || k.field().type() == FieldType.DATE_TIME)
            .anyMatch(k -> k.column().guess().dayOrder() == DayOrder.UNSURE);
  }

  private record Form(int index, MultiValueMap<String, String> all) {
    String text(String name) {
      String v = all.getFirst(name + "_" + index);
      return v == null ? "" : v.strip();
    }

    List<String> texts(String name) {
      return all.getOrDefault(name + "_" + index, List.of());
    }

    boolean has(String name) {
      return all.containsKey(name + "_" + index);
    }
  }

  private static Optional<UUID> uuid(String s) {
    try {
      return s.isEmpty() ? Optional.empty() : Optional.of(UUID.fromString(s));
    } catch (IllegalArgumentException e) {
      throw Refusal.notFound("thing.layerToBringThis");
    }
  }

  /**
   * The system chosen by hand, else the file's own, with the operation that is best for where the
   * data lie; none when the file's is not believed ({@link Found.Part#systemCode}).
   */
  static Optional<CoordinateSystem> system(
      Found.Part p, String code, Optional<PlaceColumns> places) {
    Optional<CoordinateSystem> s = named(p, code);
    return s.map(x -> CoordinateSystems.over(x, box(p, places.or(p::places))));
  }

  private static Envelope box(Found.Part p, Optional<PlaceColumns> places) {
    if (!p.layer().table()) return p.survey().usualExtent();
    Envelope out = new Envelope();
    for (RawFeature f : p.sample())
      try {
        places
            .flatMap(c -> c.place(f.properties()))
            .ifPresent(g -> out.expandToInclude(g.getEnvelopeInternal()));
      } catch (IllegalArgumentException e) {
        // told with its row
      }
    return out;
  }

  private static Optional<CoordinateSystem> named(Found.Part p, String code) {
    if (code.isBlank() || code.equals("file"))
      return p.systemCode().isEmpty() ? Optional.empty() : p.layer().system();
    return Optional.of(
        CoordinateSystems.code(code.replaceAll(" .*", ""))
            .orElseThrow(() -> Refusal.refused("refused.unknownSystem", "system", code)));
  }

  private static Optional<PlaceColumns> places(Form f) {
    return places(f.text("x"), f.text("y"), f.text("wkt"));
  }

  /** The columns of a table's places; none when they are not all chosen. */
  static Optional<PlaceColumns> places(String x, String y, String wkt) {
    if (!wkt.isEmpty()) return Optional.of(new PlaceColumns("", "", wkt, false));
    return x.isEmpty() || y.isEmpty()
        ? Optional.empty()
        : Optional.of(new PlaceColumns(x, y, "", false));
  }

  private static List<ColumnChoice> columns(Found.Part p, Form f) {
    List<ColumnChoice> out = new ArrayList<>();
    for (int i = 0; i < p.columns().size(); i++) {
      Survey.Column c = p.columns().get(i);
      String at = "_" + i;
      if (!f.has("c" + at + "_known")) {
        // a script that names no columns takes them as guessed
        if (!p.layer().aside().contains(c.source()) || isKey(c, f))
          out.add(new ColumnChoice(c, c.field()));
        continue;
      }
      if (!f.has("c" + at + "_take") && !isKey(c, f)) continue;
      String label = f.text("c" + at + "_label");
      FieldType type = FieldType.of(f.text("c" + at + "_type")).orElse(c.field().type());
      String goes = f.text("c" + at + "_into");
      Map<String, String> merged = merged(c, f.texts("c" + at + "_merge"));
      if (!goes.isEmpty()) {
        out.add(new ColumnChoice(c, Field.of(goes, goes, type), merged));
        continue;
      }
      String named = label.isEmpty() ? c.field().label() : label;
      Field field =
          type == c.field().type()
              ? c.field().labelled(named)
              : Field.of(c.field().name(), named, type);
      boolean number = type == FieldType.WHOLE || type == FieldType.DECIMAL;
      if (f.has("c" + at + "_unit")) field = field.in(number ? f.text("c" + at + "_unit") : "");
      boolean list = f.has("c" + at + "_codes");
      if (list || type == FieldType.CODE && type == c.field().type())
        field =
            field
                .with(codes(c).stream().filter(x -> !merged.containsKey(x.code())).toList())
                .codesFound(c.field().codes().isEmpty() || c.field().codesFound());
      out.add(new ColumnChoice(c, field, merged));
    }
    return out;
  }

  /** The spellings of the groups that were ticked, each with the good one. */
  private static Map<String, String> merged(Survey.Column c, List<String> ticked) {
    Map<String, String> out = new LinkedHashMap<>();
    if (ticked.isEmpty()) return out;
    for (NearDuplicates.Group g : c.spellings())
      if (ticked.contains(g.good()))
        g.values().stream().skip(1).forEach(v -> out.put(v.value(), g.good()));
    return out;
  }

  /** The column that says which feature a row is, is taken whether it is ticked or not. */
  private static boolean isKey(Survey.Column c, Form f) {
    return !f.text("into").isEmpty() && c.source().equals(f.text("key"));
  }

  private static List<Code> codes(Survey.Column c) {
    if (!c.field().codes().isEmpty()) return c.field().codes();
    return c.distinct().keySet().stream().map(v -> Code.of(v, v)).sorted(Choice::byNumber).toList();
  }

  private static int byNumber(Code a, Code b) {
    try {
      return Double.compare(Double.parseDouble(a.code()), Double.parseDouble(b.code()));
    } catch (NumberFormatException e) {
      return a.code().compareTo(b.code());
    }
  }

  /** Fields by the column that they come from. */
  Map<String, ColumnChoice> bySource() {
    Map<String, ColumnChoice> out = new LinkedHashMap<>();
    columns.forEach(c -> out.put(c.column().source(), c));
    return out;
  }
}
