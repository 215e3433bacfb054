package org.whinridge.app.browser;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.Geolocation;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * Debian's Chromium for the tests: desk windows, and phones whose profile survives closing.
 * Collects script errors of every page.
 */
final class Stage implements AutoCloseable {
  private static final List<String> FLAGS =
      List.of(
          "--no-sandbox",
          "--disable-gpu",
          "--disable-quic",
          "--no-first-run",
          "--disable-background-networking",
          "--disable-component-update",
          "--disable-sync");
  private static final Path CHROMIUM = Path.of("/usr/bin/chromium");
  private final Playwright playwright =
      Playwright.create(
          new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
  private final Browser browser =
      playwright
          .chromium()
          .launch(new BrowserType.LaunchOptions().setExecutablePath(CHROMIUM).setArgs(FLAGS));
  private final List<String> scriptErrors = new ArrayList<>();
  private final String base;

  Stage(int port) {
    this.base = "http://localhost:" + port;
  }

  String base() {
    return base;
  }

  /** Uncaught errors in the pages' scripts so far; a sound page has none. */
  List<String> scriptErrors() {
    return scriptErrors;
  }

  private Page watched(Page page) {
    page.onPageError(e -> scriptErrors.add(page.url() + ": " + e));
    page.setDefaultTimeout(15_000);
    return page;
  }

  /** A desk window, signed in by the demo's button. */
  Page desk(String account) {
    BrowserContext c =
        browser.newContext(
            new Browser.NewContextOptions().setViewportSize(1280, 800).setAcceptDownloads(true));
    Page p = watched(c.newPage());
    p.navigate(base + "/sign-in");
    p.click("button[value=" + account + "]");
    p.waitForSelector(".band, #day");
    return p;
  }

  /**
   * A phone with a profile in a folder: what it stores is there again when the profile is opened
   * anew.
   */
  Page phone(Path profile, double lon, double lat) {
    BrowserContext c =
        playwright
            .chromium()
            .launchPersistentContext(
                profile,
                new BrowserType.LaunchPersistentContextOptions()
                    .setExecutablePath(CHROMIUM)
                    .setArgs(FLAGS)
                    .setViewportSize(390, 844)
                    .setHasTouch(true)
                    .setIsMobile(true)
                    .setGeolocation(new Geolocation(lat, lon).setAccuracy(4))
                    .setPermissions(List.of("geolocation")));
    return watched(c.pages().isEmpty() ? c.newPage() : c.pages().get(0));
  }

  @Override
  public void close() {
    playwright.close();
  }
}
