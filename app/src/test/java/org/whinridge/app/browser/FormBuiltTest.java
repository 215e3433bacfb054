package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.google.gson.JsonArray;
import com.google.gson.JsonObject;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.List;
import org.junit.jupiter.api.Test;

/**
 * The demo's form, built from the bare layer in each of the ways there are; a finger; what is gone.
 */
class FormBuiltTest extends FormStories {
  /** The demo's form as lines, without the marks of what lines can't say. */
  private String demoText() {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/forms");
    desk.click("main td a:text-is('Structure visit')");
    desk.waitForSelector("#form-page[data-ready]");
    return plain(text(desk));
  }

  private static void isWired(Page desk) {
    assertThat(desk.locator("#wiring .wired")).hasCount(13);
    assertThat(desk.locator("#live-sheet [data-question=kind] [aria-pressed=true]")).hasCount(1);
  }

  @Test
  void theDemosFormIsBuiltByTypingAndWiringAlone() {
    String wanted = demoText();
    Page desk = bare();
    type(desk, "--- page\n# Control structures");
    desk.click("#wire-all");
    stored(desk);
    isWired(desk);
    for (String needed : List.of("kind", "condition")) {
      choose(desk, needed);
      String line = desk.inputValue("#e-line").replace(" \u2026", "");
      String hint =
          needed.equals("kind") ? "" : wanted.replaceAll("(?s).* (// 1 very[^\n]*).*", " $1");
      desk.fill("#e-line", line + " *" + hint);
      desk.press("#e-line", "Enter");
      stored(desk);
    }
    choose(desk, "silt_depth_mm");
    type(desk, "Silted share of the width (%) {silt_share}: decimal .0");
    choose(desk, "notes");
    type(
        desk,
        "--- page\n# Defects {defects} x..20 again\n"
            + "Defect: leak = Leak | crack = Crack | scour = Scour | blockage = Blockage | missing_part = Missing part *\n"
            + "Severity 1..5 *\nPhoto of the defect {defect_photo} x..3");
    type(desk, "--- page\n# Photos\nPhoto of the structure {photo} x..5 (*)");
    org.assertj.core.api.Assertions.assertThat(plain(text(desk))).isEqualTo(wanted);
  }

  @Test
  void theDemosFormIsBuiltByPastingItsText() {
    String wanted = demoText();
    Page desk = bare();
    desk.click("#as-text");
    desk.fill("#text", wanted);
    desk.click("#keep-text");
    isWired(desk);
    org.assertj.core.api.Assertions.assertThat(plain(text(desk))).isEqualTo(wanted);
  }

