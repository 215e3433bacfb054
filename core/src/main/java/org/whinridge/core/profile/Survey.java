package org.whinridge.core.profile;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.place.Repair;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;

/**
 * Looks through a layer of a file, feature by feature, before anything is imported: kinds of
 * geometry, extent, columns with guessed types, keys that repeat, geometries that are broken,
 * problems by row. Memory is bounded whatever the file holds.
 */
public final class Survey {
  /** The most problems that are told one by one. */
  public static final int MOST_TOLD = 200;

  private static final int MOST_COLUMNS = 500;
  private static final int SAMPLES = 4;

  /** A tag is something that is read at a glance; a longer text is none. */
  private static final int LONGEST_TAG = 40;

  private int count;
  private int problems;
  private final ShapeSurvey shapes = new ShapeSurvey(this::tell);
  private final Map<String, Watched> columns = new LinkedHashMap<>();
  private final List<Said> told = new ArrayList<>();
  private final List<String> foreignText = new ArrayList<>();

  private static final class Watched {
    final TypeGuess guess = new TypeGuess();
    final KeyWatch keys = new KeyWatch();
    final Set<String> samples = new LinkedHashSet<>();
    int numbers;
    int longitudes;
    int latitudes;
    int filled;
    int wkts;
    int wktsInDegrees;
  }

  /**
   * A column of the file.
   *
   * @param source its own name
   * @param field the field guessed for it
   * @param guess the type and its evidence
   * @param samples some of its values
   * @param mayBeKey whether it can tell features apart
   * @param repeated values that come more than once, when it may be a key
   * @param distinct its values with their counts, when they are at most 60
   */
  public record Column(
      String source,
      Field field,
      TypeGuess.Guess guess,
      List<String> samples,
      boolean mayBeKey,
      List<Said> repeated,
      Map<String, Integer> distinct) {
    /**
     * Spellings that look like one value, when nobody stated which values there are; none when
     * there are more than 60 of them, which are tidied after the import.
     */
    public List<NearDuplicates.Group> spellings() {
      boolean stated = !field.codes().isEmpty() && !field.codesFound();
      if (stated || field.type() != FieldType.TEXT && field.type() != FieldType.CODE)
        return List.of();
      List<ValueCount> counts = new ArrayList<>();
      distinct.forEach((v, n) -> counts.add(new ValueCount(v, n)));
      return NearDuplicates.groups(counts, Set.of());
    }

    /** Whether each feature has a value of its own here, so that it can be the tag. */
    public boolean isTagLike(int count) {
      return count > 1
          && mayBeKey
          && repeated.isEmpty()
          && guess.filled() == count
          && guess.longest() <= LONGEST_TAG
          && (field.type() == FieldType.TEXT || field.type() == FieldType.WHOLE);
    }

    /** The column with another field for it. */
    public Column with(Field other) {
      return new Column(source, other, guess, samples, mayBeKey, repeated, distinct);
    }
  }

  /**
   * Looks at one feature.
   *
   * @param number its number in the file
   * @param geometry in the file's coordinates, by the kinds that it has
   * @param problem what its reader found wrong, "" for nothing
   * @throws IllegalArgumentException when the features have more than 500 different columns between
   *     them
   */
  public void see(
      int number, Map<GeometryKind, Geometry> geometry, Map<String, Value> values, Said problem) {
    count++;
    if (!problem.isEmpty()) tell(problem);
    shapes.see(number, geometry);
    for (Map.Entry<String, Value> e : values.entrySet()) column(number, e.getKey(), e.getValue());
  }

  private void column(int number, String name, Value v) {
    Watched w = columns.get(name);
    if (w == null) {
      if (columns.size() >= MOST_COLUMNS)
        throw new Unfit("finding.tooManyColumns", "most", MOST_COLUMNS, "n", number);
      w = new Watched();
      columns.put(name, w);
    }
    String s = v.isEmpty() ? "" : v.plain();
    w.guess.see(v, s);
    if (v.isEmpty()) return;
    w.filled++;
    w.keys.see(s, number);
    wkt(w, s);
    number(w, v, s);
    if (w.samples.size() < SAMPLES) w.samples.add(s.substring(0, Math.min(30, s.length())));
    if (foreignText.size() < 5 && !plain(s) && !foreignText.contains(s))
      foreignText.add(s.substring(0, Math.min(60, s.length())));
  }

  private static void wkt(Watched w, String s) {
    if (s.length() < 8 || !PlaceColumns.looksLikeWkt(s)) return;
    w.wkts++;
    if (PlaceColumns.isInDegrees(s)) w.wktsInDegrees++;
  }

  private static void number(Watched w, Value v, String s) {
    double d;
    if (v instanceof Value.Num n) d = n.value();
    else {
      var read = Numbers.read(s);
      if (read.isEmpty()) read = org.whinridge.core.layer.Reading.DECIMAL_COMMA.number(s.strip());
      if (read.isEmpty()) return;
      d = read.getAsDouble();
    }
    w.numbers++;
    if (Math.abs(d) <= 360) w.longitudes++;
    if (Math.abs(d) <= 90) w.latitudes++;
  }

