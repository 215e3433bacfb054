package org.whinridge.app.round;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygonal;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import org.whinridge.app.form.FormFiles;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.ProjectDays;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.round.Note;
import org.whinridge.core.round.RoundAllows;
import org.whinridge.core.round.StopState;
import org.whinridge.core.round.Travel;

/** Makes rounds. */
@Service
public class RoundMaking {
  /** The most stops of one round. */
  public static final int MOST_STOPS = 5000;

  /** The most pictures of all notes together: every device takes them out. */
  private static final int MOST_PICTURES = 200;

  private static final int LONGEST_NAME = 120;
  private static final int MOST_ROUNDS = 50;
  private static final int MOST_EXPECTED = 1_000_000;

  private final RoundRepository rounds;
  private final RoundFormRepository formsOf;
  private final RoundPersonRepository peopleOf;
  private final StopRepository stops;
  private final RoundForms forms;
  private final FormFiles files;
  private final LayerQueries queries;
  private final Members members;
  private final ProjectDays days;
  private final TransactionTemplate transaction;

  RoundMaking(
      RoundRepository rounds,
      RoundFormRepository formsOf,
      RoundPersonRepository peopleOf,
      StopRepository stops,
      RoundForms forms,
      FormFiles files,
      LayerQueries queries,
      Members members,
      ProjectDays days,
      PlatformTransactionManager manager) {
    this.rounds = rounds;
    this.formsOf = formsOf;
    this.peopleOf = peopleOf;
    this.stops = stops;
    this.forms = forms;
    this.files = files;
    this.queries = queries;
    this.members = members;
    this.days = days;
    this.transaction = new TransactionTemplate(manager);
  }

  /**
   * What is asked for when rounds are made.
   *
   * @param tellsPosition devices say where they are at a contact
   * @param parts one round is made of each; several are named after who goes
   */
  public record Plan(
      String name,
      Note note,
      Round.When when,
      List<UUID> forms,
      RoundAllows allows,
      Optional<Geometry> area,
      Travel travel,
      boolean tellsPosition,
      List<Part> parts) {
    /** A round of stops alone, for one person, with one form. */
    public static Plan of(String name, UUID form, String person, List<UUID> stops) {
      return new Plan(
          name,
          Note.NONE,
          new Round.When(Optional.empty(), Optional.empty(), 0),
          List.of(form),
          RoundAllows.STOPS,
          Optional.empty(),
          Travel.USUAL,
          false,
          List.of(
              new Part(List.of(person), stops.stream().map(s -> new Stop(s, Note.NONE)).toList())));
    }

    /** The same with a note, a due day, and devices that tell where they are. */
    public Plan with(String newNote, LocalDate due) {
      return new Plan(
          name,
          Note.of(newNote),
          new Round.When(when.starts(), Optional.of(due), when.expected()),
          forms,
          allows,
          area,
          travel,
          true,
          parts);
    }
  }

  /** Who goes where; nobody for anyone of the project. */
  public record Part(List<String> people, List<Stop> stops) {}

  /** A feature to be visited, and what to know there. */
  public record Stop(UUID feature, Note note) {}

  /**
   * Rounds that were made.
   *
   * @param gone how many of the chosen features were not there any more
   */
  public record Made(List<UUID> rounds, int gone) {}

  /**
   * Makes a round of each part, all or none. What is chosen is found before the transaction that
   * writes begins.
   */
  public Made make(UUID project, Plan plan, String by) {
    RoundForms.Chosen chosen = forms.of(project, plan.forms);
    check(project, plan);
    Map<UUID, UUID> layerOf = layers(chosen, plan);
    Set<UUID> gone = new HashSet<>();
    List<RoundEntity> made = new ArrayList<>();
    List<RoundPersonEntity> people = new ArrayList<>();
    List<RoundFormEntity> formed = new ArrayList<>();
    List<StopEntity> all = new ArrayList<>();
    for (Part part : plan.parts) {
      RoundEntity e = round(project, plan, part, by);
      made.add(e);
      for (String p : new LinkedHashSet<>(part.people)) people.add(person(e.id, p));
      for (UUID f : new LinkedHashSet<>(plan.forms)) formed.add(form(e.id, f, formed.size()));
      Map<UUID, Note> notes = new LinkedHashMap<>();
      for (Stop s : part.stops)
        if (layerOf.containsKey(s.feature)) notes.putIfAbsent(s.feature, s.note);
        else gone.add(s.feature);
      int place = 0;
      for (Map.Entry<UUID, Note> s : notes.entrySet())
        all.add(stop(e.id, layerOf.get(s.getKey()), s.getKey(), s.getValue(), place++));
      if (place == 0 && plan.allows == RoundAllows.STOPS)
        throw Refusal.refused("refused.noFeatureSelectedDraw");
    }
    transaction.executeWithoutResult(
        t -> {
          rounds.saveAllAndFlush(made);
          formsOf.saveAll(formed);
          peopleOf.saveAll(people);
          stops.saveAll(all);
        });
    return new Made(made.stream().map(r -> r.id).toList(), gone.size());
  }

  /** The first round of a plan as it would be; nothing is kept. */
  Round unmade(UUID project, Plan plan) {
    RoundForms.Chosen chosen = forms.of(project, plan.forms);
    Map<UUID, UUID> layerOf = layers(chosen, plan);
    Part part = plan.parts.get(0);
    atMost(part.stops.size());
    checkNotes(project, plan);
    return new Round(
        UUID.randomUUID(),
        project,
        plan.name,
        plan.note,
        plan.when,
        List.copyOf(new LinkedHashSet<>(plan.forms)),
        part.people,
        plan.allows,
        plan.area,
        plan.travel,
        plan.tellsPosition,
        Layers.now(),
        "",
        Optional.empty(),
        part.stops.stream()
            .filter(s -> layerOf.containsKey(s.feature))
            .map(
                s ->
                    new Round.Stop(
                        layerOf.get(s.feature),
                        s.feature,
                        StopState.TO_DO,
                        "",
                        s.note,
                        Optional.empty()))
            .toList());
  }

