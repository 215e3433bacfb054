package org.whinridge.app.people;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.springframework.stereotype.Component;
import org.whinridge.core.access.GrowingWait;
import org.whinridge.core.access.Names;
import org.whinridge.core.text.Fold;

/**
 * Failed tries to sign in, by account and by address. An account is never shut for long, since
 * anybody can fail in its name; an address that goes through many accounts is.
 */
@Component
public class SignInWaits {
  private static final GrowingWait OF_AN_ACCOUNT = new GrowingWait(4, Duration.ofSeconds(30));
  private static final GrowingWait OF_AN_ADDRESS = new GrowingWait(19, Duration.ofMinutes(15));
  private static final Duration FORGOTTEN = Duration.ofHours(1);
  private static final long MOST = 100_000;

  private record Failures(int count, Instant last) {}

  private final Cache<String, Failures> failures =
      Caffeine.newBuilder().expireAfterWrite(FORGOTTEN).maximumSize(MOST).build();
  private final Clock clock;

  /** With nobody waiting. */
  public SignInWaits() {
    this(Clock.systemUTC());
  }

  SignInWaits(Clock clock) {
    this.clock = clock;
  }

  private static String account(String name) {
    // no account's name is longer, and what is kept of each try stays small
    return "account " + Fold.lower(name.substring(0, Math.min(name.length(), Names.LONGEST)));
  }

  private static String address(String address) {
    return "address " + address;
  }

  /**
   * Whether somebody may try now; the try counts as failed until {@link #succeeded}, so that many
   * at once count as well.
   *
   * @return how long to wait; zero when the try may be made
   */
  synchronized Duration ask(String name, String address) {
    Duration wait = max(left(account(name), OF_AN_ACCOUNT), left(address(address), OF_AN_ADDRESS));
    if (wait.isZero()) {
      failed(account(name));
      failed(address(address));
    }
    return wait;
  }

  /** The same where there is no account to count by. */
  public synchronized Duration ask(String address) {
    Duration wait = left(address(address), OF_AN_ADDRESS);
    if (wait.isZero()) failed(address(address));
    return wait;
  }

  /** Somebody knew what they had to: the address has one failure less. */
  public synchronized void succeeded(String address) {
    Failures f = failures.getIfPresent(address(address));
    if (f != null) failures.put(address(address), new Failures(f.count - 1, f.last));
  }

  private static Duration max(Duration a, Duration b) {
    return a.compareTo(b) > 0 ? a : b;
  }

  private Duration left(String key, GrowingWait rule) {
    Failures f = failures.getIfPresent(key);
    if (f == null) return Duration.ZERO;
    Duration left = Duration.between(clock.instant(), f.last.plus(rule.after(f.count)));
    return left.isNegative() ? Duration.ZERO : left;
  }

  private void failed(String key) {
    Failures f = failures.getIfPresent(key);
    failures.put(key, new Failures(f == null ? 1 : f.count + 1, clock.instant()));
  }

  /** Somebody came in: the account's failures are forgotten, and the address has one less. */
  synchronized void succeeded(String name, String address) {
    failures.invalidate(account(name));
    succeeded(address);
  }
}
