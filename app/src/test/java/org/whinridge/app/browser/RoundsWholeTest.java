package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.Geolocation;
import com.microsoft.playwright.options.SelectOption;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.whinridge.app.form.FormBeginning;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.project.Projects;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.Said;
import org.whinridge.demo.DemoPhoto;

/**
 * A day of rounds: planned over points, lines and polygons, split over two, an open round beside;
 * taken out, walked without a link, changed while it is out.
 */
class RoundsWholeTest extends DemoBrowserTest {
  private static final Path OWN = temporary();
  private static final String GATES =
      """
      {"title":"Gate check","settings":{"purpose":"which gates the storm took"},"sections":[{"title":"","questions":[
      {"name":"gate","label":"Gate","type":"choice","need":"needed","codes":[{"code":"shut","label":"Shut"},{"code":"gone","label":"Gone"}]}]}]}""";

  @Autowired Projects projects;
  @Autowired LayerMaking making;
  @Autowired Forms forms;
  @Autowired FormBeginning beginning;

  @DynamicPropertySource
  static void own(DynamicPropertyRegistry r) {
    r.add("whinridge.data", OWN::toString);
  }

  private static Page.LocatorOptions holding(String text) {
    return new Page.LocatorOptions().setHasText(text);
  }

  private UUID project() {
    return projects.byKey("ostrey").id();
  }

  /** A table, and a form of it: a form without a place. */
  private UUID dayLog() throws Exception {
    Schema schema =
        new Schema(
            GeometryKind.TABLE,
            List.of(Field.of("what", "What happened", FieldType.TEXT)),
            "what",
            List.of("what"));
    UUID table =
        making.make(project(), "Day log", schema, Said.text("made"), "coordinator", take -> {});
    forms.publish(project(), forms.fromLayer(project(), table), "coordinator");
    return table;
  }

  private Page phone(String who) {
    Page day = stage.phone(temporary(), -10.29, 57.8835);
    day.navigate(stage.base() + "/day");
    day.click("a.button.main");
    day.click("button[value=" + who + "]");
    day.waitForSelector("[data-round]");
    return day;
  }

  private static void tab(Page day, String name) {
    day.click("nav >> text=" + name);
  }

  private static void takeOut(Page day, String round) {
    day.locator("[data-round]", holding(round)).locator("text=Take this round offline").click();
    assertThat(day.locator(".done")).containsText("You can go offline");
  }

  private static void goTo(Page day, String round) {
    tab(day, "Today");
    day.locator("[data-round]", holding(round)).locator("text=Go to the stops").click();
    assertThat(day.locator("h2").first()).hasText(round);
  }

  private static void save(Page day) {
    while (day.locator(".point.soft button").count() > 0)
      day.locator(".point.soft button").first().click();
    day.click("#save");
    assertThat(day.locator(".done")).containsText("saved");
  }

  /** Answers what a visit to a structure needs. */
  private static void answer(Page day) {
    day.waitForSelector("#save");
    if (day.locator("[data-question=condition] [aria-pressed=true]").count() == 0)
      day.locator("[data-question=condition] [data-code='2']").click();
    while (day.locator("#next-page").count() > 0) {
      while (day.locator(".point.soft button").count() > 0)
        day.locator(".point.soft button").first().click();
      day.click("#next-page");
    }
    save(day);
  }

  private static void byRule(Page desk, String layer, String rule) {
    if (desk.locator("#by-rule").count() == 0) desk.click("[data-panel=rule]");
    desk.locator("#by-rule select").first().selectOption(new SelectOption().setLabel(layer));
    desk.fill("#rule-text", rule);
    desk.click("#find");
    assertThat(desk.locator("#said")).containsText("found");
  }