  private void check(UUID project, Plan plan) {
    if (plan.name.isBlank()) throw Refusal.refused("refused.roundNeedsNameCharacters");
    checkNotes(project, plan);
    if (plan.parts.isEmpty() || plan.parts.size() > MOST_ROUNDS)
      throw Refusal.refused("refused.tooManyRounds", "most", MOST_ROUNDS);
    LocalDate today = days.day(project, Layers.now());
    plan.when
        .due()
        .filter(d -> d.isBefore(plan.when.starts().orElse(today)))
        .ifPresent(
            d -> {
              throw plan.when.starts().isPresent()
                  ? Refusal.refused(
                      "refused.dueBeforeStart", "due", d, "start", plan.when.starts().get())
                  : Refusal.refused("refused.dueHasPassed", "due", d);
            });
    if (plan.when.expected() < 0 || plan.when.expected() > MOST_EXPECTED)
      throw Refusal.refused("refused.expectedVisits", "most", MOST_EXPECTED);
    plan.area
        .filter(a -> !(a instanceof Polygonal) || a.isEmpty())
        .ifPresent(
            a -> {
              throw Refusal.refused("refused.roundAreaNoArea");
            });
    List<String> outdoors = members.outdoors(project);
    for (Part part : plan.parts) {
      if (!outdoors.containsAll(part.people)) throw Refusal.refused("refused.chooseWhoGoesRound");
      if (name(plan, part).length() > LONGEST_NAME)
        throw Refusal.refused("refused.roundNeedsNameCharacters");
      atMost(
          part.stops.stream()
              .map(Stop::feature)
              .collect(java.util.stream.Collectors.toSet())
              .size());
    }
  }

  /** Refuses notes that are too much, and pictures that are none of the project's. */
  private void checkNotes(UUID project, Plan plan) {
    Set<String> pictures = new LinkedHashSet<>();
    check(plan.note, pictures);
    for (Part part : plan.parts) for (Stop s : part.stops) check(s.note, pictures);
    if (pictures.size() > MOST_PICTURES)
      throw Refusal.refused("refused.roundPictures", "n", pictures.size(), "most", MOST_PICTURES);
    if (!files.pictures(project, pictures).containsAll(pictures))
      throw Refusal.refused("refused.notePictureGone");
  }

  /** Refuses a note that is too much, and collects its pictures. */
  private static void check(Note note, Set<String> pictures) {
    if (note.text().length() > Note.LONGEST)
      throw Refusal.refused("refused.noteTooLong", "n", note.text().length());
    if (note.pictures().size() > Note.MOST_PICTURES)
      throw Refusal.refused("refused.notePictures", "most", Note.MOST_PICTURES);
    pictures.addAll(note.pictures());
  }

  /** Refuses more stops than a round has. */
  static void atMost(int chosen) {
    if (chosen > MOST_STOPS)
      throw Refusal.refused("refused.tooManyStops", "n", chosen, "most", MOST_STOPS);
  }

  /** The layer of each chosen feature that is there. */
  private Map<UUID, UUID> layers(RoundForms.Chosen chosen, Plan plan) {
    Set<UUID> wanted = new LinkedHashSet<>();
    for (Part p : plan.parts) for (Stop s : p.stops) wanted.add(s.feature);
    Map<UUID, UUID> out = new LinkedHashMap<>();
    for (Layer l : chosen.layers())
      for (Feature f : queries.some(l, wanted)) out.put(UUID.fromString(f.id()), l.id());
    return out;
  }

  private static String name(Plan plan, Part part) {
    String name = plan.name.strip();
    return plan.parts.size() == 1 || part.people.isEmpty()
        ? name
        : name + ": " + String.join(", ", part.people);
  }

  private static RoundEntity round(UUID project, Plan plan, Part part, String by) {
    RoundEntity e = new RoundEntity();
    e.id = UUID.randomUUID();
    e.projectId = project;
    e.name = name(plan, part);
    e.note = plan.note.text();
    e.pictures = plan.note.pictureList();
    e.starts = plan.when.starts().orElse(null);
    e.due = plan.when.due().orElse(null);
    e.expected = plan.when.expected();
    e.allows = plan.allows;
    e.area = plan.area.map(g -> GeometryJson.write(g).toString()).orElse(null);
    e.way = plan.travel.json().toString();
    e.madeAt = Layers.now();
    e.madeBy = by;
    e.tellsPosition = plan.tellsPosition;
    return e;
  }

  private static RoundPersonEntity person(UUID round, String person) {
    RoundPersonEntity p = new RoundPersonEntity();
    p.id = UUID.randomUUID();
    p.roundId = round;
    p.person = person;
    return p;
  }

  private static RoundFormEntity form(UUID round, UUID form, int place) {
    RoundFormEntity f = new RoundFormEntity();
    f.id = UUID.randomUUID();
    f.roundId = round;
    f.formId = form;
    f.orderInRound = place;
    return f;
  }

  private static StopEntity stop(UUID round, UUID layer, UUID feature, Note note, int place) {
    StopEntity s = new StopEntity();
    s.id = UUID.randomUUID();
    s.roundId = round;
    s.layerId = layer;
    s.featureId = feature;
    s.orderInRound = place;
    s.state = StopState.TO_DO;
    s.reason = "";
    s.note = note.text();
    s.pictures = note.pictureList();
    return s;
  }
}
