package org.whinridge.app.ops;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.env.Environment;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.QrCode;
import org.whinridge.app.shell.Refusal;

/**
 * With a certificate of its own making the installation shows phones how to trust it: the
 * certificate of who signed it, to be taken in once.
 */
@Controller
class Trust {
  private final Optional<Path> certificate;
  private final String address;
  private final Environment environment;

  Trust(
      @Value("${whinridge.trust:}") String certificate,
      @Value("${whinridge.address:}") String address,
      Environment environment) {
    this.certificate = certificate.isEmpty() ? Optional.empty() : Optional.of(Path.of(certificate));
    this.address = address.replaceAll("/+$", "");
    this.environment = environment;
  }

  private Path file() {
    return certificate.filter(Files::exists).orElseThrow(() -> Refusal.notFound("thing.trust"));
  }

  @OpenTo(OpenTo.Whom.EVERYBODY)
  @GetMapping("/trust")
  String page(Model model) {
    file();
    return "trust";
  }

  @OpenTo(OpenTo.Whom.EVERYBODY)
  @GetMapping("/trust/whinridge.crt")
  ResponseEntity<byte[]> certificate() throws IOException {
    return ResponseEntity.ok()
        .contentType(MediaType.parseMediaType("application/x-x509-ca-cert"))
        .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"whinridge.crt\"")
        .body(Files.readAllBytes(file()));
  }

  /** Tells the console where phones begin. */
  @EventListener(ApplicationReadyEvent.class)
  void tell() {
    if (certificate.filter(Files::exists).isEmpty()) return;
    String base =
        address.isEmpty()
            ? "https://localhost:" + environment.getProperty("local.server.port", "8443")
            : address;
    System.out.println(
        "\n  Phones trust this installation once they took in its certificate. Point the camera here:\n\n"
            + QrCode.text(base + "/trust")
            + "\n  "
            + base
            + "/trust\n");
  }
}
