package org.whinridge.app.shell;

import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.task.AsyncTaskExecutor;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.whinridge.core.said.Said;

/**
 * Work that takes longer than a page may: it runs in the background, tells how far it is, can be
 * cancelled, and goes on when the page is closed. A server that stops loses jobs; what they wrote
 * is in one transaction and gone with them.
 */
@Component
public class Jobs {
  private static final Logger LOG = LoggerFactory.getLogger(Jobs.class);
  private static final Duration KEPT = Duration.ofHours(24);

  /** Jobs of one size that run at the same time. */
  private static final int AT_A_TIME = 2;

  /** A job that did not move for so long is given up; it waits for something that never comes. */
  private final Duration patience;

  private final AsyncTaskExecutor threads;
  private final Map<UUID, Job> jobs = new ConcurrentHashMap<>();
  private final Map<Size, Semaphore> lanes =
      Map.of(Size.SMALL, new Semaphore(AT_A_TIME), Size.LARGE, new Semaphore(AT_A_TIME));

  /** How much there is to do: small jobs do not wait for large ones. */
  public enum Size {
    /** Seconds. */
    SMALL,
    /** Minutes. */
    LARGE
  }

  Jobs(AsyncTaskExecutor jobThreads, @Value("${whinridge.job-patience:10m}") Duration patience) {
    this.patience = patience;
    this.threads = jobThreads;
  }

  /** What a job is: its end result is for whoever started it. */
  public static final class Job {
    private final UUID id;
    private final Instant begun = Instant.now();
    private volatile String state = "waiting";
    private volatile Said doing = Said.NONE;
    private volatile Said message = Said.NONE;
    private volatile long done;
    private volatile long total = -1;
    private volatile boolean cancel;
    private volatile Object result;
    private volatile Instant ended;
    private volatile Instant moved = Instant.now();
    private volatile String seen = "";
    private final AtomicBoolean freed = new AtomicBoolean();
    private final Semaphore lane;

    private Job(UUID id, Semaphore lane) {
      this.id = id;
      this.lane = lane;
    }

    /** Gives its place to the next, once. */
    private void free() {
      if (freed.compareAndSet(false, true)) lane.release();
    }

    /** waiting, running, done, failed or cancelled. */
    public String state() {
      return state;
    }

    /** Whether it has come to an end. */
    public boolean isOver() {
      return ended != null;
    }

    /** What it does now. */
    public Said doing() {
      return doing;
    }

    /** Why it failed. */
    public Said message() {
      return message;
    }

    /** How many of {@link #total} are done. */
    public long done() {
      return done;
    }

    /** How many there are in all; -1 when that is not known. */
    public long total() {
      return total;
    }

    /** What it gave, once it is done. */
    public Optional<Object> result() {
      return Optional.ofNullable(result);
    }

    /** Seconds since it was started, until its end. */
    public long seconds() {
      return Duration.between(begun, ended == null ? Instant.now() : ended).toSeconds();
    }

    /** Says what is done now, out of how many; -1 for not known. */
    public void now(Said what, long outOf) {
      doing = what;
      total = outOf;
      done = 0;
    }

    /** Counts one more; ends the job when it was cancelled. */
    public void step() {
      done++;
      goOn();
    }

    /** Whether it is to end, for work that waits for something. */
    public boolean isCancelled() {
      return cancel;
    }

    /** Ends the job, by an exception, when it was cancelled. */
    public void goOn() {
      if (cancel) throw new Cancelled();
    }

    /** What tells whether it goes on: what it does, and how far it is. */
    private String progress() {
      return doing.toString() + done;
    }
  }

  /** Thrown within a job that was cancelled. */
  public static final class Cancelled extends RuntimeException {
    private static final long serialVersionUID = 1;

    private Cancelled() {
      super("cancelled", null, false, false);
    }
  }

  /** What a job does. */
  public interface Work {
    /** Runs to the end; the result is kept for a day. */
    Object run(Job job) throws Exception;
  }

  /** Starts work under an id; a job under that id that is not over goes on instead. */
  public Job start(UUID id, Size size, Work work) {
    Job fresh = new Job(id, lanes.get(size));
    Job job = jobs.compute(id, (k, old) -> old == null || old.isOver() ? fresh : old);
    if (job == fresh) threads.execute(() -> inTurn(job, work));
    return job;
  }

  /** Two of a size at a time, the others wait. */
  private static void inTurn(Job job, Work work) {
    try {
      while (!job.lane.tryAcquire(1, TimeUnit.SECONDS)) if (job.cancel) break;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      job.cancel = true;
    }
    if (job.cancel) job.freed.set(true); // it never had a place
    try {
      run(job, work);
    } finally {
      job.free();
    }
  }

  private static void run(Job job, Work work) {
    String end = "done";
    try {
      if (job.cancel) throw new Cancelled();
      job.state = "running";
      job.result = work.run(job);
    } catch (Cancelled e) {
      end = "cancelled";
    } catch (Refusal e) {
      job.message = e.said();
      end = "failed";
    } catch (Exception e) {
      LOG.error("job {} failed", job.id, e);
      job.message = Said.of("job.failed");
      end = "failed";
    } catch (OutOfMemoryError e) {
      LOG.error("job {} ran out of memory", job.id, e);
      job.message = Said.of("job.noMemory");
      end = "failed";
    }
    if (job.isOver()) return; // it was given up before
    job.ended = Instant.now();
    job.state = end;
  }

  /**
   * Gives up jobs that stand still: whoever waits is told, and the next one gets the place. The
   * thread ends when what it waits for comes, at its next step.
   */
  @Scheduled(fixedDelay = 5_000)
  void giveUpStuck() {
    for (Job j : jobs.values()) {
      if (j.isOver() || !j.state.equals("running")) continue;
      String now = j.progress();
      if (!now.equals(j.seen)) {
        j.seen = now;
        j.moved = Instant.now();
      } else if (j.moved.isBefore(Instant.now().minus(patience))) {
        LOG.error("job {} stands still at “{}” and is given up", j.id, j.doing);
        j.cancel = true;
        j.message = Said.of("job.stuck", "doing", j.doing, "minutes", patience.toMinutes());
        j.ended = Instant.now();
        j.state = "failed";
        j.free();
      }
    }
  }

  /** The job under an id. */
  public Optional<Job> find(UUID id) {
    return Optional.ofNullable(jobs.get(id));
  }

  /** Asks a job to end; what it has written is taken away with it. */
  public void cancel(UUID id) {
    find(id).ifPresent(j -> j.cancel = true);
  }

  /** Forgets a job that is over. */
  public void forget(UUID id) {
    jobs.computeIfPresent(id, (k, j) -> j.isOver() ? null : j);
  }

  @Scheduled(fixedDelay = 3_600_000)
  void sweep() {
    jobs.values().removeIf(j -> j.isOver() && j.ended.isBefore(Instant.now().minus(KEPT)));
  }

  /** Jobs end at their next step, before the threads and the store do. */
  @EventListener(ContextClosedEvent.class)
  void end() {
    jobs.values().forEach(j -> j.cancel = true);
  }
}
