package org.whinridge.engine;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.Route;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/** The compiled engine in a real browser, asked for golden vectors. */
final class EngineInChromium implements AutoCloseable {
  private static final List<String> FLAGS =
      List.of(
          "--no-sandbox",
          "--disable-gpu",
          "--disable-quic",
          "--no-first-run",
          "--disable-background-networking",
          "--disable-component-update",
          "--disable-sync");

  private final Playwright playwright;
  private final Browser browser;
  private final Page page;

  EngineInChromium() throws IOException {
    String script = Files.readString(Path.of("target/js/field-engine.js"));
    playwright =
        Playwright.create(
            new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
    browser =
        playwright
            .chromium()
            .launch(
                new BrowserType.LaunchOptions()
                    .setExecutablePath(Path.of("/usr/bin/chromium"))
                    .setArgs(FLAGS));
    page = browser.newPage();
    page.route(
        "**/*",
        r ->
            r.fulfill(
                new Route.FulfillOptions()
                    .setContentType(
                        r.request().url().endsWith(".js") ? "text/javascript" : "text/html")
                    .setBody(r.request().url().endsWith(".js") ? script : "<!doctype html>")));
    page.navigate("http://engine.test/");
  }

  /** What comes of lines of kind and input, in their order. */
  @SuppressWarnings("unchecked")
  List<String> run(List<List<String>> inputs) {
    return (List<String>)
        page.evaluate(
            "async (lines) => { const e = await import('/field-engine.js'); return lines.map(([k, i]) => { try { return e.golden(k, i); } catch (x) { return 'thrown: ' + x; } }); }",
            inputs);
  }

  @Override
  public void close() {
    browser.close();
    playwright.close();
  }
}
