package org.whinridge.app.project;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.UUID;
import org.springframework.stereotype.Component;

/**
 * Which day it is in a project: each has a time zone of its own, so that "today" is the same for
 * all who look at it. Zones are kept for a while, since every tile of a map asks for the day.
 */
@Component
public class ProjectDays {
  private static final Duration KEPT = Duration.ofSeconds(10);
  private final Projects projects;
  private final Cache<UUID, ZoneId> zones = Caffeine.newBuilder().expireAfterWrite(KEPT).build();

  ProjectDays(Projects projects) {
    this.projects = projects;
  }

  /** The day on which a moment falls in a project. */
  public LocalDate day(UUID project, Instant moment) {
    return LocalDate.ofInstant(moment, zones.get(project, p -> projects.byId(p).zone()));
  }
}
