package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.whinridge.demo.DemoPhoto;

/**
 * The day book when things go wrong, and the pages under an accessibility audit. Works on the
 * demo's own round.
 */
class FaultsTest extends BrowserTest {
  @TempDir Path tmp;

  private Page dayBook(String profile) {
    return stage.dayBook(tmp.resolve(profile), -10.29, 57.8835);
  }

  private static Locator demoRound(Page day) {
    return day.locator("[data-round]", new Page.LocatorOptions().setHasText("Saltings"));
  }

  private static void take(Page day) {
    demoRound(day).locator("text=Take this round offline").click();
    assertThat(day.locator(".done")).containsText("You can go offline");
  }

  private static Locator openStop(Page day, int n) {
    demoRound(day).locator("text=Go to the stops").click();
    day.locator(".stop").nth(n).click();
    day.waitForSelector("#save");
    return day.locator("#save");
  }

  private static void complete(Page day, String note) {
    day.fill("#q-notes", note);
    if (day.locator("[data-question=condition] [aria-pressed=true]").count() == 0)
      day.locator("[data-question=condition] [data-code='2']").click();
    while (day.locator(".point.soft button").count() > 0)
      day.locator(".point.soft button").first().click();
    for (Locator mend : day.locator(".point.firm").all())
      throw new AssertionError("the demo's stop has a firm point: " + mend.innerText());
  }

  /** How many parts of packs the device keeps. */
  private static int parts(Page day) {
    return (int)
        day.evaluate(
            "() => new Promise(r => { const q = indexedDB.open('whinridge-day'); q.onsuccess = () => { const c = q.result.transaction('parts').objectStore('parts').count(); c.onsuccess = () => r(c.result); }; })");
  }

  @Test
  void anInterruptedPackGoesOnWhereItStoppedAndARoundTakenTwiceIsOne() {
    Page day = dayBook("interrupted");
    int[] parts = {0};
    day.route(
        "**/parts/*",
        r -> {
          if (++parts[0] == 3) r.abort();
          else r.resume();
        });
    demoRound(day).locator("text=Take this round offline").click();
    assertThat(day.locator(".day-body .problem"))
        .containsText("What has arrived of the pack is kept");
    day.unroute("**/parts/*");
    day.waitForTimeout(500); // those that were on their way have arrived
    int kept = parts(day);
    assertThat(kept).isBetween(2, 6);
    int[] again = {0};
    day.onRequest(
        q -> {
          if (q.url().contains("/parts/")) again[0]++;
        });
    take(day);
    assertThat(parts(day)).isGreaterThan(17);
    assertThat(again[0]).as("parts fetched the second time").isEqualTo(parts(day) - kept);
    int before = again[0];
    demoRound(day).locator("text=Fetch what changed").click();
    assertThat(day.locator(".done")).containsText("You can go offline");
    assertThat(again[0]).as("nothing has changed, nothing is fetched").isEqualTo(before);
    assertThat(
            day.evaluate(
                "() => new Promise(r => { const q = indexedDB.open('whinridge-day'); q.onsuccess = () => { const c = q.result.transaction('packs').objectStore('packs').count(); c.onsuccess = () => r(c.result); }; })"))
        .isEqualTo(1);
  }

  @Test
  void aPartThatArrivesDamagedIsFetchedAgainAndNeverKept() {
    Page day = dayBook("damaged");
    int[] asked = {0};
    day.route(
        "**/parts/features-*",
        r -> {
          asked[0]++;
          r.fulfill(new Route.FulfillOptions().setStatus(200).setBody("{\"features\":[]}"));
        });
    demoRound(day).locator("text=Take this round offline").click();
    assertThat(day.locator(".day-body .problem")).containsText("arrived damaged");
    org.assertj.core.api.Assertions.assertThat(asked[0]).as("tries").isEqualTo(3);
    assertThat(demoRound(day)).containsText("Take this round offline");
    asked[0] = 0;
    day.unroute("**/parts/features-*");
    day.route(
        "**/parts/features-*",
        r -> {
          if (++asked[0] > 1) r.resume();
          else r.fulfill(new Route.FulfillOptions().setStatus(200).setBody("{\"features\":[]}"));
        });
    take(day);
    org.assertj.core.api.Assertions.assertThat(asked[0]).isEqualTo(2);
    day.locator("[data-round] >> text=Go to the stops").first().click();
    assertThat(day.locator(".stop").first()).isVisible();
  }

