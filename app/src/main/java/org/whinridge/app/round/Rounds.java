package org.whinridge.app.round;

import com.eclipsesource.json.Json;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.own.PositionsAllowed;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.round.Note;
import org.whinridge.core.round.StopState;
import org.whinridge.core.round.Travel;

/** Rounds, their stops, and the state of each stop. */
@Service
@Transactional(readOnly = true)
public class Rounds implements PositionsAllowed {
  private final RoundRepository rounds;
  private final RoundFormRepository formsOf;
  private final RoundPersonRepository peopleOf;
  private final StopRepository stops;
  private final Members members;
  private final Projects projects;

  Rounds(
      RoundRepository rounds,
      RoundFormRepository formsOf,
      RoundPersonRepository peopleOf,
      StopRepository stops,
      Members members,
      Projects projects) {
    this.rounds = rounds;
    this.formsOf = formsOf;
    this.peopleOf = peopleOf;
    this.stops = stops;
    this.members = members;
    this.projects = projects;
  }

  private List<Round> with(List<RoundEntity> all) {
    List<UUID> ids = all.stream().map(r -> r.id).toList();
    if (ids.isEmpty()) return List.of();
    Map<UUID, List<StopEntity>> stopsOf =
        stops.findByRoundIdInOrderByOrderInRound(ids).stream()
            .collect(Collectors.groupingBy(s -> s.roundId));
    Map<UUID, List<UUID>> forms =
        formsOf.findByRoundIdInOrderByOrderInRound(ids).stream()
            .collect(
                Collectors.groupingBy(
                    f -> f.roundId, Collectors.mapping(f -> f.formId, Collectors.toList())));
    Map<UUID, List<String>> people = people(ids);
    return all.stream()
        .map(
            e ->
                new Round(
                    e.id,
                    e.projectId,
                    e.name,
                    Note.read(e.note, e.pictures),
                    new Round.When(
                        Optional.ofNullable(e.starts), Optional.ofNullable(e.due), e.expected),
                    forms.getOrDefault(e.id, List.of()),
                    people.getOrDefault(e.id, List.of()),
                    e.allows,
                    Optional.ofNullable(e.area).flatMap(GeometryJson::parse),
                    e.way == null ? Travel.USUAL : Travel.read(Json.parse(e.way).asObject()),
                    e.tellsPosition,
                    e.madeAt,
                    e.madeBy,
                    Optional.ofNullable(e.closedAt),
                    stopsOf.getOrDefault(e.id, List.of()).stream().map(Rounds::stop).toList()))
        .toList();
  }

  private static Round.Stop stop(StopEntity s) {
    return new Round.Stop(
        s.layerId,
        s.featureId,
        s.state,
        s.reason,
        Note.read(s.note, s.pictures),
        Optional.ofNullable(s.person));
  }

  /** Who goes now, by round. */
  private Map<UUID, List<String>> people(List<UUID> ids) {
    return peopleOf.findByRoundIdInOrderByPerson(ids).stream()
        .filter(p -> p.takenOffAt == null)
        .collect(
            Collectors.groupingBy(
                p -> p.roundId, Collectors.mapping(p -> p.person, Collectors.toList())));
  }

  /** A project's rounds, newest first. */
  public List<RoundLine> list(UUID project) {
    List<RoundEntity> all = rounds.findByProjectIdOrderByMadeAtDesc(project);
    Map<UUID, List<String>> people = people(all.stream().map(r -> r.id).toList());
    Map<UUID, Long> done = new HashMap<>();
    Map<UUID, Long> of = new HashMap<>();
    for (StopRepository.InState s : stops.states(project)) {
      of.merge(s.getRound(), s.getN(), Long::sum);
      if (s.getState() == StopState.DONE) done.merge(s.getRound(), s.getN(), Long::sum);
    }
    return all.stream()
        .map(
            r ->
                new RoundLine(
                    r.id,
                    r.name,
                    r.note,
                    Optional.ofNullable(r.due),
                    people.getOrDefault(r.id, List.of()),
                    Optional.ofNullable(r.closedAt),
                    done.getOrDefault(r.id, 0L),
                    of.getOrDefault(r.id, 0L)))
        .toList();
  }

  /** The projects where somebody goes out, without those that are closed. */
  private Set<UUID> outdoors(String person) {
    Set<UUID> there = members.projectsOf(person, Right.GO_OUT);
    projects.of(person).stream().filter(Project::closed).forEach(p -> there.remove(p.id()));
    return there;
  }

  /** A person's rounds that are open, in projects that are open, newest first. */
  public List<Round> of(String person) {
    return with(rounds.mine(person, outdoors(person)));
  }

