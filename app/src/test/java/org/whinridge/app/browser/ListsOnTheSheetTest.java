package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A form file with a list of defects, blocks and the newer kinds of questions: drawn on the live
 * sheet, filled offline in the day book, read by the reviewer, and found again by the next visit.
 */
class ListsOnTheSheetTest extends BrowserTest {
  static final String FORM =
      """
      {"title":"Defects by rows","rules":[{"name":"serious","label":"a defect is serious","rule":"worst >= 4"}],"sections":[
       {"title":"Structure","startsPage":true,"blocks":[{"name":"flow","title":"Flow","intro":"Stand on the bank.","askWhen":"kind IN ('tide_flap','sluice')"}],"questions":[
        {"name":"tag","label":"Tag","type":"text","writesTo":"tag","lockOnRevisit":true,"prefill":[{"from":"asset"}]},
        {"name":"kind","label":"Kind","type":"choice","as":"list","writesTo":"kind","codes":[{"code":"outfall","label":"Outfall"},{"code":"tide_flap","label":"Tide flap"},{"code":"sluice","label":"Sluice"},{"code":"penstock","label":"Penstock"},{"code":"weir","label":"Weir"},{"code":"pump","label":"Pump"}],"prefill":[{"from":"asset"}]},
        {"name":"leaks","label":"Leaks counted","type":"counter","to":20,"block":"flow","width":"half"},
        {"name":"closes_in","label":"Closes within","type":"duration","block":"flow","width":"half"},
        {"name":"causes","label":"Causes, the worst first","type":"ranked","codes":[{"code":"silt","label":"Silt"},{"code":"wood","label":"Driftwood"},{"code":"rust","label":"Rust"}]}]},
       {"name":"defects","title":"Defects","startsPage":true,"rows":{"most":4,"fromLastVisit":true},"questions":[
        {"name":"severity","label":"Severity","type":"grade","need":"needed","codes":[{"code":"1","label":"1 slight"},{"code":"2","label":"2"},{"code":"3","label":"3"},{"code":"4","label":"4"},{"code":"5","label":"5 failing"}]},
        {"name":"length_m","label":"Length","type":"decimal","unit":"m","from":0,"to":30}]},
       {"title":"Sum","questions":[
        {"name":"total_m","label":"Length of all defects","type":"decimal","unit":"m","workOut":"sum(defects.length_m)"},
        {"name":"found","label":"Defects found","type":"whole","workOut":"count(defects)"},
        {"name":"worst","label":"Worst length","type":"decimal","workOut":"max(defects.length_m)"},
        {"name":"report","label":"What is to be done","type":"long_text","need":"needed","askWhen":"serious"}]}]}
      """;

  @Test
  void aListIsFilledReviewedAndFoundAgain(@TempDir Path tmp) {
    Page desk = stage.desk("coordinator");
    makeTheForm(desk);
    onTheLiveSheet(desk);
    desk.click("#publish");
    desk.click("#publish-now");
    assertThat(desk.locator(".done")).containsText("Edition 1 is published");
    String form = desk.url();
    Page day = stage.dayBook(tmp.resolve("phone"), -10.29, 57.8835);
    plan(desk, form, "Rows, once");
    String caption = openOffline(day, "Rows, once");
    fill(day);
    handIn(day);
    desk.click("nav >> text=Hand-ins");
    desk.locator("#waiting a", new Page.LocatorOptions().setHasText(caption)).click();
    assertThat(desk.locator("main")).containsText("Severity 4, Length 2.5 m");
    assertThat(desk.locator(".told")).hasCount(0); // the server finds nothing else
    desk.click("#accept");
    assertThat(desk.locator(".done")).containsText("Accepted");
    plan(desk, form, "Rows, again");
    openOffline(day, "Rows, again");
    confirmWhatWasFound(day);
    handIn(day);
    assertThat(stage.scriptErrors()).isEmpty();
  }

  private void makeTheForm(Page desk) {
    // the first page shows what was done last, which other stories change
    desk.navigate(stage.base() + "/p/ostrey/layers");
    desk.click("a:has-text('Control structures')");
    desk.click("text=Make a form from its fields");
    desk.waitForSelector("#form-page[data-ready]");
    String api =
        (String)
            desk.evaluate(
                "() => { const d = document.getElementById('form-page').dataset; return `/api/p/${d.project}/forms/${d.form}`; }");
    Object status =
        desk.evaluate(
            """
            async ([api, form]) => {
              const state = await (await fetch(api)).json();
              const headers = { "Content-Type": "application/json", [document.querySelector("meta[name=csrf-header]").content]: document.querySelector("meta[name=csrf-token]").content };
              return (await fetch(api + "/edits", { method: "POST", headers, body: JSON.stringify({ revision: state.revision, edit: { op: "replace", form: JSON.parse(form) } }) })).status;
            }
            """,
            java.util.List.of(api, FORM));
    assertThat(status).isEqualTo(200);
    desk.reload();
    desk.waitForSelector("#form-page[data-ready]");
  }

