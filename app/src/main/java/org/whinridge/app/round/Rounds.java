package org.whinridge.app.round;

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
import org.whinridge.core.round.StopState;

/** Rounds, their stops, and the state of each stop. */
@Service
@Transactional(readOnly = true)
public class Rounds implements PositionsAllowed {
  private final RoundRepository rounds;
  private final Members members;
  private final StopRepository stops;
  private final Projects projects;

  Rounds(RoundRepository rounds, StopRepository stops, Members members, Projects projects) {
    this.projects = projects;
    this.members = members;
    this.rounds = rounds;
    this.stops = stops;
  }

  private List<Round> with(List<RoundEntity> all) {
    Map<UUID, List<StopEntity>> byRound =
        stops.findByRoundIdInOrderByOrderInRound(all.stream().map(r -> r.id).toList()).stream()
            .collect(Collectors.groupingBy(s -> s.roundId));
    return all.stream()
        .map(
            e ->
                new Round(
                    e.id,
                    e.projectId,
                    e.layerId,
                    e.formId,
                    e.name,
                    e.note,
                    Optional.ofNullable(e.due),
                    e.person,
                    e.madeAt,
                    e.madeBy,
                    byRound.getOrDefault(e.id, List.of()).stream()
                        .map(s -> new Round.Stop(s.featureId, s.state, s.reason))
                        .toList(),
                    e.tellsPosition))
        .toList();
  }

  /** A project's rounds, newest first. */
  public List<Round> list(UUID project) {
    return with(rounds.findByProjectIdOrderByMadeAtDesc(project));
  }

  /** A person's rounds in projects that are open, newest first. */
  public List<Round> of(String person) {
    Set<UUID> there = members.projectsOf(person, Right.GO_OUT);
    projects.of(person).stream().filter(Project::closed).forEach(p -> there.remove(p.id()));
    return with(
        rounds.findByPersonOrderByMadeAtDesc(person).stream()
            .filter(r -> there.contains(r.projectId))
            .toList());
  }

  @Override
  public boolean anywhere(String account) {
    return rounds.existsByPersonAndTellsPositionTrue(account);
  }

  @Override
  public boolean in(UUID project, String account) {
    return rounds.existsByProjectIdAndPersonAndTellsPositionTrue(project, account);
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

  /** A round of a project that this person has been given, whether they still go out or not. */
  public Round of(UUID project, UUID id, String person) {
    Round r = get(project, id);
    if (!r.person().equals(person)) throw Refusal.notFound("thing.round");
    return r;
  }

  /** A round that this person has been given, in a project where they still go out. */
  public Round forPerson(UUID id, String person) {
    Set<UUID> there = members.projectsOf(person, Right.GO_OUT);
    return with(
            rounds
                .findById(id)
                .filter(r -> r.person.equals(person) && there.contains(r.projectId))
                .stream()
                .toList())
        .stream()
        .findFirst()
        .orElseThrow(() -> Refusal.notFound("thing.round"));
  }

  /** The project of a round, if there is such a round. */
  public Optional<UUID> projectOf(UUID round) {
    return rounds.findById(round).map(r -> r.projectId);
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
