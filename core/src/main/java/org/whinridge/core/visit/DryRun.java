package org.whinridge.core.visit;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.said.Said;

/**
 * Runs a draft over features as if each were visited now and nothing were answered, and tells what
 * would hold the visits back. Features come one by one, so that progress can be shown and any
 * number fits; {@link #report} may be asked at any time. Not for several threads at once.
 */
public final class DryRun {
  /** How many failing features are named for each rule; all are counted. */
  public static final int NAMED = 200;

  /** What a feature may come to. */
  public enum Kind {
    /** A firm check is broken, or the value is out of its question's limits. */
    FIRM("firm"),
    /** A soft check is broken. */
    SOFT("soft"),
    /** The answer would be empty though it is needed. */
    MISSING("missing"),
    /** The value does not fit the question, such as an old code that is not in its list. */
    MISFIT("does not fit");
    private final String id;

    Kind(String id) {
      this.id = id;
    }

    /** The word in data. */
    public String id() {
      return id;
    }
  }

  /**
   * One rule of one question.
   *
   * @param part {@link PointReason.Code#part}; of a check with its number, counted from 1
   */
  public record Part(String question, String part, Kind kind) {}

  /** How a rule fared: how many features failed it, and the first of them by id. */
  public record Failing(Part part, Said message, int count, List<String> features) {}

  /**
   * How the features fared so far.
   *
   * @param passed those that nothing would hold back; a soft check holds back until it is confirmed
   * @param failing by rule, in the order of their first failure
   */
  public record Report(int features, int passed, List<Failing> failing) {
    /** The JSON form. */
    public JsonObject json() {
      JsonArray a = new JsonArray();
      for (Failing f : failing) {
        JsonArray ids = new JsonArray();
        for (String id : f.features) ids.add(id);
        a.add(
            new JsonObject()
                .add("question", f.part.question)
                .add("part", f.part.part)
                .add("kind", f.part.kind.id)
                .add("message", f.message.json())
                .add("count", f.count)
                .add("features", ids));
      }
      return new JsonObject().add("features", features).add("passed", passed).add("failing", a);
    }
  }

  private static final class Tally {
    final Said message;
    final List<String> features = new ArrayList<>();
    int count;

    Tally(Said message) {
      this.message = message;
    }
  }

  private final ExecutableForm form;
  private final VisitStart start;
  private final Map<Part, Tally> tallies = new LinkedHashMap<>();
  private int features;
  private int passed;

  /** A dry run of a form; {@code start} gives the day, the look-up layers and the person. */
  public DryRun(ExecutableForm form, VisitStart start) {
    this.form = form;
    this.start = start;
  }

  /**
   * Runs the form over one more feature, of which no last visit is known; gives what that feature
   * failed, nothing when it passed.
   */
  public List<Part> add(Feature feature) {
    return add(feature, VisitStart.Last.NONE);
  }

  /** The same of a feature that was visited before. */
  public List<Part> add(Feature feature, VisitStart.Last last) {
    return add(feature.id(), Filling.open(form, start.on(feature, last)).points());
  }

  /**
   * Runs the form over a visit that came in, as it came; nothing is looked up again. What was open
   * when it came is passed over.
   *
   * @param begun with what the visit was begun
   * @param saved see {@link Filling#saved}
   * @param openThen the points as {@link Filling#result} told them; what can't be read there counts
   *     as none
   */
  public List<Part> addVisit(String id, VisitStart begun, JsonObject saved, JsonArray openThen) {
    return add(
        id,
        Filling.resume(form, begun, saved).points().stream()
            .filter(p -> !wasOpen(p.json(), openThen))
            .toList());
  }

  private static boolean wasOpen(JsonObject point, JsonArray then) {
    for (JsonValue v : then) {
      if (!v.isObject()) continue;
      boolean same = true;
      for (String member : new String[] {"question", "row", "kind", "code"})
        same &= Objects.equals(point.get(member), v.asObject().get(member));
      if (same) return true;
    }
    return false;
  }

  private List<Part> add(String id, List<OpenPoint> points) {
    List<Part> out = new ArrayList<>();
    for (OpenPoint p : points) {
      if (!p.kind().holdsBack()) continue;
      Part part = part(p);
      if (out.contains(part)) continue;
      out.add(part);
      Tally t = tallies.computeIfAbsent(part, x -> new Tally(p.message()));
      t.count++;
      if (t.features.size() < NAMED) t.features.add(id);
    }
    features++;
    if (out.isEmpty()) passed++;
    return out;
  }

  /** Which rule a point comes from. */
  private static Part part(OpenPoint p) {
    PointReason.Code code = p.reason().code();
    Kind kind = p.kind() == OpenPoint.Kind.FIRM ? Kind.FIRM : Kind.SOFT;
    if (p.reason() instanceof PointReason.Broken check)
      return new Part(p.question(), "check " + (check.number() + 1), kind);
    if (p.kind() == OpenPoint.Kind.NEEDED)
      return new Part(p.question(), PointReason.Code.NEEDED.part(), Kind.MISSING);
    return new Part(p.question(), code.part(), code.isMisfit() ? Kind.MISFIT : kind);
  }

  /** How the features fared so far. */
  public Report report() {
    List<Failing> failing = new ArrayList<>();
    tallies.forEach(
        (part, t) -> failing.add(new Failing(part, t.message, t.count, List.copyOf(t.features))));
    return new Report(features, passed, failing);
  }

  /**
   * The same features under two editions.
   *
   * @param better features that failed under the older one and pass under the newer, by id
   * @param worse features that passed under the older one and fail under the newer, by id
   * @param changed features that fail under both, but not the same rules
   */
  public record Difference(List<String> better, List<String> worse, List<String> changed) {}

  /** Compares two editions over features that come one by one. */
  public static final class Comparison {
    private final DryRun older;
    private final DryRun newer;
    private final List<String> better = new ArrayList<>();
    private final List<String> worse = new ArrayList<>();
    private final List<String> changed = new ArrayList<>();

    /** A comparison of two dry runs that have not begun. */
    public Comparison(DryRun older, DryRun newer) {
      this.older = older;
      this.newer = newer;
    }

    /** Runs both over one more feature; gives what it failed under the newer one. */
    public List<Part> add(Feature feature) {
      return add(feature, VisitStart.Last.NONE, VisitStart.Last.NONE);
    }

    /**
     * The same of a feature that was visited before; what the last visit answered, as each of the
     * two editions reads it.
     */
    public List<Part> add(Feature feature, VisitStart.Last lastOlder, VisitStart.Last lastNewer) {
      List<Part> before = older.add(feature, lastOlder);
      List<Part> now = newer.add(feature, lastNewer);
      Optional<List<String>> into =
          before.isEmpty() == now.isEmpty()
              ? before.equals(now) ? Optional.empty() : Optional.of(changed)
              : Optional.of(now.isEmpty() ? better : worse);
      into.ifPresent(l -> l.add(feature.id()));
      return now;
    }

    /** How they differ so far. */
    public Difference difference() {
      return new Difference(List.copyOf(better), List.copyOf(worse), List.copyOf(changed));
    }

    /** How the features fared under the older one. */
    public Report older() {
      return older.report();
    }

    /** How the features fared under the newer one. */
    public Report newer() {
      return newer.report();
    }
  }
}