  private static boolean plain(String s) {
    for (int i = 0; i < s.length(); i++) if (s.charAt(i) > 126) return false;
    return true;
  }

  /** Tells of something wrong; beyond {@link #MOST_TOLD} it is only counted. */
  public void tell(Said problem) {
    problems++;
    if (told.size() < MOST_TOLD) told.add(problem);
  }

  /** How many features there are. */
  public int count() {
    return count;
  }

  /** How many have no geometry that can be used. */
  public int withoutPlace() {
    return shapes.withoutPlace();
  }

  /** How many polygons cross themselves. */
  public int selfCrossing() {
    return shapes.selfCrossing();
  }

  /** Features of each kind of geometry. */
  public Map<GeometryKind, Integer> kinds() {
    return shapes.kinds();
  }

  /** The box around all geometries, in the file's coordinates. */
  public Envelope extent() {
    return shapes.extent();
  }

  /** The first problems, in words. */
  public List<Said> problems() {
    return List.copyOf(told);
  }

  /** How many problems there are in all. */
  public int problemCount() {
    return problems;
  }

  /** Some texts with letters beyond ASCII, to see whether the encoding is right. */
  public List<String> foreignText() {
    return List.copyOf(foreignText);
  }

  /** The box around the geometries without the few that lie outside degrees, if most do not. */
  public Envelope usualExtent() {
    return shapes.usualExtent();
  }

  /** Features with several kinds of geometry, which come in a layer of each. */
  public int severalKinds() {
    return shapes.severalKinds();
  }

  /** Self-crossing polygons whose area that way of repair would change by more than a little. */
  public int changing(Repair way) {
    return shapes.changing(way);
  }

  /** Features with longitudes beyond 180 degrees, which are wrapped. */
  public int beyondDateLine() {
    return shapes.beyond();
  }

  /**
   * Whether the positions can be degrees of longitude and latitude: nearly all of them, since one
   * that is mistyped must not hide what the others are.
   */
  public boolean mayBeDegrees() {
    return shapes.mayBeDegrees();
  }

  /** Where the rows of a plain table are, if its columns say. */
  public Optional<PlaceColumns> places() {
    return PlaceColumns.find(
        List.copyOf(columns.keySet()),
        new PlaceColumns.Ranges() {
          @Override
          public boolean areNumbers(String column) {
            Watched w = columns.get(column);
            return w.numbers > 0 && w.numbers >= ShapeSurvey.NEARLY_ALL * w.filled;
          }

          @Override
          public boolean areLongitudes(String column) {
            Watched w = columns.get(column);
            return w.longitudes >= ShapeSurvey.NEARLY_ALL * w.numbers;
          }

          @Override
          public boolean areLatitudes(String column) {
            Watched w = columns.get(column);
            return w.latitudes >= ShapeSurvey.NEARLY_ALL * w.numbers;
          }

          @Override
          public boolean isWktInDegrees(String column) {
            Watched w = columns.get(column);
            return w.wktsInDegrees > 0 && w.wktsInDegrees >= ShapeSurvey.NEARLY_ALL * w.wkts;
          }

          @Override
          public String sample(String column) {
            Watched w = columns.get(column);
            return w.samples.isEmpty() ? "" : w.samples.iterator().next();
          }
        });
  }

  /** The columns, their labels proposed from common words alone. */
  public List<Column> columns() {
    return columns(List.of());
  }

  /**
   * The columns in the order of their first appearance, each with the field guessed for it.
   *
   * @param words of the house, from which labels that were cut are completed
   */
  public List<Column> columns(List<String> words) {
    List<Column> out = new ArrayList<>();
    Set<String> names = new LinkedHashSet<>();
    columns.forEach(
        (source, w) -> {
          String base = Field.nameFrom(source);
          if (base.equals(org.whinridge.core.layer.LayerScope.PLACE)) base = "place_name";
          String name = base;
          for (int i = 2; !names.add(name); i++) name = base + "_" + i;
          TypeGuess.Guess g = w.guess.guess(source);
          boolean number = g.type() == FieldType.WHOLE || g.type() == FieldType.DECIMAL;
          ReadableLabel label = ReadableLabel.of(source, number, words);
          out.add(
              new Column(
                  source,
                  Field.of(name, label.label(), g.type())
                      .in(label.unit())
                      .with(readable(g.codes()))
                      .codesFound(true),
                  g,
                  List.copyOf(w.samples),
                  w.keys.mayBeKey(count) && g.type() != FieldType.DECIMAL,
                  w.keys.mayBeKey(count) ? List.copyOf(w.keys.told()) : List.of(),
                  w.guess.distinct()));
        });
    return out;
  }

  /** Codes that look like names in a program get a readable label; others are their own label. */
  private static List<Code> readable(List<Code> codes) {
    return codes.stream()
        .map(
            c ->
                c.code().matches("[a-z][a-z0-9_]*")
                    ? Code.of(c.code(), ReadableLabel.of(c.code(), false, List.of()).label())
                    : c)
        .toList();
  }
}
