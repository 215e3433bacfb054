package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import java.nio.file.Path;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.whinridge.demo.DemoPhoto;

/** A phone that several people use, and one that is revoked. */
class OnePhoneTest extends DemoBrowserTest {
  private static final Path OWN = temporary();

  @DynamicPropertySource
  static void own(DynamicPropertyRegistry r) {
    // a store of its own: which devices there are is what this is about
    r.add("whinridge.data", OWN::toString);
  }

  private Page phone() {
    return stage.dayBook(temporary(), -10.29, 57.8835);
  }

  private static void tab(Page day, String name) {
    day.click("nav >> text=" + name);
  }

  /** Takes the demo's round out and saves a visit at a stop of it. */
  private static void visit(Page day, int stop) {
    visit(day, stop, Optional.empty());
  }

  private static void visit(Page day, int stop, Optional<byte[]> photo) {
    Locator round =
        day.locator(
            "[data-round]", new Page.LocatorOptions().setHasText("before the autumn tides"));
    round.locator("text=Take this round offline").click();
    assertThat(day.locator(".done")).containsText("You can go offline");
    round.locator("text=Go to the stops").click();
    day.locator(".stop").nth(stop).click();
    day.waitForSelector("#save");
    day.fill("#q-notes", "by the first of two");
    if (day.locator("[data-question=condition] [aria-pressed=true]").count() == 0)
      day.locator("[data-question=condition] [data-code='2']").click();
    while (day.locator(".point.soft button").count() > 0)
      day.locator(".point.soft button").first().click();
    photo.ifPresent(jpeg -> take(day, jpeg));
    day.click("#save");
    assertThat(day.locator(".done")).containsText("is saved");
  }

  private static void take(Page day, byte[] jpeg) {
    while (day.locator("#next-page").count() > 0) day.click("#next-page");
    day.setInputFiles(
        "[data-question=photo] input[type=file]", new FilePayload("p.jpg", "image/jpeg", jpeg));
    assertThat(day.locator("[data-question=photo] img")).isVisible();
  }

  private String code(String account) {
    Page desk = stage.desk(account);
    Stage.quiet(desk); // an inspector's window begins with the day book, which lets itself in
    desk.navigate(stage.base() + "/me");
    desk.click("form[action='/me/pair'] button");
    return desk.locator("#code-shown").innerText();
  }

  @Test
  void twoPeopleOnOnePhoneAreKeptApart() {
    Page day = phone();
    visit(day, 4);
    tab(day, "Kit");
    day.fill("#pin input", "12");
    day.click("#pin button[type=submit]");
    day.fill("#pin input", "471147");
    day.click("#pin button[type=submit]");
    assertThat(day.locator(".done")).containsText("The PIN is set");
    day.fill("#pair input", code("inspector2"));
    day.click("#pair button");
    assertThat(day.locator(".day-head")).containsText("inspector2");
    tab(day, "Today");
    assertThat(day.locator("[data-round]")).hasCount(0);
    tab(day, "Carried");
    assertThat(day.locator("#hand-in")).isDisabled();
    assertThat(day.locator("[data-visit]")).hasCount(0);

    day.context().setOffline(true);
    day.reload();
    assertThat(day.locator(".day-head")).containsText("inspector2");
    tab(day, "Kit");
    Locator back = day.locator("[data-person=inspector1]");
    back.locator("input").fill("000000");
    back.locator("button").click();
    assertThat(day.locator(".day-body .problem")).containsText("not the PIN");
    assertThat(day.locator(".day-head")).containsText("inspector2");
    for (int wrong = 2; wrong <= 3; wrong++) {
      back.locator("input").fill("11111" + wrong);
      back.locator("button").click();
      assertThat(day.locator(".day-body .problem"))
          .containsText(wrong < 3 ? "Try again" : "Wait 30 seconds");
    }
    back.locator("input").fill("471147");
    back.locator("button").click();
    assertThat(day.locator(".day-body .problem")).containsText("Wait");
    // half a minute later
    day.evaluate(
        "() => new Promise((over) => { const q = indexedDB.open('whinridge-day'); q.onsuccess = () => { const s = q.result.transaction('meta', 'readwrite').objectStore('meta'); const g = s.get('people'); g.onsuccess = () => { for (const p of g.result) p.waitUntil = 0; s.put(g.result, 'people').onsuccess = over; }; }; })");
    back.locator("input").fill("471147");
    back.locator("button").click();
    assertThat(day.locator(".day-head")).containsText("inspector1");
    tab(day, "Carried");
    assertThat(day.locator("[data-visit]")).hasCount(1);
    day.context().setOffline(false);
    day.click("#hand-in");
    assertThat(day.locator(".done")).containsText("Handed in: 1 visit");
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void aRevokedPhoneLosesItsPackAndKeepsWhatItCarries() {
    Page day = phone();
    visit(day, 5);
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/devices");
    // the phone that was let in last stands first among the inspector's
    desk.locator("#devices li", new Page.LocatorOptions().setHasText("inspector1"))
        .first()
        .locator("form[action$=revoke] button")
        .click();
    tab(day, "Carried");
    day.click("#hand-in");
    assertThat(day.locator(".day-body")).containsText("revoked at the office");
    assertThat(day.locator("[data-visit]")).hasCount(1);
    tab(day, "Today");
    assertThat(day.locator("text=Go to the stops")).hasCount(0);
    day.fill("#pair input", code("inspector1"));
    day.click("#pair button");
    day.waitForSelector("[data-round]");
    tab(day, "Carried");
    day.click("#hand-in");
    assertThat(day.locator(".done")).containsText("Handed in: 1 visit");
  }

  /** A phone that reaches the office no more: what it carries goes by a file, photo and all. */
  @Test
  void aPhoneThatCantHandInGivesAFile() {
    Page day = phone();
    visit(day, 6, Optional.of(DemoPhoto.jpeg("OS-6", "weir", "2026-11-24")));
    day.context().setOffline(true);
    tab(day, "Carried");
    day.locator("#as-file summary").click();
    Download given = day.waitForDownload(() -> day.locator("#as-file button").click());
    assertThat(day.locator("#file-written")).containsText("1 visit, 1 photo");
    Path file = temporary().resolve(given.suggestedFilename());
    given.saveAs(file);

    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/hand-ins");
    desk.setInputFiles("#carried-file input", file);
    assertThat(desk.locator("#carried-file .done")).containsText("1 visit of inspector1");
    assertThat(desk.locator("#carried-file .done")).containsText("1 photo is here");
    desk.click("#carried-file .done a");
    assertThat(desk.locator("#waiting")).containsText("inspector1");

    // the phone is told at its next contact, and hands nothing in twice
    day.context().setOffline(false);
    day.reload();
    tab(day, "Carried");
    assertThat(day.locator("#hand-in")).isDisabled();
    assertThat(day.locator("[data-visit]")).containsText("1 of 1 photos");
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }
}
