package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The desk by keyboard and lists, without the map; wrong files through the real page. */
class DeskKeysTest extends BrowserTest {
  @Test
  void thePathIsWalkedByKeysAndQuestionMarkListsThem() {
    Page desk = stage.desk("coordinator");
    desk.keyboard().press("?");
    assertThat(desk.locator("#keys")).isVisible();
    desk.click("#keys button");
    desk.keyboard().press("g");
    desk.keyboard().press("r");
    assertThat(desk.locator("h1")).hasText("Rounds");
    desk.keyboard().press("g");
    desk.keyboard().press("h");
    assertThat(desk.locator("h1")).hasText("Hand-ins");
    desk.keyboard().press("g");
    desk.keyboard().press("f");
    assertThat(desk.locator("h1")).hasText("Forms");
  }

  @Test
  void aFeatureIsFoundInTheListAndItsAddressCanBeShared() {
    Page desk = stage.desk("reader");
    desk.click("nav >> text=Layers");
    desk.click("a:has-text('Control structures')");
    desk.waitForSelector("#layer-page[data-ready]");
    desk.fill("input[type=search]", "OS-1021");
    assertThat(desk.locator("#feature-list button")).hasCount(1);
    desk.click("#feature-list button");
    assertThat(desk.locator("#card h2")).containsText("OS-1021");
    String address = desk.url();
    assertThat(desk.locator("text=Make a form from its fields")).hasCount(0); // a reader reads
    Page other = stage.desk("reviewer");
    other.navigate(address);
    assertThat(other.locator("#card h2")).containsText("OS-1021");
  }

  private static Page.LocatorOptions holding(String text) {
    return new Page.LocatorOptions().setHasText(text);
  }

  @Test
  void stopsAreChosenInTheListWithoutTheMap() {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/rounds");
    desk.click("text=Plan a round");
    desk.waitForSelector("#round-planner[data-ready]");
    Locator make = desk.locator("#make-round");
    assertThat(make).isDisabled();
    assertThat(make).containsText("Choose a form first");
    desk.locator("#round-forms label", holding("Structure visit")).locator("input").check();
    assertThat(make).containsText("Choose stops first");
    desk.fill("#found", "OS-10");
    desk.locator("[data-offer]").nth(0).click();
    desk.locator("[data-offer]").nth(1).click();
    assertThat(desk.locator("#chosen-count")).hasText("2 stops");
    desk.locator("#stop-list li").nth(1).locator("button").last().click();
    assertThat(desk.locator("#chosen-count")).hasText("1 stop");
    desk.locator("#round-people input[value=inspector1]").check();
    desk.fill("#name", "By list");
    make.click();
    assertThat(desk.locator(".done")).containsText("The round is ready");
    assertThat(desk.locator("#round-stops > li")).hasCount(1);
  }

  @Test
  void aWrongFileIsToldOnThePageAndAnotherCanBeTried(@TempDir Path tmp) throws Exception {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/layers/bring-in");
    desk.setInputFiles(
        "#file", Files.writeString(tmp.resolve("wrong.geojson"), "{\"type\":\"Topology\"}"));
    desk.click("button.main");
    assertThat(desk.locator("#not-understood"))
        .containsText("wrong.geojson: This is GeoJSON of type Topology");
    desk.click("text=Drop the files");
    assertThat(desk.locator(".done")).containsText("nothing was imported");
    assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void sunModeIsRememberedOnTheDevice(@TempDir Path tmp) {
    Page day = stage.phone(tmp.resolve("sun"), -10.29, 57.8835);
    day.navigate(stage.base() + "/day");
    day.click("nav >> text=Kit");
    day.click("text=Sun mode");
    assertThat(day.locator("html.sun")).hasCount(1);
    day.reload();
    assertThat(day.locator("html.sun")).hasCount(1);
  }
}
