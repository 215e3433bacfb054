package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.system.CapturedOutput;
import org.springframework.boot.test.system.OutputCaptureExtension;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.annotation.DirtiesContext;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/** From an empty store to somebody's own work, with a file of their own. */
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
@DirtiesContext
@ExtendWith(OutputCaptureExtension.class)
class OwnWorkTest {
  private static final String PASSWORD = "four words and more";
  private static final Path DATA = BrowserTest.temporary();
  @LocalServerPort int port;
  private Stage stage;

  @DynamicPropertySource
  static void data(DynamicPropertyRegistry r) {
    r.add("whinridge.data", DATA::toString);
  }

  @BeforeEach
  void open() {
    stage = new Stage(port);
  }

  @AfterEach
  void close() {
    stage.close();
  }

  private void signIn(Page page, String name) {
    page.fill("#username", name);
    page.fill("#password", PASSWORD);
    page.click("main button.main");
  }

  private void project(Page desk, String name) {
    desk.navigate(stage.base() + "/projects/new");
    desk.fill("#name", name);
    desk.waitForSelector("#project-new[data-ready]");
    // a click into the sea west of Europe proposes what is usual there
    BoundingBox map = desk.locator("#project-place").boundingBox();
    desk.mouse().click(map.x + map.width * 0.46, map.y + map.height * 0.28);
    desk.waitForSelector("#system-list input:checked");
    desk.fill("#system", "utm zone 29n");
    desk.locator("#system-list li", new Page.LocatorOptions().setHasText("EPSG:32629")).click();
    assertThat(desk.locator("#system")).hasValue("EPSG:32629");
    desk.fill("#area", "-10.6, 57.6, -9.9, 58.1");
    desk.click("main button.main");
    desk.waitForSelector(".band");
  }

  /** Invites somebody, who makes an account by the link; gives their window. */
  private Page invited(Page desk, String project, String name, String role) {
    desk.navigate(stage.base() + "/p/" + project + "/people");
    desk.fill("#names", name);
    for (Locator box : desk.locator("#invite input[name=role]").all()) box.uncheck();
    desk.check("#invite input[value=" + role + "]");
    desk.click("#invite button.main");
    String link = desk.locator("[data-link]").innerText();
    Page theirs = stage.window();
    theirs.navigate(link);
    assertThat(theirs.locator("#name")).hasValue(name);
    theirs.fill("#password", PASSWORD);
    assertThat(theirs.locator("#password-strength")).not().isEmpty();
    theirs.click("main button.main");
    signIn(theirs, name);
    return theirs;
  }

  private static Path gates(Path folder) throws IOException {
    StringBuilder out = new StringBuilder("gate;state;lon;lat\n");
    for (int i = 1; i <= 6; i++)
      out.append("G").append(i).append(";open;").append(-10.3 + i / 100.0).append(";57.88\n");
    return Files.writeString(folder.resolve("my gates.csv"), out.toString());
  }

  private void layerAndForm(Page desk) throws IOException {
    desk.navigate(stage.base() + "/p/the-coast/layers/bring-in");
    desk.setInputFiles("#file", gates(BrowserTest.temporary()));
    desk.click("#bring-in button[type=submit]");
    desk.waitForSelector("#report[data-ready]");
    desk.fill("#name0", "Gates");
    desk.click("#import");
    assertThat(desk.locator("main")).containsText("6 features imported");
    desk.click("text=Open “Gates”");
    desk.waitForSelector("#layer-page[data-ready]");
    desk.click("text=Make a form from its fields");
    desk.waitForSelector("#form-page[data-ready]");
    desk.click("#publish");
    desk.click("#publish-now");
    assertThat(desk.locator(".done")).containsText("Edition 1 is published");
  }

