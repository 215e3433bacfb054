package org.whinridge.app.bringin;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.util.MultiValueMap;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerChanges;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.shell.Jobs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.SaidColumn;
import org.whinridge.core.said.Said;
import org.whinridge.formats.crs.CoordinateSystems;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.source.TableReading;

/**
 * A lot of files on its way: uploaded, looked through, decided, imported. What was found is kept in
 * memory and found again from the files after the server was started anew; of an import that was
 * under way then nothing is seen: its layers stay hidden until whole, and are swept at the start.
 */
@Service
class BringIn {
  private static final String IMPORTING = "importing";
  private final Incoming incoming;
  private final Inventory inventory;
  private final Importing importing;
  private final Updating updating;
  private final VisitImport visitImport;
  private final Layers layers;
  private final LayerChanges changes;
  private final PastVisits visits;
  private final Jobs jobs;
  private final Map<UUID, Lot> lots = new ConcurrentHashMap<>();

  BringIn(
      Incoming incoming,
      Inventory inventory,
      Importing importing,
      Updating updating,
      VisitImport visitImport,
      Layers layers,
      LayerChanges changes,
      PastVisits visits,
      Jobs jobs) {
    this.incoming = incoming;
    this.inventory = inventory;
    this.importing = importing;
    this.updating = updating;
    this.visitImport = visitImport;
    this.layers = layers;
    this.changes = changes;
    this.visits = visits;
    this.jobs = jobs;
  }

  /** What is known of a lot. */
  static final class Lot {
    volatile Found found;
    volatile List<Choice> choices = List.of();
    volatile List<Updating.Plan> plans = List.of();
    volatile Map<UUID, Long> planned = Map.of();
    volatile List<Importing.Outcome> outcomes = List.of();
    volatile Said problem = Said.NONE;

    /** Whether a file arrived since the others were looked through. */
    volatile boolean more;

    public Found found() {
      return found;
    }

    public List<Updating.Plan> plans() {
      return plans;
    }

    public List<Importing.Outcome> outcomes() {
      return outcomes;
    }
  }

  /** Where a lot stands: inventory, found, planned, importing, done, or gone. */
  record Standing(String stage, Lot lot, Optional<Jobs.Job> job, Said problem) {}

  /** Opens the dataset of coordinate systems, so that the first file does not wait for it. */
  @EventListener(ApplicationReadyEvent.class)
  void openSystems() {
    Thread t = new Thread(CoordinateSystems::open, "systems");
    t.setDaemon(true);
    t.setPriority(Thread.MIN_PRIORITY);
    t.start();
  }

  /** Forgets what was found in lots whose files are gone. */
  @Scheduled(fixedDelay = 3_600_000)
  void sweep() {
    lots.keySet().removeIf(id -> !incoming.isThere(id));
  }

  UUID begin(UUID project, String person) throws IOException {
    return incoming.begin(project, person);
  }

  long limit() {
    return incoming.limit();
  }

  void add(UUID project, UUID id, String name, UUID upload, Path file) throws IOException {
    incoming.add(incoming.home(project, id), name, upload, file);
    takeAgain(id);
  }

  void add(UUID project, UUID id, String name, InputStream in) throws IOException {
    incoming.add(incoming.home(project, id), name, in);
    takeAgain(id);
  }

  /** A file that arrives after the others were looked through is looked at with them. */
  private void takeAgain(UUID id) {
    Lot lot = lots.get(id);
    if (lot != null) lot.more = true;
  }

  /** Checks that a lot belongs to the project. */
  void check(UUID project, UUID id) {
    incoming.home(project, id);
  }

  /** Looks through the files, in the background. */
  void takeInventory(UUID project, UUID id) throws IOException {
    Path home = incoming.home(project, id);
    // an upload may still be under way: what came of it so far is kept
    if (incoming.files(home).isEmpty()) throw Refusal.refused("refused.noFileTheseArrived");
    Lot lot = new Lot();
    lots.put(id, lot);
    jobs.forget(id);
    jobs.start(
        id,
        incoming.size(incoming.home(project, id)),
        job -> {
          lot.found = inventory.take(home, job);
          return lot.found;
        });
  }

