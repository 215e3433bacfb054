package org.whinridge.app.daybook;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.ParseException;
import com.fasterxml.jackson.annotation.JsonInclude;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.security.Principal;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.locationtech.jts.geom.Coordinate;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.whinridge.app.own.DeviceAuthentication;
import org.whinridge.app.own.Devices;
import org.whinridge.app.round.Round;
import org.whinridge.app.round.Rounds;
import org.whinridge.app.shell.JsonDepth;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;

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
  private final Devices devices;
  private final int limit;

  DayController(
      Rounds rounds,
      Packs packs,
      HandIns handIns,
      Contact contact,
      Devices devices,
      @Value("${whinridge.hand-in-limit}") int limit) {
    this.rounds = rounds;
    this.packs = packs;
    this.handIns = handIns;
    this.contact = contact;
    this.devices = devices;
    this.limit = limit;
  }

  @OpenTo(OpenTo.Whom.EVERYBODY)
  @GetMapping("/day")
  String shell() {
    return "day";
  }

  /**
   * A round as the day book lists it; {@code due} is "" when it has no date, without people it is
   * for anyone; {@code allows} is core's RoundAllows, {@code expected} 0 when nobody said; {@code
   * stamp} is that of its pack's manifest.
   */
  record MyRound(
      UUID id,
      String name,
      String note,
      String due,
      List<String> people,
      String allows,
      int expected,
      String stamp,
      List<MyStop> stops) {
    static MyRound of(Round r, String stamp) {
      return new MyRound(
          r.id(),
          r.name(),
          r.note().text(),
          r.due().map(Object::toString).orElse(""),
          r.people(),
          r.allows().id(),
          r.when().expected(),
          stamp,
          r.stops().stream().map(MyStop::of).toList());
    }
  }

  /** A stop of a round; {@code person} is who is to go there, "" for whoever comes first. */
  record MyStop(UUID feature, String state, String reason, String person) {
    static MyStop of(Round.Stop s) {
      return new MyStop(s.featureId(), s.state().id(), s.reason(), s.person().orElse(""));
    }
  }

  /**
   * Whose device it is, the person's rounds, and what became of the visits handed in.
   *
   * @param asked since when the office asks this device to hand in; null when it does not
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record Me(String person, List<MyRound> rounds, List<VisitAnswer> visits, Instant asked) {}

  /** What the day book asks first; also of those who go out nowhere any more, and carry visits. */
  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @GetMapping("/api/day/me")
  ResponseEntity<Me> me(Principal person) {
    return ResponseEntity.ok()
        .header("Cache-Control", "no-store")
        .body(
            new Me(
                person.getName(),
                rounds.of(person.getName()).stream()
                    .map(r -> MyRound.of(r, packs.stamp(r)))
                    .toList(),
                contact.newest(person.getName()),
                devices.asked(DeviceAuthentication.of(person)).orElse(null)));
  }

  @Needs(Right.GO_OUT)
  @GetMapping("/api/day/rounds/{id}/manifest")
  ResponseEntity<Pack.Manifest> manifest(@PathVariable UUID id, Principal person) {
    return ResponseEntity.ok()
        .header("Cache-Control", "no-store")
        .body(packs.manifest(id, person.getName()));
  }

  @Needs(Right.GO_OUT)
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

  /**
   * What a visit is begun with whose form was opened from a file, once the project has that form.
   *
   * @param hash what the file hashes to as core writes it
   */
  @Needs(Right.GO_OUT)
  @GetMapping("/api/day/rounds/{id}/form-files/{hash}")
  ResponseEntity<Pack.Work> formFile(
      @PathVariable UUID id, @PathVariable String hash, Principal person) {
    return ResponseEntity.ok()
        .header("Cache-Control", "no-store")
        .body(packs.ofFile(id, hash, person.getName()));
  }

  /** The shortest text by which assets are looked for. */
  private static final int LEAST_TEXT = 2;

  /**
   * Assets of an open round's layers that the device does not have: by a text in their caption, or
   * around a spot.
   */
  @Needs(Right.GO_OUT)
  @GetMapping("/api/day/rounds/{id}/assets")
  ResponseEntity<List<RoundAssets.Found>> assets(
      @PathVariable UUID id,
      @RequestParam Optional<String> text,
      @RequestParam Optional<Double> lon,
      @RequestParam Optional<Double> lat,
      @RequestParam(defaultValue = "50") double within,
      Principal person) {
    boolean placed =
        lon.filter(x -> Math.abs(x) <= 180).isPresent()
            && lat.filter(y -> Math.abs(y) <= 90).isPresent()
            && within > 0
            && within <= RoundAssets.FURTHEST_M;
    String wanted = text.orElse("").strip();
    if (!placed && (wanted.length() < LEAST_TEXT || wanted.length() > 100))
      throw Refusal.refused("refused.sayWhichAssets", "least", LEAST_TEXT);
    return ResponseEntity.ok()
        .header("Cache-Control", "no-store")
        .body(
            placed
                ? packs.assets(id, new Coordinate(lon.get(), lat.get()), within, person.getName())
                : packs.assets(id, wanted, person.getName()));
  }

  /** What became of the visits and photos that a device keeps, however old they are. */
  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @PostMapping("/api/day/contact")
  ResponseEntity<Contact.Answer> contact(
      @Valid @RequestBody Contact.Question question, Principal person) {
    devices.contact(DeviceAuthentication.of(person), question.device());
    contact.begun(question, person.getName());
    return ResponseEntity.ok()
        .header("Cache-Control", "no-store")
        .body(contact.answer(question, person.getName()));
  }

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @PostMapping("/api/day/hand-ins")
  ResponseEntity<HandIns.Answer> handIn(HttpServletRequest request, Principal person)
      throws Exception {
    return ResponseEntity.ok(handIns.receive(body(request), person.getName()));
  }

  private JsonObject body(HttpServletRequest request) throws IOException {
    byte[] body;
    try (InputStream in = request.getInputStream()) {
      body = in.readNBytes(limit + 1);
    }
    if (body.length > limit)
      throw Refusal.tooLarge("refused.partHandLargerThan", "mb", limit / 1_000_000);
    String text = new String(body, StandardCharsets.UTF_8);
    if (JsonDepth.isOver(text))
      throw Refusal.refused("refused.nestedTooDeep", "most", JsonDepth.MOST);
    try {
      return Json.parse(text).asObject();
    } catch (ParseException | UnsupportedOperationException e) {
      throw Refusal.refused("refused.handDidNotArrive");
    }
  }
}
