package org.whinridge.demo;

import com.eclipsesource.json.JsonObject;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.locationtech.jts.linearref.LengthIndexedLine;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.visit.Filling;
import org.whinridge.core.visit.OpenPoint;
import org.whinridge.core.visit.VisitStart;

/**
 * Two years of past visits: each is filled as a person would fill it, by the form's own rules, with
 * the answers of a seeded chance. What still is open at the end is answered or confirmed.
 */
public final class OstreyVisits {
  private final ExecutableForm form;
  private final Map<String, PlaceIndex> lookups;
  private final Random r;

  /** Visits with a form; the layers that its look-ups ask stand beside it, by id. */
  public OstreyVisits(ExecutableForm form, Map<String, PlaceIndex> lookups) {
    this.form = form;
    this.lookups = lookups;
    this.r = new Random(Ostrey.SEED + form.form().title().hashCode());
  }

  /**
   * A visit that somebody made.
   *
   * @param start with what it was begun, see {@link VisitStart#read}
   * @param saved see {@link Filling#saved}
   * @param result see {@link Filling#result}
   */
  public record Made(
      Feature feature,
      String person,
      Instant startedAt,
      Instant endedAt,
      JsonObject start,
      JsonObject saved,
      JsonObject result) {}

  /**
   * The visits of a layer's features, the oldest first: each year at a time of its own.
   *
   * @param today the day after the last visit
   * @param aYear how often each feature is visited a year
   */
  public List<Made> of(List<Feature> features, LocalDate today, int aYear, List<String> people) {
    List<Made> out = new ArrayList<>();
    Map<String, JsonObject> last = new LinkedHashMap<>();
    int times = 2 * aYear;
    for (int t = 0; t < times; t++)
      for (int i = 0; i < features.size(); i++) {
        // the last time is not over: some were not visited yet
        if (t == times - 1 && r.nextInt(5) == 0) continue;
        int daysAgo = (times - t) * 365 / aYear - 300 / aYear * i / features.size();
        LocalDate day = today.minusDays(Math.max(2, daysAgo - 30 / aYear));
        Made m = visit(features.get(i), day, people.get(i % people.size()), last);
        out.add(m);
      }
    return out;
  }

  private Made visit(
      Feature feature, LocalDate day, String person, Map<String, JsonObject> lastVisits) {
    Instant at =
        day.atTime(LocalTime.of(8 + r.nextInt(8), r.nextInt(60))).toInstant(ZoneOffset.UTC);
    JsonObject start =
        new JsonObject()
            .add("person", person)
            .add("device", "the board's phone")
            .add("startedAt", at.toString())
            .add("offset", 0)
            .add("edition", 1);
    JsonObject last = lastVisits.get(feature.id());
    if (last != null) last.forEach(m -> start.add(m.getName(), m.getValue()));
    Filling f =
        Filling.open(
            form,
            VisitStart.read(
                start,
                Optional.of(feature),
                lookups,
                Optional.of(CoordinateSystem.utmNorth(29)),
                form));
    fill(f, feature);
    mend(f);
    JsonObject result = f.result();
    lastVisits.put(
        feature.id(), new JsonObject().add("last", answers(f)).add("lastDay", day.toString()));
    return new Made(
        feature, person, at, at.plusSeconds(240 + r.nextInt(1800)), start, f.saved(), result);
  }

  /** What the next visit learns of this one. */
  private JsonObject answers(Filling f) {
    JsonObject out = new JsonObject();
    f.saved()
        .get("answers")
        .asObject()
        .forEach(m -> out.add(m.getName(), m.getValue().asObject().get("value")));
    JsonObject kept = f.result().get("kept").asObject();
    for (ExecutableForm.ListPart l : form.lists())
      if (kept.get(l.name()) != null) out.add(l.name(), kept.get(l.name()));
    return out;
  }

  private void fill(Filling f, Feature feature) {
    int n = 0;
    for (Section s : form.form().sections()) {
      f.confirmSection(n++);
      if (!s.isList()) {
        for (Question q : s.questions()) answer(f, q, "", feature);
        continue;
      }
      for (String row : f.rows(s.name()))
        f.markRow(row, new String[] {"still there", "still there", "mended"}[r.nextInt(3)]);
      int more = found(feature);
      for (int k = 0; k < more; k++) {
        String row = "r" + Long.toString(r.nextLong() & Long.MAX_VALUE, 36);
        if (!f.addRow(s.name(), row)) break;
        for (Question q : s.questions()) answer(f, q, row, feature);
      }
    }
    parts(f);
  }