  /** Over points, lines and polygons, by shape, rule and tags; two rounds come of it. */
  private void planTheDay(Page desk) {
    desk.navigate(stage.base() + "/p/ostrey/rounds/new");
    desk.waitForSelector("#round-planner[data-ready]");
    for (String form : List.of("Structure visit", "Bank walk", "Washland visit"))
      desk.locator("#round-forms label", holding(form)).locator("input").check();
    desk.click("[data-tool=rectangle]");
    var box = desk.locator("#planner-map").boundingBox();
    desk.mouse().move(box.x + box.width * 0.45, box.y + box.height * 0.5);
    desk.mouse().down();
    desk.mouse().move(box.x + box.width * 0.5, box.y + box.height * 0.55);
    desk.mouse().move(box.x + box.width * 0.55, box.y + box.height * 0.6);
    desk.mouse().up();
    assertThat(desk.locator("#said")).containsText("found");
    byRule(desk, "Control structures", "condition = 5");
    desk.click("[data-panel=tags]");
    desk.fill("#tags", "OS-2036\nOS-2568");
    desk.click("#find");
    assertThat(desk.locator("#said")).containsText("found");
    assertThat(desk.locator("#made-of")).containsText("on Control structures");
    assertThat(desk.locator("#made-of")).containsText("on Banks");
    assertThat(desk.locator("#made-of")).containsText("on Washlands");
    desk.check("#round-people input[value=inspector1]");
    desk.check("#round-people input[value=inspector2]");
    desk.click("#split");
    assertThat(desk.locator("#ways li")).hasCount(2);
    desk.click("#measure-pack");
    assertThat(desk.locator("#plan-pack")).containsText("features of Control structures");
    desk.fill("#name", "Day");
    desk.click("#make-round");
    assertThat(desk.locator(".done")).containsText("2 rounds are ready");
  }

  private void planTheOpenRound(Page desk) throws Exception {
    desk.navigate(stage.base() + "/p/ostrey/rounds/new");
    desk.waitForSelector("#round-planner[data-ready]");
    for (String form : List.of("Structure visit", "Day log"))
      desk.locator("#round-forms label", holding(form)).locator("input").check();
    desk.selectOption("#allows", "new assets");
    desk.check("#round-people input[value=inspector1]");
    desk.fill("#name", "What the storm left");
    desk.fill("#expected", "12");
    desk.setInputFiles(
        "#pictures input",
        new FilePayload("quay.jpg", "image/jpeg", DemoPhoto.jpeg("OS-1", "weir", "2026-11-24")));
    assertThat(desk.locator("#pictures img")).isVisible();
    desk.click("#make-round");
    desk.waitForSelector("#round-now[data-ready]");
    assertThat(desk.locator("#round-side")).containsText("Nothing was handed in yet");
  }

