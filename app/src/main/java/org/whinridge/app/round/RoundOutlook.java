package org.whinridge.app.round;

import com.eclipsesource.json.JsonObject;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.round.RoundWay;
import org.whinridge.core.round.SelectionSummary;
import org.whinridge.core.round.Travel;

/** What a round would be before it is made: of what, in which order, how long. */
@Service
class RoundOutlook {
  /** The most people over whom stops are split. */
  private static final int MOST_PEOPLE = 50;

  /** By so many fields of a layer a selection is counted. */
  private static final int MOST_FIELDS = 3;

  private final LayerQueries queries;
  private final RoundForms forms;

  RoundOutlook(LayerQueries queries, RoundForms forms) {
    this.queries = queries;
    this.forms = forms;
  }

  /**
   * What is looked at.
   *
   * @param stops features in their order of visit
   * @param travel see core's Travel; null for the usual one
   * @param order whether the best order is to be found; null or false: the given one is measured
   * @param people over how many people the stops are split; null for one
   */
  record Asked(
      @NotNull(message = "border.isMissing")
          @Size(max = RoundForms.MOST, message = "border.hasMoreThanFit")
          List<@NotNull(message = "border.isNoId") UUID> forms,
      @NotNull(message = "border.isMissing")
          @Size(max = Choosing.MOST_GIVEN, message = "border.hasMoreThanFit")
          List<@NotNull(message = "border.isNoId") UUID> stops,
      JsonObject travel,
      Boolean order,
      @Min(value = 1, message = "border.isOutOfRange")
          @Max(value = MOST_PEOPLE, message = "border.isOutOfRange")
          Integer people) {}

  /**
   * What it would be.
   *
   * @param ways one for each person
   * @param made by layer, of what the stops are
   * @param gone stops that are on none of the layers any more
   */
  record Seen(List<Way> ways, List<OfLayer> made, int gone) {}

  /** One person's stops in their order; geodesic metres and hours. */
  record Way(List<UUID> stops, double lengthM, double hours) {}

  /** Stops of a layer. */
  record OfLayer(UUID layer, String name, SelectionSummary summary) {}

  /** Looks at it. Not within a transaction, since it asks read models. */
  Seen at(UUID project, Asked asked) {
    RoundMaking.atMost(new HashSet<>(asked.stops).size());
    Travel travel = asked.travel == null ? Travel.USUAL : Travel.read(asked.travel);
    RoundForms.Chosen chosen = forms.of(project, asked.forms);
    Map<UUID, Feature> there = new LinkedHashMap<>();
    Map<UUID, Integer> minutes = new HashMap<>();
    List<OfLayer> made = new ArrayList<>();
    Set<UUID> wanted = new LinkedHashSet<>(asked.stops);
    for (Layer l : chosen.layers()) {
      List<Feature> some = queries.some(l, wanted);
      if (some.isEmpty()) continue;
      made.add(new OfLayer(l.id(), l.name(), SelectionSummary.of(l.schema(), some, MOST_FIELDS)));
      for (Feature f : some) {
        there.put(UUID.fromString(f.id()), f);
        minutes.put(UUID.fromString(f.id()), chosen.minutes(l.id()));
      }
    }
    List<UUID> stops = wanted.stream().filter(there::containsKey).toList();
    List<RoundWay.Stop> all =
        stops.stream()
            .map(id -> new RoundWay.Stop(Choosing.place(there.get(id)), minutes.get(id)))
            .toList();
    int people = asked.people == null ? 1 : asked.people;
    List<RoundWay> ways =
        Boolean.TRUE.equals(asked.order) || people > 1
            ? RoundWay.best(all, travel.how(people))
            : List.of(RoundWay.asGiven(all, travel.how(1)));
    return new Seen(
        ways.stream()
            .map(w -> new Way(w.stops().stream().map(stops::get).toList(), w.lengthM(), w.hours()))
            .toList(),
        made,
        wanted.size() - stops.size());
  }
}