  /** Working without a link by choice: nothing goes out until somebody says so, and then once. */
  @Test
  void aLinkThatIsSwitchedOffIsUsedOnceWhenItIsAsked() {
    Page day = dayBook("switched-off");
    take(day);
    assertThat(day.locator("#who-and-link")).containsText("linked");
    day.click("nav >> text=Kit");
    day.check("#link-off");
    assertThat(day.locator("#who-and-link")).containsText("link switched off");
    int[] asked = {0};
    day.onRequest(
        q -> {
          if (q.url().contains("/api/")) asked[0]++;
        });
    day.reload();
    Locator save = openStop(day, 4);
    complete(day, "without a link by choice");
    save.click();
    assertThat(day.locator(".done")).containsText("is saved");
    day.click("nav >> text=Carried");
    boolean[] yes = {false};
    day.onDialog(
        d -> {
          if (yes[0]) d.accept();
          else d.dismiss();
        });
    day.click("#hand-in");
    org.assertj.core.api.Assertions.assertThat(asked[0]).as("what went out by itself").isZero();
    yes[0] = true;
    day.click("#hand-in");
    assertThat(day.locator(".done")).containsText("Handed in: 1 visit");
    assertThat(day.locator("#who-and-link")).containsText("link switched off");
    day.click("nav >> text=Kit");
    day.uncheck("#link-off");
    assertThat(day.locator("#who-and-link")).containsText("linked");
  }

  @Test
  void aStopOpenInOneWindowIsNotOpenedInAnother() {
    Page day = dayBook("windows");
    take(day);
    openStop(day, 0);
    Page other = day.context().newPage();
    other.navigate(stage.base() + "/day");
    demoRound(other).locator("text=Go to the stops").click();
    other.locator(".stop").first().click();
    assertThat(other.locator(".day-body .told").first()).containsText("is open in another window");
  }

  @Test
  void beingSignedOutEverywhereWhileHandingInLosesNothing() {
    Page day = dayBook("expired");
    take(day);
    Locator save = openStop(day, 2);
    complete(day, "before it was let in no more");
    save.click();
    assertThat(day.locator(".done")).containsText("is saved");
    Page elsewhere = stage.desk("inspector1");
    elsewhere.navigate(stage.base() + "/me");
    elsewhere.click("form[action='/me/sign-out-everywhere'] button");
    elsewhere.waitForURL(u -> u.endsWith("/sign-in?out"));
    day.click("nav >> text=Carried");
    day.click("#hand-in");
    assertThat(day.locator(".day-body .problem")).containsText("Nothing on this device is lost");
    day.click(".told a.button.main");
    day.click("button[value=inspector1]");
    day.click("nav >> text=Carried");
    day.click("#hand-in");
    assertThat(day.locator(".done")).containsText("Handed in: 1 visit");
    assertThat(day.locator("#hand-in")).isDisabled();
  }

