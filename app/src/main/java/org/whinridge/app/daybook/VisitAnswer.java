package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.List;
import org.whinridge.app.photo.Photo;
import org.whinridge.core.visit.VisitState;

/** What a device is told of a visit: in the answer of a hand-in and at each contact alike. */
final class VisitAnswer {
  /** Not kept now; the device keeps it and sends it again. */
  static final String BUSY = "busy";

  private VisitAnswer() {}

  /**
   * A visit that the office has.
   *
   * @param v without its document
   * @param photos its photos; the device calls one sent when it is said to be received here
   */
  static JsonObject of(VisitHead v, List<Photo> photos) {
    JsonArray ps = new JsonArray();
    for (Photo p : photos) {
      JsonObject one = new JsonObject().add("id", p.id().toString()).add("sha256", p.sha256());
      p.receivedAt().ifPresent(at -> one.add("receivedAt", at.toString()));
      ps.add(one);
    }
    return new JsonObject()
        .add("id", v.id().toString())
        .add("state", v.state().id())
        .add("clash", v.clash())
        .add("reason", v.reason())
        .add("hash", v.hash())
        .add("receivedAt", v.receivedAt().toString())
        .add("photos", ps);
  }

  static JsonObject setAside(String id, String reason) {
    return new JsonObject()
        .add("id", id)
        .add("state", VisitState.SET_ASIDE.id())
        .add(
            "reason",
            "The office has kept it, but could not read it as a visit: "
                + reason
                + ". A coordinator sees it.");
  }
}
