package org.whinridge.engine;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.Route;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** The compiled engine in a real browser gives what core gives on the JVM. */
class GoldenInChromiumTest {
  private static final List<String> FLAGS =
      List.of(
          "--no-sandbox",
          "--disable-gpu",
          "--disable-quic",
          "--no-first-run",
          "--disable-background-networking",
          "--disable-component-update",
          "--disable-sync");

  @Test
  void theCompiledEngineGivesTheGoldenResults() throws Exception {
    String script = Files.readString(Path.of("target/js/field-engine.js"));
    try (Playwright playwright =
            Playwright.create(
                new Playwright.CreateOptions()
                    .setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        var browser =
            playwright
                .chromium()
                .launch(
                    new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of("/usr/bin/chromium"))
                        .setArgs(FLAGS))) {
      Page page = browser.newPage();
      page.route(
          "**/*",
          r ->
              r.fulfill(
                  new Route.FulfillOptions()
                      .setContentType(
                          r.request().url().endsWith(".js") ? "text/javascript" : "text/html")
                      .setBody(r.request().url().endsWith(".js") ? script : "<!doctype html>")));
      page.navigate("http://engine.test/");
      List<List<String>> inputs = new ArrayList<>();
      var vectors = GoldenVectors.all();
      for (var v : vectors) inputs.add(List.of(v.kind(), v.input()));
      @SuppressWarnings("unchecked")
      List<String> got =
          (List<String>)
              page.evaluate(
                  "async (lines) => { const e = await import('/field-engine.js'); return lines.map(([k, i]) => { try { return e.golden(k, i); } catch (x) { return 'thrown: ' + x; } }); }",
                  inputs);
      List<String> wrong = new ArrayList<>();
      for (int i = 0; i < vectors.size(); i++)
        if (!vectors.get(i).agrees(got.get(i)))
          wrong.add(
              vectors.get(i).kind()
                  + " "
                  + vectors.get(i).input()
                  + "\n  JVM      "
                  + vectors.get(i).result()
                  + "\n  Chromium "
                  + got.get(i));
      assertThat(wrong).isEmpty();
    }
  }
}
