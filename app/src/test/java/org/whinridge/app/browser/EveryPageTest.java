package org.whinridge.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.junit.jupiter.api.Test;

/** What holds on every page of the desk. */
class EveryPageTest extends BrowserTest {
  /** How far what a page shows reaches beyond its window to the right, in pixels. */
  static final String BEYOND =
      "() => Math.max(0, document.documentElement.scrollWidth - document.documentElement.clientWidth)";

  /** Elements whose own text is cut off by their own edge, unless they can be scrolled. */
  static final String CUT =
      "() => [...document.querySelectorAll('body *')].filter((e) => { const s = getComputedStyle(e);"
          + " return [...e.childNodes].some((n) => n.nodeType === 3 && n.data.trim()) && s.display !== 'inline'"
          + " && e.clientWidth > 2 && ['hidden', 'clip'].includes(s.overflowX) && !e.classList.contains('sr-only')"
          + " && e.scrollWidth > e.clientWidth + 1; }).map((e) => e.tagName + ' ' + e.textContent.trim().slice(0, 60))";

  @SuppressWarnings("unchecked")
  static List<String> cut(Page page) {
    return (List<String>) page.evaluate(CUT);
  }

  /** How far a page reaches beyond its window, in pixels. */
  static int beyond(Page page) {
    return ((Number) page.evaluate(BEYOND)).intValue();
  }

  /** 640 pixels: a narrow window, and one of 1280 at 200 % zoom; 390: a phone. */
  @Test
  void everyPageFitsANarrowWindow() {
    Page desk = stage.desk("coordinator");
    List<String> faults = new ArrayList<>();
    for (Map.Entry<String, Consumer<Page>> e : EveryPage.ofTheDesk(stage.base()).entrySet()) {
      desk.setViewportSize(1280, 800);
      e.getValue().accept(desk);
      for (int width : List.of(640, 390)) {
        desk.setViewportSize(width, 400);
        Stage.quiet(desk);
        int beyond = beyond(desk);
        if (beyond > 0) faults.add(e.getKey() + " reaches " + beyond + " px beyond " + width);
        cut(desk).forEach(c -> faults.add(e.getKey() + " cuts " + c + " at " + width));
      }
    }
    desk.navigate(stage.base() + "/p/ostrey/layers");
    assertThat(desk.locator("nav.band-path").isVisible()).isFalse();
    desk.click(".band-menu");
    for (String there : List.of("Layers", "Hand-ins", "Outputs", "Day book", "Sign out"))
      assertThat(desk.locator(".band-more >> text=" + there).first().isVisible())
          .as(there)
          .isTrue();
    assertThat(faults).isEmpty();
    assertThat(stage.scriptErrors()).isEmpty();
  }

  /** A wide window is used: what is beside the map leaves the map more than half of it. */
  @Test
  void aWideWindowIsUsed() {
    Page desk = stage.desk("coordinator");
    desk.setViewportSize(2560, 1300);
    for (String page : List.of("layer", "draw", "look", "map", "plan", "round")) {
      if (page.equals("plan")) EveryPage.ofTheDesk(stage.base()).get("forms").accept(desk);
      EveryPage.ofTheDesk(stage.base()).get(page).accept(desk);
      Stage.quiet(desk);
      var map = desk.locator(".map").first().boundingBox();
      assertThat(map.width).as(page).isGreaterThan(2560 / 2);
      assertThat(map.y + map.height).as(page + " down").isGreaterThan(1300 - 220);
    }
  }
}