  /** Looks through the files anew, a table read as somebody said. */
  void readAs(UUID project, UUID id, int part, TableReading how) throws IOException {
    Lot lot = found(project, id);
    if (part < 0 || part >= lot.found.parts().size())
      throw Refusal.notFound("thing.tableInTheseFiles");
    incoming.readAs(incoming.home(project, id), lot.found.parts().get(part).source().name(), how);
    takeInventory(project, id);
  }

  /** Where the lot stands; begins to look again when the server was started anew since. */
  Standing standing(UUID project, UUID id) throws IOException {
    Path home = incoming.home(project, id);
    Lot lot = lots.get(id);
    if (lot == null) {
      String marked = incoming.marked(home);
      if (marked.startsWith("done"))
        return new Standing(
            "gone", new Lot(), Optional.empty(), SaidColumn.read(marked.substring(4).strip()));
      takeInventory(project, id);
      lot = lots.get(id);
      if (marked.equals(IMPORTING)) lot.problem = Said.of("told.serverStopped");
      incoming.mark(home, "");
    }
    if (lot.more && lot.choices.isEmpty() && jobs.find(id).filter(j -> !j.isOver()).isEmpty()) {
      takeInventory(project, id);
      lot = lots.get(id);
    }
    Optional<Jobs.Job> job = jobs.find(id);
    Said problem = lot.problem;
    if (job.isPresent() && job.get().isOver()) {
      if (job.get().state().equals("failed")) problem = job.get().message();
      if (job.get().state().equals("cancelled"))
        problem = Said.of("told.cancelledNothingWasImported");
    }
    boolean running = job.filter(j -> !j.isOver()).isPresent();
    String stage =
        running
            ? "running"
            : !lot.outcomes.isEmpty()
                ? "done"
                : !lot.plans.isEmpty() ? "planned" : lot.found != null ? "found" : "failed";
    return new Standing(stage, lot, job, problem);
  }

  private Lot found(UUID project, UUID id) throws IOException {
    Standing s = standing(project, id);
    if (s.lot().found == null) throw Refusal.conflict("refused.theseFilesStillBeing");
    return s.lot();
  }

  /** Imports what was decided; updates are planned first, and written by {@link #confirm}. */
  void decide(UUID project, UUID id, MultiValueMap<String, String> form, String person)
      throws IOException {
    Lot lot = found(project, id);
    List<Choice> choices = Choice.read(lot.found, form);
    importing.check(choices, project);
    lot.choices = choices;
    lot.problem = Said.NONE;
    lot.plans = List.of();
    if (choices.stream().noneMatch(c -> c.target().equals("update"))) {
      carryOut(project, id, lot, person);
      return;
    }
    jobs.forget(id);
    jobs.start(
        id,
        incoming.size(incoming.home(project, id)),
        job -> {
          List<Updating.Plan> plans = new ArrayList<>();
          for (Choice c : choices)
            if (c.target().equals("update"))
              plans.add(
                  said(() -> updating.plan(c, layers.get(project, c.into().orElseThrow()), job)));
          lot.plans = plans;
          return plans;
        });
  }

  /** Carries out what was planned. */
  void confirm(UUID project, UUID id, String person) throws IOException {
    Lot lot = found(project, id);
    if (lot.plans.isEmpty()) throw Refusal.conflict("refused.nothingPlannedTheseFiles");
    Map<UUID, Long> planned = new LinkedHashMap<>();
    lot.plans.forEach(p -> planned.put(p.layer(), p.revision()));
    lot.planned = planned;
    lot.plans = List.of();
    carryOut(project, id, lot, person);
  }

  /** Goes back from a plan to the decisions. */
  void reconsider(UUID project, UUID id) throws IOException {
    found(project, id).plans = List.of();
  }

  private void carryOut(UUID project, UUID id, Lot lot, String person) throws IOException {
    Path home = incoming.home(project, id);
    incoming.mark(home, IMPORTING);
    jobs.forget(id);
    jobs.start(
        id,
        incoming.size(incoming.home(project, id)),
        job -> {
          try {
            List<Importing.Outcome> out = new ArrayList<>();
            for (Choice c : lot.choices) out.add(one(project, c, lot, person, job, out));
            lot.outcomes = out;
            incoming.mark(
                home,
                "done "
                    + SaidColumn.written(
                        Said.row(
                            out.stream()
                                .map(
                                    o ->
                                        Said.of(
                                            "told.layerAndWhat",
                                            "layer",
                                            o.layerName(),
                                            "what",
                                            o.said()))
                                .toList(),
                            "list.also",
                            "list.also")));
            incoming.dropFiles(home);
            return out;
          } catch (Exception | OutOfMemoryError e) {
            incoming.mark(home, "");
            throw e;
          }
        });
  }

