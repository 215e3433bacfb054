package org.whinridge.app.daybook;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.ParseException;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.security.Principal;
import java.util.UUID;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.whinridge.app.round.Round;
import org.whinridge.app.round.Rounds;
import org.whinridge.app.shell.Refusal;

/**
 * The day book's shell and the addresses that devices speak to. The shell holds no data, so that it
 * can be kept offline for everybody.
 */
@Controller
class DayController {
  private final Rounds rounds;
  private final Packs packs;
  private final HandIns handIns;
  private final Contact contact;
  private final int limit;

  DayController(
      Rounds rounds,
      Packs packs,
      HandIns handIns,
      Contact contact,
      @Value("${whinridge.hand-in-limit}") int limit) {
    this.rounds = rounds;
    this.packs = packs;
    this.handIns = handIns;
    this.contact = contact;
    this.limit = limit;
  }

  @GetMapping("/day")
  String shell() {
    return "day";
  }

  /**
   * Who is signed in, the token that changes need, the person's rounds, and what became of the
   * visits handed in.
   */
  @GetMapping(value = "/api/day/me", produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> me(Principal person, CsrfToken csrf) {
    JsonArray rs = new JsonArray();
    for (Round r : rounds.of(person.getName())) {
      JsonArray stops = new JsonArray();
      r.stops()
          .forEach(
              s ->
                  stops.add(
                      new JsonObject()
                          .add("feature", s.featureId().toString())
                          .add("state", s.state().id())
                          .add("reason", s.reason())));
      rs.add(
          new JsonObject()
              .add("id", r.id().toString())
              .add("name", r.name())
              .add("note", r.note())
              .add("due", r.due().map(Object::toString).orElse(""))
              .add("stops", stops));
    }
    return ResponseEntity.ok()
        .header("Cache-Control", "no-store")
        .body(
            new JsonObject()
                .add("person", person.getName())
                .add(
                    "csrf",
                    new JsonObject()
                        .add("header", csrf.getHeaderName())
                        .add("token", csrf.getToken()))
                .add("rounds", rs)
                .add("visits", contact.newest(person.getName()))
                .toString());
  }

  @GetMapping(value = "/api/day/rounds/{id}/manifest", produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> manifest(@PathVariable UUID id, Principal person) {
    return ResponseEntity.ok()
        .header("Cache-Control", "no-store")
        .body(packs.manifest(id, person.getName()).toString());
  }

  @GetMapping(
      value = "/api/day/rounds/{id}/parts/{name}",
      produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<byte[]> part(
      @PathVariable UUID id,
      @PathVariable String name,
      @RequestParam(defaultValue = "") String hash,
      Principal person) {
    return ResponseEntity.ok()
        .header("Cache-Control", "no-store")
        .body(packs.part(id, name, hash, person.getName()));
  }

  /** What became of the visits and photos that a device keeps, however old they are. */
  @PostMapping(value = "/api/day/contact", produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> contact(HttpServletRequest request, Principal person) throws IOException {
    return ResponseEntity.ok()
        .header("Cache-Control", "no-store")
        .body(contact.answer(body(request, "question"), person.getName()).toString());
  }

  @PostMapping(value = "/api/day/hand-ins", produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> handIn(HttpServletRequest request, Principal person) throws Exception {
    return ResponseEntity.ok(
        handIns.receive(body(request, "hand-in"), person.getName()).toString());
  }

  private JsonObject body(HttpServletRequest request, String what) throws IOException {
    byte[] body;
    try (InputStream in = request.getInputStream()) {
      body = in.readNBytes(limit + 1);
    }
    if (body.length > limit)
      throw Refusal.tooLarge(
          "This part of a "
              + what
              + " is larger than "
              + limit / 1_000_000
              + " MB, which is the most that is taken at once. Nothing of it was taken; it stays on the device.");
    try {
      return Json.parse(new String(body, StandardCharsets.UTF_8)).asObject();
    } catch (ParseException | UnsupportedOperationException e) {
      throw Refusal.refused(
          "This "
              + what
              + " did not arrive whole. Nothing was taken; the visits stay on the device. Send it again.");
    }
  }
}