  /** Labels are typed into their boxes; everything else is done with the mouse. */
  @Test
  void theDemosFormIsBuiltWithTheMouse() {
    String wanted = demoText();
    Page desk = bare();
    desk.click("#wire-all");
    stored(desk);
    isWired(desk);
    fill(desk, "[data-part=section-title]", "Control structures");
    menu(desk, 0, "Begin a page");
    for (String needed : List.of("kind", "condition")) {
      choose(desk, needed);
      desk.selectOption("#e-need", "needed");
      stored(desk);
    }
    fill(desk, "#e-hint", wanted.replaceAll("(?s).*// (1 very[^\n]*).*", "$1"));
    kind(desk, "decimal", "Silted share of the width");
    fill(desk, "#e-unit", "%");
    fill(desk, "#e-decimals", "1");
    rename(desk, "silt_share");
    drag(desk, "silt_share", "last_inspected");
    choose(desk, "notes");
    kind(desk, "photo", "Photo of the structure");
    desk.selectOption("#e-need", "wanted");
    fill(desk, "#e-most", "5");
    rename(desk, "photo");
    desk.locator("[data-grip=photo]").click();
    desk.locator("[data-name=photo]").press("s");
    stored(desk);
    fill(desk, "[data-section='1'] [data-part=section-title]", "Photos");
    menu(desk, 1, "Begin a page");
    kind(desk, "choice", "Defect");
    desk.selectOption("#e-need", "needed");
    desk.fill(
        "#codes-pasted",
        "leak\tLeak\ncrack\tCrack\nscour\tScour\nblockage\tBlockage\nmissing_part\tMissing part");
    desk.click("#add-codes");
    desk.locator("#e-codes tbody tr").first().locator("button").click();
    desk.locator("#e-codes tr td[colspan] button").last().click();
    assertThat(desk.locator("#e-codes tbody tr")).hasCount(5);
    rename(desk, "defect");
    desk.locator("[data-grip=defect]").click();
    desk.locator("[data-name=defect]").press("s");
    stored(desk);
    fill(desk, "[data-section='2'] [data-part=section-title]", "Defects");
    menu(desk, 2, "Begin a page");
    menu(desk, 2, "Let it repeat");
    fill(desk, "#rows-most-2", "20");
    desk.click("#rows-again-2");
    stored(desk);
    kind(desk, "whole", "Severity");
    fill(desk, "#e-from", "1");
    fill(desk, "#e-to", "5");
    desk.selectOption("#e-need", "needed");
    rename(desk, "severity");
    kind(desk, "photo", "Photo of the defect");
    fill(desk, "#e-most", "3");
    rename(desk, "defect_photo");
    menu(desk, 2, "Move up");
    org.assertj.core.api.Assertions.assertThat(plain(text(desk))).isEqualTo(wanted);
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  private static void fill(Page desk, String box, String text) {
    desk.fill(box, text);
    desk.press(box, "Tab");
    stored(desk);
  }

  private static void menu(Page desk, int section, String what) {
    Locator more = desk.locator("[data-section='" + section + "'] .form-section-more");
    more.locator("summary").click();
    more.locator("text=" + what).click();
    stored(desk);
  }

  private static void kind(Page desk, String type, String label) {
    desk.click("#choose-kind");
    desk.click("[data-kind=" + type + "]");
    assertThat(desk.locator("#e-label")).isFocused();
    fill(desk, "#e-label", label);
  }

  private static void rename(Page desk, String name) {
    desk.click("#e-hand summary");
    desk.fill("#e-name", name);
    desk.press("#e-name", "Enter");
    assertThat(desk.locator("[data-line=" + name + "] #editor")).isVisible();
  }

  private static void drag(Page desk, String question, String before) {
    Locator to = desk.locator("[data-line=" + before + "]");
    desk.locator("[data-grip=" + question + "]").scrollIntoViewIfNeeded();
    desk.click("[data-name=" + question + "]"); // shut, so that both are in view
    to.scrollIntoViewIfNeeded();
    var from = desk.locator("[data-grip=" + question + "]").boundingBox();
    desk.mouse().move(from.x + 5, from.y + 20);
    desk.mouse().down();
    var at = to.boundingBox();
    desk.mouse().move(at.x + 5, at.y + 30);
    desk.mouse().move(at.x + 5, at.y + 10);
    assertThat(to).hasAttribute("data-drop", "before");
    desk.mouse().up();
    stored(desk);
  }

  /** A finger on a grip drags a question, and doesn't scroll the page. */
  @Test
  void aFingerDragsAQuestion() {
    Page desk = bare();
    type(desk, "First: yes/no\nSecond: yes/no\nThird: yes/no");
    is(desk, "first", "second", "third");
    var grip = desk.locator("[data-grip=third]").boundingBox();
    var to = desk.locator("[data-line=first]").boundingBox();
    var finger = desk.context().newCDPSession(desk);
    touch(finger, "touchStart", grip.x + 5, grip.y + 20);
    touch(finger, "touchMove", grip.x + 5, grip.y - 20);
    touch(finger, "touchMove", grip.x + 5, to.y + 10);
    assertThat(desk.locator("[data-line=first]")).hasAttribute("data-drop", "before");
    touch(finger, "touchEnd", 0, 0);
    is(desk, "third", "first", "second");
    stored(desk);
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  private static void touch(CDPSession finger, String type, double x, double y) {
    JsonArray points = new JsonArray();
    if (!type.equals("touchEnd")) {
      JsonObject point = new JsonObject();
      point.addProperty("x", x);
      point.addProperty("y", y);
      points.add(point);
    }
    JsonObject event = new JsonObject();
    event.addProperty("type", type);
    event.add("touchPoints", points);
    finger.send("Input.dispatchTouchEvent", event);
  }

  /**
   * A rule of a question that was deleted stays, is marked, and goes with one click, or the
   * question comes back with one.
   */
  @Test
  void aRuleOfAQuestionThatIsGoneIsMended() {
    Page desk = bare();
    type(desk, "Cracked: yes/no\nCrack width (mm) {crack} 0..50\nLength (mm) {length} 0..900");
    choose(desk, "crack");
    rule(desk, "#e-ask", "cracked = true");
    choose(desk, "cracked");
    desk.locator("[data-name=cracked]").press("Delete");
    is(desk, "crack", "length");
    Locator trouble = desk.locator("[data-line=crack] .line-problem");
    assertThat(trouble).containsText("cracked");
    desk.click("#undo");
    is(desk, "cracked", "crack", "length");
    assertThat(trouble).hasCount(0);
    desk.click("#redo");
    stored(desk);
    desk.reload(); // the sheet was never filled with this form: its questions are there all the
    // same
    desk.waitForSelector("#form-page[data-ready]");
    assertThat(desk.locator("#proof .trouble"))
        .hasText("the sheet is not filled before that is mended");
    assertThat(desk.locator("#live-sheet [data-line=length] input").first()).isVisible();
    assertThat(desk.locator("#form-problems .code")).hasText("cracked");
    trouble.locator("[data-drop]").click();
    assertThat(trouble).hasCount(0);
    stored(desk);
    choose(desk, "crack");
    assertThat(desk.locator("#e-ask")).hasText("Ask only when \u2026");
    assertThat(desk.locator("#live-sheet [data-question=crack]")).isVisible();
    for (int i = 0; i < 8; i++) {
      desk.click("#add-check");
      stored(desk);
    }
    desk.locator("[data-name=length]").click();
    desk.locator("[data-name=crack]").click();
    assertThat(desk.locator("[data-open-check]")).hasCount(8);
    assertThat(desk.locator("#e-checks .rule-box")).hasCount(0);
    desk.locator("[data-open-check]").nth(3).click();
    assertThat(desk.locator("[data-check='3'] .rule-box")).isVisible();
    assertThat(desk.locator("[data-open-check]")).hasCount(7);
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }
}
