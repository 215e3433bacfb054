package org.whinridge.app.people;

import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;

/**
 * Sessions whose last use is written at most once a minute, since a page with a map asks many times
 * a second, and each time would be a write to the disk.
 */
final class SparingSessions<S extends Session>
    implements FindByIndexNameSessionRepository<SparingSessions.Held<S>> {
  private static final Duration NOTED = Duration.ofMinutes(1);
  private final FindByIndexNameSessionRepository<S> stored;

  SparingSessions(FindByIndexNameSessionRepository<S> stored) {
    this.stored = stored;
  }

  @Override
  public Held<S> createSession() {
    return new Held<>(stored.createSession());
  }

  @Override
  public void save(Held<S> session) {
    stored.save(session.of);
  }

  @Override
  public Held<S> findById(String id) {
    S found = stored.findById(id);
    return found == null ? null : new Held<>(found);
  }

  @Override
  public void deleteById(String id) {
    stored.deleteById(id);
  }

  @Override
  public Map<String, Held<S>> findByIndexNameAndIndexValue(String index, String value) {
    return stored.findByIndexNameAndIndexValue(index, value).entrySet().stream()
        .collect(Collectors.toMap(Map.Entry::getKey, e -> new Held<>(e.getValue())));
  }

  /** A session that notes its last use sparingly. */
  static final class Held<S extends Session> implements Session {
    private final S of;

    Held(S of) {
      this.of = of;
    }

    @Override
    public void setLastAccessedTime(Instant at) {
      if (at.isAfter(of.getLastAccessedTime().plus(NOTED))) of.setLastAccessedTime(at);
    }

    @Override
    public String getId() {
      return of.getId();
    }

    @Override
    public String changeSessionId() {
      return of.changeSessionId();
    }

    @Override
    public <T> T getAttribute(String name) {
      return of.getAttribute(name);
    }

    @Override
    public Set<String> getAttributeNames() {
      return of.getAttributeNames();
    }

    @Override
    public void setAttribute(String name, Object value) {
      of.setAttribute(name, value);
    }

    @Override
    public void removeAttribute(String name) {
      of.removeAttribute(name);
    }

    @Override
    public Instant getCreationTime() {
      return of.getCreationTime();
    }

    @Override
    public Instant getLastAccessedTime() {
      return of.getLastAccessedTime();
    }

    @Override
    public void setMaxInactiveInterval(Duration interval) {
      of.setMaxInactiveInterval(interval);
    }

    @Override
    public Duration getMaxInactiveInterval() {
      return of.getMaxInactiveInterval();
    }

    @Override
    public boolean isExpired() {
      return of.isExpired();
    }
  }
}
