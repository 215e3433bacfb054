package org.whinridge.app.browser;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.Geolocation;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
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

  /** How long a page is given, ms: it ends as soon as the thing is there, on a slow machine too. */
  private static final int PATIENCE = 30_000;

  static {
    PlaywrightAssertions.setDefaultAssertionTimeout(PATIENCE);
  }

  private final Playwright playwright =
      Playwright.create(
          new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
  private final Browser browser;
  private final List<String> scriptErrors = new ArrayList<>();
  private final String base;

  Stage(int port) {
    this(port, Map.of());
  }

  /** A browser with more in its environment: {@link #noFonts}. */
  Stage(int port, Map<String, String> more) {
    this.base = "http://localhost:" + port;
    Map<String, String> all = new LinkedHashMap<>(System.getenv());
    all.putAll(more);
    browser =
        playwright
            .chromium()
            .launch(
                new BrowserType.LaunchOptions()
                    .setExecutablePath(CHROMIUM)
                    .setArgs(FLAGS)
                    .setEnv(all));
  }

  /** The environment of a machine that has no font that draws anything. */
  static Map<String, String> noFonts(Path folder) throws IOException {
    Path blank = Files.createDirectories(folder.resolve("fonts"));
    Files.write(blank.resolve("blank.ttf"), BlankFont.bytes());
    Path conf =
        Files.writeString(
            folder.resolve("fonts.conf"),
            "<?xml version=\"1.0\"?><!DOCTYPE fontconfig SYSTEM \"fonts.dtd\"><fontconfig><dir>"
                + blank
                + "</dir><cachedir>"
                + folder.resolve("cache")
                + "</cachedir></fontconfig>");
    return Map.of("FONTCONFIG_FILE", conf.toString(), "FONTCONFIG_PATH", folder.toString());
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
    page.setDefaultTimeout(PATIENCE);
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
