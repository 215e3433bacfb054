package org.whinridge.app.daybook;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
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
  private final Visits visits;
  private final int limit;

  DayController(
      Rounds rounds,
      Packs packs,
      HandIns handIns,
      Visits visits,
      @Value("${whinridge.hand-in-limit}") int limit) {
    this.rounds = rounds;
    this.packs = packs;
    this.handIns = handIns;
    this.visits = visits;
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
                          .add("state", s.state())
                          .add("reason", s.reason())));
      rs.add(
          new JsonObject()
              .add("id", r.id().toString())
              .add("name", r.name())
              .add("note", r.note())
              .add("due", r.due().map(Object::toString).orElse(""))
              .add("stops", stops));
    }
    JsonArray vs = new JsonArray();
    visits.states(person.getName()).forEach(vs::add);
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
                .add("visits", vs)
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
  ResponseEntity<byte[]> part(@PathVariable UUID id, @PathVariable String name, Principal person) {
    return ResponseEntity.ok()
        .header("Cache-Control", "no-store")
        .body(packs.part(id, name, person.getName()));
  }

  @PostMapping(value = "/api/day/hand-ins", produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> handIn(HttpServletRequest request, Principal person) throws IOException {
    byte[] body;
    try (InputStream in = request.getInputStream()) {
      body = in.readNBytes(limit + 1);
    }
    if (body.length > limit)
      throw Refusal.refused(
          "This hand-in is larger than "
              + limit
              + " bytes. Nothing was taken; the visits stay on the device. Send fewer at a time.");
    try {
      JsonValue v = Json.parse(new String(body, StandardCharsets.UTF_8));
      return ResponseEntity.ok(handIns.receive(v.asObject(), person.getName()).toString());
    } catch (ParseException | UnsupportedOperationException e) {
      throw Refusal.refused(
          "This hand-in did not arrive whole. Nothing was taken; the visits stay on the device. Send it again.");
    }
  }
}
