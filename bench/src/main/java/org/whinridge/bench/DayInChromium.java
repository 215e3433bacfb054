package org.whinridge.bench;

import com.google.gson.JsonObject;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.Geolocation;
import com.microsoft.playwright.options.SelectOption;
import java.io.BufferedWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import org.whinridge.engine.Chromium;

/**
 * The day book in Chromium whose processor is slowed to a quarter, with a round of 5,000 stops and
 * 50,000 polygons that its form looks things up in; beside the same bytes read out of a plain
 * IndexedDB, and a plain list of as many lines. {@code bench/day} runs it.
 */
public final class DayInChromium {
  private static final int STOPS = 5_000;
  private static final int PLOTS = 50_000;
  private static final int RUNS = 6;
  private static final int DEVICES = 30;
  private static final String ROUND = "All valves";

  /** A person looks at the list before pressing a stop, in milliseconds. */
  private static final int LOOKS = 3_000;

  /** From an act to the picture in which an element is there, in milliseconds. */
  private static final String UNTIL =
      """
      async ([press, there]) => {
        const t = performance.now();
        if (press) document.querySelector(press).click();
        while (!document.querySelector(there)) await new Promise((r) => setTimeout(r, 5));
        await new Promise((r) => requestAnimationFrame(() => setTimeout(r)));
        return performance.now() - t;
      }
      """;

  /** All parts that the day book keeps, read and understood; and a list of lines, in one go. */
  private static final String PLAIN =
      """
      async (lines) => {
        const db = await new Promise((ok) => (indexedDB.open("whinridge-day").onsuccess = (e) => ok(e.target.result)));
        const t = performance.now();
        const all = await new Promise((ok) => (db.transaction("parts").objectStore("parts").getAll().onsuccess = (e) => ok(e.target.result)));
        for (const text of all) JSON.parse(text);
        const read = performance.now() - t;
        const u = performance.now();
        const list = document.createElement("ol");
        for (let i = 0; i < lines; i++) {
          const line = list.appendChild(document.createElement("li"));
          line.append(Object.assign(document.createElement("button"), { textContent: "Line " + i }));
        }
        document.body.append(list);
        await new Promise((r) => requestAnimationFrame(() => setTimeout(r)));
        const drawn = performance.now() - u;
        list.remove();
        return [read, drawn];
      }
      """;

  /** What was loaded of scripts, as it travels. */
  private static final String CODE =
      """
      async () => {
        const scripts = performance.getEntriesByType("resource").map((e) => e.name).filter((n) => n.endsWith(".js"));
        let bytes = 0;
        for (const s of new Set(scripts)) {
          const packed = (await fetch(s)).body.pipeThrough(new CompressionStream("gzip"));
          bytes += (await new Response(packed).arrayBuffer()).byteLength;
        }
        return bytes;
      }
      """;

  private DayInChromium() {}

  /**
   * Arguments: a folder for files, and the server's archive or the address of a demo server that
   * has not been measured yet.
   */
  public static void main(String[] args) throws Exception {
    Path folder = Files.createDirectories(Path.of(args[0]));
    if (args[1].startsWith("http")) measure(args[1], folder);
    else LayerImport.demo(folder, Path.of(args[1]), base -> measure(base, folder));
  }

  private static void measure(String base, Path folder) throws Exception {
    try (Playwright playwright = Chromium.driver();
        Browser browser = Chromium.launch(playwright)) {
      Page desk = browser.newPage();
      desk.setDefaultTimeout(300_000);
      desk.navigate(base + "/sign-in");
      desk.click("button[value=coordinator]");
      desk.waitForSelector(".band");
      bringIn(desk, base, points(folder), "Valves");
      bringIn(desk, base, plots(folder), "Plots");
      plan(desk, base);
      BrowserContext phone =
          browser.newContext(
              new Browser.NewContextOptions()
                  .setViewportSize(390, 844)
                  .setGeolocation(new Geolocation(57.88, -10.25).setAccuracy(5))
                  .setPermissions(List.of("geolocation")));
      day(phone.newPage(), base);
    }
    new PacksAtOnce(base, ROUND).measure(DEVICES);
  }

