package org.whinridge.app.round;

import com.eclipsesource.json.JsonObject;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.FlashMap;
import org.springframework.web.servlet.support.RequestContextUtils;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.MapExtent;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.round.Note;
import org.whinridge.core.round.RoundAllows;
import org.whinridge.core.round.Travel;
import org.whinridge.core.said.Said;

/** What the planner asks: what a round can be made of, what is chosen, what it would be. */
@RestController
class RoundApi {
  private final Projects projects;
  private final Rounds rounds;
  private final RoundForms forms;
  private final RoundMaking making;
  private final Choosing choosing;
  private final RoundOutlook outlook;
  private final RoundLive live;
  private final RoundCare care;
  private final Members members;
  private final MapExtent extents;
  private final PacksForRounds packs;

  RoundApi(
      Projects projects,
      Rounds rounds,
      RoundForms forms,
      RoundMaking making,
      Choosing choosing,
      RoundOutlook outlook,
      RoundLive live,
      RoundCare care,
      Members members,
      MapExtent extents,
      PacksForRounds packs) {
    this.packs = packs;
    this.projects = projects;
    this.rounds = rounds;
    this.forms = forms;
    this.making = making;
    this.choosing = choosing;
    this.outlook = outlook;
    this.live = live;
    this.care = care;
    this.members = members;
    this.extents = extents;
  }

  /**
   * What a round can be made of.
   *
   * @param most so many stops a round has at most
   * @param mostPictures so many pictures a note has at most
   * @param like the plan of a round that is copied; null for none
   */
  record Planning(
      List<FormChoice> forms,
      List<LayerChoice> layers,
      List<String> people,
      int most,
      int mostPictures,
      JsonObject travel,
      Copied like) {}

  /** A form, its newest edition, its planned minutes (0 when unsaid) and its layer. */
  record FormChoice(UUID id, String title, int edition, int minutes, UUID layer) {}

  /** A layer of a form; {@code extent} as pages carry it, "" when there is none. */
  record LayerChoice(
      UUID id, String name, String kind, int count, String extent, List<FieldChoice> fields) {}

  /** A field by which can be chosen. */
  record FieldChoice(String name, String label, String type, String unit, List<CodeChoice> codes) {}

  /** A code and its label. */
  record CodeChoice(String code, String label) {}

  /** The plan of a round that is copied. */
  record Copied(
      String name,
      String note,
      List<String> pictures,
      List<UUID> forms,
      String allows,
      List<String> people,
      boolean tellsPosition,
      JsonObject area,
      JsonObject travel,
      List<SentStop> stops) {}

  @Needs(Right.PLAN_ROUNDS)
  @GetMapping("/api/p/{project}/rounds/planning")
  Planning planning(@PathVariable String project, @RequestParam Optional<UUID> like) {
    UUID p = projects.byKey(project).id();
    List<RoundForms.One> all = forms.all(p);
    return new Planning(
        all.stream()
            .map(f -> new FormChoice(f.id(), f.title(), f.edition(), f.minutes(), f.layer().id()))
            .toList(),
        new RoundForms.Chosen(all).layers().stream().map(this::choice).toList(),
        members.outdoors(p),
        RoundMaking.MOST_STOPS,
        Note.MOST_PICTURES,
        Travel.USUAL.json(),
        like.map(id -> copied(rounds.get(p, id))).orElse(null));
  }

  private LayerChoice choice(Layer l) {
    return new LayerChoice(
        l.id(),
        l.name(),
        l.schema().kind().id(),
        l.count(),
        MapExtent.text(extents.of(l)),
        l.schema().fields().stream().map(RoundApi::choice).toList());
  }

  private static FieldChoice choice(Field f) {
    return new FieldChoice(
        f.name(),
        f.label(),
        f.type().id(),
        f.unit(),
        f.codes().stream().map((Code c) -> new CodeChoice(c.code(), c.label())).toList());
  }

  private static Copied copied(Round r) {
    return new Copied(
        r.name(),
        r.note().text(),
        r.note().pictures(),
        r.forms(),
        r.allows().id(),
        r.people(),
        r.tellsPosition(),
        r.area().map(GeometryJson::write).orElse(null),
        r.travel().json(),
        r.stops().stream().map(s -> SentStop.of(s)).toList());
  }

  /** Features for a round. */
  @Needs(Right.PLAN_ROUNDS)
  @PostMapping("/api/p/{project}/rounds/choosing")
  Choosing.Chosen choose(@PathVariable String project, @Valid @RequestBody Choosing.Asked asked) {
    return choosing.find(projects.byKey(project).id(), asked);
  }

  /** What a round would be. */
  @Needs(Right.PLAN_ROUNDS)
  @PostMapping("/api/p/{project}/rounds/outlook")
  RoundOutlook.Seen outlook(
      @PathVariable String project, @Valid @RequestBody RoundOutlook.Asked asked) {
    return outlook.at(projects.byKey(project).id(), asked);
  }

  /**
   * A plan as the planner sends it; what may be left out is null.
   *
   * @param allows core's RoundAllows
   * @param area GeoJSON
   * @param travel core's Travel
   */
  record SentPlan(
      @NotNull(message = "border.isMissing") String name,
      String note,
      List<@NotNull(message = "border.isNoId") String> pictures,
      LocalDate starts,
      LocalDate due,
      Integer expected,
      @NotEmpty(message = "border.isMissing")
          @Size(max = RoundForms.MOST, message = "border.hasMoreThanFit")
          List<@NotNull(message = "border.isNoId") UUID> forms,
      String allows,
      JsonObject area,
      JsonObject travel,
      Boolean tellsPosition,
      @NotEmpty(message = "border.isMissing")
          List<@NotNull(message = "border.isMissing") @Valid SentPart> parts) {
    RoundMaking.Plan plan() {
      return new RoundMaking.Plan(
          name,
          noted(note, pictures),
          new Round.When(
              Optional.ofNullable(starts),
              Optional.ofNullable(due),
              expected == null ? 0 : expected),
          forms,
          allows == null
              ? RoundAllows.STOPS
              : RoundAllows.of(allows).orElseThrow(() -> Refusal.wrongKind("allows")),
          Optional.ofNullable(area).map(Choosing::shape),
          travel == null ? Travel.USUAL : Travel.read(travel),
          tellsPosition != null && tellsPosition,
          parts.stream().map(SentPart::part).toList());
    }
  }

