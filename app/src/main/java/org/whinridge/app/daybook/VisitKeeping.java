package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonValue;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.form.Edition;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.project.Projects;
import org.whinridge.app.round.Round;
import org.whinridge.app.round.Rounds;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Sha256;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.round.StopState;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.visit.VisitState;

/**
 * Reads what a device sent as a visit, and keeps it. Reading runs the rules and asks the layer, and
 * is done before the transaction that keeps; keeping looks again at the one thing that can have
 * changed since, the visit's own row.
 */
@Component
class VisitKeeping {
  private static final Logger LOG = LoggerFactory.getLogger(VisitKeeping.class);
  private static final Instant EARLIEST = Instant.parse("1900-01-01T00:00:00Z");
  private static final Instant LATEST = Instant.parse("2999-12-31T23:59:59Z");
  private static final int MOST_PHOTOS = 50;
  private final VisitRepository visits;
  private final Rounds rounds;
  private final Forms forms;
  private final Layers layers;
  private final Projects projects;
  private final Photos photos;
  private final VisitCheck check;
  private final Locks locks;

  VisitKeeping(
      VisitRepository visits,
      Rounds rounds,
      Forms forms,
      Layers layers,
      Projects projects,
      Photos photos,
      VisitCheck check,
      Locks locks) {
    this.visits = visits;
    this.rounds = rounds;
    this.forms = forms;
    this.layers = layers;
    this.projects = projects;
    this.photos = photos;
    this.check = check;
    this.locks = locks;
  }

  /** It can't be read as a visit, and why. */
  static final class NoVisit extends Exception {
    private static final long serialVersionUID = 1;

    private final transient Said said;

    NoVisit(RuntimeException why) {
      super(why);
      said = why.getMessage() == null ? Said.of("refused.wrongPart") : Refusal.said(why);
    }

    /** Why. */
    Said said() {
      return said;
    }
  }

  /** A visit as it was read. */
  record Read(
      UUID id,
      String text,
      Round round,
      UUID form,
      UUID layer,
      UUID feature,
      int edition,
      Instant startedAt,
      Instant endedAt,
      boolean makes,
      String findings,
      boolean clash,
      List<Photos.Announced> photos) {}

  /** What came of keeping; {@code fresh} when its text was not here before. */
  record Outcome(VisitAnswer answer, boolean fresh) {}

  /**
   * Reads a visit of a person. Not within a transaction, since it asks read models.
   *
   * @param roundOf gives the round of an id, or refuses one that is not this person's
   */
  Read read(JsonValue raw, String person, Function<UUID, Round> roundOf) throws NoVisit {
    try {
      if (!raw.isObject()) throw new Unfit("refused.noJsonObject");
      return read(SentVisit.read(raw.asObject(), raw.toString()), person, roundOf);
    } catch (Refusal
        | IllegalArgumentException
        | UnsupportedOperationException
        | DateTimeException e) {
      throw new NoVisit(e);
    } catch (DataAccessException e) {
      throw e; // nothing is wrong with the visit
    } catch (RuntimeException e) {
      // one visit never holds up the others of a hand-in, whatever is in it
      LOG.error("a visit of {} could not be looked at", person, e);
      throw new NoVisit(
          new Unfit("refused.lookingFailed", "what", e.getClass().getSimpleName()).because(e));
    }
  }

  private Read read(SentVisit sent, String person, Function<UUID, Round> roundOf) {
    UUID id = need(sent.id(), Said.of("refused.noId"));
    if (visits.personOf(id).filter(p -> !p.equals(person)).isPresent()) throw new OfSomebodyElse();
    Round round = roundOf.apply(need(sent.round(), Said.of("refused.roundNoId")));
    UUID feature = need(sent.feature(), Said.of("refused.featureNoId"));
    UUID form = form(sent, round);
    Layer layer = layers.byId(forms.get(round.projectId(), form).layerId());
    if (sent.makes() && !round.allows().isNew()) throw new Unfit("refused.roundMakesNothing");
    if (!mayVisit(round, layer, feature)) throw new Unfit("refused.featureNoStopRound");
    int number = sent.edition();
    Edition edition =
        forms
            .edition(form, number)
            .orElseThrow(() -> new Unfit("refused.editionFormNotKnown", "number", number));
    JsonArray findings = new JsonArray();
    check
        .findings(sent, edition, projects.byId(layer.projectId()), layer)
        .forEach(f -> findings.add(f.json()));
    Optional<Feature> now = layers.feature(layer, feature);
    boolean clash = true; // a feature that is gone needs a decision, too
    if (now.isPresent() || sent.makes()) {
      VisitMerge.Outcome m =
          sent.makes()
              ? VisitMerge.ofNew(sent, layer, now)
              : VisitMerge.of(
                  sent, layer, now.get(), layers.at(layer, now.get(), sent.base().version()));
      clash = !m.result().clashes().isEmpty();
      m.problems().forEach(p -> findings.add(p.json()));
    }
    return new Read(
        id,
        sent.text(),
        round,
        form,
        layer.id(),
        feature,
        number,
        moment(sent.startedAt(), "startedAt"),
        moment(sent.endedAt(), "endedAt"),
        sent.makes(),
        findings.toString(),
        clash,
        announced(sent.photos()));
  }

