package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.whinridge.app.form.FormDraft;
import org.whinridge.app.form.Forms;
import org.whinridge.app.project.Projects;

/** Planning a round when it is refused: nothing that was typed or chosen is lost. */
class PlanningTest extends FormStories {
  @Autowired Forms forms;
  @Autowired Projects projects;

  private UUID project() {
    return projects.byKey("ostrey").id();
  }

  private FormDraft visits() {
    return forms.list(project()).stream()
        .filter(f -> f.form().title().equals("Structure visit"))
        .findFirst()
        .orElseThrow();
  }

  @AfterEach
  void inUseAgain() {
    forms.retire(project(), visits().id(), false, "coordinator");
  }

  private static void choose(Page desk, int stops) {
    desk.waitForSelector("#round-planner[data-ready]");
    for (int i = 0; i < stops; i++) desk.locator("#planner-list input").nth(i).check();
    assertThat(desk.locator("#chosen-count")).containsText(stops + " stops");
  }

  @Test
  void aRoundThatIsRefusedKeepsWhatWasTypedAndChosen() {
    Page desk = stage.desk("coordinator");
    String plan = stage.base() + "/p/ostrey/rounds/new?form=" + visits().id();
    desk.navigate(plan);
    choose(desk, 4);
    desk.fill("#name", "North of the sluice");
    desk.fill("#note", "Park at the pump house; \"two\" keys");
    desk.fill("#due", "2027-05-04");
    String who = desk.locator("#person option").last().getAttribute("value");
    desk.selectOption("#person", who);
    desk.check("[name=tellsPosition]");
    forms.retire(project(), visits().id(), true, "coordinator");
    desk.click("#make-round");
    assertThat(desk.locator("main .problem[role=alert]").first()).containsText("Structure visit");
    assertThat(desk.locator("#name")).hasValue("North of the sluice");
    assertThat(desk.locator("#note")).hasValue("Park at the pump house; \"two\" keys");
    assertThat(desk.locator("#due")).hasValue("2027-05-04");
    assertThat(desk.locator("#person")).hasValue(who);
    assertThat(desk.locator("[name=tellsPosition]")).isChecked();
    assertThat(desk.locator("#chosen-count")).containsText("4 stops");
    assertThat(desk.locator("#planner-list input:checked")).hasCount(4);
    forms.retire(project(), visits().id(), false, "coordinator");
    desk.click("#make-round");
    assertThat(desk.locator("h1")).hasText("North of the sluice");
    desk.navigate(plan);
    desk.waitForSelector("#round-planner[data-ready]");
    assertThat(desk.locator("#name")).hasValue("");
    assertThat(desk.locator("#chosen-count")).containsText("0 stops");
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void moreStopsThanARoundHasAreToldBeforeItIsSent() {
    Page desk = stage.desk("coordinator");
    desk.route(
        "**/rounds/new?form=*",
        route -> {
          String page = route.fetch().text();
          route.fulfill(
              new Route.FulfillOptions()
                  .setContentType("text/html;charset=utf-8")
                  .setBody(page.replace("data-most=\"2000\"", "data-most=\"3\"")));
        });
    desk.navigate(stage.base() + "/p/ostrey/rounds/new?form=" + visits().id());
    choose(desk, 3);
    assertThat(desk.locator("#too-many")).hasCount(0);
    choose(desk, 4);
    assertThat(desk.locator("#too-many")).containsText("at most 3 stops");
    assertThat(desk.locator("#make-round")).isDisabled();
    desk.locator("#planner-list input:checked").first().uncheck();
    assertThat(desk.locator("#make-round")).isEnabled();
  }
}
