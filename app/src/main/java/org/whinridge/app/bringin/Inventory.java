package org.whinridge.app.bringin;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.Jobs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.profile.PlaceColumns;
import org.whinridge.core.profile.Survey;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Fold;
import org.whinridge.formats.Sources;
import org.whinridge.formats.file.FileNames;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.source.Described;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Shapes;
import org.whinridge.formats.source.Source;

/** Looks through all files of a lot. */
@Component
class Inventory {
  private static final int SAMPLE = 300;
  private static final long SAMPLE_POINTS = 200_000;
  private static final int BROKEN = 50;
  private final Incoming incoming;
  private final List<String> words;

  /** {@code words}: those of the house, from which labels that were cut are completed. */
  Inventory(Incoming incoming, @Value("${whinridge.label-words:}") List<String> words) {
    this.incoming = incoming;
    this.words = words.stream().map(Fold::lower).toList();
  }

  Found take(Path home, Jobs.Job job) throws IOException {
    List<Sources.Brought> files = incoming.files(home);
    job.now(Said.of("job.opening", "n", files.size()), -1);
    Sources.Opened opened = Sources.open(files, incoming.scratch(home), incoming.tables(home));
    List<Found.Part> parts = new ArrayList<>();
    List<Sources.NotUnderstood> not = new ArrayList<>(opened.notUnderstood());
    for (Source s : opened.sources())
      for (Source.SourceLayer l : s.layers())
        try {
          one(s, l, job, parts);
        } catch (FileProblem e) {
          not.add(new Sources.NotUnderstood(where(s, l), e.said()));
        } catch (java.io.EOFException e) {
          not.add(new Sources.NotUnderstood(where(s, l), Said.of("told.fileEndsTooEarly")));
        }
    return new Found(List.copyOf(parts), List.copyOf(not));
  }

  private static String where(Source s, Source.SourceLayer l) {
    return s.layers().size() > 1 ? s.name() + ", " + l.name() : s.name();
  }

  private void one(Source s, Source.SourceLayer l, Jobs.Job job, List<Found.Part> parts)
      throws FileProblem, IOException {
    job.now(Said.of("job.reading", "name", l.name()), l.expected());
    Survey survey = new Survey();
    List<RawFeature> sample = new ArrayList<>();
    int[] pictures = {0};
    int[] broken = {0};
    long[] points = {0};
    each(
        s,
        l,
        job,
        f -> {
          try {
            survey.see(
                f.number(),
                f.geometry().map(Shapes::byKind).orElse(Map.of()),
                f.properties(),
                f.problem());
          } catch (IllegalArgumentException e) {
            throw new FileProblem(Refusal.said(e)).because(e);
          }
          pictures[0] += f.pictures().size();
          points[0] += f.geometry().map(Geometry::getNumPoints).orElse(1);
          boolean crosses = survey.selfCrossing() > broken[0];
          if (sample.size() < SAMPLE && points[0] < SAMPLE_POINTS || crosses && broken[0] < BROKEN)
            sample.add(f);
          broken[0] = survey.selfCrossing();
        });
    List<Survey.Column> columns =
        l.described()
            .map(d -> described(survey.columns(words), d))
            .orElseGet(() -> survey.columns(words));
    Optional<PlaceColumns> places = l.table() ? survey.places() : Optional.empty();
    Map<GeometryKind, Integer> kinds = new LinkedHashMap<>(survey.kinds());
    if (kinds.isEmpty()) kinds.put(GeometryKind.TABLE, survey.count());
    boolean mixed = kinds.size() > 1;
    if (mixed && survey.withoutPlace() > 0) kinds.put(GeometryKind.TABLE, survey.withoutPlace());
    kinds.forEach(
        (kind, n) -> {
          String title = FileNames.title(l.name());
          if (mixed) title += kind == GeometryKind.TABLE ? " without a place" : " " + plural(kind);
          parts.add(
              new Found.Part(
                  parts.size(),
                  s,
                  l,
                  kind,
                  title,
                  mixed ? n : survey.count(),
                  survey,
                  columns,
                  places,
                  List.copyOf(sample),
                  pictures[0]));
        });
  }

  /** Reads a layer within a job: a reader that waits for something hears of its end. */
  static void each(Source s, Source.SourceLayer l, Jobs.Job job, Source.Sink sink)
      throws FileProblem, IOException {
    s.each(
        l,
        new Source.Sink() {
          @Override
          public void take(RawFeature f) throws FileProblem {
            job.step();
            sink.take(f);
          }

          @Override
          public boolean isOver() {
            return job.isCancelled();
          }

          @Override
          public void over() {
            job.goOn();
          }
        });
  }

  /** Columns as the file itself describes them; their values are read as guessed. */
  private static List<Survey.Column> described(List<Survey.Column> columns, Described d) {
    return columns.stream()
        .map(
            c ->
                d.field(c.field().name())
                    .map(f -> c.with(f.type() == FieldType.TEXT ? f.as(c.field().type()) : f))
                    .orElse(c))
        .toList();
  }

  private static String plural(GeometryKind k) {
    return k.id() + "s";
  }
}
