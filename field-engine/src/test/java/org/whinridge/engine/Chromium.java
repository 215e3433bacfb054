package org.whinridge.engine;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Playwright;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/** Debian's Chromium for whoever drives one: where it is, and how it is started. */
public final class Chromium {
  /** Where Debian puts it. */
  public static final Path PATH = Path.of("/usr/bin/chromium");

  /** Without a sandbox, which containers lack, and without anything that asks a network. */
  public static final List<String> FLAGS =
      List.of(
          "--no-sandbox",
          "--disable-gpu",
          "--disable-quic",
          "--no-first-run",
          "--disable-background-networking",
          "--disable-component-update",
          "--disable-sync");

  private Chromium() {}

  /** The driver, which brings no browser of its own. */
  public static Playwright driver() {
    return Playwright.create(
        new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
  }

  /** A browser, with this environment. */
  public static Browser launch(Playwright driver, Map<String, String> environment) {
    return driver
        .chromium()
        .launch(
            new BrowserType.LaunchOptions()
                .setExecutablePath(PATH)
                .setArgs(FLAGS)
                .setEnv(environment));
  }

  /** A browser. */
  public static Browser launch(Playwright driver) {
    return launch(driver, System.getenv());
  }
}
