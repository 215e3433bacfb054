package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.nio.file.Path;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/**
 * What the stories of the form workshop do: a store of their own, since they change forms that
 * others fill.
 */
abstract class FormStories extends DemoBrowserTest {
  private static final Path OWN = temporary();

  @DynamicPropertySource
  static void own(DynamicPropertyRegistry r) {
    r.add("whinridge.data", OWN::toString);
  }

  final Page form(String who) {
    Page desk = stage.desk(who);
    desk.navigate(stage.base() + "/p/ostrey/forms");
    desk.selectOption(
        "#layer",
        new com.microsoft.playwright.options.SelectOption().setLabel("Control structures"));
    desk.click("main button.main");
    desk.waitForSelector("#form-page[data-ready]");
    return desk;
  }

  static void stored(Page desk) {
    assertThat(desk.locator("#stored")).containsText("stored");
  }

  static void type(Page desk, String lines) {
    desk.fill("#typing", lines);
    desk.press("#typing", "Enter");
    assertThat(desk.locator("#typing")).hasValue("");
    stored(desk);
  }

  static void is(Page desk, String... names) {
    Locator lines = desk.locator("#questions [data-line]");
    assertThat(lines).hasCount(names.length);
    for (int i = 0; i < names.length; i++)
      assertThat(lines.nth(i)).hasAttribute("data-line", names[i]);
  }

  static String text(Page desk) {
    desk.click("#as-text");
    String text = desk.inputValue("#text");
    desk.click("#as-text");
    return text;
  }

  static String plain(String text) {
    return text.replace(" \u2026\n", "\n").strip();
  }

  /** A form without questions, on the demo's points. */
  final Page bare() {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/forms/new");
    desk.selectOption(
        "#layer",
        new com.microsoft.playwright.options.SelectOption().setLabel("Control structures"));
    desk.check("input[name=start][value=NOTHING]");
    desk.click("#form-new button");
    desk.waitForSelector("#form-page[data-ready]");
    assertThat(desk.locator("#questions")).containsText("An empty sheet");
    return desk;
  }

  /** Writes a rule as text into its box, whichever way it is edited now. */
  static void rule(Page desk, String box, String text) {
    write(desk, box, text);
    stored(desk);
  }

  /** The same in any language. */
  static void write(Page desk, String box, String text) {
    Locator area = desk.locator("textarea" + box);
    if (area.count() == 0) {
      Locator begin = desk.locator("button" + box);
      if (begin.count() > 0) begin.click();
      desk.locator(".rule-box:has(" + box + ") [data-turn]").click();
    }
    area.fill(text);
    area.press("Escape"); // what is offered is not taken
    area.press("Enter");
  }

  static void choose(Page desk, String question) {
    desk.click("[data-name=" + question + "]");
    assertThat(desk.locator("[data-line=" + question + "]")).hasAttribute("data-chosen", "true");
  }

  /** Puts a long text into a box at once, as a paste does. */
  static void pasted(Page desk, String box, String text) {
    desk.locator(box)
        .evaluate(
            "(box, text) => { box.value = text; box.dispatchEvent(new Event('input', { bubbles: true })); }",
            text);
    desk.focus(box);
  }
}
