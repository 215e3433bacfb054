package org.whinridge.app.map;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.Durable;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.SaidColumn;
import org.whinridge.core.look.Colour;
import org.whinridge.core.said.Said;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.tiles.TilePictures;

/**
 * The basemaps of a project: the plain one that came with it, and those of picture tiles that were
 * brought in, each a file in the data folder under its id.
 */
@Service
public class Basemaps {
  /** The id of the project's own plain basemap. */
  public static final String PLAIN = "plain";

  /** The id of no basemap. */
  public static final String NONE = "none";

  /** The id of the outline of the world's lands, which lies under every other basemap. */
  public static final String OUTLINE = "outline";

  private static final Logger LOG = LoggerFactory.getLogger(Basemaps.class);
  private static final String PLAIN_GROUND = "#f1eddf,#dde3cf,#dfe7ea";
  private final BasemapRepository repository;
  private final Projects projects;
  private final Path folder;
  private final long limit;
  private final Map<UUID, TilePictures> open = new LinkedHashMap<>(16, 0.75f, true);

  Basemaps(
      BasemapRepository repository,
      Projects projects,
      DataFolder data,
      @Value("${whinridge.basemap-limit:4000000000}") long limit) {
    this.repository = repository;
    this.projects = projects;
    this.folder = data.folder("basemaps");
    this.limit = limit;
  }

  long limit() {
    return limit;
  }

  /**
   * A basemap as maps see it.
   *
   * @param id {@link #PLAIN}, {@link #NONE}, or a UUID
   * @param grid how its tiles lie, as JSON; empty for the first two
   * @param ground the colours that features must stand out from
   */
  public record Basemap(
      String id, String name, Optional<JsonObject> grid, List<String> ground, List<Said> notes) {}

  /**
   * A project's basemaps: plain where it has one, those brought in, the outline of the lands, and
   * none.
   */
  @Transactional(readOnly = true)
  public List<Basemap> list(UUID project) {
    List<Basemap> out = new ArrayList<>();
    if (projects.hasBasemap(project))
      out.add(
          new Basemap(
              PLAIN, "Plain", Optional.empty(), List.of(PLAIN_GROUND.split(",")), List.of()));
    for (BasemapEntity e : repository.findByProjectIdOrderByMadeAt(project))
      out.add(
          new Basemap(
              e.id.toString(),
              e.name,
              Optional.of(Json.parse(e.grid).asObject()),
              List.of(e.ground.split(",")),
              e.notes.isEmpty()
                  ? List.of()
                  : Stream.of(e.notes.split("\n")).map(SaidColumn::read).toList()));
    out.add(
        new Basemap(
            OUTLINE, "Outline", Optional.empty(), List.of("#f1eddf", "#dfe7ea"), List.of()));
    out.add(new Basemap(NONE, "None", Optional.empty(), List.of("#dfe7ea"), List.of()));
    return out;
  }

  /**
   * Takes in a file, which is linked or copied into the data folder and left where it is.
   *
   * @param id the basemap's id; taken in again under it, it stays one
   * @throws Refusal when it is no basemap, in words
   */
  @Transactional
  public Basemap add(UUID project, UUID id, String wanted, Path file, String person)
      throws IOException {
    if (repository.existsById(id)) return one(project, id);
    TilePictures t;
    try {
      t = TilePictures.open(file);
    } catch (FileProblem e) {
      throw Refusal.refused("refused.nothingWasKept", "why", Refusal.said(e));
    }
    BasemapEntity e = new BasemapEntity();
    e.id = id;
    e.projectId = project;
    e.name = free(project, wanted.isBlank() ? t.name() : wanted);
    e.grid = t.grid().json().toString();
    e.ground = ground(t);
    e.notes = String.join("\n", t.notes().stream().map(SaidColumn::written).toList());
    e.bytes = Files.size(file);
    e.madeAt = Instant.now().truncatedTo(ChronoUnit.MILLIS);
    e.madeBy = person;
    goesWithAFailure(e.id);
    Durable.keep(file, path(e.id));
    repository.save(e);
    return one(project, id);
  }

  private Basemap one(UUID project, UUID id) {
    return list(project).stream()
        .filter(b -> b.id().equals(id.toString()))
        .findFirst()
        .orElseThrow(() -> Refusal.notFound("thing.basemap"));
  }

  private Path path(UUID id) {
    return folder.resolve(id + ".tiles");
  }

