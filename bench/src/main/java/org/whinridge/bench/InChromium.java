package org.whinridge.bench;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.Route;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.zip.GZIPOutputStream;
import org.whinridge.engine.Chromium;

/**
 * The compiled engine in a real browser: one answer in the form of {@link OneAnswer} and the sheet
 * view after it, beside the same answer set in a plain JavaScript object and written as JSON.
 */
public final class InChromium {
  private static final String MEASURE =
      """
      async (form) => {
        const loaded = performance.now();
        const module = await import('/field-engine.js');
        const engine = module.load ? (await module.load('/field-engine.wasm')).exports : module;
        const ready = performance.now() - loaded;
        const schema = '{"kind":"point","fields":[],"tagField":"","captionFields":[]}';
        const began = performance.now();
        const visit = engine.form(form, schema).visit('{"person":"p","startedAt":"2026-05-04T08:00:00Z"}', '', engine.layers(), '');
        const opened = performance.now() - began;
        const times = (n, run) => {
          const all = [];
          for (let i = 0; i < n; i++) {
            const from = performance.now();
            for (let k = 0; k < 10; k++) run(i * 10 + k);
            all.push((performance.now() - from) / 10);
          }
          all.sort((a, b) => a - b);
          return [all[Math.floor(n / 2)], all[Math.floor(n * 0.95)]];
        };
        let length = 0;
        const set = (i) => visit.set('q' + (i % 30) * 10, String(i % 50));
        const answer = (i) => { set(i); length += visit.view().length; };
        const drawn = (i) => { set(i); length += JSON.parse(visit.view()).sections.length; };
        let turn = 0;
        const changed = (i) => { set(i); const view = JSON.parse(visit.changes(turn)); turn = view.turn; length += view.sections.length; };
        times(60, drawn);
        const plain = {};
        for (let i = 0; i < 300; i++) plain['q' + i] = { name: 'q' + i, label: 'Question ' + i, type: 'decimal', value: i, hint: 'as it is' };
        const bare = (i) => { plain['q' + (i % 30) * 10].value = i; length += JSON.stringify(plain).length; };
        const sheet = await import('/sheet.js').then((m) => m.drawing(visit, 300), () => null);
        return { sheet, ready, opened, set: times(200, set), view: times(200, answer), drawn: times(200, drawn), changed: times(200, changed), plain: times(200, bare), length };
      }
      """;

  private InChromium() {}

  /** The first argument is the folder that holds field-engine.js, and its .wasm if it has one. */
  public static void main(String[] args) throws IOException {
    Path folder = Path.of(args[0]);
    try (var files = Files.list(folder)) {
      for (Path f : files.sorted().toList())
        if (f.toString().matches(".*\\.(js|wasm)"))
          System.out.printf(
              Locale.ROOT,
              "%-28s %,9d bytes, %,9d gzipped%n",
              f.getFileName(),
              Files.size(f),
              gzipped(Files.readAllBytes(f)));
    }
    try (Playwright playwright = Chromium.driver();
        var browser = Chromium.launch(playwright)) {
      Page page = browser.newPage();
      page.route("**/*", r -> answer(r, folder));
      page.navigate("http://engine.test/");
      @SuppressWarnings("unchecked")
      Map<String, Object> got = (Map<String, Object>) page.evaluate(MEASURE, OneAnswer.form());
      System.out.printf(
          Locale.ROOT,
          "loaded %.0f ms, form compiled and opened %.0f ms%n",
          ((Number) got.get("ready")).doubleValue(),
          ((Number) got.get("opened")).doubleValue());
      line("one answer", got.get("set"));
      line("… and the sheet view as text", got.get("view"));
      line("… and read by the page", got.get("drawn"));
      line("… what changed, read by the page", got.get("changed"));
      if (got.get("sheet") instanceof Map<?, ?> sheet) {
        line("… and drawn, " + sheet.get("questions") + " questions", sheet.get("drawn"));
        line("… and laid out", sheet.get("laidOut"));
      }
      line("baseline: 300 plain objects written as JSON", got.get("plain"));
    }
  }

  private static void line(String what, Object medianAndP95) {
    List<?> two = (List<?>) medianAndP95;
    System.out.printf(
        Locale.ROOT,
        "%-46s median %.3f ms, p95 %.3f ms%n",
        what,
        ((Number) two.get(0)).doubleValue(),
        ((Number) two.get(1)).doubleValue());
  }

  private static void answer(Route r, Path folder) {
    String name = r.request().url().replaceAll("^.*/", "");
    try {
      Route.FulfillOptions o = new Route.FulfillOptions();
      if (name.isEmpty())
        r.fulfill(o.setContentType("text/html").setBody("<!doctype html><body></body>"));
      else if (!Files.exists(folder.resolve(name))) r.fulfill(o.setStatus(404));
      else
        r.fulfill(
            o.setContentType(name.endsWith(".wasm") ? "application/wasm" : "text/javascript")
                .setBodyBytes(Files.readAllBytes(folder.resolve(name))));
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }

  private static int gzipped(byte[] b) throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (GZIPOutputStream z = new GZIPOutputStream(out)) {
      z.write(b);
    }
    return out.size();
  }
}
