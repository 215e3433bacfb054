package org.whinridge.app.form;

import com.eclipsesource.json.JsonObject;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseBody;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.core.access.Right;

/** How a draft, or one condition of it, fares on the features of its layer. */
@Controller
class DraftRunsController {
  private final Projects projects;
  private final Forms forms;
  private final DraftRuns runs;

  DraftRunsController(Projects projects, Forms forms, DraftRuns runs) {
    this.projects = projects;
    this.forms = forms;
    this.runs = runs;
  }

  /**
   * What is asked.
   *
   * @param rule a condition, CQL2 Text
   * @param named how many of the features are named; null for a few
   */
  record Asked(
      @NotNull(message = "border.isMissing") String rule,
      @Min(value = 0, message = "border.isLessThan0")
          @Max(value = DraftRuns.MOST_NAMED, message = "border.isTooMany")
          Integer named) {}

  /**
   * The answer.
   *
   * @param counted whether it could be; else all else is empty
   */
  record Told(
      boolean counted,
      int holds,
      int fails,
      int features,
      int of,
      List<DraftRuns.Named> first,
      String filter) {}

  /** For how many features a condition holds. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/api/p/{project}/forms/{id}/tally")
  @ResponseBody
  Told tally(
      @PathVariable String project,
      @PathVariable UUID id,
      @Valid @RequestBody Asked asked,
      Principal person) {
    Project p = projects.byKey(project);
    int named = asked.named == null ? DraftRuns.NAMED : asked.named;
    return runs.tally(p, forms.get(p.id(), id), asked.rule, named, person.getName())
        .map(t -> new Told(true, t.holds(), t.fails(), t.features(), t.of(), t.first(), t.filter()))
        .orElse(new Told(false, 0, 0, 0, 0, List.of(), ""));
  }

  /** How many features were run before. */
  record From(@Min(value = 0, message = "border.isLessThan0") int from) {}

  /**
   * How a lot fared.
   *
   * @param report see {@code DryRun.Report}; null when the draft can't be run
   * @param better how many fail under the edition in use, and pass now
   * @param worse how many pass under it, and fail now
   * @param named features that failed, by id
   * @param next where the next lot begins; null when there is none
   * @param of how many features the layer has
   */
  record Fared(
      JsonObject report,
      int better,
      int worse,
      Map<String, DraftRuns.Failed> named,
      Integer next,
      int of) {}

  /** Below which visit to go on; null for the newest. */
  record Below(UUID below) {}

  /**
   * How a lot of the visits that came in would fare.
   *
   * @param report see {@code DryRun.Report}, with visits for features; null when the draft can't be
   *     run
   * @param named visits that would be held back, by id
   * @param next below which the next lot begins; null when there is none
   * @param of how many visits there are
   */
  record FaredVisits(
      JsonObject report, Map<UUID, DraftRuns.NamedVisit> named, UUID next, long of) {}

  /** Runs the draft over the next lot of visits that came in. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/api/p/{project}/forms/{id}/dry-run/visits")
  @ResponseBody
  FaredVisits visits(
      @PathVariable String project, @PathVariable UUID id, @Valid @RequestBody Below below) {
    Project p = projects.byKey(project);
    return runs.received(p, forms.get(p.id(), id), Optional.ofNullable(below.below))
        .map(
            lot ->
                new FaredVisits(
                    lot.report().json(), lot.named(), lot.next().orElse(null), lot.of()))
        .orElse(new FaredVisits(null, Map.of(), null, 0));
  }

  /** Runs the draft over the next lot of features. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/api/p/{project}/forms/{id}/dry-run")
  @ResponseBody
  Fared dryRun(
      @PathVariable String project,
      @PathVariable UUID id,
      @Valid @RequestBody From from,
      Principal person) {
    Project p = projects.byKey(project);
    return runs.dryRun(p, forms.get(p.id(), id), from.from, person.getName())
        .map(
            lot ->
                new Fared(
                    lot.report().json(),
                    lot.better(),
                    lot.worse(),
                    lot.named(),
                    lot.next().isPresent() ? lot.next().getAsInt() : null,
                    lot.of()))
        .orElse(new Fared(null, 0, 0, Map.of(), null, 0));
  }
}