  /** The form that it was filled with; a device that does not say had a round of one form. */
  private UUID form(SentVisit sent, Round round) {
    if (sent.ofFile()) throw new Unfit("refused.formOfFileNotHere");
    UUID form =
        sent.form()
            .or(
                () ->
                    round.forms().size() == 1
                        ? Optional.of(round.forms().get(0))
                        : Optional.empty())
            .orElseThrow(() -> new Unfit("refused.formNoId"));
    // an open round takes any form of its project, since files of them travel by themselves
    boolean other =
        round.allows().isNew()
            && forms.projectOf(form).filter(round.projectId()::equals).isPresent();
    if (!round.forms().contains(form) && !other) throw new Unfit("refused.formNotOfRound");
    return form;
  }

  private static boolean mayVisit(Round round, Layer layer, UUID feature) {
    return round.allows().isAnyAsset()
        || round.stops().stream()
            .anyMatch(s -> s.featureId().equals(feature) && s.layerId().equals(layer.id()));
  }

  /** A stop is done when it was visited with each form of the round that belongs there. */
  private StopState stateAfter(Read r) {
    Set<UUID> visited = visits.formsAt(r.round().id(), r.feature());
    return r.round().forms().stream()
            .filter(f -> forms.get(r.round().projectId(), f).layerId().equals(r.layer()))
            .allMatch(visited::contains)
        ? StopState.DONE
        : StopState.STARTED;
  }

  /** A moment that the store can hold. */
  private static Instant moment(Optional<Instant> sent, String member) {
    Instant at = need(sent, Said.of("refused.memberMissing", "member", member));
    if (at.isBefore(EARLIEST) || at.isAfter(LATEST))
      throw new Unfit("refused.liesAnotherAge", "member", member, "at", at);
    return at;
  }

  private List<Photos.Announced> announced(List<SentVisit.SentPhoto> sent) {
    if (sent.size() > MOST_PHOTOS) throw new Unfit("refused.tooManyPhotos", "most", MOST_PHOTOS);
    List<Photos.Announced> out = new ArrayList<>();
    for (SentVisit.SentPhoto p : sent) {
      if (!p.sha256().matches("[0-9a-f]{64}") || p.bytes() < 1 || p.bytes() > photos.limit())
        throw new Unfit("refused.photoNoSoundHash", "limit", photos.limit());
      out.add(
          new Photos.Announced(
              need(p.id(), Said.of("refused.photoNoId")),
              Sent.cut(p.question(), 63),
              p.sha256(),
              p.bytes(),
              p.geotag(),
              out.size()));
    }
    return out;
  }

  /**
   * Keeps a visit that was set aside and can be read now, unless another text of it has come since:
   * the older one must not take its place.
   */
  @Transactional(propagation = Propagation.MANDATORY)
  void keepLate(Read r, HandIns.Sender by) {
    Optional<VisitEntity> there = locks.lock(VisitEntity.class, r.id());
    if (there.isPresent() && !there.get().documentHash.equals(Sha256.of(r.text())))
      throw new Unfit(
          "refused.anotherTextVisitCame", "state", Said.ofState(there.get().state.id()));
    keep(r, by);
  }

  /** Keeps a visit that was read. Its row is locked first and looked at after. */
  @Transactional(propagation = Propagation.MANDATORY)
  Outcome keep(Read r, HandIns.Sender by) {
    Optional<VisitEntity> there = locks.lock(VisitEntity.class, r.id());
    String hash = Sha256.of(r.text());
    if (there.isPresent() && !there.get().person.equals(by.person())) throw new OfSomebodyElse();
    if (there.filter(v -> v.documentHash.equals(hash)).isPresent())
      return new Outcome(answer(there.get()), false);
    if (there.filter(v -> v.state == VisitState.ACCEPTED).isPresent())
      throw new Unfit("refused.visitWasAcceptedBefore");
    VisitEntity v = there.orElseGet(VisitEntity::new);
    v.id = r.id();
    v.handInId = by.handIn();
    v.roundId = r.round().id();
    v.formId = r.form();
    v.edition = r.edition();
    v.layerId = r.layer();
    v.featureId = r.feature();
    v.newFeature = r.makes();
    v.person = by.person();
    v.device = by.device();
    v.startedAt = r.startedAt();
    v.endedAt = r.endedAt();
    v.receivedAt = Layers.now();
    v.document = r.text();
    v.documentHash = hash;
    v.findings = r.findings();
    v.state = VisitState.WAITING;
    v.clash = r.clash();
    v.reason = Said.NONE;
    visits.saveAndFlush(v);
    photos.announce(r.id(), r.photos(), new Photos.Sender(by.person(), by.deviceId()));
    rounds.mark(r.round().id(), r.feature(), stateAfter(r), "");
    return new Outcome(answer(v), true);
  }

  /** A visit with this id is another person's. */
  static final class OfSomebodyElse extends Unfit {
    private static final long serialVersionUID = 1;

    OfSomebodyElse() {
      super("refused.visitOfAnother");
    }
  }

  /** What a device is told of a visit now. */
  @Transactional(readOnly = true)
  public VisitAnswer answer(UUID id) {
    return answer(visits.findById(id).orElseThrow());
  }

  private VisitAnswer answer(VisitEntity v) {
    return VisitAnswer.of(VisitHead.of(v), photos.of(List.of(v.id)));
  }

  /** The project that a text belongs to by its round, if that much can be read of it. */
  Optional<UUID> projectOf(JsonValue raw) {
    return raw.isObject()
        ? Sent.uuid(raw.asObject(), "round").flatMap(rounds::projectOf)
        : Optional.empty();
  }

  private static <T> T need(Optional<T> sent, Said otherwise) {
    return sent.orElseThrow(() -> new Unfit(otherwise));
  }
}
