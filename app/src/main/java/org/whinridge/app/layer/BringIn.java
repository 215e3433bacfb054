package org.whinridge.app.layer;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.locationtech.jts.geom.Envelope;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.util.FileSystemUtils;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.JobProblem;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.GeometryKind;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.profile.TypeGuess;
import org.whinridge.core.value.Value;
import org.whinridge.formats.FileProblem;
import org.whinridge.formats.GeoJsonReader;

/**
 * Bringing a file in: kept aside, reported, then imported whole. What is not imported within a day
 * is dropped.
 */
@Service
public class BringIn {
  private static final Logger LOG = LoggerFactory.getLogger(BringIn.class);
  private static final Duration KEPT = Duration.ofHours(24);
  private static final int MOST_COLUMNS = 500;
  private final Path folder;
  private final LayerMaking making;

  BringIn(DataFolder data, LayerMaking making) {
    this.folder = data.folder("incoming");
    this.making = making;
  }

  /** What was decided about one column: taken or skipped, under which label and type. */
  public record Decision(String source, boolean take, String label, String type) {}

  /** The result of an import. */
  public record Imported(UUID layer, int count, List<String> notes) {}

  /**
   * Keeps an uploaded file aside and reads it once; the file is dropped again when it can't be
   * read.
   */
  public UUID stage(String fileName, InputStream content) throws IOException {
    UUID id = UUID.randomUUID();
    Path home = Files.createDirectories(folder.resolve(id.toString()));
    try {
      Files.copy(content, home.resolve("file"));
      Files.writeString(home.resolve("name"), shortName(fileName));
      report(id);
      return id;
    } catch (JobProblem | IOException e) {
      FileSystemUtils.deleteRecursively(home);
      throw e;
    }
  }

  /** The last part of a name, at most 120 characters; it is shown, never used as a path. */
  private static String shortName(String name) {
    String s = name == null ? "" : name.replaceAll(".*[/\\\\]", "").replaceAll("\\p{Cntrl}", "");
    return s.isBlank() ? "file" : s.substring(0, Math.min(120, s.length()));
  }

  private Path home(UUID id) {
    Path home = folder.resolve(id.toString());
    if (!Files.exists(home.resolve("file")))
      throw JobProblem.notFound("file waiting to be imported");
    return home;
  }

  /** Reads the file and says what it holds. */
  public BringInReport report(UUID id) throws IOException {
    Path home = home(id);
    Map<String, Column> columns = new LinkedHashMap<>();
    Map<GeometryKind, Integer> kinds = new EnumMap<>(GeometryKind.class);
    Envelope extent = new Envelope();
    int count;
    try (InputStream in = Files.newInputStream(home.resolve("file"))) {
      count =
          GeoJsonReader.read(
              in,
              f -> {
                f.geometry()
                    .ifPresent(
                        g -> {
                          GeometryKind.of(g).ifPresent(k -> kinds.merge(k, 1, Integer::sum));
                          extent.expandToInclude(g.getEnvelopeInternal());
                        });
                for (Map.Entry<String, Value> p : f.properties().entrySet()) {
                  if (!columns.containsKey(p.getKey()) && columns.size() >= MOST_COLUMNS)
                    throw new FileProblem(
                        "The features have more than "
                            + MOST_COLUMNS
                            + " different properties between them; feature "
                            + f.number()
                            + " brings one more.");
                  columns.computeIfAbsent(p.getKey(), k -> new Column()).see(p.getValue());
                }
              });
    } catch (FileProblem e) {
      throw JobProblem.refused(e.getMessage() + " Nothing was kept of this file.");
    }
    if (kinds.isEmpty())
      throw JobProblem.refused(
          "None of the " + count + " features has a place. Nothing was kept of this file.");
    if (kinds.size() > 1)
      throw JobProblem.refused(
          "The file mixes kinds of geometry: "
              + kinds.entrySet().stream()
                  .map(k -> k.getValue() + " × " + k.getKey().id())
                  .collect(Collectors.joining(", "))
              + ". A layer has one kind. Save each kind in a file of its own; nothing was kept of this one.");
    GeometryKind kind = kinds.keySet().iterator().next();
    return new BringInReport(
        Files.readString(home.resolve("name")),
        Files.size(home.resolve("file")),
        count,
        kind,
        count - kinds.get(kind),
        Optional.of(extent),
        describe(columns, count));
  }

  private static List<BringInReport.Column> describe(Map<String, Column> columns, int count) {
    List<BringInReport.Column> out = new ArrayList<>();
    LinkedHashSet<String> names = new LinkedHashSet<>();
    columns.forEach(
        (source, c) -> {
          String name = Field.nameFrom(source);
          for (int i = 2; !names.add(name); i++) name = Field.nameFrom(source) + "_" + i;
          TypeGuess.Guess g = c.guess.guess();
          out.add(
              new BringInReport.Column(
                  source,
                  Field.of(name, label(source), g.type()).with(readable(g.codes())),
                  g.evidence(),
                  g.filled(),
                  List.copyOf(c.samples)));
        });
    return out;
  }

