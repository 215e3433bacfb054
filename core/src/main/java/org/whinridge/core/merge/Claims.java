package org.whinridge.core.merge;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldCheck;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * What a visit says of the layer, held against what the layer knows: a visit may not write what
 * belongs to the office, what the layer does not have, or a shape of another kind, and what it says
 * it was taken out with must be what the layer held then. What does not hold is left out of the
 * merge and told; nothing of it turns the visit away.
 *
 * @param base what the device took out, as the layer's own history has it where that differs
 * @param set what may be written
 * @param problems what does not hold, in words for whoever reviews the visit
 */
public record Claims(Map<String, Value> base, Map<String, Value> set, List<Problem> problems) {
  /** What can be wrong. */
  public enum Kind {
    OFFICE_ONLY,
    FILLS_ITSELF,
    NOT_ALLOWED,
    NO_SUCH_FIELD,
    OTHER_SHAPE,
    NO_PLACE,
    NO_SUCH_VERSION,
    OTHER_BASE
  }

  /** Something that does not hold. {@code field} is "" for the visit as a whole. */
  public record Problem(Kind kind, String field, Said message) {}

  /**
   * Looks at a visit's claims.
   *
   * @param claimedBase values that the visit says it was taken out with
   * @param claimedSet values that it wants to write; the geometry under {@link Merge#GEOMETRY} in
   *     both
   * @param version the feature's version that it says it was taken out with
   * @param then the feature as the layer held it at that version; empty when it never had that one
   * @param schema the layer's schema now
   * @param same when two values of a field are one
   */
  public static Claims check(
      Map<String, Value> claimedBase,
      Map<String, Value> claimedSet,
      long version,
      Optional<Feature> then,
      Schema schema,
      Function<String, SameValue> same) {
    List<Problem> problems = new ArrayList<>();
    Map<String, Value> set = set(claimedSet, then, schema, problems);
    if (then.isEmpty())
      problems.add(
          new Problem(Kind.NO_SUCH_VERSION, "", Said.of("claim.noVersion", "version", version)));
    Map<String, Value> base = new LinkedHashMap<>();
    claimedBase.forEach(
        (name, v) -> {
          boolean known = name.equals(Merge.GEOMETRY) || schema.field(name).isPresent();
          if (!known || isOffice(name, schema)) return;
          Value held = then.isEmpty() ? v : held(then.get(), name);
          if (!same.apply(name).test(v, held)) {
            problems.add(otherBase(name, v, held, schema));
            base.put(name, held);
          } else base.put(name, v);
        });
    // without a version that the layer had, nothing can be called unchanged since
    if (then.isEmpty()) base.clear();
    return new Claims(base, set, problems);
  }

  /**
   * Looks at what a visit claims of a feature that it makes: there is no base, and what it may not
   * write is left out and told.
   */
  public static Claims ofNew(Map<String, Value> claimedSet, Schema schema) {
    List<Problem> problems = new ArrayList<>();
    Map<String, Value> set = set(claimedSet, Optional.empty(), schema, problems);
    if (schema.kind() != GeometryKind.TABLE && !set.containsKey(Merge.GEOMETRY))
      problems.add(new Problem(Kind.NO_PLACE, Merge.GEOMETRY, Said.of("claim.noPlace")));
    return new Claims(Map.of(), set, problems);
  }

  private static Map<String, Value> set(
      Map<String, Value> claimed, Optional<Feature> then, Schema schema, List<Problem> problems) {
    Map<String, Value> set = new LinkedHashMap<>();
    claimed.forEach(
        (name, v) -> {
          Value stood = then.map(f -> f.value(name)).orElse(Value.EMPTY);
          Optional<Problem> p =
              name.equals(Merge.GEOMETRY) ? shape(v, schema.kind()) : field(name, v, stood, schema);
          p.ifPresentOrElse(problems::add, () -> set.put(name, v));
        });
    return set;
  }

  private static boolean isOffice(String name, Schema schema) {
    return schema.field(name).filter(Field::officeOnly).isPresent();
  }

  private static Value held(Feature f, String name) {
    return name.equals(Merge.GEOMETRY)
        ? f.geometry().<Value>map(Value.Place::new).orElse(Value.EMPTY)
        : f.value(name);
  }

  private static Optional<Problem> field(String name, Value v, Value stood, Schema schema) {
    Optional<Field> f = schema.field(name);
    if (f.isEmpty())
      return Optional.of(
          new Problem(
              Kind.NO_SUCH_FIELD, name, Said.of("claim.noField", "name", name, "value", v.said())));
    if (f.get().officeOnly())
      return left(f.get(), Kind.OFFICE_ONLY, Said.of("claim.office", "field", f.get().label()), v);
    if (f.get().fillsItself())
      return v.equals(stood)
          ? Optional.empty()
          : left(
              f.get(),
              Kind.FILLS_ITSELF,
              Said.of("claim.fillsItself", "field", f.get().label()),
              v);
    // a code that was retired or left the list since the pack was taken out is the reviewer's to
    // see
    return FieldCheck.of(f.get(), v, stood)
        .filter(x -> x.kind() != FieldCheck.Kind.RETIRED && x.kind() != FieldCheck.Kind.NOT_LISTED)
        .flatMap(
            x ->
                left(
                    f.get(),
                    Kind.NOT_ALLOWED,
                    Said.of("claim.fault", "field", f.get().label(), "why", x.message()),
                    v));
  }

  private static Optional<Problem> left(Field f, Kind kind, Said why, Value v) {
    return Optional.of(
        new Problem(
            kind,
            f.name(),
            v.isEmpty()
                ? Said.of("claim.asItIs", "why", why)
                : Said.of("claim.onTheVisit", "why", why, "value", f.shown(v))));
  }

  private static Optional<Problem> shape(Value v, GeometryKind wanted) {
    boolean fits = v instanceof Value.Place p && wanted.fits(p.geometry());
    return fits
        ? Optional.empty()
        : Optional.of(
            new Problem(
                Kind.OTHER_SHAPE,
                Merge.GEOMETRY,
                Said.of(
                    "claim.otherShape",
                    "shape",
                    v instanceof Value.Place p ? p.geometry().getGeometryType() : "none",
                    "kind",
                    wanted.id())));
  }

  private static Problem otherBase(String name, Value said, Value held, Schema schema) {
    Optional<Field> f = schema.field(name);
    return new Problem(
        Kind.OTHER_BASE,
        name,
        f.isEmpty()
            ? Said.of("claim.otherPlace")
            : Said.of(
                "claim.otherValue",
                "field",
                f.get().label(),
                "said",
                said(f.get(), said),
                "held",
                said(f.get(), held)));
  }

  private static Said said(Field f, Value v) {
    return v.isEmpty() ? Said.of("phrase.nothing") : Said.of("value.quoted", "value", f.shown(v));
  }
}