  private static Path points(Path folder) throws Exception {
    return written(
        folder.resolve("valves.geojson"),
        STOPS,
        i ->
            String.format(
                Locale.ROOT,
                "{\"type\":\"Feature\",\"geometry\":{\"type\":\"Point\",\"coordinates\":[%.6f,%.6f]},\"properties\":{\"tag\":\"V-%05d\",\"size_mm\":%d,\"plot\":\"P-old\"}}",
                -10.35 + i % 100 * 0.002,
                57.83 + i / 100 * 0.002,
                i,
                50 + i % 7 * 25));
  }

  private static Path plots(Path folder) throws Exception {
    return written(
        folder.resolve("plots.geojson"),
        PLOTS,
        i -> {
          double x = -10.36 + i % 250 * 0.0009;
          double y = 57.82 + i / 250 * 0.0006;
          return String.format(
              Locale.ROOT,
              "{\"type\":\"Feature\",\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[%.6f,%.6f],[%.6f,%.6f],[%.6f,%.6f],[%.6f,%.6f],[%.6f,%.6f]]]},\"properties\":{\"plot\":\"P-%05d\"}}",
              x,
              y,
              x + 0.0009,
              y,
              x + 0.0009,
              y + 0.0006,
              x,
              y + 0.0006,
              x,
              y,
              i);
        });
  }

  private interface Line {
    String of(int i);
  }

  private static Path written(Path file, int n, Line line) throws Exception {
    try (BufferedWriter out = Files.newBufferedWriter(file)) {
      out.write("{\"type\":\"FeatureCollection\",\"features\":[\n");
      for (int i = 0; i < n; i++) out.write((i == 0 ? "" : ",\n") + line.of(i));
      out.write("]}");
    }
    return file;
  }

  private static void bringIn(Page desk, String base, Path file, String name) {
    desk.navigate(base + "/p/ostrey/layers/bring-in");
    desk.setInputFiles("#file", file);
    desk.click("#bring-in button[type=submit]");
    desk.waitForSelector("#report[data-ready]");
    desk.fill("#name0", name);
    desk.click("#import");
    desk.waitForSelector("text=features imported");
  }

  private static void stored(Page desk) {
    desk.locator("[role=status]", new Page.LocatorOptions().setHasText("stored")).first().waitFor();
  }

  /** A form that looks the plot up by place, and a round of all stops. */
  private static void plan(Page desk, String base) {
    desk.navigate(base + "/p/ostrey/layers");
    desk.click("text=Valves");
    desk.waitForSelector("#layer-page[data-ready]");
    desk.click("text=Make a form from its fields");
    desk.waitForSelector("#form-page[data-ready]");
    desk.click("[data-line=plot] button[data-name]");
    desk.waitForSelector("[data-line=plot] #editor");
    desk.selectOption("#add-source", "place");
    stored(desk);
    desk.selectOption("[data-look=layer]", new SelectOption().setLabel("Plots"));
    stored(desk);
    desk.waitForTimeout(1000);
    desk.selectOption("[data-look=field]", "plot");
    stored(desk);
    desk.click("[data-source=place] >> text=sooner");
    stored(desk);
    desk.waitForTimeout(2000);
    desk.click("#publish");
    desk.click("#publish-now");
    desk.click("text=Plan a round");
    desk.waitForSelector("#round-planner[data-ready]");
    desk.click("#choose-all");
    desk.waitForSelector("#made-of li");
    desk.check("#round-people input[value=inspector1]");
    desk.fill("#name", ROUND);
    desk.click("#make-round");
    desk.waitForSelector("#round-now[data-ready]");
  }

