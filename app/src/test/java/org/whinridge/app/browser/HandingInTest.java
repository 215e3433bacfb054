package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.context.ApplicationContext;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.test.util.ReflectionTestUtils;
import org.whinridge.demo.DemoPhoto;

/**
 * A full day's work handed in: in parts, with one that is refused, and what leaves the device when.
 */
class HandingInTest extends BrowserTest {
  private static int nextStop = 9;
  @TempDir Path tmp;
  @Autowired ApplicationContext beans;

  private Page dayBook(String profile) {
    Page day = stage.dayBook(tmp.resolve(profile), -10.29, 57.8835);
    day.locator("[data-round]", new Page.LocatorOptions().setHasText("Saltings"))
        .locator("text=Take this round offline")
        .click();
    assertThat(day.locator(".done")).containsText("You can go offline");
    return day;
  }

  private String visit(Page day, boolean photo) throws Exception {
    day.click("nav >> text=Stops");
    Locator stop = day.locator(".stop").nth(nextStop++);
    String caption = stop.locator("strong").innerText();
    stop.click();
    day.waitForSelector("#save");
    day.fill("#q-notes", "seen " + caption);
    if (day.locator("[data-question=condition] [aria-pressed=true]").count() == 0)
      day.locator("[data-question=condition] [data-code='2']").click();
    while (day.locator(".point.soft button").count() > 0)
      day.locator(".point.soft button").first().click();
    if (photo) {
      while (day.locator("#next-page").count() > 0) day.click("#next-page");
      day.setInputFiles(
          "[data-question=photo] input[type=file]",
          Files.write(tmp.resolve("p.jpg"), DemoPhoto.jpeg(caption, "weir", "2026-11-24")));
      assertThat(day.locator("[data-question=photo] img")).isVisible();
    }
    day.click("#save");
    assertThat(day.locator(".done")).containsText("is saved");
    return caption;
  }

  private static final String STORE =
      "(name, deed) => new Promise((done, failed) => { const q = indexedDB.open('whinridge-day'); q.onsuccess = () => { const t = q.result.transaction(name, 'readwrite'); const all = t.objectStore(name).getAll(); let out; all.onsuccess = () => { out = deed(all.result, t.objectStore(name)); }; t.oncomplete = () => { q.result.close(); done(out); }; t.onerror = failed; }; })";

  private static Object inStore(Page day, String name, String deed) {
    return day.evaluate("() => (" + STORE + ")('" + name + "', " + deed + ")");
  }

  @Test
  void aLargeHandInGoesInPartsUnderOneIdAndARefusedVisitStaysApart() throws Exception {
    Page day = dayBook("parts");
    List<String> captions = new ArrayList<>();
    for (int i = 0; i < 4; i++) captions.add(visit(day, false));
    // as large as a long list of drawings makes them: two do not fit into one part
    inStore(
        day,
        "visits",
        "(all, s) => { for (const v of all) s.put({ ...v, start: { ...v.start, padding: 'x'.repeat(1600000) } }); }");
    Set<String> ids = new LinkedHashSet<>();
    int[] parts = {0};
    day.route(
        "**/api/day/hand-ins",
        r -> {
          String body = r.request().postData();
          parts[0]++;
          ids.add(body.substring(0, 45));
          assertThat(body.length()).isLessThan(4_000_000);
          if (body.contains("seen " + captions.get(2)))
            r.fulfill(
                new Route.FulfillOptions()
                    .setStatus(413)
                    .setContentType("application/json")
                    .setBody("{\"message\":\"It is larger than is taken at once.\"}"));
          else r.resume();
        });
    day.click("nav >> text=Carried");
    day.click("#hand-in");
    assertThat(day.locator(".day-body > .problem"))
        .containsText("Handed in: 3 visits, 0 photos. One visit was refused");
    assertThat(ids).as("one hand-in").hasSize(1);
    assertThat(parts[0]).isEqualTo(4);
    Locator refused =
        day.locator("[data-visit]", new Page.LocatorOptions().setHasText(captions.get(2)));
    assertThat(refused.locator(".problem")).containsText("larger than is taken at once");
    assertThat(day.locator("#hand-in")).isDisabled();
    day.unroute("**/api/day/hand-ins");
    refused.locator("text=Try it again").click();
    assertThat(day.locator("#hand-in")).hasText("Hand in 1 visit");
    day.click("#hand-in");
    assertThat(day.locator(".done")).containsText("Handed in: 1 visit");
    assertThat(stage.scriptErrors()).isEmpty();
  }

  /**
   * The device keeps all until a copy of the office's store holds it, and offers it again when the
   * office has lost it.
   */
  @Test
  void whatTheOfficeLostIsOfferedAgainAndWhatACopyHoldsLeavesTheDevice() throws Exception {
    Page day = dayBook("lost");
    visit(day, true);
    day.click("nav >> text=Carried");
    day.click("#hand-in");
    assertThat(day.locator(".done")).containsText("Handed in: 1 visit, 1 photo");
    assertThat(day.locator("#rule")).containsText("One photo waits for the next copy");
    day.route(
        "**/api/day/contact",
        r ->
            r.fulfill(
                new Route.FulfillOptions()
                    .setContentType("application/json")
                    .setBody("{\"visits\":[],\"given\":[]}")));
    day.reload();
    assertThat(day.locator(".day-body .told").first()).containsText("went back to an older copy");
    day.click("nav >> text=Carried");
    assertThat(day.locator("#hand-in")).hasText("Hand in 1 visit and 1 photo");
    day.unroute("**/api/day/contact");
    day.click("#hand-in");
    assertThat(day.locator(".done")).containsText("Handed in: 1 visit");
    long whole = size(day);
    ReflectionTestUtils.invokeMethod(beans.getBean("storeKeeping"), "copy");
    day.reload();
    day.waitForSelector("[data-round]");
    day.click("nav >> text=Carried");
    // what is younger than half a minute may not be in the copy
    assertThat(day.locator("#rule")).containsText("waits");
    JdbcTemplate jdbc = beans.getBean(JdbcTemplate.class);
    jdbc.update(
        "update visit_photo set received_at = dateadd(minute, -5, received_at) where received_at is not null");
    jdbc.update("update visit set received_at = dateadd(minute, -5, received_at)");
    day.reload();
    day.waitForSelector("[data-round]");
    day.click("nav >> text=Carried");
    assertThat(day.locator("#rule")).not().containsText("waits");
    assertThat(size(day)).as("a small picture is left").isBetween(1L, whole / 3);
    assertThat(day.locator("[data-visit]").last()).containsText("1 of 1 photos at the office");
    assertThat(stage.scriptErrors()).isEmpty();
  }

  private static long size(Page day) {
    return ((Number) inStore(day, "photos", "(all) => all.reduce((n, p) => n + p.blob.size, 0)"))
        .longValue();
  }
}
