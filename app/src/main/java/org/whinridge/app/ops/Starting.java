package org.whinridge.app.ops;

import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;

/** Starts the application; and again, in the same process, when it went back to a copy. */
public final class Starting {
  /** The process ends with this when it can't start again. */
  private static final int NOT_STARTED_AGAIN = 4;

  /** The page that waits needs its scripts from the server that ends. */
  private static final long PAGE_LOADS_MS = 3_000;

  private static final Logger LOG = LoggerFactory.getLogger(Starting.class);
  private static volatile Optional<Runnable> again = Optional.empty();
  private static volatile ConfigurableApplicationContext running;

  private Starting() {}

  /** Starts it with these arguments. */
  public static ConfigurableApplicationContext start(Class<?> application, String... args) {
    again = Optional.of(() -> run(application, args));
    return run(application, args);
  }

  private static ConfigurableApplicationContext run(Class<?> main, String... args) {
    SpringApplication application = new SpringApplication(main);
    application.addListeners(new StoreOpening());
    running = application.run(args);
    return running;
  }

  /** The application as it runs now; null before it was started here. */
  static ConfigurableApplicationContext running() {
    return running;
  }

  /** Whether whoever runs this application can start it again. */
  static boolean canStartAgain() {
    return again.isPresent();
  }

  /** Ends the application, what is under way first, and starts it again. Returns at once. */
  static void endAndStartAgain(ConfigurableApplicationContext now) {
    Runnable start = Starting.again.orElseThrow();
    Thread again =
        new Thread(
            () -> {
              try {
                Thread.sleep(PAGE_LOADS_MS);
                now.close();
                start.run();
              } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
              } catch (RuntimeException e) {
                LOG.error("it could not be started again", e);
                System.exit(NOT_STARTED_AGAIN); // whoever looks after the process starts it
              }
            },
            "starting-again");
    again.setDaemon(false); // asked for by a request's daemon, it must outlive the server
    again.start();
  }
}