  private static void day(Page page, String base) {
    page.setDefaultTimeout(300_000);
    page.navigate(base + "/sign-in?next=/day");
    page.click("button[value=inspector1]");
    page.waitForSelector("[data-round]");
    long t = System.nanoTime();
    page.locator("[data-round]", new Page.LocatorOptions().setHasText(ROUND))
        .locator("button")
        .first()
        .click();
    page.waitForSelector(".done");
    System.out.printf(
        Locale.ROOT, "taking it out, at full speed: %.1f s%n", (System.nanoTime() - t) / 1e9);
    page.waitForFunction("() => navigator.serviceWorker.ready.then(() => true)");
    page.reload();
    page.waitForSelector("[data-round]");
    page.context().setOffline(true);
    CDPSession slow = page.context().newCDPSession(page);
    rate(slow, 4);
    List<Double> first = new ArrayList<>();
    List<Double> tab = new ArrayList<>();
    List<Double> open = new ArrayList<>();
    List<Double> atOnce = new ArrayList<>();
    List<Double> lookedAt = new ArrayList<>();
    List<Double> save = new ArrayList<>();
    for (int i = 0; i < RUNS; i++) {
      long r = System.nanoTime();
      page.reload();
      page.waitForSelector("[data-round] .main");
      page.locator("[data-round]", new Page.LocatorOptions().setHasText(ROUND))
          .locator(".main")
          .click();
      page.waitForSelector(".stop");
      first.add((System.nanoTime() - r) / 1e6);
      for (int k = 0; k < 2; k++) {
        tab.add(until(page, "nav button:nth-child(1)", "[data-round]"));
        tab.add(until(page, "nav button:nth-child(2)", ".stop"));
      }
      if (i % 2 == 0) page.waitForTimeout(LOOKS);
      (i % 2 == 0 ? lookedAt : atOnce).add(until(page, ".stop", "#save"));
      until(page, ".day-head button", ".stop");
      open.add(until(page, "li:nth-child(" + (i + 2) + ") .stop", "#save"));
      page.fill("#q-size_mm", String.valueOf(100 + i));
      page.waitForTimeout(300);
      save.add(until(page, "#save", ".stop, #open-points:not([hidden])"));
      if (page.locator(".day-head button").count() > 0) until(page, ".day-head button", ".stop");
    }
    @SuppressWarnings("unchecked")
    List<Number> plain = (List<Number>) page.evaluate(PLAIN, STOPS);
    print(
        "first open, to the list of stops",
        first,
        plain.get(0).doubleValue(),
        "reading all parts plainly");
    print("a tab", tab, plain.get(1).doubleValue(), "a plain list of 5,000 lines");
    print(
        "the first stop, looked at for 3 s",
        lookedAt,
        plain.get(0).doubleValue(),
        "reading all parts plainly");
    print(
        "the first stop, pressed at once",
        atOnce,
        plain.get(0).doubleValue(),
        "reading all parts plainly");
    print("another stop", open, plain.get(1).doubleValue(), "a plain list of 5,000 lines");
    print("saving", save, plain.get(1).doubleValue(), "a plain list of 5,000 lines");
    Number heap =
        (Number) page.evaluate("() => performance.memory ? performance.memory.usedJSHeapSize : 0");
    System.out.printf(Locale.ROOT, "memory of the page: %.0f MB%n", heap.doubleValue() / 1e6);
    System.out.printf(
        Locale.ROOT,
        "scrolling the list for 3 s, the longest task: %.0f ms%n",
        ((Number) scrolled(page)).doubleValue());
    System.out.printf(
        Locale.ROOT,
        "application code of the open day book: %.0f kB gzip%n",
        ((Number) page.evaluate(CODE)).doubleValue() / 1e3);
  }

  /** Scrolls with the wheel to the end of what is listed and on; gives the longest task. */
  private static Object scrolled(Page page) {
    page.evaluate(
        "() => { window.longest = 0; new PerformanceObserver((l) => l.getEntries().forEach((e) => (window.longest = Math.max(window.longest, e.duration)))).observe({ type: 'longtask' }); }");
    page.mouse().move(195, 400);
    for (int i = 0; i < 30; i++) {
      if (i % 10 == 9 && page.locator("#more-stops").count() > 0)
        page.locator("#more-stops").click();
      page.mouse().wheel(0, 300);
      page.waitForTimeout(100);
    }
    return page.evaluate("() => window.longest");
  }

  private static void rate(CDPSession session, int times) {
    JsonObject rate = new JsonObject();
    rate.addProperty("rate", times);
    session.send("Emulation.setCPUThrottlingRate", rate);
  }

  private static double until(Page page, String press, String there) {
    return ((Number) page.evaluate(UNTIL, List.of(press, there))).doubleValue();
  }

  private static void print(String what, List<Double> all, double baseline, String of) {
    Collections.sort(all);
    double median = all.get(all.size() / 2);
    System.out.printf(
        Locale.ROOT,
        "%-34s median %.0f ms, most %.0f ms; %.1f times %s (%.0f ms)%n",
        what,
        median,
        all.get(all.size() - 1),
        median / baseline,
        of,
        baseline);
  }
}