  @Test
  void aFullStoreIsToldAndWhatWasSavedStays() throws Exception {
    Page day = dayBook("full");
    take(day);
    Locator save = openStop(day, 3);
    complete(day, "kept before the store was full");
    assertThat(day.locator("#kept")).hasText("kept on this device");
    // Chromium's own quota can't be made small enough for this in a test: the store's refusal is
    // made by hand, as IndexedDB would throw it
    day.evaluate(
        "() => { IDBObjectStore.prototype.put = () => { throw new DOMException('full', 'QuotaExceededError'); }; }");
    Path photo = Files.write(tmp.resolve("p.jpg"), DemoPhoto.jpeg("OS-1", "weir", "2026-11-24"));
    while (day.locator("#next-page").count() > 0) day.click("#next-page");
    day.setInputFiles("[data-question=photo] input[type=file]", photo);
    assertThat(day.locator(".day-body .problem")).containsText("this photo was not kept");
    assertThat(day.locator("[data-question=photo] img")).hasCount(0);
    save.click();
    assertThat(day.locator(".day-body .problem")).containsText("the visit was not saved");
    day.reload();
    openStop(day, 3);
    assertThat(day.locator("#q-notes")).hasValue("kept before the store was full");
  }

  @Test
  void aPhotoCutOffInTheMiddleGoesOn() throws Exception {
    Page day = dayBook("cut");
    take(day);
    Locator save = openStop(day, 5);
    complete(day, "with a photo that is cut off");
    Path photo = Files.write(tmp.resolve("q.jpg"), DemoPhoto.jpeg("OS-2", "sluice", "2026-11-24"));
    while (day.locator("#next-page").count() > 0) day.click("#next-page");
    day.setInputFiles("[data-question=photo] input[type=file]", photo);
    assertThat(day.locator("[data-question=photo] img")).isVisible();
    save.click();
    day.click("nav >> text=Carried");
    day.route(
        "**/api/day/uploads/*",
        r -> {
          if (r.request().method().equals("PATCH")) r.abort();
          else r.resume();
        });
    day.click("#hand-in");
    assertThat(day.locator(".day-body .problem"))
        .containsText(
            "What the office has is kept",
            new com.microsoft.playwright.assertions.LocatorAssertions.ContainsTextOptions()
                .setTimeout(20_000));
    assertThat(day.locator("#hand-in")).hasText("Hand in 1 photo");
    day.unroute("**/api/day/uploads/*");
    day.click("#hand-in");
    assertThat(day.locator(".done")).containsText("1 photo");
  }

  /** WCAG 2.2 AA as far as axe-core can see. */
  @Test
  void noPageHasAnAccessibilityFault() {
    Page desk = stage.desk("coordinator");
    EveryPage.ofTheDesk(stage.base())
        .forEach(
            (name, open) -> {
              open.accept(desk);
              Stage.quiet(desk);
              Audit.of(desk, name);
              if (name.equals("look")) {
                desk.locator(".symbol-button").first().click();
                Audit.of(desk, "look, a symbol open");
                desk.click("[data-way=rule]");
                desk.waitForSelector("#add-rule");
                desk.click("#add-rule");
                Audit.of(desk, "look by rule");
              }
              if (name.equals("draw")) {
                desk.locator("#make-from button").first().click();
                Audit.of(desk, "draw, a kind chosen");
              }
            });
    desk.navigate(stage.base() + "/p/ostrey/layers/bring-in");
    desk.setInputFiles("#file", tmpCsv());
    desk.click("button.main");
    desk.waitForSelector("#report[data-ready]");
    Audit.of(desk, "report");
    assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void noViewOfTheDayBookHasAnAccessibilityFault() {
    Page day = dayBook("audit");
    // high enough for every view: axe takes what is scrolled half under the tabs as too small
    day.setViewportSize(390, 3000);
    Audit.of(day, "today");
    take(day);
    for (int i = 0; i < 5; i++) {
      day.locator(".day-tabs button").nth(i).click();
      Stage.quiet(day);
      Audit.of(day, "view " + day.locator(".day-tabs button").nth(i).innerText());
    }
    day.click("nav >> text=Today");
    openStop(day, 7);
    Audit.of(day, "stop");
    assertThat(stage.scriptErrors()).isEmpty();
  }

  private static Path tmpCsv() {
    try {
      return Files.writeString(
          Files.createTempFile("audit", ".csv"), "ref,lon,lat\nA,-10.2,57.9\nB,-10.3,57.9\n");
    } catch (java.io.IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }
}
