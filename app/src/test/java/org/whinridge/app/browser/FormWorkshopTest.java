package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/** Building a form by typing, wiring and arranging; taking back; two people in one draft. */
class FormWorkshopTest extends DemoBrowserTest {
  private static final Path OWN = temporary();

  @DynamicPropertySource
  static void own(DynamicPropertyRegistry r) {
    // a store of its own: it changes forms that other stories fill
    r.add("whinridge.data", OWN::toString);
  }

  private Page form(String who) {
    Page desk = stage.desk(who);
    desk.navigate(stage.base() + "/p/ostrey/forms");
    desk.selectOption(
        "#layer",
        new com.microsoft.playwright.options.SelectOption().setLabel("Control structures"));
    desk.click("main button.main");
    desk.waitForSelector("#form-page[data-ready]");
    return desk;
  }

  private static void stored(Page desk) {
    assertThat(desk.locator("#stored")).containsText("stored");
  }

  private static void type(Page desk, String lines) {
    desk.fill("#typing", lines);
    desk.press("#typing", "Enter");
    assertThat(desk.locator("#typing")).hasValue("");
    stored(desk);
  }

  private static void is(Page desk, String... names) {
    Locator lines = desk.locator("#questions [data-line]");
    assertThat(lines).hasCount(names.length);
    for (int i = 0; i < names.length; i++)
      assertThat(lines.nth(i)).hasAttribute("data-line", names[i]);
  }

  @Test
  void aFormIsBuiltByTypingWiringAndArranging() {
    Page desk = form("coordinator");
    // an empty sheet: everything goes through the text
    desk.click("#as-text");
    desk.fill("#text", "# Visit\n");
    desk.click("#keep-text");
    assertThat(desk.locator("#questions")).containsText("An empty sheet");
    type(desk, "Seen from the bank: yes/no *");
    desk.fill("#typing", "Silt level (mm) 0..500\nLining: bricks\nCracks: + wide | hairline");
    assertThat(desk.locator("#understood")).containsText("Whole number, in mm, 0 to 500");
    assertThat(desk.locator("#understood .line-problem")).containsText("no kind of question");
    desk.press("#typing", "Enter");
    assertThat(desk.locator("#typing")).hasValue("Lining: bricks");
    desk.fill("#typing", "Lining: brick | timber");
    desk.press("#typing", "Enter");
    is(desk, "seen_from_the_bank", "silt_level", "cracks", "lining");
    assertThat(desk.locator("#live-sheet [data-question=lining]")).isVisible();

    desk.click("[data-wire=kind]");
    is(desk, "seen_from_the_bank", "silt_level", "cracks", "lining", "kind");
    assertThat(desk.locator("#wiring .wired")).hasCount(1);

    Locator kind = desk.locator("[data-name=kind]");
    kind.focus();
    kind.press("Alt+ArrowUp");
    is(desk, "seen_from_the_bank", "silt_level", "cracks", "kind", "lining");
    desk.locator("[data-name=silt_level]").click();
    desk.locator("[data-name=silt_level]").click();
    desk.locator("[data-name=cracks]")
        .click(
            new Locator.ClickOptions()
                .setModifiers(List.of(com.microsoft.playwright.options.KeyboardModifier.CONTROL)));
    desk.locator("[data-name=kind]")
        .click(
            new Locator.ClickOptions()
                .setModifiers(List.of(com.microsoft.playwright.options.KeyboardModifier.SHIFT)));
    assertThat(desk.locator("#chosen")).containsText("2 chosen");
    desk.click("#section-of");
    assertThat(desk.locator("#questions [data-section]")).hasCount(3);
    Locator title = desk.locator("[data-section='1'] [data-part=section-title]");
    assertThat(title).isFocused();
    title.fill("Damage");
    title.press("Enter");
    stored(desk);

    String end = text(desk);
    org.assertj.core.api.Assertions.assertThat(end)
        .contains("# Damage\n")
        .contains("Silt level (mm) {silt_level} 0..500\n");
    for (int i = 0; i < 3; i++) {
      desk.click("#undo");
      stored(desk);
    }
    assertThat(desk.locator("#questions [data-section]")).hasCount(1);
    desk.reload(); // what was taken back can be done again later too
    desk.waitForSelector("#form-page[data-ready]");
    for (int i = 0; i < 3; i++) {
      desk.click("#redo");
      stored(desk);
    }
    org.assertj.core.api.Assertions.assertThat(text(desk)).isEqualTo(end);
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  private static String text(Page desk) {
    desk.click("#as-text");
    String text = desk.inputValue("#text");
    desk.click("#as-text");
    return text;
  }

  @Test
  void twoPeopleInOneDraftOverwriteNothing() {
    Page one = form("coordinator");
    String address = one.url();
    Page two = stage.desk("coordinator");
    two.navigate(address);
    two.waitForSelector("#form-page[data-ready]");
    one.click("[data-name=notes]");
    one.fill("#e-hint", "what the first saw");
    one.press("#e-hint", "Enter");
    stored(one);
    // each sees where the other is, and what the other changed
    assertThat(two.locator("#others")).containsText("coordinator is at “Notes”");
    two.click("[data-name=notes]");
    assertThat(two.locator("#e-hint")).hasValue("what the first saw");
    two.click("[data-name=condition]");
    two.fill("#e-hint", "what the second saw");
    two.press("#e-hint", "Enter");
    stored(two);
    one.click("[data-name=condition]");
    assertThat(one.locator("#e-hint")).hasValue("what the second saw");
  }
}