  /** Who goes where; nobody for anyone. */
  record SentPart(
      @NotNull(message = "border.isMissing")
          List<@NotNull(message = "border.isMissing") String> people,
      @NotNull(message = "border.isMissing")
          List<@NotNull(message = "border.isMissing") @Valid SentStop> stops) {
    RoundMaking.Part part() {
      return new RoundMaking.Part(people, stops.stream().map(SentStop::stop).toList());
    }
  }

  /** A stop. */
  record SentStop(
      @NotNull(message = "border.isMissing") UUID id,
      String note,
      List<@NotNull(message = "border.isNoId") String> pictures) {
    static SentStop of(Round.Stop s) {
      return new SentStop(s.featureId(), s.note().text(), s.note().pictures());
    }

    RoundMaking.Stop stop() {
      return new RoundMaking.Stop(id, noted(note, pictures));
    }
  }

  private static Note noted(String text, List<String> pictures) {
    return new Note(text == null ? "" : text, pictures == null ? List.of() : pictures);
  }

  /** Where the rounds are that were made. */
  record Made(List<UUID> rounds, String address) {}

  @Needs(Right.PLAN_ROUNDS)
  @PostMapping("/api/p/{project}/rounds")
  Made make(
      @PathVariable String project,
      @Valid @RequestBody SentPlan sent,
      Principal by,
      HttpServletRequest request,
      HttpServletResponse response) {
    var p = projects.byKey(project);
    RoundMaking.Plan plan = sent.plan();
    RoundMaking.Made made = making.make(p.id(), plan, by.getName());
    packs.ahead(made.rounds());
    String all = "/p/" + p.key() + "/rounds";
    String address = made.rounds().size() == 1 ? all + "/" + made.rounds().get(0) : all;
    FlashMap told = new FlashMap();
    told.put("done", told(plan, made));
    told.setTargetRequestPath(address);
    RequestContextUtils.getFlashMapManager(request).saveOutputFlashMap(told, request, response);
    return new Made(made.rounds(), address);
  }

  /** What is told of a pack, see {@link PackSize}. */
  record Pack(long bytes, List<PartOfPack> parts) {
    static Pack of(PackSize size) {
      return new Pack(
          size.bytes(),
          size.parts().stream()
              .map(o -> new PartOfPack(o.part().id(), o.name(), o.bytes(), o.n(), o.of(), o.cut()))
              .toList());
    }
  }

  /** Some of it; {@code part} is core's PackPart. */
  record PartOfPack(String part, String name, long bytes, int n, int of, boolean cut) {}

  /** How large the pack would be of the first round that a plan makes. */
  @Needs(Right.PLAN_ROUNDS)
  @PostMapping("/api/p/{project}/rounds/pack")
  Pack packOfPlan(@PathVariable String project, @Valid @RequestBody SentPlan sent) {
    return Pack.of(packs.foreseen(making.unmade(projects.byKey(project).id(), sent.plan())));
  }

  /** How large the pack of a round is. */
  @Needs(Right.SEE_WORK)
  @GetMapping("/api/p/{project}/rounds/{id}/pack")
  Pack pack(@PathVariable String project, @PathVariable UUID id) {
    return Pack.of(packs.size(rounds.get(projects.byKey(project).id(), id)));
  }

  private static Said told(RoundMaking.Plan plan, RoundMaking.Made made) {
    String people =
        plan.parts().stream()
            .flatMap(p -> p.people().stream())
            .distinct()
            .collect(Collectors.joining(", "));
    return Said.of(
        people.isEmpty() ? "told.roundReadyAnyone" : "told.roundReadyFindsDay",
        "person",
        people,
        "n",
        made.rounds().size(),
        "gone",
        made.gone());
  }

  /** A round as it goes. */
  @Needs(Right.SEE_WORK)
  @GetMapping("/api/p/{project}/rounds/{id}/live")
  RoundLive.Now live(@PathVariable String project, @PathVariable UUID id, Principal person) {
    RoundLive.Now now = live.of(projects.byKey(project).id(), id);
    // where people are is for those alone who send them there
    return members.rights(person.getName(), project).may(Right.PLAN_ROUNDS)
        ? now
        : now.withoutPlaces();
  }

  /** Stops for somebody else; {@code person} is "" for whoever of the round comes first. */
  record Moved(
      @NotEmpty(message = "border.isMissing")
          @Size(max = RoundMaking.MOST_STOPS, message = "border.hasMoreThanFit")
          List<@NotNull(message = "border.isNoId") UUID> stops,
      @NotNull(message = "border.isMissing") String person) {}

  /** How many of them were moved. */
  record HasMoved(int moved) {}

  /** Gives stops to somebody, also while the round is out. */
  @Needs(Right.PLAN_ROUNDS)
  @PostMapping("/api/p/{project}/rounds/{id}/move")
  HasMoved move(
      @PathVariable String project, @PathVariable UUID id, @Valid @RequestBody Moved sent) {
    return new HasMoved(care.move(projects.byKey(project).id(), id, sent.stops, sent.person));
  }
}
