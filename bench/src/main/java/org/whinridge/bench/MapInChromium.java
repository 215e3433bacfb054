package org.whinridge.bench;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import org.whinridge.engine.Chromium;

/**
 * A layer of 1,000,000 features on the map in Chromium: how long until it is drawn, and the longest
 * task of the page while it is moved under the hand; beside a layer of 240.
 */
public final class MapInChromium {
  private static final String WATCH =
      "() => { window.tasks = []; new PerformanceObserver((l) => l.getEntries().forEach((e) => window.tasks.push(e.duration))).observe({ entryTypes: ['longtask'] }); }";

  private MapInChromium() {}

  /** Arguments: a folder for files, and the server's archive. */
  public static void main(String[] args) throws Exception {
    Path folder = Files.createDirectories(Path.of(args[0]));
    Path file = folder.resolve("import.gpkg");
    if (!Files.exists(file)) LayerImport.million(file);
    LayerImport.server(folder, file, Path.of(args[1]), MapInChromium::measure);
  }

  private static void measure(String base) {
    try (Playwright playwright = Chromium.driver();
        var browser = Chromium.launch(playwright)) {
      Page page = browser.newPage();
      page.setDefaultTimeout(180_000);
      page.setViewportSize(1280, 800);
      page.navigate(base + "/sign-in");
      page.click("button[value=coordinator]");
      page.waitForSelector(".band");
      for (String layer : List.of("Control structures", "Million")) {
        page.navigate(base + "/p/ostrey/layers");
        page.locator("h2 a", new Page.LocatorOptions().setHasText(layer)).click();
        long t = System.nanoTime();
        page.waitForSelector("#layer-page[data-ready]");
        drawn(page);
        System.out.printf(
            Locale.ROOT, "%-20s drawn after %.1f s%n", layer, (System.nanoTime() - t) / 1e9);
        page.evaluate(WATCH);
        for (int zoom : new int[] {10, 12, 14, 17}) pan(page, layer, zoom);
      }
    }
  }

  private static void drawn(Page page) {
    page.evaluate(
        "() => new Promise((done) => { const m = document.querySelector('.map').olMap; m.once('rendercomplete', () => done(0)); m.render(); })");
  }

  private static void pan(Page page, String layer, int zoom) {
    page.evaluate("z => document.querySelector('.map').olMap.getView().setZoom(z)", zoom);
    drawn(page);
    page.waitForTimeout(800);
    page.evaluate("() => { window.tasks.length = 0; }");
    for (int i = 0; i < 6; i++) {
      page.mouse().move(420 + 60 * (i % 2), 480);
      page.mouse().down();
      for (int k = 1; k <= 25; k++) {
        page.mouse().move(420 + 60 * (i % 2) + (i % 2 == 0 ? 8 : -8) * k, 480 - 4 * k);
        page.waitForTimeout(16);
      }
      page.mouse().up();
      page.waitForTimeout(300);
    }
    @SuppressWarnings("unchecked")
    List<Number> tasks = (List<Number>) page.evaluate("() => window.tasks");
    System.out.printf(
        Locale.ROOT,
        "%-20s zoom %2d: %d tasks over 50 ms while it was moved, the longest %.0f ms (aim under 100)%n",
        layer,
        zoom,
        tasks.size(),
        tasks.stream().mapToDouble(Number::doubleValue).max().orElse(0));
  }
}
