package org.whinridge.bench;

import com.google.gson.JsonObject;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import org.whinridge.engine.Chromium;

/**
 * The form workshop in Chromium whose processor is slowed to a quarter: how long from a key to the
 * picture in which it shows, on a form of 300 questions beside one of 15 and a page that has
 * nothing but a box.
 */
public final class FormInChromium {
  /** From each key to the frame after it, as the page itself sees it, in milliseconds. */
  private static final String WATCH =
      """
      () => {
        window.shown = [];
        addEventListener("input", () => {
          const t = performance.now();
          requestAnimationFrame(() => setTimeout(() => window.shown.push(performance.now() - t)));
        }, true);
      }
      """;

  private static final String LINE =
      "Depth of the water at the sill beside the gate below the road (mm) 0..4000 *";

  private FormInChromium() {}

  /** Arguments: a folder for files, and the server's archive, or the address of a demo server. */
  public static void main(String[] args) throws Exception {
    if (args[0].startsWith("http")) {
      measure(args[0]);
      return;
    }
    LayerImport.demo(
        Files.createDirectories(Path.of(args[0])), Path.of(args[1]), FormInChromium::measure);
  }

  private static void measure(String base) {
    try (Playwright playwright = Chromium.driver();
        var browser = Chromium.launch(playwright)) {
      Page page = browser.newPage();
      page.setDefaultTimeout(120_000);
      page.setViewportSize(1280, 800);
      page.navigate(base + "/sign-in");
      page.click("button[value=coordinator]");
      page.waitForSelector(".band");
      double bare = bare(page);
      double[] small = form(page, base, 15);
      double[] large = form(page, base, 300);
      String[] what = {"typing a question", "answering on the sheet", "choosing a question"};
      for (int i = 0; i < what.length; i++)
        System.out.printf(
            Locale.ROOT,
            "%-24s p95 %.0f ms with 300 questions, %.0f ms with 15: %.1f times%n",
            what[i],
            large[i],
            small[i],
            large[i] / small[i]);
      System.out.printf(Locale.ROOT, "%-24s p95 %.0f ms%n", "typing on a bare page", bare);
    }
  }

  private static CDPSession slowed(Page page) {
    CDPSession slow = page.context().newCDPSession(page);
    rate(slow, 4);
    return slow;
  }

  private static void rate(CDPSession session, int times) {
    JsonObject rate = new JsonObject();
    rate.addProperty("rate", times);
    session.send("Emulation.setCPUThrottlingRate", rate);
  }

  private static double bare(Page page) {
    page.navigate("about:blank");
    page.setContent("<textarea id=typing></textarea>");
    page.evaluate(WATCH);
    CDPSession slow = slowed(page);
    double typing = keys(page, "#typing", LINE);
    rate(slow, 1);
    slow.detach();
    return typing;
  }

  private static double[] form(Page page, String base, int questions) {
    page.navigate(base + "/p/ostrey/forms/new");
    page.check("input[name=start][value=NOTHING]");
    page.click("#form-new button");
    page.waitForSelector("#form-page[data-ready]");
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < questions; i++)
      text.append(i % 25 == 0 ? "# Part " + i + "\n" : "")
          .append("Question ")
          .append(i)
          .append(i % 3 == 0 ? ": brick | timber | clay\n" : i % 3 == 1 ? " (mm) 0..500\n" : "\n");
    page.click("#as-text");
    page.locator("#text")
        .evaluate(
            "(box, text) => { box.value = text; box.dispatchEvent(new Event('input', { bubbles: true })); }",
            text.toString());
    page.click("#keep-text");
    page.waitForSelector("#typing");
    page.waitForSelector("#live-sheet [data-question=question_" + (questions - 1) + "]");
    // the whole form was put there at once: typing begins when it has been run over the layer
    page.waitForCondition(() -> page.locator("#dry summary").count() > 0);
    page.waitForTimeout(3000);
    page.evaluate(WATCH);
    CDPSession slow = slowed(page);
    try {
      double typing = keys(page, "#typing", LINE);
      double answering =
          keys(page, "[data-question=question_7] input", "1234512345123451234512345");
      return new double[] {typing, answering, choosing(page)};
    } finally {
      rate(slow, 1);
      slow.detach();
    }
  }

  private static double keys(Page page, String box, String text) {
    page.focus(box);
    page.evaluate("() => { window.shown.length = 0; }");
    for (int i = 0; i < text.length(); i++) {
      page.keyboard().type(text.substring(i, i + 1));
      page.waitForTimeout(60);
    }
    page.waitForTimeout(500);
    return p95(page);
  }

  private static double choosing(Page page) {
    page.evaluate("() => { window.shown.length = 0; }");
    page.evaluate(
        """
        async () => {
          const heads = [...document.querySelectorAll("[data-name]")].slice(2, 14);
          for (const head of [...heads, ...heads]) {
            const t = performance.now();
            head.click();
            await new Promise((r) => requestAnimationFrame(() => setTimeout(r)));
            window.shown.push(performance.now() - t);
          }
        }
        """);
    return p95(page);
  }

  private static double p95(Page page) {
    @SuppressWarnings("unchecked")
    List<Number> all = (List<Number>) page.evaluate("() => window.shown");
    double[] sorted = all.stream().mapToDouble(Number::doubleValue).sorted().toArray();
    return sorted[(int) Math.floor((sorted.length - 1) * 0.95)];
  }
}
