package org.whinridge.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Page;
import java.util.List;

/** WCAG 2.2 AA as far as axe-core can see. */
final class Audit {
  private Audit() {}

  static void of(Page page, String name) {
    var found =
        // its usual mode opens a window of its own for pages with frames; these have none
        new AxeBuilder(page)
            .setLegacyMode(true)
            .withTags(List.of("wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"))
            .analyze()
            .getViolations();
    assertThat(found)
        .as(
            () ->
                name
                    + ": "
                    + found.stream()
                        .map(
                            v ->
                                v.getId()
                                    + " "
                                    + v.getNodes().stream()
                                        .limit(3)
                                        .map(n -> String.valueOf(n.getHtml()))
                                        .toList())
                        .toList())
        .isEmpty();
  }
}