  private void onTheLiveSheet(Page desk) {
    Locator sheet = desk.locator("#live-sheet");
    sheet.locator("[data-add=defects]").click();
    sheet.locator("[data-question=severity] [data-code='3']").click();
    sheet.locator("[data-question=length_m] input").fill("31");
    assertThat(sheet.locator("[data-question=length_m] .point.firm"))
        .containsText("from 0 to 30 m");
    sheet.locator("[data-question=length_m] input").fill("4");
    sheet.locator("[data-add=defects]").click();
    sheet.locator(".sheet-row").nth(1).locator("[data-question=length_m] input").fill("1.5");
    assertThat(sheet.locator("[data-question=total_m] output")).hasText("5.5 m");
    assertThat(sheet.locator("[data-question=found] output")).hasText("2");
    sheet.locator("[data-question=causes] [data-code=rust]").click();
    sheet.locator("[data-question=causes] [data-code=silt]").click();
    assertThat(sheet.locator("[data-question=causes] [data-code=silt]")).hasText("2. Silt");
    sheet.locator("[data-question=kind] select").selectOption("sluice");
    assertThat(sheet.locator("[data-part=block-title]")).hasValue("Flow");
    sheet.locator("[data-question=leaks] button").last().click();
    sheet.locator("[data-question=leaks] button").last().click();
    assertThat(sheet.locator("[data-question=leaks] input")).hasValue("2");
    sheet.locator("[data-question=kind] select").selectOption("weir");
    assertThat(sheet.locator("[data-question=leaks]")).hasCount(0);
  }

  private static void plan(Page desk, String form, String name) {
    desk.navigate(form);
    desk.click("text=Plan a round");
    desk.waitForSelector("#round-planner[data-ready]");
    desk.fill("#found", "OS-1021");
    desk.locator("[data-offer]").first().click();
    desk.fill("#name", name);
    desk.click("text=Make the round with");
    assertThat(desk.locator(".done")).containsText("The round is ready");
  }

  /**
   * Waits until the round is on the device and opens its stop without a network, on the page of the
   * list.
   */
  private static String openOffline(Page day, String round) {
    day.click("nav >> text=Today");
    day.reload();
    Locator card = day.locator("[data-round]", new Page.LocatorOptions().setHasText(round));
    // the device knew others before: a new round comes to it by itself
    assertThat(card.locator("text=Go to the stops")).isVisible();
    day.evaluate("() => navigator.serviceWorker.ready.then(() => true)");
    day.context().setOffline(true);
    day.locator("[data-round]", new Page.LocatorOptions().setHasText(round))
        .locator("text=Go to the stops")
        .click();
    day.locator(".stop").first().click();
    day.click("#next-page");
    return day.locator(".day-head h1").innerText();
  }

  private static void handIn(Page day) {
    day.click("#save");
    assertThat(day.locator(".done")).containsText("is saved");
    day.context().setOffline(false);
    day.click("nav >> text=Carried");
    day.click("#hand-in");
    assertThat(day.locator(".done")).containsText("Handed in: 1 visit");
  }

  private static void fill(Page day) {
    day.locator("[data-add=defects]").click();
    day.locator("[data-question=severity] [data-code='4']").click();
    day.locator("[data-question=length_m] input").fill("2.5");
    day.locator("[data-add=defects]").click();
    assertThat(day.locator(".sheet-row")).hasCount(2);
    day.click("#take-back");
    assertThat(day.locator(".sheet-row")).hasCount(1);
    assertThat(day.locator("[data-question=found] output")).hasText("1");
  }

  private static void confirmWhatWasFound(Page day) {
    assertThat(day.locator(".sheet-row")).containsText("found by the last visit");
    assertThat(day.locator("#save")).containsText("1 open");
    day.click(".sheet-row >> text=mended");
    assertThat(day.locator("[data-question=found] output")).hasText("0");
    assertThat(day.locator("#save")).hasText("Save visit");
  }
}
