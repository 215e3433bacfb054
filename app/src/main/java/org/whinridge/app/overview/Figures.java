package org.whinridge.app.overview;

import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.jdbc.core.RowCallbackHandler;
import org.springframework.jdbc.core.namedparam.NamedParameterJdbcTemplate;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.daybook.SetAside;
import org.whinridge.app.project.Project;
import org.whinridge.core.round.StopState;
import org.whinridge.core.visit.VisitState;

/** Counts of projects, each in one statement for all that are asked for. */
@Repository
@Transactional(readOnly = true)
class Figures {
  /** Weeks of the chart of visits. */
  static final int WEEKS = 12;

  private static final int DAYS_A_WEEK = 7;

  /** Stops at which nothing is left to do. */
  private static final List<String> OVER =
      List.of(StopState.DONE.id(), StopState.NO_ACCESS.id(), StopState.GONE.id());

  private final NamedParameterJdbcTemplate jdbc;

  Figures(NamedParameterJdbcTemplate jdbc) {
    this.jdbc = jdbc;
  }

  /**
   * What a project holds.
   *
   * @param waiting visits that nobody decided yet
   * @param open rounds with stops left
   * @param changed the last change of a layer
   */
  record Held(
      long layers,
      long features,
      long forms,
      long visits,
      long waiting,
      long clashes,
      long open,
      long people,
      Optional<Instant> changed) {
    static final Held NOTHING = new Held(0, 0, 0, 0, 0, 0, 0, 0, Optional.empty());
  }

  /** What each of these projects holds. */
  Map<UUID, Held> held(Collection<UUID> projects) {
    Map<UUID, Held> out = new HashMap<>();
    if (projects.isEmpty()) return out;
    Map<UUID, long[]> n = new HashMap<>();
    Map<UUID, Instant> changed = new HashMap<>();
    count(
        projects,
        n,
        "select project_id, count(*), sum(feature_count) from layer where project_id in (:p) group by project_id",
        0,
        1);
    count(
        projects,
        n,
        "select project_id, count(*) from form where project_id in (:p) group by project_id",
        2);
    count(
        projects,
        n,
        "select l.project_id, count(*), sum(case when v.state = :waiting then 1 else 0 end), sum(case when v.state = :waiting and v.clash then 1 else 0 end)"
            + " from visit v join layer l on l.id = v.layer_id where l.project_id in (:p) group by l.project_id",
        3,
        4,
        5);
    count(
        projects,
        n,
        "select r.project_id, count(distinct r.id) from round r join stop s on s.round_id = r.id where r.project_id in (:p) and r.closed_at is null and s.state not in (:over) group by r.project_id",
        6);
    count(
        projects,
        n,
        "select project_id, count(distinct account) from member where project_id in (:p) group by project_id",
        7);
    each(
        "select project_id, max(changed_at) from layer where project_id in (:p) group by project_id",
        Map.of("p", projects),
        r ->
            changed.put(r.getObject(1, UUID.class), instant(r.getObject(2, OffsetDateTime.class))));
    for (UUID p : projects) {
      long[] c = n.getOrDefault(p, new long[COUNTS]);
      out.put(
          p,
          new Held(
              c[0], c[1], c[2], c[3], c[4], c[5], c[6], c[7], Optional.ofNullable(changed.get(p))));
    }
    return out;
  }

  private static final int COUNTS = 8;

  private static Instant instant(OffsetDateTime at) {
    return at == null ? null : at.toInstant();
  }

  private void each(String sql, Map<String, ?> parameters, RowCallbackHandler row) {
    jdbc.query(sql, parameters, row);
  }

  private void count(Collection<UUID> projects, Map<UUID, long[]> into, String sql, int... places) {
    each(
        sql,
        Map.of("p", projects, "waiting", VisitState.WAITING.id(), "over", OVER),
        r -> {
          long[] c = into.computeIfAbsent(r.getObject(1, UUID.class), x -> new long[COUNTS]);
          for (int i = 0; i < places.length; i++) c[places[i]] = r.getLong(i + 2);
        });
  }

  /** A round and how far it is. */
  record Progress(
      UUID id, String name, String person, Optional<LocalDate> due, long over, long stops) {
    /** The share that is over, in per cent. */
    public long share() {
      return stops == 0 ? 0 : Math.round(100.0 * over / stops);
    }

    public boolean isLate(LocalDate today) {
      return over < stops && due.filter(d -> d.isBefore(today)).isPresent();
    }
  }

  /** The rounds of a project that have stops left, those due first first. */
  List<Progress> rounds(UUID project) {
    List<Progress> out = new ArrayList<>();
    each(
        "select r.id, r.name, (select listagg(p.person, ', ') within group (order by p.person) from round_person p where p.round_id = r.id and p.taken_off_at is null), r.due, sum(case when s.state in (:over) then 1 else 0 end), count(*)"
            + " from round r join stop s on s.round_id = r.id where r.project_id = :p and r.closed_at is null group by r.id, r.name, r.due, r.made_at"
            + " having sum(case when s.state in (:over) then 1 else 0 end) < count(*)"
            + " order by r.due nulls last, r.made_at",
        Map.of("p", project, "over", OVER),
        r ->
            out.add(
                new Progress(
                    r.getObject(1, UUID.class),
                    r.getString(2),
                    Optional.ofNullable(r.getString(3)).orElse(""),
                    Optional.ofNullable(r.getObject(4, LocalDate.class)),
                    r.getLong(5),
                    r.getLong(6))));
    return out;
  }

  /** A week, named by its Monday, and how many visits were made in it. */
  record Week(LocalDate monday, long visits) {}

  /**
   * The last weeks, the oldest first; visits by the day on which they ended in the project's zone.
   */
  List<Week> weeks(Project project, LocalDate today) {
    LocalDate monday = today.minusDays(today.getDayOfWeek().getValue() - 1L);
    LocalDate first = monday.minusWeeks(WEEKS - 1L);
    long[] n = new long[WEEKS];
    each(
        "select v.ended_at from visit v join layer l on l.id = v.layer_id where l.project_id = :p and v.ended_at >= :from",
        Map.of("p", project.id(), "from", first.atStartOfDay(project.zone()).toOffsetDateTime()),
        r -> {
          LocalDate day =
              LocalDate.ofInstant(instant(r.getObject(1, OffsetDateTime.class)), project.zone());
          long week = (day.toEpochDay() - first.toEpochDay()) / DAYS_A_WEEK;
          if (week >= 0 && week < WEEKS) n[(int) week]++;
        });
    List<Week> out = new ArrayList<>();
    for (int i = 0; i < WEEKS; i++) out.add(new Week(first.plusWeeks(i), n[i]));
    return out;
  }

  /** Texts of a project that could not be read as visits and wait for somebody. */
  long setAside(UUID project) {
    Long n =
        jdbc.queryForObject(
            "select count(*) from set_aside where project_id = :p and fate = :open",
            Map.of("p", project, "open", SetAside.Fate.OPEN.id()),
            Long.class);
    return n == null ? 0 : n;
  }

  /** The people of each of these projects, by name. */
  Map<UUID, List<String>> people(Collection<UUID> projects) {
    if (projects.isEmpty()) return Map.of();
    return jdbc
        .query(
            "select distinct project_id, account from member where project_id in (:p) order by account",
            Map.of("p", projects),
            (r, i) -> Map.entry(r.getObject(1, UUID.class), r.getString(2)))
        .stream()
        .collect(
            Collectors.groupingBy(
                Map.Entry::getKey, Collectors.mapping(Map.Entry::getValue, Collectors.toList())));
  }
}