  @Test
  void aDayOfRoundsFromThePlanToTheLayer() throws Exception {
    UUID table = dayLog();
    Page desk = stage.desk("coordinator");
    planTheDay(desk);
    planTheOpenRound(desk);

    Page one = phone("inspector1");
    takeOut(one, "Day: inspector1");
    takeOut(one, "What the storm left");
    Page two = phone("inspector2");
    takeOut(two, "Day: inspector2");
    one.context().setOffline(true);
    two.context().setOffline(true);

    findStops(one);
    somethingNew(one);
    aFormFromAFile(one);
    assertThat(one.locator("nav")).containsText("Carried");

    stopsAreMoved(desk, two);
    handIn(desk, one);
    theFormComes(one, table);
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  /** By distance, by name, on the map. */
  private static void findStops(Page one) {
    goTo(one, "Day: inspector1");
    assertThat(one.locator(".stop .far").first()).containsText("m");
    assertThat(one.locator("#stop-order")).containsText("Nearest first");
    String caption = one.locator(".stop strong").nth(3).innerText();
    one.fill("input[type=search]", caption.substring(0, 7));
    assertThat(one.locator(".stop strong").first()).hasText(caption);
    one.locator("[data-on-map]").first().click();
    assertThat(one.locator("[data-target]")).containsText(caption);
    one.click("#visit-now");
    assertThat(one.locator(".day-head h1")).hasText(caption);
    one.click(".day-head button");
    one.fill("input[type=search]", "");
    one.selectOption("[data-look=type]", new SelectOption().setLabel("Control structures: Weir"));
    for (String of : one.locator(".stop strong").allInnerTexts())
      org.assertj.core.api.Assertions.assertThat(of).endsWith("Weir");
    one.selectOption("[data-look=type]", "");
    one.locator(".stop", holding("OS-")).first().click();
    answer(one);
    one.selectOption("[data-look=rounds]", "all");
    one.selectOption("[data-look=state]", "done");
    assertThat(one.locator(".stop")).hasCount(1);
    assertThat(one.locator(".stop")).containsText("Day: inspector1");
    one.selectOption("[data-look=state]", "");
    one.selectOption("[data-look=rounds]", "one");
    tab(one, "Today");
    assertThat(one.locator("#days-visits")).containsText("Today: ");
    assertThat(one.locator("[data-next-stop]").first()).isVisible();
  }

  /** An asset that nobody knew, begun from the legend; and a form that has no place. */
  private static void somethingNew(Page one) {
    goTo(one, "What the storm left");
    // the picture of its note is here without a link, small until it is pressed
    one.waitForFunction("() => document.querySelector('[data-noted] img')?.naturalWidth > 0");
    one.locator("[data-noted] button").click();
    assertThat(one.locator("[data-noted] button")).hasAttribute("aria-expanded", "true");
    one.click("#new-asset");
    one.click("[data-new=Sluice]");
    assertThat(one.locator("[data-question=kind] [aria-pressed=true]")).hasText("Sluice");
    one.fill("#q-tag", "OS-9001");
    one.click("#place-map");
    one.waitForSelector(".place-map canvas");
    one.locator(".place-map .map").click(new Locator.ClickOptions().setPosition(180, 260));
    one.click("#map-done");
    assertThat(one.locator(".place-map")).hasCount(0);
    answer(one);
    assertThat(one.locator(".stop", holding("OS-9001"))).containsText("done");
    one.click("#new-asset");
    one.click("[data-new='Day log']");
    one.fill("#q-what", "Gate key lost");
    save(one);
    one.click("#new-asset");
    assertThat(one.locator("#new-lately [data-new]").first()).hasAttribute("data-new", "Day log");
    one.click("text=Back to the stops");
  }

  private static void aFormFromAFile(Page one) {
    tab(one, "Today");
    one.setInputFiles(
        "#open-form-file input",
        new FilePayload("notes.json", "application/json", "{\"a\":1}".getBytes()));
    assertThat(one.locator(".day-body .problem")).containsText("notes.json is no form file");
    one.setInputFiles(
        "#open-form-file input",
        new FilePayload("gates.json", "application/json", GATES.getBytes(StandardCharsets.UTF_8)));
    assertThat(one.locator("#form-file")).containsText("which gates the storm took");
    one.click("#use-form-file");
    one.click("#new-asset");
    one.click("[data-new='Gate check']");
    one.locator("[data-question=gate] [data-code=gone]").click();
    save(one);
    tab(one, "Carried");
    assertThat(one.locator("#waiting-form")).containsText("1 visit waits");
  }

  /** A stop of the second round is given to the first person; both learn it at a contact. */
  private void stopsAreMoved(Page desk, Page two) {
    desk.navigate(stage.base() + "/p/ostrey/rounds");
    desk.locator("h2 a", holding("Day: inspector2")).click();
    desk.waitForSelector("#round-now[data-ready]");
    desk.locator("#round-stops input").first().check();
    desk.selectOption("#give-to", "inspector1");
    desk.click("#give");
    assertThat(desk.locator("#round-told")).containsText("1 stop was given");
    two.context().setOffline(false);
    two.reload();
    assertThat(two.locator("#news")).containsText("1 stop was given to somebody else");
    two.click("#news-seen");
    assertThat(two.locator("#news")).hasCount(0);
  }

  private void handIn(Page desk, Page one) {
    one.context().setOffline(false);
    one.reload();
    // a round that came meanwhile is here by itself, and told
    assertThat(one.locator("#news")).containsText("Day: inspector2");
    assertThat(one.locator("[data-round]", holding("Day: inspector2")))
        .containsText("Go to the stops");
    tab(one, "Carried");
    one.click("#hand-in");
    assertThat(one.locator(".done")).containsText("Handed in: 3 visits");
    assertThat(one.locator("#waiting-form")).containsText("1 visit waits");
    desk.navigate(stage.base() + "/p/ostrey/hand-ins");
    desk.locator("a", holding("A new feature")).last().click();
    assertThat(desk.locator("#makes-feature")).isVisible();
    desk.click("#accept");
    assertThat(desk.locator(".done")).containsText("Accepted");
  }

  /** When the project has the form of the file, its visit can be handed in. */
  private void theFormComes(Page one, UUID table) throws Exception {
    Path file = Files.writeString(temporary().resolve("gates.json"), GATES);
    UUID form = beginning.fromFile(project(), Optional.of(table), file, "coordinator").form();
    forms.publish(project(), form, "coordinator");
    one.reload();
    tab(one, "Carried");
    assertThat(one.locator("#waiting-form")).hasCount(0);
    one.click("#hand-in");
    assertThat(one.locator(".done")).containsText("Handed in: 1 visit");
    assertThat(one.locator("[data-visit]")).hasCount(4);
    assertThat(one.locator("[data-visit]", holding("carried"))).hasCount(0);
  }

  /** What the device has is tried out, and what was taken out leaves it again. */
  @Test
  void kitTriesWhatTheDeviceHasAndMakesRoom() throws Exception {
    Page one = phone("inspector1");
    takeOut(one, "before the autumn tides");
    tab(one, "Kit");
    assertThat(one.locator("#receiver")).containsText("57.8835");
    one.click("[data-test=receiver]");
    one.waitForTimeout(500);
    // the receiver is asked anew: what it knew before is no answer
    one.context().setGeolocation(new Geolocation(57.8836, -10.2901).setAccuracy(7));
    assertThat(one.locator("dd:has([data-test=receiver]) [role=status]"))
        .containsText("A position known to");
    one.click("[data-test=store]");
    assertThat(one.locator("dd:has([data-test=store]) [role=status]"))
        .containsText("read back the same");
    one.click("[data-test=link]");
    assertThat(one.locator("dd:has([data-test=link]) [role=status]")).containsText("answered in");
    one.setInputFiles(
        "[data-test=camera]",
        new FilePayload("p.jpg", "image/jpeg", DemoPhoto.jpeg("OS-1", "tide_flap", "2026-11-24")));
    assertThat(one.locator("dd:has([data-test=camera]) [role=status]"))
        .containsText("its place can be written");
    assertThat(one.locator("#contacts")).containsText("went well");
    one.onDialog(d -> d.accept());
    one.locator("#kept-rounds button").click();
    assertThat(one.locator(".done")).containsText("is off this device");
    tab(one, "Today");
    assertThat(one.locator("text=Take this round offline").first()).isVisible();
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  /** A link, or the code on paper, opens the day book at its round. */
  @Test
  void aLinkOpensTheDayBookAtItsRound() {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/rounds");
    desk.locator("h2 a", holding("before the autumn tides")).click();
    desk.click("#hand-over");
    String link = desk.locator("#round-link").inputValue();
    Page day = stage.phone(temporary(), -10.29, 57.8835);
    // nobody is let in on it yet: it is asked for, and gone on with after that
    day.navigate(link);
    day.click("a.button.main");
    day.click("button[value=inspector1]");
    assertThat(day.locator("h2").first()).hasText("Saltings, before the autumn tides");
    assertThat(day.locator(".stop").first()).isVisible();
    Page other = stage.phone(temporary(), -10.29, 57.8835);
    other.navigate(link);
    other.click("a.button.main");
    other.click("button[value=inspector2]");
    assertThat(other.locator(".told").first()).containsText("not among yours");
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }
}
