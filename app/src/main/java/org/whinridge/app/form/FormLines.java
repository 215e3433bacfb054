package org.whinridge.app.form;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Project;
import org.whinridge.core.said.Said;

/** The forms of a project as their list shows them. */
@Component
class FormLines {
  private final Forms forms;
  private final Layers layers;
  private final VisitsOfForms visits;

  FormLines(Forms forms, Layers layers, VisitsOfForms visits) {
    this.forms = forms;
    this.layers = layers;
    this.visits = visits;
  }

  /**
   * One form.
   *
   * @param layer the layer's name; nothing for a form that has none yet
   * @param editions all of them, the newest first
   * @param received the visits that began in the season of today, or in the last one
   * @param expected how many are expected in a season; 0 when nobody said
   * @param since the season's first day; empty for all visits there are
   */
  record Line(
      FormDraft draft,
      Optional<String> layer,
      List<EditionHead> editions,
      long received,
      int expected,
      Optional<LocalDate> since) {
    /** How much of what is expected is there, as a percentage that a bar can show. */
    public long share() {
      return expected == 0 ? 0 : Math.min(100, received * 100 / expected);
    }

    /** The newest edition, in words, or that there is none. */
    public Said editionsSaid() {
      if (editions.isEmpty()) return Said.of("page.forms.draft");
      return Said.of("page.forms.edition", "n", editions.get(0).number());
    }
  }

  List<Line> of(Project project) {
    Map<UUID, Layer> byId =
        layers.list(project.id()).stream().collect(Collectors.toMap(Layer::id, l -> l));
    List<FormDraft> all = forms.list(project.id());
    Map<UUID, List<EditionHead>> editions =
        forms.editions(all.stream().map(FormDraft::id).toList());
    Map<UUID, Optional<LocalDate>> begun = new LinkedHashMap<>();
    for (FormDraft f : all) begun.put(f.id(), season(f, project.zone()));
    Map<UUID, Long> received = received(begun, project.zone());
    return all.stream()
        .map(
            f ->
                new Line(
                    f,
                    f.layer().map(byId::get).map(Layer::name),
                    editions.getOrDefault(f.id(), List.of()),
                    received.getOrDefault(f.id(), 0L),
                    f.form().settings().expectedVisits(),
                    begun.get(f.id())))
        .toList();
  }

  /** The first day of the season of today, or of the last one. */
  private static Optional<LocalDate> season(FormDraft form, ZoneId zone) {
    LocalDate today = LocalDate.ofInstant(Layers.now(), zone);
    return form.form().settings().season().map(s -> LocalDate.parse(s.begunBy(today.toString())));
  }

  /** The visits since each form's season began: forms that begin on one day are asked together. */
  private Map<UUID, Long> received(Map<UUID, Optional<LocalDate>> begun, ZoneId zone) {
    Map<Instant, List<UUID>> together =
        begun.keySet().stream()
            .collect(
                Collectors.groupingBy(
                    id -> begun.get(id).map(d -> begin(d, zone)).orElse(Instant.EPOCH)));
    Map<UUID, Long> out = new HashMap<>();
    together.forEach((from, ids) -> out.putAll(visits.since(ids, from)));
    return out;
  }

  private static Instant begin(LocalDate day, ZoneId zone) {
    return day.atStartOfDay(zone).toInstant();
  }
}
