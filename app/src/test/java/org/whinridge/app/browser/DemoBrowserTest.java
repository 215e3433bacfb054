package org.whinridge.app.browser;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.context.ActiveProfiles;

/** A running demo server, and a browser. Which data folder the server has, its kinds say. */
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
@ActiveProfiles("demo")
abstract class DemoBrowserTest {
  @LocalServerPort int port;
  Stage stage;

  static Path temporary() {
    try {
      return Files.createTempDirectory("whinridge-test");
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }

  @BeforeEach
  void open() {
    stage = new Stage(port);
  }

  @AfterEach
  void close() {
    stage.close();
  }

  /** The address of the first layer whose name has this text. */
  String address(Page desk, String layer) {
    desk.navigate(stage.base() + "/p/ostrey/layers");
    return stage.base()
        + desk.locator("h2 a", new Page.LocatorOptions().setHasText(layer))
            .first()
            .getAttribute("href");
  }

  /** Ticks one layer among the outputs, and no other. */
  void onlyLayer(Page desk, String layer) {
    // the boxes of the page before are none, which would leave the first layer ticked here
    desk.waitForURL("**/outputs*");
    desk.waitForSelector("input[name=layer]");
    for (Locator tick : desk.locator("input[name=layer]").all()) tick.uncheck();
    desk.locator("label", new Page.LocatorOptions().setHasText(layer)).locator("input").check();
  }
}
