package org.whinridge.app.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Stream;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.util.FileSystemUtils;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.Ids;
import org.whinridge.app.shell.Jobs;
import org.whinridge.app.shell.Refusal;

/** Large outputs are written in the background; their files are kept for a day. */
@Component
class OutputJobs {
  /** So many features are written while the page waits: a second or two. */
  static final long AT_ONCE = 20_000;

  private static final Duration KEPT = Duration.ofHours(24);
  private final Exports exports;
  private final Jobs jobs;
  private final Path folder;

  OutputJobs(Exports exports, Jobs jobs, DataFolder data) {
    this.exports = exports;
    this.jobs = jobs;
    this.folder = data.folder("outgoing");
  }

  /** What a job wrote, for the project that ordered it. */
  record Ordered(UUID project, Exports.Written written, Order order) {}

  static boolean isLarge(Order o) {
    return o.layers().stream().mapToLong(Layer::count).sum() > AT_ONCE;
  }

  UUID start(UUID project, Order o) {
    UUID id = Ids.next();
    jobs.start(
        id,
        Jobs.Size.LARGE,
        job -> {
          long all = o.layers().stream().mapToLong(Layer::count).sum();
          job.now("Writing the " + o.format().said(), o.filter().isBlank() ? all : -1);
          return new Ordered(project, exports.write(o, job::step), o);
        });
    return id;
  }

  Jobs.Job job(UUID id) {
    return jobs.find(id).orElseThrow(() -> Refusal.notFound("output that is being written"));
  }

  /** The file of a job that is done. */
  Optional<Ordered> done(UUID project, UUID id) {
    return job(id)
        .result()
        .map(Ordered.class::cast)
        .filter(o -> o.project().equals(project) && Files.exists(o.written().file()));
  }

  void cancel(UUID id) {
    jobs.cancel(id);
  }

  /** Files that nobody took, and what a server that stopped was writing. */
  @Scheduled(initialDelay = 60_000, fixedDelay = 3_600_000)
  void sweep() throws IOException {
    Instant before = Instant.now().minus(KEPT);
    try (Stream<Path> all = Files.list(folder)) {
      for (Path p : all.toList())
        if (Files.getLastModifiedTime(p).toInstant().isBefore(before))
          FileSystemUtils.deleteRecursively(p);
    }
  }
}