  private static void round(Page desk) {
    desk.click("text=Plan a round");
    desk.waitForSelector("#round-planner[data-ready]");
    desk.click("#choose-all");
    assertThat(desk.locator("#stop-list li")).hasCount(6);
    desk.fill("#name", "All gates");
    desk.locator("#round-people label", new Page.LocatorOptions().setHasText("Beke Holm"))
        .locator("input")
        .check();
    desk.click("#make-round");
    assertThat(desk.locator(".done")).containsText("The round is ready");
  }

  /** A phone that is paired by the code of a window's own page. */
  private Page paired(Page window, String name) {
    window.navigate(stage.base() + "/me");
    window.click("form[action='/me/pair'] button");
    String address = window.locator("#code .quiet").innerText();
    Page phone = stage.phone(BrowserTest.temporary(), -10.28, 57.88);
    phone.navigate(address);
    assertThat(phone.locator(".done")).containsText("paired with " + name);
    assertThat(phone).hasURL(stage.base() + "/day");
    return phone;
  }

  private static void dayOut(Page phone) {
    phone.click("text=Take this round offline");
    assertThat(phone.locator(".done")).containsText("You can go offline");
    phone.context().setOffline(true);
    phone.click("text=Go to the stops");
    phone.locator(".stop").first().click();
    phone.waitForSelector("#save");
    phone
        .locator("[data-question=state] input, [data-question=state] textarea")
        .first()
        .fill("shut");
    phone.click("#save");
    assertThat(phone.locator(".done")).containsText("is saved");
    phone.context().setOffline(false);
    phone.click("nav >> text=Carried");
    phone.click("#hand-in");
    assertThat(phone.locator(".done")).containsText("Handed in: 1 visit");
  }

  @Test
  void fromAnEmptyStoreToAnAcceptedVisitAndNothingLeaks(CapturedOutput console) throws Exception {
    Matcher told = Pattern.compile("/first\\?key=([A-Za-z0-9_-]{20,})").matcher(console.getOut());
    org.assertj.core.api.Assertions.assertThat(told.find()).isTrue();
    Page desk = stage.window();
    desk.navigate(stage.base() + "/first?key=" + told.group(1));
    desk.fill("#name", "Asta Fenn");
    desk.fill("#password", PASSWORD);
    desk.click("main button.main");
    signIn(desk, "Asta Fenn");
    desk.waitForURL("**/projects/new");
    project(desk, "The coast");
    layerAndForm(desk);
    Page beke = invited(desk, "the-coast", "Beke Holm", "inspector");
    desk.navigate(stage.base() + "/p/the-coast/forms");
    desk.locator("tbody a").first().click();
    desk.waitForSelector("#form-page[data-ready]");
    round(desk);
    Page phone = paired(beke, "Beke Holm");
    dayOut(phone);
    desk.navigate(stage.base() + "/");
    assertThat(desk.locator("#needs")).containsText("1 visit waits");
    desk.click("#needs a");
    desk.locator("main a[href*='/hand-ins/']:not([href*=set-aside])").first().click();
    desk.click("button[data-key=a]");
    desk.navigate(stage.base() + "/p/the-coast/desk");
    assertThat(desk.locator("#needs")).containsText("Nothing waits");
    assertThat(desk.locator("#acts")).containsText("Beke Holm");
    desk.navigate(stage.base() + "/p/the-coast/devices");
    assertThat(desk.locator("#devices")).containsText("Beke Holm");

    project(desk, "Inland");
    Page corin = invited(desk, "inland", "Corin Vale", "coordinator");
    corin.navigate(stage.base() + "/");
    corin.waitForURL("**/p/inland/desk");
    corin.navigate(stage.base() + "/p/the-coast/layers");
    assertThat(corin.locator(".problem")).isVisible();
    assertThat(corin.locator("body")).not().containsText("The coast");
    corin.navigate(stage.base() + "/projects");
    assertThat(corin.locator("[data-project]")).hasCount(1);
    desk.navigate(stage.base() + "/");
    desk.waitForURL("**/projects");
    assertThat(desk.locator("[data-project]")).hasCount(2);
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }
}