  @Override
  public boolean anywhere(String account) {
    return rounds.mineThatTell(account, members.projectsOf(account, Right.GO_OUT)) > 0;
  }

  @Override
  public boolean in(UUID project, String account) {
    return members.projectsOf(account, Right.GO_OUT).contains(project)
        && rounds.mineThatTell(account, Set.of(project)) > 0;
  }

  /** How many rounds a project has. */
  public long count(UUID project) {
    return rounds.countByProjectId(project);
  }

  /** A round of a project. */
  public Round get(UUID project, UUID id) {
    return with(rounds.findByIdAndProjectId(id, project).stream().toList()).stream()
        .findFirst()
        .orElseThrow(() -> Refusal.notFound("thing.round"));
  }

  /** Whether somebody has, or once had, a round: what was begun then is still taken. */
  private boolean isGivenTo(UUID round, String person) {
    List<RoundPersonEntity> people = peopleOf.findByRoundIdInOrderByPerson(List.of(round));
    return people.isEmpty() || people.stream().anyMatch(p -> p.person.equals(person));
  }

  /** A round of a project that this person was ever given, whether they still go out or not. */
  public Round of(UUID project, UUID id, String person) {
    Round r = get(project, id);
    if (!isGivenTo(id, person)) throw Refusal.notFound("thing.round");
    return r;
  }

  /** A round that this person was ever given, in a project where they still go out. */
  public Round givenTo(UUID id, String person) {
    return with(List.of(given(id, person))).get(0);
  }

  private RoundEntity given(UUID id, String person) {
    RoundEntity r =
        rounds
            .findById(id)
            .filter(e -> isGivenTo(id, person))
            .orElseThrow(() -> Refusal.notFound("thing.round"));
    if (!members.projectsOf(person, Right.GO_OUT).contains(r.projectId)) {
      // who was named is told why; to anybody else it is not there
      if (peopleOf.existsByRoundIdAndPerson(id, person))
        throw Refusal.forbidden("refused.goesOutThereNoMore");
      throw Refusal.notFound("thing.round");
    }
    return r;
  }

  /** A round that is open and this person's, to be taken out. */
  public Round forPerson(UUID id, String person) {
    return with(List.of(toTakeOut(id, person))).get(0);
  }

  /**
   * Refuses who may not take a round out; reads none of its stops.
   *
   * @throws Refusal when it is not this person's, or closed
   */
  public void checkForPerson(UUID id, String person) {
    toTakeOut(id, person);
  }

  private RoundEntity toTakeOut(UUID id, String person) {
    RoundEntity r = given(id, person);
    List<String> people = people(List.of(id)).getOrDefault(id, List.of());
    if (r.closedAt != null || !people.isEmpty() && !people.contains(person))
      throw Refusal.notFound("thing.round");
    return r;
  }

  /** The rounds that are open, in projects that are open, newest first. */
  public List<UUID> open() {
    Set<UUID> there = new HashSet<>();
    for (Project p : projects.all()) if (!p.closed()) there.add(p.id());
    return rounds.findByClosedAtIsNullOrderByMadeAtDesc().stream()
        .filter(r -> there.contains(r.getProjectId()))
        .map(RoundRepository.Where::getId)
        .toList();
  }

  /** A round, whoever asks. */
  public Optional<Round> byId(UUID id) {
    return with(rounds.findById(id).stream().toList()).stream().findFirst();
  }

  /** The project of a round, if there is such a round. */
  public Optional<UUID> projectOf(UUID round) {
    return rounds.findById(round).map(r -> r.projectId);
  }

  /**
   * A stop is taken by the one who starts it. What is begun or done already stays as it is, and so
   * does what is not this person's to begin.
   */
  @Transactional
  public void begun(UUID round, UUID feature, String person) {
    Set<UUID> there = outdoors(person);
    if (rounds
            .findById(round)
            .filter(r -> r.closedAt == null && there.contains(r.projectId))
            .isEmpty()
        || !isGivenTo(round, person)) return;
    stops
        .findByRoundIdAndFeatureId(round, feature)
        .filter(s -> s.state == StopState.TO_DO)
        .ifPresent(
            s -> {
              s.state = StopState.STARTED;
              if (s.person == null) s.person = person;
            });
  }

  /** Sets the state of a stop; a feature that is no stop of the round is left alone. */
  @Transactional
  public void mark(UUID round, UUID feature, StopState state, String reason) {
    stops
        .findByRoundIdAndFeatureId(round, feature)
        .ifPresent(
            s -> {
              s.state = state;
              s.reason = reason.substring(0, Math.min(300, reason.length()));
            });
  }
}
