package org.whinridge.app.daybook;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.time.Instant;
import java.util.List;
import org.whinridge.app.photo.Photo;
import org.whinridge.core.said.Said;
import org.whinridge.core.visit.VisitState;

/**
 * What a device is told of a visit: in the answer of a hand-in and at each contact alike.
 *
 * @param id the id that the visit came with
 * @param state a {@link VisitState}, or {@link #BUSY}
 * @param hash of the text that the office has
 * @param fate what became of a text that was set aside
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
record VisitAnswer(
    String id,
    String state,
    boolean clash,
    Said reason,
    String hash,
    Instant receivedAt,
    List<PhotoHere> photos,
    String fate,
    String fateReason) {
  /** Not kept now; the device keeps it and sends it again. */
  static final String BUSY = "busy";

  /** A photo of a visit; the device calls it sent when it is said to be received here. */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record PhotoHere(String id, String sha256, Instant receivedAt) {
    static PhotoHere of(Photo p) {
      return new PhotoHere(p.id().toString(), p.sha256(), p.receivedAt().orElse(null));
    }
  }

  /**
   * A visit that the office has.
   *
   * @param v without its document
   */
  static VisitAnswer of(VisitHead v, List<Photo> photos) {
    return new VisitAnswer(
        v.id().toString(),
        v.state().id(),
        v.clash(),
        v.reason(),
        v.hash(),
        v.receivedAt(),
        photos.stream().map(PhotoHere::of).toList(),
        null,
        null);
  }

  /** The same in short. */
  static VisitAnswer shortly(VisitHead v) {
    return new VisitAnswer(
        v.id().toString(), v.state().id(), v.clash(), v.reason(), null, null, null, null, null);
  }

  /** A visit that could not be kept now. */
  static VisitAnswer busy(String id) {
    return new VisitAnswer(
        id, BUSY, false, Said.of("told.visitBusy"), null, null, null, null, null);
  }

  /** A text that the office has kept, but could not read as a visit. */
  static VisitAnswer setAside(String id, Said reason) {
    return new VisitAnswer(
        id, VisitState.SET_ASIDE.id(), false, unread(reason), null, null, null, null, null);
  }

  /** The same later, with what became of it. */
  static VisitAnswer setAside(SetAside s) {
    return new VisitAnswer(
        s.sentId(),
        VisitState.SET_ASIDE.id(),
        false,
        unread(s.reason()),
        null,
        s.receivedAt(),
        null,
        s.fate().id(),
        s.fateReason());
  }

  private static Said unread(Said reason) {
    return Said.of("told.unread", "why", reason);
  }
}
