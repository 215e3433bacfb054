package org.whinridge.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The same on every machine: with no font but those that are shipped. */
class NoFontsTest extends BrowserTest {
  @TempDir Path tmp;

  @Test
  void signsAreDrawnAndEveryControlHasItsSizeWithoutAnyFontOfTheMachine() throws Exception {
    try (Stage bare = new Stage(port, Stage.noFonts(tmp))) {
      Page desk = bare.desk("coordinator");
      desk.click("nav >> text=Layers");
      desk.click("text=Control structures");
      desk.waitForSelector("#layer-page[data-ready]");
      String layer = desk.url().replaceAll("[?#].*", "");
      desk.navigate(layer + "/fields");
      desk.waitForSelector("#fields-page[data-ready]");
      Audit.of(desk, "fields without fonts");
      small(desk, "fields");
      assertThat(desk.locator("[aria-label$=' up'] svg").count()).isGreaterThan(5);
      desk.navigate(bare.base() + "/p/ostrey/map");
      desk.waitForSelector("#project-map[data-ready]");
      small(desk, "map");
      desk.navigate(layer + "/values?field=material");
      small(desk, "values");
      desk.navigate(bare.base() + "/p/ostrey/forms");
      desk.click("a:has-text('Structure visit')");
      desk.waitForSelector("#form-page[data-ready]");
      small(desk, "form");
      Audit.of(desk, "form without fonts");
      assertThat(bare.scriptErrors()).isEmpty();
    }
  }

  /** Buttons and fields below 24 by 24 pixels, and letters that no shipped font draws. */
  private static void small(Page page, String name) {
    assertThat(
            (java.util.List<?>)
                page.evaluate(
                    "() => [...document.querySelectorAll('button, select, input:not([type=hidden]):not([type=range])')].filter((e) => e.checkVisibility() && !e.classList.contains('sr-only')).map((e) => [e.getBoundingClientRect(), e.outerHTML.slice(0, 90)]).filter(([r]) => r.width > 0 && (r.width < 23.5 || r.height < 23.5)).map(([r, html]) => `${r.width} x ${r.height}: ${html}`)"))
        .as(name)
        .isEmpty();
    // what the shipped letters hold besides Latin-1: quotes, dashes, dots, minus
    assertThat(
            (String)
                page.evaluate(
                    "() => [...new Set(document.body.innerText)].filter((c) => c.charCodeAt(0) > 255 && !'\u2013\u2014\u2018\u2019\u201c\u201d\u2026\u2212'.includes(c)).join('')"))
        .as("letters on " + name + " that come from a font of the machine")
        .isEmpty();
  }
}
