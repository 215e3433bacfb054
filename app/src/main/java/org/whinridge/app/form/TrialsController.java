package org.whinridge.app.form;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseBody;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.core.access.Right;
import org.whinridge.core.trial.Difference;
import org.whinridge.core.trial.Trial;

/** The trials of a draft. */
@Controller
class TrialsController {
  /** So many of the visits that came in are offered to be kept. */
  private static final int OFFERED = 30;

  private final Projects projects;
  private final Forms forms;
  private final Trials trials;
  private final DraftRuns runs;

  TrialsController(Projects projects, Forms forms, Trials trials, DraftRuns runs) {
    this.projects = projects;
    this.forms = forms;
    this.trials = trials;
    this.runs = runs;
  }

  /** A trial, as it ran with the draft as it is. */
  record Line(
      UUID id,
      String name,
      String feature,
      Instant keptAt,
      String keptBy,
      int holding,
      List<JsonObject> differences) {}

  /**
   * All trials of a draft.
   *
   * @param revision the draft's, with which they ran
   * @param ran whether the draft can be run
   */
  record Told(long revision, boolean ran, List<Line> trials) {}

  private Told told(Project p, UUID form) {
    FormDraft draft = forms.get(p.id(), form);
    Trials.All all = trials.run(p, draft);
    return new Told(
        draft.revision(),
        all.ran(),
        all.trials().stream()
            .map(
                t ->
                    new Line(
                        t.id(),
                        t.name(),
                        t.feature(),
                        t.keptAt(),
                        t.keptBy(),
                        t.holding(),
                        t.differences().stream().map(Difference::json).toList()))
            .toList());
  }

  /** Runs all trials with the draft as it is. */
  @Needs(Right.BUILD_FORMS)
  @GetMapping("/api/p/{project}/forms/{id}/trials")
  @ResponseBody
  Told run(@PathVariable String project, @PathVariable UUID id) {
    return told(projects.byKey(project), id);
  }

  /**
   * What is to be kept: what was filled, or a visit that came in.
   *
   * @param feature a GeoJSON feature of the form's layer; null for a new one
   * @param start with what it was begun; null with a visit
   * @param saved what was done; null with a visit
   * @param visit null when it was filled
   */
  record Kept(
      @NotBlank(message = "border.isMissing") @Size(max = 120, message = "border.isTooLong")
          String name,
      JsonObject feature,
      JsonObject start,
      JsonObject saved,
      UUID visit) {}

  /** Keeps a trial. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/api/p/{project}/forms/{id}/trials")
  @ResponseBody
  Told keep(
      @PathVariable String project,
      @PathVariable UUID id,
      @Valid @RequestBody Kept kept,
      Principal person) {
    Project p = projects.byKey(project);
    if (kept.visit != null) trials.keepVisit(p, id, kept.name, kept.visit, person.getName());
    else
      trials.keep(
          p,
          id,
          kept.name,
          kept.feature == null ? Json.NULL : kept.feature,
          kept.start == null ? new JsonObject() : kept.start,
          kept.saved == null ? new JsonObject() : kept.saved,
          person.getName());
    return told(p, id);
  }

  /** What a trial keeps. */
  record Content(JsonValue feature, JsonObject start, JsonObject saved) {}

  /** A trial, to be filled again. */
  @Needs(Right.BUILD_FORMS)
  @GetMapping("/api/p/{project}/forms/{id}/trials/{trial}")
  @ResponseBody
  Content one(@PathVariable String project, @PathVariable UUID id, @PathVariable UUID trial) {
    Trial t = trials.get(forms.get(projects.byKey(project).id(), id).id(), trial);
    return new Content(t.feature(), t.start(), t.saved());
  }

  /** What comes of it now is expected from now on. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/api/p/{project}/forms/{id}/trials/{trial}/expect")
  @ResponseBody
  Told expect(@PathVariable String project, @PathVariable UUID id, @PathVariable UUID trial) {
    Project p = projects.byKey(project);
    trials.expectNow(p, id, trial);
    return told(p, id);
  }

  /** Another name. */
  record Named(
      @NotNull(message = "border.isMissing")
          @NotBlank(message = "border.isMissing")
          @Size(max = 120, message = "border.isTooLong")
          String name) {}

  /** Gives it another name. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/api/p/{project}/forms/{id}/trials/{trial}/name")
  @ResponseBody
  Told name(
      @PathVariable String project,
      @PathVariable UUID id,
      @PathVariable UUID trial,
      @Valid @RequestBody Named named) {
    Project p = projects.byKey(project);
    trials.rename(forms.get(p.id(), id).id(), trial, named.name);
    return told(p, id);
  }

  /** Takes it away. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/api/p/{project}/forms/{id}/trials/{trial}/remove")
  @ResponseBody
  Told remove(@PathVariable String project, @PathVariable UUID id, @PathVariable UUID trial) {
    Project p = projects.byKey(project);
    trials.remove(forms.get(p.id(), id).id(), trial);
    return told(p, id);
  }

  /** Visits that came in and could be kept as trials, the newest first. */
  @Needs(Right.BUILD_FORMS)
  @GetMapping("/api/p/{project}/forms/{id}/trials/visits")
  @ResponseBody
  List<DraftRuns.NamedVisit> visits(@PathVariable String project, @PathVariable UUID id) {
    Project p = projects.byKey(project);
    return runs.newestVisits(forms.get(p.id(), id), OFFERED);
  }
}
