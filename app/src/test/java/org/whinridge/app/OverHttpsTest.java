package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.security.cert.CertificateFactory;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLHandshakeException;
import javax.net.ssl.TrustManagerFactory;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.annotation.DirtiesContext;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/** The certificate that ./run --tls makes is one that a device can trust, and nothing less. */
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
@DirtiesContext
class OverHttpsTest {
  private static final Path MADE = ServerTest.folder().resolve("tls");
  @LocalServerPort int port;

  @DynamicPropertySource
  static void made(DynamicPropertyRegistry r) throws Exception {
    Process p =
        new ProcessBuilder(
                Path.of("../scripts/make-certificate").toAbsolutePath().toString(),
                MADE.toString(),
                "whin.ostrey.example")
            .redirectErrorStream(true)
            .start();
    String said =
        new String(p.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
    assertThat(p.waitFor()).as(said).isZero();
    r.add("whinridge.data", () -> ServerTest.folder().toString());
    r.add("server.ssl.key-store", () -> "file:" + MADE.resolve("whinridge.p12"));
    r.add(
        "server.ssl.key-store-password",
        () -> {
          try {
            return Files.readString(MADE.resolve("password")).strip();
          } catch (java.io.IOException e) {
            throw new java.io.UncheckedIOException(e);
          }
        });
    r.add("server.ssl.key-alias", () -> "whinridge");
    r.add("whinridge.trust", () -> MADE.resolve("whinridge.crt").toString());
  }

  private static HttpClient trusting(byte[] certificate) throws Exception {
    KeyStore store = KeyStore.getInstance("PKCS12");
    store.load(null, null);
    try (InputStream in = new java.io.ByteArrayInputStream(certificate)) {
      store.setCertificateEntry(
          "signer", CertificateFactory.getInstance("X.509").generateCertificate(in));
    }
    TrustManagerFactory trust =
        TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
    trust.init(store);
    SSLContext tls = SSLContext.getInstance("TLS");
    tls.init(null, trust.getTrustManagers(), null);
    return HttpClient.newBuilder().sslContext(tls).build();
  }

  private HttpRequest to(String host, String path) {
    return HttpRequest.newBuilder(URI.create("https://" + host + ":" + port + path)).build();
  }

  @Test
  void aDeviceThatTookTheCertificateInIsServed() throws Exception {
    HttpClient client = trusting(Files.readAllBytes(MADE.resolve("whinridge.crt")));
    byte[] shown =
        client
            .send(to("localhost", "/trust/whinridge.crt"), HttpResponse.BodyHandlers.ofByteArray())
            .body();
    assertThat(shown).isEqualTo(Files.readAllBytes(MADE.resolve("whinridge.crt")));
    HttpResponse<String> day =
        trusting(shown).send(to("127.0.0.1", "/day"), HttpResponse.BodyHandlers.ofString());
    assertThat(day.statusCode()).isEqualTo(200);
    assertThat(day.headers().firstValue("Strict-Transport-Security")).isPresent();
    assertThatThrownBy(
            () ->
                HttpClient.newHttpClient()
                    .send(to("localhost", "/day"), HttpResponse.BodyHandlers.ofString()))
        .isInstanceOf(SSLHandshakeException.class);
    assertThat(Files.getPosixFilePermissions(MADE.resolve("whinridge.p12")).toString())
        .doesNotContain("GROUP")
        .doesNotContain("OTHERS");
  }

  @Test
  void healthSaysWhatIsReady() throws Exception {
    HttpClient client = trusting(Files.readAllBytes(MADE.resolve("whinridge.crt")));
    HttpResponse<String> live =
        client.send(
            to("localhost", "/actuator/health/liveness"), HttpResponse.BodyHandlers.ofString());
    HttpResponse<String> ready =
        client.send(
            to("localhost", "/actuator/health/readiness"), HttpResponse.BodyHandlers.ofString());
    assertThat(live.statusCode()).isEqualTo(200);
    assertThat(ready.statusCode()).isEqualTo(200);
    assertThat(ready.body()).contains("\"db\"").contains("\"room\"").doesNotContain("freeBytes");
    assertThat(ready.headers().firstValue("Request-Id")).isPresent();
    assertThat(
            client
                .send(to("localhost", "/actuator/env"), HttpResponse.BodyHandlers.ofString())
                .statusCode())
        .isNotEqualTo(200);
  }
}
