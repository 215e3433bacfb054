package org.whinridge.app.round;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Members;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Writing;
import org.whinridge.core.round.StopState;

/** What is done with a round while it is out. Devices learn of it at their next contact. */
@Service
class RoundCare {
  private final RoundRepository rounds;
  private final RoundPersonRepository people;
  private final StopRepository stops;
  private final Members members;

  RoundCare(
      RoundRepository rounds, RoundPersonRepository people, StopRepository stops, Members members) {
    this.rounds = rounds;
    this.people = people;
    this.stops = stops;
    this.members = members;
  }

  private RoundEntity of(UUID project, UUID id) {
    return rounds
        .findByIdAndProjectId(id, project)
        .orElseThrow(() -> Refusal.notFound("thing.round"));
  }

  /** Closes a round, or opens it again. */
  @Writing
  public void close(UUID project, UUID id, boolean closed, String by) {
    RoundEntity r = of(project, id);
    r.closedAt = closed ? Layers.now() : null;
    r.closedBy = closed ? by : null;
  }

  /**
   * Gives stops to a person, who has the round from then on; those where a visit was begun or is
   * done stay where they are. Gives how many were moved.
   *
   * @param person "" for whoever of the round comes first
   */
  @Writing
  public int move(UUID project, UUID id, Collection<UUID> features, String person) {
    of(project, id);
    if (!person.isEmpty()) {
      if (!members.outdoors(project).contains(person))
        throw Refusal.refused("refused.chooseWhoGoesRound");
      List<RoundPersonEntity> all = people.findByRoundIdInOrderByPerson(List.of(id));
      if (!all.isEmpty()) give(id, person);
    }
    int moved = 0;
    for (StopEntity s : stops.findByRoundIdAndFeatureIdIn(id, features)) {
      if (s.state != StopState.TO_DO) continue;
      s.person = person.isEmpty() ? null : person;
      moved++;
    }
    return moved;
  }

  private void give(UUID round, String person) {
    RoundPersonEntity p =
        people
            .findByRoundIdAndPerson(round, person)
            .orElseGet(
                () -> {
                  RoundPersonEntity fresh = new RoundPersonEntity();
                  fresh.id = UUID.randomUUID();
                  fresh.roundId = round;
                  fresh.person = person;
                  return fresh;
                });
    p.takenOffAt = null;
    people.save(p);
  }
}
