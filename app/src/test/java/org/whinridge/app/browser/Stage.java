package org.whinridge.app.browser;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.Request;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.Geolocation;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.WeakHashMap;
import java.util.function.Consumer;
import org.whinridge.engine.Chromium;

/**
 * Debian's Chromium for the tests: desk windows, and phones whose profile survives closing.
 * Collects script errors of every page.
 */
final class Stage implements AutoCloseable {
  /** How long a page is given, ms: it ends as soon as the thing is there, on a slow machine too. */
  private static final int PATIENCE = 30_000;

  static {
    PlaywrightAssertions.setDefaultAssertionTimeout(PATIENCE);
  }

  /** One driver and one browser for all that is played in this process; windows come and go. */
  private static final Playwright DRIVER = Chromium.driver();

  private static final Browser SHARED = Chromium.launch(DRIVER);

  private final Browser browser;
  private final List<BrowserContext> open = new ArrayList<>();
  private final List<String> scriptErrors = new ArrayList<>();
  private final String base;

  Stage(int port) {
    this(port, SHARED);
  }

  /** A browser with more in its environment: {@link #noFonts}. */
  Stage(int port, Map<String, String> more) {
    this(port, Chromium.launch(DRIVER, all(more)));
  }

  private Stage(int port, Browser browser) {
    this.base = "http://localhost:" + port;
    this.browser = browser;
  }

  private static Map<String, String> all(Map<String, String> more) {
    Map<String, String> all = new LinkedHashMap<>(System.getenv());
    all.putAll(more);
    return all;
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

  /** What a page has asked for and has not got yet, and when that changed last. */
  private static final class Asked {
    final Set<Request> open = new HashSet<>();
    long changedAt = System.nanoTime();

    void changed() {
      changedAt = System.nanoTime();
    }
  }

  private static final Map<Page, Asked> ASKED = new WeakHashMap<>();

  /**
   * Waits until a page has got what it asked for and asks for nothing more. What the page before it
   * left unanswered when it went is waited for three seconds only: nobody tells of it any more.
   */
  static void quiet(Page page) {
    Asked asked = ASKED.get(page);
    for (int i = 0; i < PATIENCE / 50; i++) {
      page.waitForTimeout(50);
      long ms = (System.nanoTime() - asked.changedAt) / 1_000_000;
      if (ms > 3_000 || asked.open.isEmpty() && ms > 200) return;
    }
    throw new AssertionError(page.url() + " does not come to rest");
  }

  private Page watched(Page page) {
    Asked asked = new Asked();
    ASKED.put(page, asked);
    page.onRequest(
        r -> {
          asked.open.add(r);
          asked.changed();
        });
    Consumer<Request> over =
        r -> {
          asked.open.remove(r);
          asked.changed();
        };
    page.onRequestFinished(over);
    page.onRequestFailed(over);
    page.onPageError(e -> scriptErrors.add(page.url() + ": " + e));
    page.setDefaultTimeout(PATIENCE);
    return page;
  }

  /** A desk window, signed in by the demo's button. */
  Page desk(String account) {
    return desk(account, "en");
  }

  /** The same, of somebody whose browser prefers a language. */
  Page desk(String account, String language) {
    BrowserContext c =
        browser.newContext(
            new Browser.NewContextOptions()
                .setViewportSize(1280, 800)
                .setAcceptDownloads(true)
                .setExtraHTTPHeaders(Map.of("Accept-Language", language)));
    open.add(c);
    Page p = watched(c.newPage());
    p.navigate(base + "/sign-in");
    p.click("button[value=" + account + "]");
    p.waitForSelector(".band, #day");
    return p;
  }

  /** A desk window in which nobody is signed in. */
  Page window() {
    BrowserContext c =
        browser.newContext(new Browser.NewContextOptions().setViewportSize(1280, 800));
    open.add(c);
    return watched(c.newPage());
  }

  /**
   * A phone with a profile in a folder: what it stores is there again when the profile is opened
   * anew.
   */
  Page phone(Path profile, double lon, double lat) {
    return phone(profile, lon, lat, "en");
  }

  private Page phone(Path profile, double lon, double lat, String language) {
    BrowserContext c =
        DRIVER
            .chromium()
            .launchPersistentContext(
                profile,
                new BrowserType.LaunchPersistentContextOptions()
                    .setExecutablePath(Chromium.PATH)
                    .setArgs(Chromium.FLAGS)
                    .setViewportSize(390, 844)
                    .setExtraHTTPHeaders(Map.of("Accept-Language", language))
                    .setHasTouch(true)
                    .setIsMobile(true)
                    .setGeolocation(new Geolocation(lat, lon).setAccuracy(4))
                    .setPermissions(List.of("geolocation")));
    open.add(c);
    return watched(c.pages().isEmpty() ? c.newPage() : c.pages().get(0));
  }

  /** The day book on a phone, signed in as the demo's inspector, at the list of rounds. */
  Page dayBook(Path profile, double lon, double lat) {
    return dayBook(profile, lon, lat, "en");
  }

  /** The same, of somebody whose browser prefers a language. */
  Page dayBook(Path profile, double lon, double lat, String language) {
    Page day = phone(profile, lon, lat, language);
    day.navigate(base + "/day");
    day.click("a.button.main");
    day.click("button[value=inspector1]");
    day.waitForSelector("[data-round]");
    return day;
  }

  @Override
  public void close() {
    for (BrowserContext c : open) c.close();
    if (browser != SHARED) browser.close();
  }
}
