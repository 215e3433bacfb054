package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/**
 * Ten rules of the trade, made by picking parts alone, then as text; sources and look-ups by
 * picking.
 */
class RulesInPartsTest extends FormStories {
  /** The questions that the rules are about. */
  private static final String LINES =
      """
      # Parts
      Whole length (m) {whole_m} 0..500
      Banked part (m) {banked_m} 0..500
      Walled part (m) {walled_m} 0..500
      # Cover
      Grass (%) {grass} 0..100
      Reed (%) {reed} 0..100
      Open water (%) {open_water} 0..100
      # More
      Repaired on {repaired}: date
      Lining {lining}: boards | blocks
      Silted share (%) {silted}: decimal .0
      Photo of the damage {damage} x1..3
      What is poor {poor}: text""";

  /** Which rule stands where, as text. */
  private static final Map<String, String> TEN = new LinkedHashMap<>();

  static {
    TEN.put("material askWhen", "kind IN ('tide_flap', 'sluice')");
    TEN.put("silt_depth_mm check", "silt_depth_mm <= width_mm");
    TEN.put("whole_m check", "banked_m + walled_m <= whole_m");
    TEN.put("open_water check", "grass + reed + open_water = 100");
    TEN.put("repaired check", "repaired <= today() AND repaired >= before.installed");
    TEN.put("damage askWhen", "condition >= last.condition + 2");
    TEN.put("poor check", "condition < 4 OR poor IS NOT NULL");
    TEN.put("lining code boards", "material = 'Timber'");
    TEN.put("silted workOut", "round(100 * silt_depth_mm / width_mm, 1)");
  }

  private Page made() {
    Page desk = bare();
    desk.click("#wire-all");
    stored(desk);
    choose(desk, "notes");
    type(desk, LINES);
    return desk;
  }

  /** A part's selects and boxes in their order: what is asked, how, with what. */
  private static void pick(Page desk, String box, int part, String... values) {
    pickFrom(desk, box, part, 0, values);
  }

  private static void pickFrom(Page desk, String box, int part, int from, String... values) {
    Locator row = desk.locator(box + " [data-part='" + part + "']");
    for (int i = 0; i < values.length; i++) {
      Locator control = row.locator("> select, > input").nth(from + i);
      if (control.evaluate("e => e.tagName").equals("SELECT")) control.selectOption(values[i]);
      else {
        control.fill(values[i]);
        control.press("Tab");
      }
    }
  }

  private static Locator check(Page desk, String question) {
    choose(desk, question);
    desk.click("#add-check");
    stored(desk);
    return desk.locator("#e-check-0");
  }

  private static void asked(Page desk, String question) {
    choose(desk, question);
    desk.click("button#e-ask");
  }

  private static void more(Page desk, String box) {
    desk.click(box + " [data-add-part]");
  }

  private static String text(Page desk, String box) {
    desk.locator(".rule-box:has(" + box + ") [data-turn]").click();
    String text = desk.inputValue("textarea" + box);
    desk.locator(".rule-box:has(textarea" + box + ") [data-turn]").click();
    return text;
  }

  private static void is(Page desk, String box, String rule) {
    stored(desk);
    org.assertj.core.api.Assertions.assertThat(text(desk, box)).isEqualTo(TEN.get(rule));
  }

