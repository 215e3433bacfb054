package org.whinridge.app.round;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.locationtech.jts.geom.Envelope;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import org.whinridge.app.form.FormDraft;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Members;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.round.StopOrder;
import org.whinridge.core.round.StopState;

/** Makes rounds. */
@Service
public class RoundMaking {
  /** The most stops of one round. */
  public static final int MOST_STOPS = 2000;

  private final RoundRepository rounds;
  private final StopRepository stops;
  private final Layers layers;
  private final LayerQueries queries;
  private final Forms forms;
  private final Members members;
  private final TransactionTemplate transaction;

  RoundMaking(
      RoundRepository rounds,
      StopRepository stops,
      Layers layers,
      LayerQueries queries,
      Forms forms,
      Members members,
      PlatformTransactionManager manager) {
    this.rounds = rounds;
    this.stops = stops;
    this.layers = layers;
    this.queries = queries;
    this.forms = forms;
    this.members = members;
    this.transaction = new TransactionTemplate(manager);
  }

  /**
   * What is asked for when a round is made. {@code rectangle} selects by place; {@code features} by
   * id; both together add up. {@code tellsPosition}: devices say where they are at a contact.
   */
  public record Plan(
      UUID layer,
      UUID form,
      String name,
      String note,
      Optional<LocalDate> due,
      String person,
      Optional<Envelope> rectangle,
      List<UUID> features,
      boolean tellsPosition) {}

  /**
   * Makes a round; gives its id. What is chosen is found before the transaction that writes begins.
   */
  public UUID make(UUID project, Plan plan, String by) {
    Layer layer = layers.get(project, plan.layer());
    FormDraft form = forms.get(project, plan.form());
    String name = plan.name().strip();
    if (name.isEmpty() || name.length() > 120)
      throw Refusal.refused("refused.roundNeedsNameCharacters");
    if (plan.note().length() > 1000)
      throw Refusal.refused("refused.noteTooLong", "n", plan.note().length());
    if (form.retired().isPresent())
      throw Refusal.refused("refused.formIsRetired", "title", form.form().title());
    if (!form.layer().equals(Optional.of(layer.id())))
      throw Refusal.refused("refused.formBelongsAnotherLayer", "name", layer.name());
    if (form.edition() == 0)
      throw Refusal.refused("refused.noPublishedEditionYet", "title", form.form().title());
    if (!members.outdoors(project).contains(plan.person()))
      throw Refusal.refused("refused.chooseWhoGoesRound");
    atMost(Set.copyOf(plan.features()).size()); // before so many are looked for
    List<UUID> chosen = chosen(layer, plan);
    if (chosen.isEmpty()) throw Refusal.refused("refused.noFeatureSelectedDraw");
    atMost(chosen.size());
    RoundEntity e = new RoundEntity();
    e.id = UUID.randomUUID();
    e.projectId = project;
    e.layerId = layer.id();
    e.formId = form.id();
    e.name = name;
    e.note = plan.note().strip();
    e.due = plan.due().orElse(null);
    e.person = plan.person();
    e.madeAt = Layers.now();
    e.madeBy = by;
    e.tellsPosition = plan.tellsPosition();
    List<StopEntity> all = new ArrayList<>();
    for (int i = 0; i < chosen.size(); i++) all.add(stop(e.id, chosen.get(i), i));
    transaction.executeWithoutResult(
        t -> {
          rounds.saveAndFlush(e);
          stops.saveAll(all);
        });
    return e.id;
  }

  private static void atMost(int chosen) {
    if (chosen > MOST_STOPS)
      throw Refusal.refused("refused.tooManyStops", "n", chosen, "most", MOST_STOPS);
  }

  private List<UUID> chosen(Layer layer, Plan plan) {
    Set<UUID> ids =
        new LinkedHashSet<>(
            layers.some(layer, plan.features()).stream()
                .map(f -> UUID.fromString(f.id()))
                .toList());
    plan.rectangle()
        .ifPresent(
            box -> {
              for (String id : StopOrder.inRectangle(box, queries.in(layer, box)))
                ids.add(UUID.fromString(id));
            });
    return List.copyOf(ids);
  }

  private static StopEntity stop(UUID round, UUID feature, int place) {
    StopEntity s = new StopEntity();
    s.id = UUID.randomUUID();
    s.roundId = round;
    s.featureId = feature;
    s.orderInRound = place;
    s.state = StopState.TO_DO;
    s.reason = "";
    return s;
  }
}
