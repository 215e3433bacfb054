package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.photo.Photo;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.StoreCopies;

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

  Contact(Visits visits, Photos photos, SetAsides setAsides, StoreCopies copies) {
    this.visits = visits;
    this.photos = photos;
    this.setAsides = setAsides;
    this.copies = copies;
  }

  /** A person's newest visits in short: [{id, state, reason}]. */
  JsonArray newest(String person) {
    JsonArray out = new JsonArray();
    for (VisitHead v : visits.newest(person))
      out.add(
          new JsonObject()
              .add("id", v.id().toString())
              .add("state", v.state().id())
              .add("clash", v.clash())
              .add("reason", v.reason()));
    return out;
  }

  /**
   * Answers {visits: [id, …]} with {visits: […], copiedUpTo, given: […]}. A visit that is asked for
   * and not in the answer is not at the office; a device that had handed it in offers it again.
   */
  JsonObject answer(JsonObject question, String person) {
    List<UUID> ids = new ArrayList<>();
    List<String> texts = new ArrayList<>();
    JsonValue asked = question.get("visits");
    if (asked != null && asked.isArray()) {
      if (asked.asArray().size() > MOST_ASKED)
        throw Refusal.refused(
            "At most " + MOST_ASKED + " visits are asked for at once. Ask in parts.");
      for (JsonValue v : asked.asArray())
        if (v.isString()) {
          texts.add(v.asString());
          Sent.uuid(new JsonObject().add("id", v), "id").ifPresent(ids::add);
        }
    }
    JsonArray out = new JsonArray();
    List<VisitHead> heads = visits.some(person, ids);
    Map<UUID, List<Photo>> pictures = photos(heads.stream().map(VisitHead::id).toList());
    for (VisitHead v : heads) {
      out.add(VisitAnswer.of(v, pictures.getOrDefault(v.id(), List.of())));
      texts.remove(v.id().toString());
    }
    setAsides(texts, person, out);
    JsonObject answer = new JsonObject().add("visits", out).add("given", given(person));
    copies.heldUpTo().ifPresent(at -> answer.add("copiedUpTo", at.toString()));
    return answer;
  }

  private Map<UUID, List<Photo>> photos(Collection<UUID> of) {
    return photos.of(of).stream().collect(Collectors.groupingBy(p -> p.visitId().orElseThrow()));
  }

  private void setAsides(List<String> ids, String person, JsonArray out) {
    for (SetAside s : setAsides.sent(ids, person))
      out.add(
          VisitAnswer.setAside(s.sentId(), s.reason())
              .add("receivedAt", s.receivedAt().toString())
              .add("fate", s.fate().id())
              .add("fateReason", s.fateReason()));
  }

  private JsonArray given(String person) {
    JsonArray out = new JsonArray();
    for (SetAside s : setAsides.givenTo(person))
      out.add(
          new JsonObject()
              .add("id", s.id().toString())
              .add("visit", s.sentId())
              .add("from", s.person())
              .add("at", s.receivedAt().toString())
              .add("reason", s.reason())
              .add("note", s.fateReason()));
    return out;
  }
}
