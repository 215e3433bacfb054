package org.whinridge.app.round;

import com.eclipsesource.json.JsonObject;
import com.fasterxml.jackson.annotation.JsonInclude;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.own.Device;
import org.whinridge.app.own.Devices;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.ProjectDays;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.round.Pace;
import org.whinridge.core.round.StopState;

/** A round as it goes: its stops and their visits, who did what, where they are, when it ends. */
@Service
class RoundLive {
  /** So many visits to what is no stop are told. */
  private static final int MOST_BESIDE = 500;

  private final Rounds rounds;
  private final VisitsForRounds visits;
  private final Devices devices;
  private final Members members;
  private final Layers layers;
  private final LayerQueries queries;
  private final ProjectDays days;

  RoundLive(
      Rounds rounds,
      VisitsForRounds visits,
      Devices devices,
      Members members,
      Layers layers,
      LayerQueries queries,
      ProjectDays days) {
    this.rounds = rounds;
    this.visits = visits;
    this.devices = devices;
    this.members = members;
    this.layers = layers;
    this.queries = queries;
    this.days = days;
  }

  /**
   * The round now.
   *
   * @param end the day on which it would be over at its present pace; null while nothing is done,
   *     and when nothing is left
   * @param outdoors to whom stops can be given
   * @param beside visits to what is no stop, the newest first
   * @param besides how many of them there are
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record Now(
      List<Stop> stops,
      List<Beside> beside,
      int besides,
      List<Person> people,
      LocalDate end,
      List<String> outdoors) {
    Now withoutPlaces() {
      return new Now(
          stops,
          beside,
          besides,
          people.stream()
              .map(p -> new Person(p.name, p.done, p.given, p.contact, null, null))
              .toList(),
          end,
          outdoors);
    }
  }

  /**
   * A stop, by its place in the order of visit from 1.
   *
   * @param caption "" for a feature that was removed
   * @param geometry null for a feature without a place, or one removed
   * @param person who is to go there; "" for whoever comes first
   * @param by who visited it last; "" for nobody
   * @param visit the last visit; null for none
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record Stop(
      UUID id,
      UUID layer,
      int place,
      String caption,
      String state,
      String reason,
      String note,
      List<String> pictures,
      String person,
      String by,
      UUID visit,
      JsonObject geometry) {}

  /**
   * A visit to what is no stop.
   *
   * @param caption "" for what is not on its layer, or not yet
   * @param geometry null for what has no place, or is not on its layer
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record Beside(
      UUID visit,
      String caption,
      boolean makes,
      String state,
      String by,
      Instant at,
      JsonObject geometry) {}

  /**
   * Who goes, or went.
   *
   * @param done stops that this person's last visit is at
   * @param given stops that are this person's alone and not done
   * @param contact when a device of theirs was last in contact; null for never
   * @param at [lon, lat], when a round lets devices tell; null otherwise
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record Person(String name, int done, int given, Instant contact, double[] at, Instant atWhen) {}

  /** Not within a transaction, since it asks read models. */
  Now of(UUID project, UUID id) {
    Round r = rounds.get(project, id);
    Map<UUID, VisitsForRounds.Made> last = new LinkedHashMap<>();
    List<VisitsForRounds.Made> all = visits.visitsOf(id);
    for (VisitsForRounds.Made v : all) last.put(v.feature(), v);
    Map<UUID, RoundLive.OnLayer> there = features(r);
    List<Stop> stops = new ArrayList<>();
    for (Round.Stop s : r.stops()) stops.add(stop(s, stops.size() + 1, there, last));
    Set<String> names = new LinkedHashSet<>(r.people());
    for (VisitsForRounds.Made v : all) names.add(v.person());
    for (Round.Stop s : r.stops()) s.person().ifPresent(names::add);
    List<Device> known = devices.in(project, names);
    LocalDate today = days.day(project, Layers.now());
    Set<UUID> isStop = stops.stream().map(Stop::id).collect(Collectors.toSet());
    List<VisitsForRounds.Made> beside =
        all.stream().filter(v -> !isStop.contains(v.feature())).toList();
    return new Now(
        stops,
        beside(beside),
        beside.size(),
        names.stream().map(n -> person(n, stops, known)).toList(),
        end(project, r, all, today),
        members.outdoors(project));
  }