  /** On a length there is often something, at a point seldom. */
  private int found(Feature feature) {
    boolean point = feature.geometry().filter(g -> g.getDimension() == 0).isPresent();
    return point ? Math.max(0, r.nextInt(15) - 13) : Math.max(0, r.nextInt(5) - 2);
  }

  /** Answers what nobody has: files stay out, and now and then something is left. */
  private void answer(Filling f, Question q, String row, Feature feature) {
    if (!f.isAsked(q.name(), row) || !f.value(q.name(), row).isEmpty()) return;
    boolean left = r.nextInt(6) == 0 && q.need() != Question.Need.NEEDED;
    if (left) return;
    Value v = chance(q, feature);
    if (!v.isEmpty()) f.set(q.name(), row, v);
  }

  private Value chance(Question q, Feature feature) {
    double from = q.limits().from().orElse(0);
    double to = Math.min(q.limits().to().orElse(from + 40), from + 40);
    List<Code> codes = q.codes().stream().filter(c -> !c.retired()).toList();
    return switch (q.type()) {
      case WHOLE -> Value.of(Math.floor(from + low() * (to - from)));
      case COUNTER -> Value.of(Math.floor(from + low() * 6));
      case DECIMAL -> Value.of(from + low() * Math.min(9, to - from));
      case YES_NO -> Value.of(r.nextInt(3) == 0);
      case CHOICE, GRADE ->
          ValueJson.readText(
              codes
                  .get(
                      q.type() == QuestionType.GRADE
                          ? (int) (low() * codes.size())
                          : r.nextInt(codes.size()))
                  .code(),
              q.valueType(form.schema()));
      case CHOICES -> Value.many(List.of(Value.text(codes.get(r.nextInt(codes.size())).code())));
      case POINT -> onIt(feature);
      case LONG_TEXT, TEXT ->
          r.nextInt(4) == 0
              ? Value.text(
                  new String[] {"reeds cut back", "soft after rain", "gate mended", "as last time"}
                      [r.nextInt(4)])
              : Value.EMPTY;
      default -> Value.EMPTY;
    };
  }

  /** Between 0 and 1, more often low: most things are in order. */
  private double low() {
    return r.nextDouble() * r.nextDouble();
  }

  private Value onIt(Feature feature) {
    if (feature.geometry().isEmpty()) return Value.EMPTY;
    LengthIndexedLine line = new LengthIndexedLine(feature.geometry().get());
    return new Value.Place(
        GeometryJson.WGS84.createPoint(line.extractPoint(line.getEndIndex() * r.nextDouble())));
  }

  /** Covers are shares of one whole: the first takes what the others leave. */
  private void parts(Filling f) {
    List<String> parts =
        form.form().questions().stream()
            .map(Question::name)
            .filter(n -> n.startsWith("cover_") && !n.equals("cover_total"))
            .toList();
    if (parts.isEmpty()) return;
    int rest = 100;
    for (int k = 1; k < parts.size(); k++) {
      int share = 5 * r.nextInt(rest / 15 + 1);
      f.set(parts.get(k), Value.of(share));
      rest -= share;
    }
    f.set(parts.get(0), Value.of(rest));
  }

  /** What is open at the end: needed answers are given, what is only asked about is confirmed. */
  private void mend(Filling f) {
    for (int again = 0; again < 40 && !f.isComplete(); again++)
      for (OpenPoint p : f.points()) {
        Optional<Question> q = form.form().question(p.question());
        if (p.kind() == OpenPoint.Kind.SOFT) f.confirmSoft(p.key());
        else if (p.kind() == OpenPoint.Kind.NEEDED && q.isPresent())
          f.set(
              p.question(),
              p.row(),
              chance(q.get(), new Feature("", Optional.empty(), Map.of(), 0)));
        else if (p.kind() == OpenPoint.Kind.FIRM
            && q.isPresent()
            && q.get().type() != QuestionType.PHOTO) f.set(p.question(), p.row(), Value.EMPTY);
      }
  }
}
