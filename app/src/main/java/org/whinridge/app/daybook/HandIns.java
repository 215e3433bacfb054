package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Function;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.round.Round;
import org.whinridge.app.round.Rounds;
import org.whinridge.app.shell.Attempts;
import org.whinridge.app.shell.Refusal;

/**
 * Takes hand-ins. Each visit is kept in a transaction of its own and never holds up the others; the
 * same visit sent again changes nothing, and a hand-in may come in several parts under one id.
 * Before the answer goes out everything is synced to disk.
 */
@Service
class HandIns {
  private static final Logger LOG = LoggerFactory.getLogger(HandIns.class);
  private final HandInRepository handIns;
  private final VisitKeeping keeping;
  private final SetAsides setAsides;
  private final Rounds rounds;
  private final TransactionTemplate transaction;
  private final JdbcTemplate jdbc;
  private final List<AfterHandIn> after;
  private final long mostBytesADay;

  HandIns(
      HandInRepository handIns,
      VisitKeeping keeping,
      SetAsides setAsides,
      Rounds rounds,
      PlatformTransactionManager manager,
      JdbcTemplate jdbc,
      List<AfterHandIn> after,
      @Value("${whinridge.hand-ins-a-day}") long mostBytesADay) {
    this.after = after;
    this.handIns = handIns;
    this.keeping = keeping;
    this.setAsides = setAsides;
    this.rounds = rounds;
    this.transaction = new TransactionTemplate(manager);
    this.jdbc = jdbc;
    this.mostBytesADay = mostBytesADay;
  }

  /** Takes a hand-in, or a part of one; answers with one line per visit. */
  Answer receive(JsonObject handIn, String person) throws Exception {
    bounded(person);
    return take(handIn, person, id -> rounds.givenTo(id, person), null);
  }

  /**
   * Takes what somebody else brought in for a person, of rounds in one project; it is kept also
   * when that person goes out there no more.
   */
  Answer bringIn(JsonObject handIn, String person, UUID project, String by) throws Exception {
    return take(handIn, person, id -> rounds.of(project, id, person), by);
  }

  /** The project that a text belongs to by its round, if that much can be read of it. */
  Optional<UUID> projectOf(JsonValue raw) {
    return keeping.projectOf(raw);
  }

  private Answer take(
      JsonObject handIn, String person, Function<UUID, Round> roundOf, String broughtBy)
      throws Exception {
    SentHandIn sent = SentHandIn.read(handIn);
    Sender by = new Sender(sent.id(), person, sent.device(), sent.deviceId());
    Attempts.twice(
        () -> {
          transaction.executeWithoutResult(t -> begin(by, broughtBy));
          return null;
        });
    List<VisitAnswer> answers = new ArrayList<>();
    for (JsonValue v : sent.visits()) answers.add(followed(one(v, by, roundOf)));
    jdbc.execute("CHECKPOINT SYNC"); // what is answered is on the disk, an acceptance too
    LOG.info("hand-in {} by {} with {} visits", sent.id(), person, sent.visits().size());
    return new Answer(sent.id(), answers);
  }

  /**
   * A visit that has just come may be decided at once; the device is told what came of it. One that
   * was here before is not asked about again: a person may have taken its acceptance back.
   */
  private VisitAnswer followed(VisitKeeping.Outcome kept) {
    VisitAnswer answer = kept.answer();
    if (!kept.fresh() || after.isEmpty()) return answer;
    UUID id = UUID.fromString(answer.id());
    after.forEach(a -> a.kept(id));
    return keeping.answer(id);
  }

  /** What became of each visit of a hand-in, or of a part of one. */
  record Answer(UUID handIn, List<VisitAnswer> visits) {}

  /** Who hands in, with which hand-in. */
  record Sender(UUID handIn, String person, String device, String deviceId) {}

  private void bounded(String person) {
    Instant day = Layers.now().truncatedTo(ChronoUnit.DAYS);
    if (handIns.bytesSince(person, day) >= mostBytesADay)
      throw Refusal.tooMuch(
          "refused.handedMbVisitsToday", "person", person, "mb", mostBytesADay / 1_000_000);
  }

  private void begin(Sender by, String broughtBy) {
    Optional<HandInEntity> there = handIns.findById(by.handIn());
    if (there.isPresent()) {
      if (!there.get().person.equals(by.person()))
        throw Refusal.conflict("refused.handBelongsSomebodyElse");
      return;
    }
    HandInEntity h = new HandInEntity();
    h.id = by.handIn();
    h.person = by.person();
    h.device = by.device();
    h.broughtBy = broughtBy;
    h.receivedAt = Layers.now();
    handIns.save(h);
  }

  private void counted(Sender by, int bytes) {
    handIns.count(by.handIn(), bytes);
  }

  private VisitKeeping.Outcome one(JsonValue raw, Sender by, Function<UUID, Round> roundOf)
      throws Exception {
    try {
      return kept(raw, by, roundOf);
    } catch (ConcurrencyFailureException e) {
      return new VisitKeeping.Outcome(VisitAnswer.busy(SentHandIn.idOf(raw)), false);
    } catch (VisitKeeping.NoVisit e) {
      LOG.warn("a visit of {} is set aside: {}", by.person(), e.said());
      String text = raw.toString();
      String sentId = SentHandIn.idOf(raw);
      Attempts.twice(
          () -> {
            transaction.executeWithoutResult(
                t -> {
                  SetAsides.Came came =
                      new SetAsides.Came(
                          by.handIn(),
                          sentId,
                          keeping.projectOf(raw),
                          by.person(),
                          by.device(),
                          by.deviceId());
                  if (setAsides.keep(came, text, e.said())) counted(by, text.length());
                });
            return null;
          });
      return new VisitKeeping.Outcome(VisitAnswer.setAside(sentId, e.said()), false);
    }
  }

  private VisitKeeping.Outcome kept(JsonValue raw, Sender by, Function<UUID, Round> roundOf)
      throws Exception {
    VisitKeeping.Read read = keeping.read(raw, by.person(), roundOf);
    try {
      return Attempts.twice(
          () ->
              transaction.execute(
                  t -> {
                    VisitKeeping.Outcome k = keeping.keep(read, by);
                    if (k.fresh()) counted(by, read.text().length());
                    return k;
                  }));
    } catch (IllegalArgumentException e) {
      throw new VisitKeeping.NoVisit(e); // its id, or that of a photo, is somebody else's
    }
  }

  /**
   * Reads a text that was set aside once more, as its sender sent it: what was missing may be there
   * by now.
   *
   * @return whether it is a visit now; otherwise the reason stands with it
   */
  boolean readAgain(UUID project, UUID setAside, String by) throws Exception {
    SetAsides.Stored k = setAsides.stored(project, setAside);
    SetAsides.Came came = k.came();
    Sender sender = new Sender(came.handIn(), came.person(), came.device(), came.deviceId());
    try {
      VisitKeeping.Read read =
          keeping.read(k.document(), came.person(), id -> rounds.of(project, id, came.person()));
      return Attempts.twice(
          () ->
              transaction.execute(
                  t -> {
                    keeping.keepLate(read, sender);
                    setAsides.wasRead(project, setAside, by);
                    return true;
                  }));
    } catch (VisitKeeping.NoVisit e) {
      transaction.executeWithoutResult(t -> setAsides.stillNot(project, setAside, e.said()));
      return false;
    } catch (IllegalArgumentException e) {
      transaction.executeWithoutResult(t -> setAsides.stillNot(project, setAside, Refusal.said(e)));
      return false;
    }
  }
}
