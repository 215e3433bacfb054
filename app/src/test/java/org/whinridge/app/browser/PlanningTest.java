package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.SelectOption;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.whinridge.app.form.FormDraft;
import org.whinridge.app.form.Forms;
import org.whinridge.app.project.Projects;

/** Planning rounds over several layers; nothing that was typed or chosen is lost. */
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

  private static Page.LocatorOptions holding(String text) {
    return new Page.LocatorOptions().setHasText(text);
  }

  private Page planner(String who) {
    Page desk = stage.desk(who);
    desk.navigate(stage.base() + "/p/ostrey/rounds/new");
    desk.waitForSelector("#round-planner[data-ready]");
    return desk;
  }

  private static void form(Page desk, String title) {
    desk.locator("#round-forms label", holding(title)).locator("input").check();
  }

  private static void byRule(Page desk, String layer, String rule) {
    if (desk.locator("#by-rule").count() == 0) desk.click("[data-panel=rule]");
    desk.locator("#by-rule select").first().selectOption(new SelectOption().setLabel(layer));
    desk.fill("#rule-text", rule);
    desk.click("#find");
  }

  private static int stops(Page desk) {
    return Integer.parseInt(desk.locator("#chosen-count").innerText().replaceAll("\\D.*", ""));
  }

  @Test
  void aRoundThatIsRefusedKeepsWhatWasTypedAndChosenAndSoDoesItsPage() {
    Page desk = planner("coordinator");
    form(desk, "Structure visit");
    byRule(desk, "Control structures", "condition >= 4");
    assertThat(desk.locator("#said")).containsText("were found");
    int chosen = stops(desk);
    desk.fill("#name", "North of the sluice");
    desk.fill("#note", "Park at the pump house; \"two\" keys");
    desk.fill("#due", "2035-05-04");
    desk.check("#round-people input[value=inspector2]");
    desk.check("[name=tellsPosition]");
    forms.retire(project(), visits().id(), true, "coordinator");
    desk.click("#make-round");
    assertThat(desk.locator("#planner-told [role=alert]")).containsText("Structure visit");
    assertThat(desk.locator("#name")).hasValue("North of the sluice");
    forms.retire(project(), visits().id(), false, "coordinator");
    desk.reload();
    desk.waitForSelector("#round-planner[data-ready]");
    assertThat(desk.locator("#said")).containsText("begun before and not made");
    assertThat(desk.locator("#name")).hasValue("North of the sluice");
    assertThat(desk.locator("#note")).hasValue("Park at the pump house; \"two\" keys");
    assertThat(desk.locator("#due")).hasValue("2035-05-04");
    assertThat(desk.locator("#round-people input[value=inspector2]")).isChecked();
    assertThat(desk.locator("[name=tellsPosition]")).isChecked();
    assertThat(desk.locator("#chosen-count")).containsText(chosen + " stops");
    desk.click("#make-round");
    assertThat(desk.locator("h1")).hasText("North of the sluice");
    desk.navigate(stage.base() + "/p/ostrey/rounds/new");
    desk.waitForSelector("#round-planner[data-ready]");
    assertThat(desk.locator("#name")).hasValue("");
    assertThat(desk.locator("#chosen-count")).containsText("0 stops");
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void moreStopsThanARoundHasAreToldBeforeItIsSent() {
    Page desk = stage.desk("coordinator");
    desk.route(
        "**/rounds/planning",
        route ->
            route.fulfill(
                new Route.FulfillOptions()
                    .setContentType("application/json")
                    .setBody(route.fetch().text().replace("\"most\":5000", "\"most\":3"))));
    desk.navigate(stage.base() + "/p/ostrey/rounds/new");
    desk.waitForSelector("#round-planner[data-ready]");
    form(desk, "Structure visit");
    desk.click("#choose-all");
    assertThat(desk.locator("#too-many")).containsText("at most 3 stops");
    assertThat(desk.locator("#make-round")).isDisabled();
    desk.click("#undo");
    assertThat(desk.locator("#chosen-count")).hasText("0 stops");
    assertThat(desk.locator("#too-many")).hasCount(0);
  }

  private static void drag(Page desk, double x0, double y0, double x1, double y1) {
    var box = desk.locator("#planner-map").boundingBox();
    desk.mouse().move(box.x + box.width * x0, box.y + box.height * y0);
    desk.mouse().down();
    desk.mouse().move(box.x + box.width * (x0 + x1) / 2, box.y + box.height * (y0 + y1) / 2);
    desk.mouse().move(box.x + box.width * x1, box.y + box.height * y1);
    desk.mouse().up();
  }

  private static void click(Page desk, double x, double y, boolean last) {
    var box = desk.locator("#planner-map").boundingBox();
    desk.mouse().move(box.x + box.width * x, box.y + box.height * y);
    desk.mouse().click(box.x + box.width * x, box.y + box.height * y);
    if (last) desk.mouse().click(box.x + box.width * x, box.y + box.height * y);
  }

  /** A round of a day over points and polygons, by shape, line, rule and tags, split over two. */
  @Test
  void stopsAreChosenOnSeveralLayersOrderedAndSplitOverTwoPeople() {
    Page desk = planner("coordinator");
    form(desk, "Structure visit");
    form(desk, "Washland visit");
    form(desk, "Bank walk");
    desk.click("[data-tool=rectangle]");
    drag(desk, 0.3, 0.3, 0.6, 0.75);
    assertThat(desk.locator("#said")).containsText("were found");
    int byShape = stops(desk);
    desk.locator("[aria-label='What is found'] button", holding("Take away")).click();
    byRule(desk, "Control structures", "condition < 4");
    assertThat(desk.locator("#said")).containsText("taken away");
    int worse = stops(desk);
    org.assertj.core.api.Assertions.assertThat(worse).isBetween(1, byShape - 1);
    desk.locator("[aria-label='What is found'] button", holding("Add")).click();
    desk.click("[data-panel=tags]");
    desk.fill("#tags", "OS-1021\n\"OS-1021\"; NOWHERE");
    desk.click("#find");
    assertThat(desk.locator("#said")).containsText("No feature has this tag: NOWHERE");
    assertThat(desk.locator("#said")).containsText("more than once: OS-1021");
    desk.click("[data-tool=line]");
    click(desk, 0.35, 0.5, false);
    click(desk, 0.45, 0.55, true);
    assertThat(desk.locator("#said")).containsText("found");
    assertThat(desk.locator("#made-of")).containsText("on Control structures");
    assertThat(desk.locator("#made-of")).containsText("on Washlands");
    assertThat(desk.locator("#ways")).containsText("km");
    desk.check("#round-people input[value=inspector1]");
    desk.check("#round-people input[value=inspector2]");
    desk.click("#split");
    assertThat(desk.locator("#ways li")).hasCount(2);
    assertThat(desk.locator("#ways li").last()).containsText("B · inspector2");
    assertThat(desk.locator("#stop-list .ordinal").first()).hasText("A1");
    desk.click("#flip");
    assertThat(desk.locator("#stop-list [aria-current] .ordinal")).hasText("A1");
    desk.locator("#stop-list .note").fill("ring first");
    desk.locator("#stop-list .note").blur();
    int all = stops(desk);
    desk.fill("#name", "Storm damage");
    desk.click("#make-round");
    assertThat(desk.locator(".done")).containsText("2 rounds are ready");
    assertThat(desk.locator("li.card h2", holding("Storm damage: inspector1"))).hasCount(1);
    desk.locator("h2 a", holding("Storm damage: inspector2")).click();
    desk.waitForSelector("#round-now[data-ready]");
    int second = desk.locator("#round-stops > li").count();
    org.assertj.core.api.Assertions.assertThat(second).isBetween(1, all - 1);
    // while it is out, its first stop is given to the other
    desk.locator("#round-stops input").first().check();
    desk.selectOption("#give-to", "inspector1");
    desk.click("#give");
    assertThat(desk.locator("#round-told")).containsText("1 stop was given");
    assertThat(desk.locator("#round-stops > li").first()).containsText("for inspector1");
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void stopsAreMovedByKeysAndWhatWasDoneIsTakenBack() {
    Page desk = planner("coordinator");
    form(desk, "Washland visit");
    desk.click("#choose-all");
    assertThat(desk.locator("#stop-list li").nth(2)).isVisible();
    String first = desk.locator("#stop-list li").first().getAttribute("data-stop");
    desk.locator("#stop-list li button").first().focus();
    desk.keyboard().press("Alt+ArrowDown");
    assertThat(desk.locator("#stop-list li").nth(1)).hasAttribute("data-stop", first);
    desk.waitForResponse(
        r -> String.valueOf(r.request().postData()).contains("\"order\":true"),
        () -> desk.click("#shortest"));
    desk.click("#undo");
    assertThat(desk.locator("#stop-list li").nth(1)).hasAttribute("data-stop", first);
    desk.click("#undo");
    assertThat(desk.locator("#stop-list li").first()).hasAttribute("data-stop", first);
    desk.click("#invert");
    assertThat(desk.locator("#chosen-count")).hasText("0 stops");
    desk.click("[data-panel=since]");
    desk.fill("#since", "2000-01-01");
    desk.click("#find");
    assertThat(desk.locator("#said")).containsText("found");
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }
}
