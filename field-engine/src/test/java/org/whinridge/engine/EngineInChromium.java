package org.whinridge.engine;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.Route;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** The compiled engine in a real browser, asked for golden vectors. */
final class EngineInChromium implements AutoCloseable {
  private final Playwright playwright;
  private final Browser browser;
  private final Page page;

  EngineInChromium() throws IOException {
    String script = Files.readString(Path.of("target/js/field-engine.js"));
    playwright = Chromium.driver();
    browser = Chromium.launch(playwright);
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
