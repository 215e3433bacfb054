package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.whinridge.app.browser.FormStories.stored;
import static org.whinridge.app.browser.FormStories.text;

import com.microsoft.playwright.Page;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.whinridge.app.ServerProcess;

/** What somebody did to a draft can be taken back and done again, also by a server started anew. */
class RestartedServerTest {
  @TempDir Path tmp;
  private ServerProcess server;

  @AfterEach
  void end() {
    server.kill();
  }

  @Test
  void fiftyStepsAreTakenBackAndDoneAgainAfterARestart() throws Exception {
    server = new ServerProcess(tmp);
    String address;
    String begun;
    String end;
    try (Stage stage = new Stage(server.start())) {
      Page desk = stage.desk("coordinator");
      desk.navigate(stage.base() + "/p/ostrey/forms/new");
      desk.check("input[name=start][value=NOTHING]");
      desk.click("#form-new button");
      desk.waitForSelector("#form-page[data-ready]");
      address = desk.url().replace(stage.base(), "");
      begun = text(desk);
      for (int i = 0; i < 50; i++) {
        desk.fill("#typing", i % 10 == 0 ? "# Part " + i : "Question " + i + " (mm) 0.." + (i + 1));
        desk.press("#typing", "Enter");
        assertThat(desk.locator("#typing")).hasValue("");
        stored(desk);
      }
      end = text(desk);
      assertThat(end).contains("# Part 40", "Question 49 (mm) {question_49} 0..50");
      for (int i = 0; i < 50; i++) {
        desk.click("#undo:enabled");
        stored(desk);
      }
      assertThat(text(desk)).isEqualTo(begun);
    }
    server.kill();
    server.ended();
    try (Stage stage = new Stage(server.start())) {
      Page desk = stage.desk("coordinator");
      desk.navigate(stage.base() + address);
      desk.waitForSelector("#form-page[data-ready]");
      for (int i = 0; i < 50; i++) {
        desk.click("#redo:enabled");
        stored(desk);
      }
      assertThat(desk.locator("#redo")).isDisabled();
      assertThat(text(desk)).isEqualTo(end);
      assertThat(stage.scriptErrors()).isEmpty();
    }
  }
}
