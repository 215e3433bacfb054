package org.whinridge.app.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.HashSet;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.scheduling.concurrent.ThreadPoolTaskExecutor;
import org.whinridge.core.said.English;
import org.whinridge.core.said.Said;

/** Work in the background: progress, cancelling, failing in words. */
class JobsTest {
  private final ThreadPoolTaskExecutor threads = threads();
  private final Jobs jobs = new Jobs(threads, Duration.ofMillis(300));
  private final UUID id = UUID.randomUUID();

  @AfterEach
  void end() {
    jobs.end();
    threads.shutdown();
  }

  private static ThreadPoolTaskExecutor threads() {
    ThreadPoolTaskExecutor t = new ThreadPoolTaskExecutor();
    t.setCorePoolSize(10);
    t.initialize();
    return t;
  }

  private Jobs.Job ended(Jobs.Job job) throws Exception {
    for (int i = 0; i < 500 && !job.isOver(); i++) Thread.sleep(10);
    assertThat(job.isOver()).isTrue();
    return job;
  }

  @Test
  void itTellsHowFarItIsAndGivesItsResult() throws Exception {
    CountDownLatch half = new CountDownLatch(1);
    CountDownLatch goOn = new CountDownLatch(1);
    Jobs.Job job =
        jobs.start(
            id,
            Jobs.Size.SMALL,
            j -> {
              j.now(Said.text("Counting"), 4);
              j.step();
              j.step();
              half.countDown();
              goOn.await();
              j.step();
              return "counted";
            });
    half.await();
    assertThat(job.doing().toString()).isEqualTo("Counting");
    assertThat(job.done()).isEqualTo(2);
    assertThat(job.total()).isEqualTo(4);
    assertThat(jobs.start(id, Jobs.Size.SMALL, j -> "another"))
        .as("one job under an id at a time")
        .isSameAs(job);
    goOn.countDown();
    assertThat(ended(job).result()).contains("counted");
    assertThat(job.state()).isEqualTo("done");
    jobs.forget(id);
    assertThat(jobs.find(id)).isEmpty();
  }

  @Test
  void itEndsAtTheNextStepWhenItIsCancelled() throws Exception {
    AtomicInteger steps = new AtomicInteger();
    Jobs.Job job =
        jobs.start(
            id,
            Jobs.Size.SMALL,
            j -> {
              while (steps.incrementAndGet() > 0) {
                j.step();
                Thread.sleep(1);
              }
              return "never";
            });
    while (steps.get() < 3) Thread.sleep(1);
    jobs.cancel(id);
    assertThat(ended(job).state()).isEqualTo("cancelled");
    assertThat(job.result()).isEmpty();
    assertThat(ended(jobs.start(id, Jobs.Size.SMALL, j -> "anew")).result()).contains("anew");
  }

  @Test
  void itFailsInWords() throws Exception {
    assertThat(
            ended(
                    jobs.start(
                        id,
                        Jobs.Size.SMALL,
                        j -> {
                          throw Refusal.refused(Said.text("The file has no rows."));
                        }))
                .message()
                .toString())
        .isEqualTo("The file has no rows.");
    assertThat(
            English.of(
                ended(
                        jobs.start(
                            id,
                            Jobs.Size.SMALL,
                            j -> {
                              throw new IllegalStateException("secret detail");
                            }))
                    .message()))
        .contains("the log has the details")
        .doesNotContain("secret");
    Jobs.Job full =
        ended(
            jobs.start(
                id,
                Jobs.Size.SMALL,
                j -> {
                  throw new OutOfMemoryError("test");
                }));
    assertThat(full.state()).isEqualTo("failed");
    assertThat(English.of(full.message())).contains("not enough memory");
  }

  @Test
  void idsRiseAndNoneComesTwice() {
    Set<UUID> seen = new HashSet<>();
    UUID last = new UUID(0, 0);
    for (int i = 0; i < 20_000; i++) {
      UUID next = Ids.next();
      assertThat(seen.add(next)).isTrue();
      assertThat(next.version()).isEqualTo(7);
      assertThat(next.variant()).isEqualTo(2);
      assertThat(Long.compareUnsigned(next.getMostSignificantBits(), last.getMostSignificantBits()))
          .isPositive();
      last = next;
    }
  }

  @Test
  void aJobThatStandsStillIsGivenUpAndToldAndGivesItsPlaceToTheNext() throws Exception {
    CountDownLatch never = new CountDownLatch(1);
    Jobs.Job first = null;
    for (int i = 0; i < 2; i++) {
      first =
          jobs.start(
              UUID.randomUUID(),
              Jobs.Size.SMALL,
              j -> {
                j.now(Said.text("Waiting for a file"), -1);
                never.await();
                j.step();
                return "too late";
              });
    }
    // a large one has lanes of its own
    assertThat(ended(jobs.start(UUID.randomUUID(), Jobs.Size.LARGE, j -> "done")).state())
        .isEqualTo("done");
    Jobs.Job next = jobs.start(id, Jobs.Size.SMALL, j -> "its turn");
    for (int i = 0; i < 20 && !first.isOver(); i++) {
      jobs.giveUpStuck();
      Thread.sleep(100);
    }
    assertThat(first.state()).isEqualTo("failed");
    assertThat(English.of(first.message()))
        .contains("Waiting for a file", "given up", "Nothing of it was kept");
    assertThat(ended(next).result()).contains("its turn");
    never.countDown();
    Thread.sleep(100);
    assertThat(first.state()).isEqualTo("failed");
    assertThat(first.result()).isEmpty();
  }
}
