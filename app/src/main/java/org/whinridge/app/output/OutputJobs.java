package org.whinridge.app.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.util.FileSystemUtils;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.Ids;
import org.whinridge.app.shell.Jobs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.said.Said;

/** Large outputs are written in the background; their files are kept for a day. */
@Component
class OutputJobs {
  /** So many features are written while the page waits: a second or two. */
  static final long AT_ONCE = 20_000;

  private static final Duration KEPT = Duration.ofHours(24);
  private final Exports exports;
  private final Jobs jobs;
  private final Path folder;

  /** The project that ordered each output. */
  private final Map<UUID, UUID> projects = new ConcurrentHashMap<>();

  OutputJobs(Exports exports, Jobs jobs, DataFolder data) {
    this.exports = exports;
    this.jobs = jobs;
    this.folder = data.folder("outgoing");
  }

  /** What a job wrote. */
  record Ordered(Exports.Written written, Order order) {}

  static boolean isLarge(Order o) {
    return o.layers().stream().mapToLong(Layer::count).sum() > AT_ONCE;
  }

  UUID start(UUID project, Order o) {
    UUID id = Ids.next();
    projects.put(id, project);
    jobs.start(
        id,
        Jobs.Size.LARGE,
        job -> {
          long all = o.layers().stream().mapToLong(Layer::count).sum();
          job.now(
              Said.of("job.writing", "format", o.format().said()), o.filter().isBlank() ? all : -1);
          return new Ordered(exports.write(o, job::step), o);
        });
    return id;
  }

  /** A job that writes an output of this project; no other job is found here. */
  Jobs.Job job(UUID project, UUID id) {
    return jobs.find(id)
        .filter(j -> project.equals(projects.get(id)))
        .orElseThrow(() -> Refusal.notFound("thing.outputThatIsBeing"));
  }

  /** The file of a job that is done. */
  Optional<Ordered> done(UUID project, UUID id) {
    return job(project, id)
        .result()
        .map(Ordered.class::cast)
        .filter(o -> Files.exists(o.written().file()));
  }

  void cancel(UUID project, UUID id) {
    job(project, id);
    jobs.cancel(id);
  }

  /** Files that nobody took, and what a server that stopped was writing. */
  @Scheduled(initialDelay = 60_000, fixedDelay = 3_600_000)
  void sweep() throws IOException {
    Instant before = Instant.now().minus(KEPT);
    projects.keySet().removeIf(id -> jobs.find(id).isEmpty());
    try (Stream<Path> all = Files.list(folder)) {
      for (Path p : all.toList())
        if (Files.getLastModifiedTime(p).toInstant().isBefore(before))
          FileSystemUtils.deleteRecursively(p);
    }
  }
}