  /** Codes that look like names in a program get a readable label; others are their own label. */
  private static List<org.whinridge.core.layer.Code> readable(
      List<org.whinridge.core.layer.Code> codes) {
    return codes.stream()
        .map(
            c ->
                c.code().matches("[a-z][a-z0-9_]*")
                    ? org.whinridge.core.layer.Code.of(c.code(), label(c.code()))
                    : c)
        .toList();
  }

  /** A readable label for a property: "silt_depth" gives "Silt depth". */
  private static String label(String source) {
    String s = source.replace('_', ' ').strip();
    return s.isEmpty()
        ? "Field"
        : s.substring(0, 1).toUpperCase(java.util.Locale.ROOT)
            + s.substring(1, Math.min(80, s.length()));
  }

  private static final class Column {
    final TypeGuess guess = new TypeGuess();
    final LinkedHashSet<String> samples = new LinkedHashSet<>();

    void see(Value v) {
      guess.see(v);
      if (!v.isEmpty() && samples.size() < 3)
        samples.add(v.plain().substring(0, Math.min(30, v.plain().length())));
    }
  }

  /** Imports a file that was kept aside as a new layer: whole, or not at all. */
  public Imported importAs(
      UUID id, UUID project, String name, List<Decision> decisions, String person)
      throws IOException {
    BringInReport report = report(id);
    Map<String, Field> fields = new LinkedHashMap<>();
    for (BringInReport.Column c : report.columns())
      decided(c, decisions).ifPresent(f -> fields.put(c.source(), f));
    Schema schema =
        new Schema(report.kind(), List.copyOf(fields.values()), tag(fields), captions(fields));
    Map<String, String> misfits = new LinkedHashMap<>();
    Map<String, Integer> misfitCounts = new LinkedHashMap<>();
    try (InputStream in = Files.newInputStream(home(id).resolve("file"))) {
      UUID layer =
          making.make(
              project,
              name,
              schema,
              "import of " + report.fileName(),
              person,
              take ->
                  GeoJsonReader.read(
                      in,
                      raw -> {
                        Map<String, Value> values = new LinkedHashMap<>();
                        raw.properties()
                            .forEach(
                                (source, v) -> {
                                  Field f = fields.get(source);
                                  if (f == null || v.isEmpty()) return;
                                  Value fitted = f.fit(v);
                                  values.put(f.name(), fitted);
                                  if (!f.holds(fitted)) {
                                    misfitCounts.merge(f.label(), 1, Integer::sum);
                                    misfits.putIfAbsent(
                                        f.label(),
                                        "feature "
                                            + raw.number()
                                            + " has “"
                                            + fitted.plain()
                                            + "”, which is not a "
                                            + f.type().said());
                                  }
                                });
                        take.accept(
                            new Feature(UUID.randomUUID().toString(), raw.geometry(), values, 1));
                      }));
      FileSystemUtils.deleteRecursively(home(id));
      List<String> notes = new ArrayList<>();
      misfits.forEach(
          (label, first) ->
              notes.add(
                  label
                      + ": "
                      + misfitCounts.get(label)
                      + " value"
                      + (misfitCounts.get(label) == 1 ? "" : "s")
                      + " kept as text; "
                      + first
                      + "."));
      return new Imported(layer, report.count(), notes);
    } catch (FileProblem e) {
      throw JobProblem.refused(e.getMessage() + " Nothing was imported.");
    } catch (JobProblem | IOException e) {
      throw e;
    } catch (Exception e) {
      throw new IllegalStateException("import failed, nothing was kept", e);
    }
  }

  private static Optional<Field> decided(BringInReport.Column c, List<Decision> decisions) {
    Decision d =
        decisions.stream()
            .filter(x -> x.source().equals(c.source()))
            .findFirst()
            .orElse(new Decision(c.source(), true, c.field().label(), c.field().type().id()));
    if (!d.take()) return Optional.empty();
    var type = org.whinridge.core.layer.FieldType.of(d.type()).orElse(c.field().type());
    Field f =
        Field.of(
            c.field().name(), d.label().isBlank() ? c.field().label() : d.label().strip(), type);
    return Optional.of(type == c.field().type() ? f.with(c.field().codes()) : f);
  }

  private static String tag(Map<String, Field> fields) {
    return fields.values().stream()
        .map(Field::name)
        .filter(n -> List.of("tag", "ref", "asset_id", "code", "barcode").contains(n))
        .findFirst()
        .orElse("");
  }

  private static List<String> captions(Map<String, Field> fields) {
    List<String> likely =
        List.of("tag", "ref", "asset_id", "name", "title", "kind", "beat", "code");
    List<String> out =
        likely.stream()
            .filter(n -> fields.values().stream().anyMatch(f -> f.name().equals(n)))
            .limit(2)
            .toList();
    return !out.isEmpty() || fields.isEmpty()
        ? out
        : List.of(fields.values().iterator().next().name());
  }

  /** Drops files that nobody imported within a day. */
  @Scheduled(initialDelay = 60_000, fixedDelay = 3_600_000)
  void sweep() throws IOException {
    try (var all = Files.list(folder)) {
      for (Path p : all.toList())
        if (Files.getLastModifiedTime(p).toInstant().isBefore(Instant.now().minus(KEPT))) {
          FileSystemUtils.deleteRecursively(p);
          LOG.info("dropped a file that was never imported: {}", p.getFileName());
        }
    }
  }
}
