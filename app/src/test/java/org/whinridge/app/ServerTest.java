package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.webmvc.test.autoconfigure.AutoConfigureMockMvc;
import org.springframework.context.annotation.Import;
import org.springframework.test.annotation.DirtiesContext;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/** A server in this process, spoken to without a network. What it holds its kinds say. */
@SpringBootTest
@AutoConfigureMockMvc
@DirtiesContext
@Import(OneConnection.class)
abstract class ServerTest {
  @DynamicPropertySource
  static void data(DynamicPropertyRegistry r) {
    r.add("whinridge.data", () -> folder().toString());
  }

  @AfterEach
  void noThreadHeldTwoConnections() {
    Throwable second = OneConnection.SECOND.poll();
    assertThat(second == null ? "" : stack(second)).isEmpty();
  }

  private static String stack(Throwable t) {
    return java.util.Arrays.stream(t.getStackTrace())
        .filter(e -> e.getClassName().startsWith("org.whinridge"))
        .toList()
        .toString();
  }

  static Path folder() {
    try {
      return Files.createTempDirectory("whinridge-test");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
