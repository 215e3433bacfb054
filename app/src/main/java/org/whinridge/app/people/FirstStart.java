package org.whinridge.app.people;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Optional;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.OneTimeKey;

/**
 * The first start of an empty store: a key that the console tells, and nothing else, lets whoever
 * reads it make the keeper's account. It is gone when that was done, and another one at the next
 * start.
 */
@Component
class FirstStart {
  private final People people;
  private final Environment environment;
  private Optional<String> key = Optional.empty();

  FirstStart(People people, Environment environment) {
    this.people = people;
    this.environment = environment;
  }

  /** Tells the console, never the log, where to begin. */
  @EventListener(ApplicationReadyEvent.class)
  void tell() {
    if (!people.nobody()) return;
    System.out.println(
        "\n  Nobody is here yet. Open this address once, and make the account of whoever looks after this installation:\n\n  http://localhost:"
            + environment.getProperty("local.server.port", "8080")
            + "/first?key="
            + made()
            + "\n");
  }

  private synchronized String made() {
    String made = OneTimeKey.make();
    key = Optional.of(made);
    return made;
  }

  /** Whether this is the key, and still needed. */
  synchronized boolean isKey(String said) {
    return people.nobody()
        && key.filter(
                k ->
                    MessageDigest.isEqual(
                        k.getBytes(StandardCharsets.UTF_8), said.getBytes(StandardCharsets.UTF_8)))
            .isPresent();
  }

  /** Makes the keeper; of two at once one. */
  synchronized void make(String name, String password) {
    people.makeKeeper(name, password);
    key = Optional.empty();
  }
}
