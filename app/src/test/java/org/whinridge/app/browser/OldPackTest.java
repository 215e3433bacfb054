package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A device goes on with what it took out and began before the day book was another. */
class OldPackTest extends BrowserTest {
  /**
   * Puts the pack and the visits of the device back into the shape that they had when a round had
   * one form and one layer: one part with round and form, visits that do not say with which form.
   */
  private static final String AS_IT_WAS =
      """
      async () => {
        const db = await new Promise((ok) => (indexedDB.open("whinridge-day").onsuccess = (e) => ok(e.target.result)));
        const done = (r) => new Promise((ok, no) => { r.onsuccess = () => ok(r.result); r.onerror = () => no(r.error); });
        const of = (name, mode = "readonly") => db.transaction(name, mode).objectStore(name);
        const [pack] = await done(of("packs").getAll());
        const part = async (name) => JSON.parse(await done(of("parts").get(pack.parts[name])));
        const { round, project, forms } = await part("round");
        const [form] = forms;
        const { schema, features } = await part("features-" + form.layer);
        const { id, ...work } = await part("form-" + form.id);
        const old = {
          work: { round: { ...round, person: pack.people[0] }, project, ...work },
          features: { schema, features },
          "last-visits": await part("last-" + form.id),
        };
        const parts = {};
        for (const name of ["basemap", "map", "ground"]) parts[name] = pack.parts[name];
        for (const name of Object.keys(pack.parts).filter((n) => n.startsWith("lookup-"))) {
          const { cells, complete, reachM, ...head } = await part(name);
          old[name] = { ...head, features: (await Promise.all(cells.map((c) => part(c.part)))).flat() };
        }
        for (const [name, content] of Object.entries(old)) {
          parts[name] = "old-" + name;
          await done(of("parts", "readwrite").put(JSON.stringify(content), parts[name]));
        }
        const { people, ...rest } = pack;
        await done(of("packs", "readwrite").put({ ...rest, person: people[0], parts }));
        for (const { form, ...v } of await done(of("visits").getAll()))
          await done(of("visits", "readwrite").put({ ...v, work: "old-work" }));
        for (const hash of Object.values(pack.parts))
          if (!Object.values(parts).includes(hash)) await done(of("parts", "readwrite").delete(hash));
      }
      """;

  @TempDir Path tmp;

  private static Locator round(Page day) {
    return day.locator("[data-round]", new Page.LocatorOptions().setHasText("Saltings"));
  }

  private static void stops(Page day) {
    round(day).locator("text=Go to the stops").click();
    day.waitForSelector(".stop");
  }

  @Test
  void aPackAndAVisitOfAnOlderDayBookAreGoneOnWith() {
    Page day = stage.dayBook(tmp.resolve("old"), -10.29, 57.8835);
    round(day).locator("text=Take this round offline").click();
    assertThat(day.locator(".done")).containsText("You can go offline");
    stops(day);
    day.locator(".stop").first().click();
    day.fill("#q-notes", "begun before");
    String caption = day.locator(".day-head h1").innerText();
    assertThat(day.locator("#kept")).not().isEmpty();
    day.click(".day-head button");
    day.waitForSelector(".stop");
    day.evaluate(AS_IT_WAS);
    day.context().setOffline(true);
    day.reload();
    assertThat(round(day)).containsText("26 features");
    stops(day);
    Locator begun = day.locator(".stop", new Page.LocatorOptions().setHasText(caption));
    assertThat(begun).containsText("started");
    begun.click();
    assertThat(day.locator("#q-notes")).hasValue("begun before");
    assertThat(day.locator("[data-question=beat]")).containsText("looked up in Beats");
    if (day.locator("[data-question=condition] [aria-pressed=true]").count() == 0)
      day.locator("[data-question=condition] [data-code='2']").click();
    day.click("#save");
    while (day.locator(".point.soft button").count() > 0) {
      day.locator(".point.soft button").first().click();
      day.click("#save");
    }
    assertThat(day.locator(".done")).containsText("saved");
    day.context().setOffline(false);
    day.click("nav >> text=Carried");
    day.click("#hand-in");
    assertThat(day.locator(".done")).containsText("1 visit");
    // a stop that was not begun is visited out of the older pack, too
    day.click("nav >> text=Stops");
    day.locator(".stop", new Page.LocatorOptions().setHasText("to do")).first().click();
    day.waitForSelector("#save");
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }
}