  @Test
  void tenRulesAreMadeWithoutTypingOne() {
    Page desk = made();
    asked(desk, "material");
    pick(desk, "#e-ask", 0, "name:kind", "one_of");
    for (String kind : List.of("Tide flap", "Sluice"))
      desk.locator("#e-ask .rule-codes label:has-text('" + kind + "') input").check();
    is(desk, "#e-ask", "material askWhen");
    assertThat(desk.locator("[data-counted]")).containsText("of 240 features");

    check(desk, "silt_depth_mm");
    pick(desk, "#e-check-0", 0, "name:silt_depth_mm", "at_most", "name:width_mm");
    is(desk, "#e-check-0", "silt_depth_mm check");
    desk.click("text=which");
    desk.locator(".rule-which button").first().click();
    assertThat(desk.locator("#live-sheet [data-question=silt_depth_mm]")).isVisible();

    check(desk, "whole_m");
    pick(
        desk,
        "#e-check-0",
        0,
        "kind:sum",
        "name:banked_m",
        "name:walled_m",
        "at_most",
        "name:whole_m");
    is(desk, "#e-check-0", "whole_m check");

    check(desk, "open_water");
    pick(desk, "#e-check-0", 0, "kind:sum", "name:grass", "name:reed");
    desk.click("#e-check-0 [data-more]");
    pickFrom(desk, "#e-check-0", 0, 3, "name:open_water", "is", "kind:value", "100");
    is(desk, "#e-check-0", "open_water check");

    check(desk, "repaired");
    pick(desk, "#e-check-0", 0, "name:repaired", "at_most", "kind:today");
    more(desk, "#e-check-0");
    pick(desk, "#e-check-0", 1, "name:repaired", "at_least", "name:before.installed");
    is(desk, "#e-check-0", "repaired check");

    asked(desk, "damage");
    pick(
        desk,
        "#e-ask",
        0,
        "name:condition",
        "at_least",
        "kind:shifted",
        "name:last.condition",
        "2");
    is(desk, "#e-ask", "damage askWhen");

    check(desk, "poor");
    pick(desk, "#e-check-0", 0, "name:condition", "under", "code:4");
    more(desk, "#e-check-0");
    pick(desk, "#e-check-0", 1, "name:poor", "answered");
    desk.locator("#e-check-0 > select").selectOption("any");
    is(desk, "#e-check-0", "poor check");

    choose(desk, "lining");
    desk.locator("#e-codes [aria-expanded]").first().click();
    desk.click("button#e-fits-0");
    pick(desk, "#e-fits-0", 0, "name:material", "is", "kind:value", "Timber");
    is(desk, "#e-fits-0", "lining code boards");

    choose(desk, "silted");
    desk.click("button#e-work");
    Locator work = desk.locator("div#e-work");
    work.locator("select").nth(0).selectOption("kind:share");
    work.locator("select").nth(1).selectOption("name:silt_depth_mm");
    work.locator("select").nth(2).selectOption("name:width_mm");
    work.locator("input[type=number]").fill("1");
    work.locator("input[type=number]").press("Tab");
    is(desk, "#e-work", "silted workOut");

    lookedUp(desk);
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  /** Beat, warden and soil come from other layers; the position is moved and they follow. */
  private static void lookedUp(Page desk) {
    choose(desk, "beat");
    desk.locator("[data-source=asset] >> text=Remove").click();
    stored(desk);
    desk.selectOption("#add-source", "place");
    stored(desk);
    label(desk, "[data-look=layer]", "Beats");
    label(desk, "[data-look=field]", "Beat name");
    assertThat(desk.locator("[data-look-pack]"))
        .hasText(java.util.regex.Pattern.compile(".*\\d+ features.*\\d+ kB.*"));
    assertThat(desk.locator("[data-gives]")).containsText("gives here: ");
    label(desk, "[data-look=also]", "Warden");
    assertThat(desk.locator("#questions [data-line=warden]")).isVisible();
    choose(desk, "poor");
    desk.selectOption("#add-source", "place");
    stored(desk);
    label(desk, "[data-look=layer] ", "Soil units");
    label(desk, "[data-look=field]", "Soil");
    choose(desk, "beat");
    String before = desk.locator("[data-gives]").innerText();
    desk.click("#proof-map-turn");
    desk.waitForSelector("#proof-map canvas");
    desk.waitForFunction(
        "() => document.querySelector('#proof-map').olMap?.getView().getZoom() > 13");
    desk.evaluate(
        "() => { const m = document.querySelector('#proof-map').olMap; const [x, y] = m.getView().getCenter();"
            + " m.dispatchEvent({ type: 'singleclick', coordinate: [x + 9000, y], pixel: [-9, -9], map: m }); }");
    assertThat(desk.locator("[data-gives]")).not().hasText(before);
    desk.click("#proof-next");
    assertThat(desk.locator("[data-gives]")).containsText("gives here: ");
  }

  private static void label(Page desk, String select, String label) {
    desk.selectOption(select, new com.microsoft.playwright.options.SelectOption().setLabel(label));
    stored(desk);
  }

  /** The same rules typed, with what is gone on with and cured; the parts show the same. */
  @Test
  void theSameRulesAreTyped() {
    Page desk = made();
    for (Map.Entry<String, String> e : TEN.entrySet()) {
      String[] where = e.getKey().split(" ");
      if (where[1].equals("code")) continue;
      choose(desk, where[0]);
      String box =
          Map.of("askWhen", "#e-ask", "check", "#e-check-0", "workOut", "#e-work").get(where[1]);
      if (where[1].equals("check")) {
        desk.click("#add-check");
        stored(desk);
      }
      rule(desk, box, e.getValue());
      desk.locator(".rule-box:has(textarea" + box + ") [data-turn]").click();
      assertThat(desk.locator("div" + box + " select").first()).isVisible();
    }
    choose(desk, "material");
    desk.locator(".rule-box:has(#e-ask) [data-turn]").click();
    desk.fill("textarea#e-ask", "kind = 'slu");
    desk.press("textarea#e-ask", "Tab");
    assertThat(desk.locator("textarea#e-ask")).hasValue("kind = 'sluice'");
    desk.press("textarea#e-ask", "Enter");
    stored(desk);
    rule(desk, "#e-ask", "kind = ‘sluice’");
    desk.click("[data-cure]");
    stored(desk);
    assertThat(desk.locator("textarea#e-ask")).hasValue("kind = 'sluice'");
    rule(desk, "#e-ask", "width_mm > 500 AND width_mm < 300");
    assertThat(desk.locator("[data-note]")).containsText("never");
    rule(desk, "#e-ask", "kind = 'sluice' AND (silt_depth_mm > 3 OR width_mm > 2)");
    assertThat(desk.locator(".rule-box:has(#e-ask) [data-turn]")).isDisabled();
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  /** The proof steps through the features that a condition holds for; messages are in one list. */
  @Test
  void theProofStepsThroughSomeFeaturesAlone() {
    Page desk = made();
    desk.click("#proof-only");
    write(desk, "#proof-only-rule", "kind = 'weir'");
    assertThat(desk.locator("#proof-among")).containsText("kind is weir");
    for (int i = 0; i < 3; i++) {
      assertThat(desk.locator("#proof-name")).containsText("Weir");
      String before = desk.locator("#proof-name").innerText();
      desk.click("#proof-next");
      assertThat(desk.locator("#proof-name")).not().hasText(before);
    }
    desk.click("#proof-all");
    assertThat(desk.locator("#proof-among")).hasCount(0);
    check(desk, "width_mm");
    String box = "#editor [data-part=message]";
    desk.fill(box, "Narrower than a hand");
    desk.press(box, "Tab");
    stored(desk);
    desk.click("#as-shared");
    Locator message = desk.locator("[data-message='Narrower than a hand']");
    assertThat(message).containsText("Width");
    message.locator("input").fill("Look again: {width_mm} mm");
    message.locator("input").press("Tab");
    stored(desk);
    desk.locator("[data-message] button").first().click();
    assertThat(desk.locator(box)).hasValue("Look again: {width_mm} mm");
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  /** A filled example fails when a rule changes; the rule is mended, or it is meant so. */
  @Test
  void aTrialFailsAfterAChangeAndIsMended() {
    Page desk = made();
    desk.click("#trials summary");
    assertThat(desk.locator("#trials")).containsText("A trial is a filled example");
    Locator width = desk.locator("#live-sheet [data-question=width_mm] input");
    width.fill("700");
    width.press("Tab");
    desk.fill("#trial-name", "A narrow one");
    desk.click("#trial-keep");
    Locator trial = desk.locator("[data-trial]");
    assertThat(trial).hasCount(1);
    assertThat(trial.locator("input")).hasValue("A narrow one");
    assertThat(trial.locator(".chip")).hasText("as expected");
    choose(desk, "width_mm");
    desk.fill("#e-from", "900");
    desk.press("#e-from", "Tab");
    stored(desk);
    assertThat(width).hasValue("700"); // what was tried outlives the change
    assertThat(trial.locator("[data-difference=width_mm]")).containsText("is open now");
    assertThat(desk.locator("#trials summary .chip")).hasText("1 other than expected");
    desk.navigate(
        desk.locator("#publish").getAttribute("href").replaceFirst("^/", stage.base() + "/"));
    assertThat(desk.locator("#publish-trials")).containsText("1 of 1 trial comes out other");
    desk.click("#publish-dry a[href*='/forms/']");
    desk.waitForSelector("#form-page[data-ready]");
    desk.click("#trials summary");
    desk.locator("[data-difference=width_mm]").click();
    assertThat(desk.locator("[data-line=width_mm]")).hasAttribute("data-open", "true");
    trial.locator("[data-fill]").click();
    assertThat(desk.locator("#proof-name")).hasText("Trial: A narrow one");
    assertThat(width).hasValue("700");
    desk.fill("#e-from", "600");
    desk.press("#e-from", "Tab");
    assertThat(trial.locator(".chip")).hasText("as expected");
    desk.fill("#e-from", "900");
    desk.press("#e-from", "Tab");
    trial.locator("[data-expect]").click();
    assertThat(trial.locator(".chip")).hasText("as expected");
    assertThat(trial).containsText("expected to be held back by");
    desk.click("#proof-again");
    assertThat(desk.locator("#proof-name")).containsText("of 240");
    desk.click("#trial-from-visit");
    assertThat(desk.locator("#trials")).containsText("No visit of this form has come in yet");
    desk.onceDialog(d -> d.accept());
    trial.locator("[data-remove-trial]").click();
    assertThat(trial).hasCount(0);
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  /** A form that would make a layer without places is told so where it looks up by place. */
  @Test
  void aLookUpAsksForTheQuestionThatSaysWhere() {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/forms/new");
    desk.selectOption("#layer", "");
    desk.check("input[name=start][value=NOTHING]");
    desk.click("#form-new button");
    desk.waitForSelector("#form-page[data-ready]");
    type(desk, "Beat: text");
    choose(desk, "beat");
    desk.selectOption("#add-source", "place");
    stored(desk);
    assertThat(desk.locator("[data-needs-position]")).isVisible();
    desk.click("#add-position");
    stored(desk);
    assertThat(desk.locator("[data-needs-position]")).hasCount(0);
    assertThat(desk.locator("#questions [data-line=position]")).isVisible();
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  /** From a rule that features fail to one of them, on the sheet and on the map. */
  @Test
  void theDryRunLeadsToWhatFails() {
    Page desk = made();
    check(desk, "condition");
    pick(desk, "#e-check-0", 0, "name:condition", "at_most", "code:3");
    stored(desk);
    assertThat(desk.locator("#dry summary")).containsText("of 240 features pass");
    assertThat(desk.locator("#dry summary .chip")).hasCount(0); // no older draft's
    assertThat(desk.locator("#dry-run")).hasText("Run it over all features");
    desk.click("#dry summary");
    Locator failing = desk.locator("[data-failing^='condition check 1']");
    assertThat(failing).containsText("at most 3"); // not of the rule while it was picked
    failing.click();
    Locator first = desk.locator("#dry [data-feature]").first();
    String caption = first.innerText();
    first.click();
    assertThat(desk.locator("#proof-name")).containsText(caption);
    assertThat(desk.locator("#live-sheet [data-question=condition] .point")).isVisible();
    desk.locator("#dry [data-step-through]").click();
    assertThat(desk.locator("#proof-among")).isVisible();
    desk.click("#proof-next");
    assertThat(desk.locator("#proof-name")).not().containsText(caption);
    assertThat(desk.locator("#live-sheet [data-question=condition] .point")).isVisible();
    onTheProofMap(desk);
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  /** The map marks each that fails the opened rule; a click on a mark fills the sheet with it. */
  private static void onTheProofMap(Page desk) {
    String before = desk.locator("#proof-name").innerText();
    desk.click("#dry [data-on-map]");
    assertThat(desk.locator("#dry [data-on-map]")).hasCount(0);
    String marks =
        "() => { const m = document.querySelector('#proof-map').olMap;"
            + " return m?.getLayers().getArray().flatMap((l) => l.getSource?.()?.getFeatures?.() ?? []).filter((f) => f.get('question') === 'condition') ?? []; }";
    desk.waitForFunction("() => (" + marks + ")().length > 1");
    int failing =
        Integer.parseInt(desk.locator("[data-failing^='condition check 1'] b").innerText());
    org.assertj.core.api.Assertions.assertThat(desk.evaluate("() => (" + marks + ")().length"))
        .isEqualTo(failing);
    desk.waitForFunction(
        "() => !document.querySelector('#proof-map').olMap.getView().getAnimating()");
    Object at =
        desk.evaluate(
            "(before) => { const m = document.querySelector('#proof-map').olMap; m.renderSync(); const b = m.getTargetElement().getBoundingClientRect();"
                + " const inside = ("
                + marks
                + ")().map((f) => [f.get('caption'), m.getPixelFromCoordinate(f.getGeometry().getCoordinates())])"
                + ".filter(([c, p]) => p[0] > 20 && p[1] > 20 && p[0] < b.width - 20 && p[1] < b.height - 20 && !before.includes(c));"
                + " const alone = inside.find(([, p]) => inside.every(([, q]) => q === p || Math.hypot(q[0] - p[0], q[1] - p[1]) > 25));"
                + " return [alone[0], alone[1][0] + b.left, alone[1][1] + b.top, inside.length]; }",
            before);
    List<?> mark = (List<?>) at;
    org.assertj.core.api.Assertions.assertThat((int) mark.get(3)).isGreaterThan(1);
    desk.mouse().click(((Number) mark.get(1)).doubleValue(), ((Number) mark.get(2)).doubleValue());
    assertThat(desk.locator("#proof-name")).containsText((String) mark.get(0));
    assertThat(desk.locator("#live-sheet [data-question=condition] .point")).isVisible();
  }
}
