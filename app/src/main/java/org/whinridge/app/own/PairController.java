package org.whinridge.app.own;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.time.Duration;
import org.springframework.http.ResponseEntity;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.whinridge.app.people.SignInWaits;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.Refusal;

/** How devices are let in: by a code, or by signing in on them. */
@RestController
class PairController {
  private static final int LONGEST = 200;
  private final Pairing pairing;
  private final Devices devices;
  private final SignInWaits waits = new SignInWaits();

  PairController(Pairing pairing, Devices devices) {
    this.pairing = pairing;
    this.devices = devices;
  }

  /** A device with the code that somebody typed or its camera read. */
  record WithCode(
      @NotNull(message = "border.isMissing") @Size(max = LONGEST, message = "border.isTooLong")
          String code,
      @NotNull(message = "border.isMissing") @Size(max = LONGEST, message = "border.isTooLong")
          String device,
      @NotNull(message = "border.isMissing") @Size(max = LONGEST, message = "border.isTooLong")
          String name) {}

  @OpenTo(OpenTo.Whom.EVERYBODY)
  @PostMapping("/api/day/pair")
  ResponseEntity<Devices.Token> pair(@Valid @RequestBody WithCode sent, HttpServletRequest q) {
    Duration wait = waits.ask(q.getRemoteAddr());
    if (!wait.isZero())
      throw Refusal.tooMuch("refused.pairingWait", "n", Math.max(1, wait.toSeconds()));
    Devices.Token token = pairing.use(sent.code(), sent.device(), sent.name());
    waits.succeeded(q.getRemoteAddr());
    return ResponseEntity.ok().header("Cache-Control", "no-store").body(token);
  }

  /** Who is signed in, and the token that changes need. */
  record Session(String person, String header, String token) {}

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @GetMapping("/api/own/session")
  ResponseEntity<Session> session(Principal person, CsrfToken csrf) {
    return ResponseEntity.ok()
        .header("Cache-Control", "no-store")
        .body(new Session(person.getName(), csrf.getHeaderName(), csrf.getToken()));
  }

  /** A device on which somebody has signed in. */
  record SignedIn(
      @NotNull(message = "border.isMissing") @Size(max = LONGEST, message = "border.isTooLong")
          String device,
      @NotNull(message = "border.isMissing") @Size(max = LONGEST, message = "border.isTooLong")
          String name) {}

  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @PostMapping("/api/own/device")
  ResponseEntity<Devices.Token> letIn(
      @Valid @RequestBody SignedIn sent, Principal person, HttpServletRequest q) {
    return ResponseEntity.ok()
        .header("Cache-Control", "no-store")
        .body(
            devices.letIn(
                person.getName(),
                sent.device(),
                sent.name(),
                Devices.By.SIGN_IN,
                q.getSession().getId()));
  }
}
