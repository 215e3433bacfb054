package org.whinridge.app.daybook;

import com.fasterxml.jackson.annotation.JsonInclude;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.own.DeviceReport;
import org.whinridge.app.photo.Photo;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.round.Rounds;
import org.whinridge.app.shell.StoreCopies;
import org.whinridge.core.said.Said;

/**
 * What a device learns at a contact: what the office has of the visits that the device keeps, up to
 * when a copy of the store holds everything, and what the person is to look into.
 */
@Service
@Transactional(readOnly = true)
class Contact {
  private static final int MOST_ASKED = 2_000;
  private final Visits visits;
  private final Photos photos;
  private final SetAsides setAsides;
  private final StoreCopies copies;
  private final Rounds rounds;

  Contact(Visits visits, Photos photos, SetAsides setAsides, StoreCopies copies, Rounds rounds) {
    this.rounds = rounds;
    this.visits = visits;
    this.photos = photos;
    this.setAsides = setAsides;
    this.copies = copies;
  }

  /** A person's newest visits in short. */
  List<VisitAnswer> newest(String person) {
    return visits.newest(person).stream().map(VisitAnswer::shortly).toList();
  }

  /**
   * What a device asks.
   *
   * @param visits the ids of visits, as the device wrote them
   * @param device what it tells of itself; null when it tells nothing
   * @param begun where a visit is being made; null when it does not tell
   */
  record Question(
      @NotNull(message = "border.isMissing")
          @Size(max = MOST_ASKED, message = "border.hasMoreVisitsThanAre")
          List<@NotNull(message = "border.isNoId") String> visits,
      @Valid DeviceReport device,
      @Size(max = MOST_ASKED, message = "border.hasMoreVisitsThanAre")
          List<@NotNull(message = "border.isMissing") @Valid Begun> begun) {}

  /** A visit that is being made. */
  record Begun(
      @NotNull(message = "border.isNoId") UUID round,
      @NotNull(message = "border.isNoId") UUID feature) {}

  /**
   * What a device is answered.
   *
   * @param copiedUpTo until when a copy of the store holds everything; null while there is none
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record Answer(List<VisitAnswer> visits, List<Given> given, Instant copiedUpTo, Instant now) {}

  /** A text that was set aside and given to this person to look into. */
  record Given(UUID id, String visit, String from, Instant at, Said reason, String note) {}

  /** Takes the stops where this person's visits were begun. */
  @Transactional
  public void begun(Question question, String person) {
    if (question.begun() != null)
      for (Begun b : question.begun()) rounds.begun(b.round(), b.feature(), person);
  }

  /**
   * A visit that is asked for and not in the answer is not at the office; a device that had handed
   * it in offers it again.
   */
  Answer answer(Question question, String person) {
    List<String> texts = new ArrayList<>(question.visits());
    List<UUID> ids = texts.stream().map(Sent::uuid).flatMap(Optional::stream).toList();
    List<VisitAnswer> out = new ArrayList<>();
    List<VisitHead> heads = visits.some(person, ids);
    Map<UUID, List<Photo>> pictures = photos(heads.stream().map(VisitHead::id).toList());
    for (VisitHead v : heads) {
      out.add(VisitAnswer.of(v, pictures.getOrDefault(v.id(), List.of())));
      texts.remove(v.id().toString());
    }
    setAsides.sent(texts, person).forEach(a -> out.add(VisitAnswer.setAside(a)));
    List<Given> given =
        setAsides.givenTo(person).stream()
            .map(
                a ->
                    new Given(
                        a.id(), a.sentId(), a.person(), a.receivedAt(), a.reason(), a.fateReason()))
            .toList();
    return new Answer(out, given, copies.heldUpTo().orElse(null), Layers.now());
  }

  private Map<UUID, List<Photo>> photos(Collection<UUID> of) {
    return photos.of(of).stream().collect(Collectors.groupingBy(p -> p.visitId().orElseThrow()));
  }
}
