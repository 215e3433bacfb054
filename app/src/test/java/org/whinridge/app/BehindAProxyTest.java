package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.context.annotation.Import;
import org.springframework.test.annotation.DirtiesContext;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/** Behind a proxy that speaks HTTPS to the browser, and beside one that nobody trusts. */
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
@DirtiesContext
@Import(SmallProject.class)
class BehindAProxyTest {
  @DynamicPropertySource
  static void data(DynamicPropertyRegistry r) {
    r.add("whinridge.data", () -> ServerTest.folder().toString());
  }

  @LocalServerPort int port;

  @Value("${whinridge.data}")
  String data;

  private HttpResponse<String> asked(String path) throws Exception {
    return HttpClient.newHttpClient()
        .send(
            HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
                .header("X-Forwarded-Proto", "https")
                .header("X-Forwarded-Host", "inspect.ostrey.example")
                .header("X-Forwarded-For", "192.0.2.7")
                .build(),
            HttpResponse.BodyHandlers.ofString());
  }

  @Test
  void theCookieIsForHttpsAndTheBrowserStaysThere() throws Exception {
    HttpResponse<String> r = asked("/sign-in");
    assertThat(r.statusCode()).isEqualTo(200);
    assertThat(r.headers().firstValue("Strict-Transport-Security").orElse("")).contains("max-age=");
    assertThat(r.headers().allValues("Set-Cookie"))
        .isNotEmpty()
        .allSatisfy(
            c -> assertThat(c).contains("Secure").contains("HttpOnly").contains("SameSite=Lax"));
    HttpResponse<String> away = asked("/p/ostrey/layers");
    assertThat(away.statusCode()).isEqualTo(302);
    assertThat(away.headers().firstValue("Location").orElse(""))
        .matches("(https://inspect\\.ostrey\\.example)?/sign-in");
  }

  @Test
  void theStoreIsItsOwnersAlone() throws Exception {
    assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(Path.of(data))))
        .isEqualTo("rwx------");
  }
}