  private String free(UUID project, String wanted) {
    String name = wanted.strip();
    if (name.isEmpty()) name = "Basemap";
    name = name.substring(0, Math.min(110, name.length()));
    String free = name;
    for (int n = 2; repository.existsByProjectIdAndName(project, free); n++)
      free = name + " (" + n + ")";
    return free;
  }

  /** The commonest colours of a tile in the middle, at most three. */
  private static String ground(TilePictures t) {
    double[] e = t.grid().extent();
    int level = (t.grid().least() + t.grid().perPixel().length - 1) / 2;
    int[] at = t.grid().at(level, (e[0] + e[2]) / 2, (e[1] + e[3]) / 2);
    try {
      Optional<byte[]> b = t.tile(level, at[0], at[1]);
      BufferedImage i = b.isEmpty() ? null : ImageIO.read(new ByteArrayInputStream(b.get()));
      return i == null ? "#ffffff" : commonest(i);
    } catch (FileProblem | IOException x) {
      return "#ffffff"; // a tile that can't be drawn; only a warning about colours depends on it
    }
  }

  private static String commonest(BufferedImage i) {
    Map<Integer, Integer> n = new LinkedHashMap<>();
    for (int y = 0; y < i.getHeight(); y += 4)
      for (int x = 0; x < i.getWidth(); x += 4) n.merge(i.getRGB(x, y) & 0xf0f0f0, 1, Integer::sum);
    return n.entrySet().stream()
        .sorted((a, b) -> b.getValue() - a.getValue())
        .limit(3)
        .map(x -> x.getKey() | 0x080808)
        .map(c -> new Colour(c >> 16 & 255, c >> 8 & 255, c & 255).hex())
        .reduce((a, b) -> a + "," + b)
        .orElse("#ffffff");
  }

  /** A tile of a project's basemap; empty where there is none. */
  public Optional<byte[]> tile(UUID project, UUID id, int level, int column, int row) {
    try {
      return pictures(project, id).tile(level, column, row);
    } catch (FileProblem e) {
      throw Refusal.refused("refused.basemapsFileCantBe", "why", Refusal.said(e));
    }
  }

  /** The tiles of a project's basemap, for whoever takes many. */
  public TilePictures pictures(UUID project, UUID id) throws FileProblem {
    repository
        .findByIdAndProjectId(id, project)
        .orElseThrow(() -> Refusal.notFound("thing.basemap"));
    synchronized (open) {
      TilePictures t = open.get(id);
      if (t == null) {
        t = TilePictures.open(path(id));
        open.put(id, t);
      }
      return t;
    }
  }

  /** Copies a basemap, its file too, into another project; gives the copy's id. */
  @Transactional
  public UUID copy(UUID project, UUID id, UUID to, String person) throws IOException {
    BasemapEntity from =
        repository
            .findByIdAndProjectId(id, project)
            .orElseThrow(() -> Refusal.notFound("thing.basemap"));
    BasemapEntity e = new BasemapEntity();
    e.id = UUID.randomUUID();
    e.projectId = to;
    e.name = free(to, from.name);
    e.grid = from.grid;
    e.ground = from.ground;
    e.notes = from.notes;
    e.bytes = from.bytes;
    e.madeAt = Instant.now().truncatedTo(ChronoUnit.MILLIS);
    e.madeBy = person;
    copyFile(id, e.id);
    repository.save(e);
    return e.id;
  }

  /** The file of a basemap serves another one too; it goes again if the transaction fails. */
  public void copyFile(UUID from, UUID to) throws IOException {
    goesWithAFailure(to);
    Durable.keep(path(from), path(to));
  }

  private void goesWithAFailure(UUID id) {
    if (!TransactionSynchronizationManager.isSynchronizationActive()) return;
    TransactionSynchronizationManager.registerSynchronization(
        new TransactionSynchronization() {
          @Override
          public void afterCompletion(int status) {
            if (status == STATUS_COMMITTED) return;
            try {
              forgetFile(id);
            } catch (IOException e) {
              LOG.warn("the file of the basemap {} could not be taken away", id, e);
            }
          }
        });
  }

  /** A basemap is gone with its project: its file goes. */
  public void forgetFile(UUID id) throws IOException {
    synchronized (open) {
      open.remove(id);
    }
    Files.deleteIfExists(path(id));
  }

  /** Takes a basemap away, its file too; maps that showed it show the plain one. */
  @Transactional
  public void remove(UUID project, UUID id) throws IOException {
    repository.delete(
        repository
            .findByIdAndProjectId(id, project)
            .orElseThrow(() -> Refusal.notFound("thing.basemap")));
    repository.flush();
    forgetFile(id);
  }
}
