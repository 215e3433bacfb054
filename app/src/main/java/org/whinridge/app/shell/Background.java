package org.whinridge.app.shell;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.task.AsyncTaskExecutor;
import org.springframework.resilience.annotation.EnableResilientMethods;
import org.springframework.scheduling.annotation.EnableScheduling;
import org.springframework.scheduling.concurrent.ThreadPoolTaskExecutor;

/** Where work goes on that no page waits for; on shutdown it is given time to end. */
@Configuration
@EnableResilientMethods
@EnableScheduling
class Background {
  private static final Logger LOG = LoggerFactory.getLogger(Background.class);
  private static final int SECONDS_TO_END = 25;

  /** Threads for jobs, those that wait for their turn too. */
  private static final int MOST_JOBS = 50;

  /** For jobs that people started; how many run at a time, {@link Jobs} decides. */
  @Bean
  AsyncTaskExecutor jobThreads() {
    return pool("job-", MOST_JOBS);
  }

  /** For what follows an act by itself. */
  @Bean
  AsyncTaskExecutor applicationTaskExecutor() {
    return pool("after-", 2);
  }

  private static ThreadPoolTaskExecutor pool(String name, int threads) {
    ThreadPoolTaskExecutor t = new ThreadPoolTaskExecutor();
    t.setThreadNamePrefix(name);
    t.setTaskDecorator(
        work ->
            () -> {
              try {
                work.run();
              } catch (RuntimeException e) {
                LOG.error("work in the background failed; nobody waits for it", e);
              }
            });
    t.setCorePoolSize(threads);
    t.setWaitForTasksToCompleteOnShutdown(true);
    t.setAwaitTerminationSeconds(SECONDS_TO_END);
    return t;
  }
}