  /** One part of several; when it fails, those before it are taken back: all or nothing. */
  private Importing.Outcome one(
      UUID project, Choice c, Lot lot, String person, Jobs.Job job, List<Importing.Outcome> before)
      throws Exception {
    try {
      return said(
          () ->
              switch (c.target()) {
                case "update" -> updating.update(c, planned(lot, project, c, before), person, job);
                case "visits" ->
                    visitImport.asVisits(
                        c, layers.get(project, c.into().orElseThrow()), person, job);
                default -> importing.asNewLayer(c, project, person, job);
              });
    } catch (Exception | OutOfMemoryError e) {
      for (Importing.Outcome o : before) o.act().ifPresent(a -> undo(o, a, person));
      throw e;
    }
  }

  /**
   * The layer of an update as the plan saw it; parts of these files before this one may have
   * changed it.
   */
  private Layer planned(Lot lot, UUID project, Choice c, List<Importing.Outcome> before) {
    Layer now = layers.get(project, c.into().orElseThrow());
    boolean own = before.stream().anyMatch(o -> o.layer().equals(now.id()));
    return own ? now : now.asSeen(lot.planned.getOrDefault(now.id(), now.revision()));
  }

  private interface Step<T> {
    T run() throws Exception;
  }

  private static <T> T said(Step<T> step) throws Exception {
    try {
      return step.run();
    } catch (FileProblem e) {
      throw Refusal.refused("refused.nothingWasImported", "why", Refusal.said(e));
    } catch (IllegalArgumentException e) {
      throw Refusal.refused("refused.cantBeImportedSo", "why", Refusal.said(e));
    }
  }

  private Said undo(Importing.Outcome o, UUID act, String person) {
    if (o.visits()) return Said.of("told.pastVisitsGone", "n", visits.takeBack(act, person));
    LayerChanges.TakenBack t = changes.takeBack(o.layer(), act, person);
    if (t.layerGone()) return Said.of("told.wasTakenBack", "name", o.layerName());
    return Said.of(
        t.left().isEmpty() ? "told.asBefore" : "told.asBeforeBut",
        "n",
        t.restored(),
        "layer",
        o.layerName(),
        "left",
        Said.row(t.left(), "list.also", "list.also"));
  }

  /** Takes back all that these files brought, the last part first. */
  Said takeBack(UUID project, UUID id, String person) throws IOException {
    Standing s = standing(project, id);
    if (s.lot().outcomes.isEmpty()) throw Refusal.conflict("refused.whatTheseFilesBrought");
    List<Said> back = new ArrayList<>();
    List<Importing.Outcome> all = s.lot().outcomes;
    for (int i = all.size() - 1; i >= 0; i--) {
      Importing.Outcome o = all.get(i);
      o.act().ifPresent(a -> back.add(undo(o, a, person)));
    }
    lots.remove(id);
    incoming.drop(incoming.home(project, id));
    return Said.row(back, "list.sentences", "list.sentences");
  }

  /** Some features as they would lie on the map: GeoJSON with what is to be told. */
  Preview.Shown preview(UUID project, UUID id, int part, Preview.Asked asked) throws IOException {
    Lot lot = found(project, id);
    if (part < 0 || part >= lot.found.parts().size())
      throw Refusal.notFound("thing.layerInTheseFiles");
    return Preview.of(lot.found.parts().get(part), asked);
  }

  void cancel(UUID project, UUID id) {
    check(project, id);
    jobs.cancel(id);
  }

  /** Drops the files; a job that still reads them is cancelled. */
  void drop(UUID project, UUID id) throws IOException {
    Path home = incoming.home(project, id);
    jobs.cancel(id);
    lots.remove(id);
    incoming.drop(home);
  }
}