  private List<Beside> beside(List<VisitsForRounds.Made> all) {
    List<VisitsForRounds.Made> told =
        all.subList(Math.max(0, all.size() - MOST_BESIDE), all.size());
    Map<UUID, List<UUID>> wanted = new LinkedHashMap<>();
    for (VisitsForRounds.Made v : told)
      wanted.computeIfAbsent(v.layer(), x -> new ArrayList<>()).add(v.feature());
    Map<UUID, OnLayer> there = new LinkedHashMap<>();
    wanted.forEach((layer, ids) -> there.putAll(some(layers.byId(layer), ids)));
    List<Beside> out = new ArrayList<>();
    for (VisitsForRounds.Made v : told) {
      Optional<OnLayer> f = Optional.ofNullable(there.get(v.feature()));
      out.add(
          0,
          new Beside(
              v.id(),
              f.map(OnLayer::caption).orElse(""),
              v.makes(),
              v.state().id(),
              v.person(),
              v.endedAt(),
              f.flatMap(x -> x.feature.geometry()).map(GeometryJson::write).orElse(null)));
    }
    return out;
  }

  private LocalDate end(UUID project, Round r, List<VisitsForRounds.Made> all, LocalDate today) {
    int left = (int) (r.stops().size() - r.done());
    if (all.isEmpty() || left == 0) return null;
    return new Pace((int) r.done(), days.day(project, all.get(0).endedAt()))
        .end(today, left)
        .orElse(null);
  }

  /** A stop's feature on its layer. */
  record OnLayer(Layer layer, Feature feature) {
    String caption() {
      return layer.schema().caption(feature.values());
    }
  }

  /** The features of a round's stops that are there, by id. */
  Map<UUID, OnLayer> features(Round r) {
    Map<UUID, OnLayer> out = new LinkedHashMap<>();
    for (UUID id : r.stops().stream().map(Round.Stop::layerId).distinct().toList()) {
      Layer layer = layers.byId(id);
      List<UUID> ids =
          r.stops().stream()
              .filter(s -> s.layerId().equals(id))
              .map(Round.Stop::featureId)
              .toList();
      out.putAll(some(layer, ids));
    }
    return out;
  }

  private Map<UUID, OnLayer> some(Layer layer, List<UUID> ids) {
    Map<UUID, OnLayer> out = new LinkedHashMap<>();
    for (Feature f : queries.some(layer, ids))
      out.put(UUID.fromString(f.id()), new OnLayer(layer, f));
    return out;
  }

  private static Stop stop(
      Round.Stop s, int place, Map<UUID, OnLayer> there, Map<UUID, VisitsForRounds.Made> last) {
    Optional<OnLayer> f = Optional.ofNullable(there.get(s.featureId()));
    Optional<VisitsForRounds.Made> v = Optional.ofNullable(last.get(s.featureId()));
    return new Stop(
        s.featureId(),
        s.layerId(),
        place,
        f.map(OnLayer::caption).orElse(""),
        s.state().id(),
        s.reason(),
        s.note().text(),
        s.note().pictures(),
        s.person().orElse(""),
        v.map(VisitsForRounds.Made::person).orElse(""),
        v.map(VisitsForRounds.Made::id).orElse(null),
        f.flatMap(x -> x.feature.geometry()).map(GeometryJson::write).orElse(null));
  }

  private static Person person(String name, List<Stop> stops, List<Device> known) {
    Optional<Device> contact =
        known.stream()
            .filter(d -> d.account().equals(name) && d.contactAt().isPresent())
            .max(Comparator.comparing(d -> d.contactAt().get()));
    Optional<Device> placed =
        known.stream()
            .filter(d -> d.account().equals(name) && d.position().isPresent())
            .max(Comparator.comparing(d -> d.contactAt().orElse(Instant.EPOCH)));
    return new Person(
        name,
        (int)
            stops.stream()
                .filter(s -> s.by.equals(name) && s.state.equals(StopState.DONE.id()))
                .count(),
        (int)
            stops.stream()
                .filter(s -> s.person.equals(name) && !s.state.equals(StopState.DONE.id()))
                .count(),
        contact.flatMap(Device::contactAt).orElse(null),
        placed.flatMap(Device::position).map(p -> new double[] {p.lon(), p.lat()}).orElse(null),
        placed.flatMap(Device::position).map(Device.Position::at).orElse(null));
  }
}
