package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import jakarta.servlet.Filter;
import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.context.TestConfiguration;
import org.springframework.context.annotation.Bean;
import org.springframework.core.io.ClassPathResource;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.fields.LayerFields;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.Projects;
import org.whinridge.core.access.Role;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.demo.DemoPhoto;

/** What the office does while somebody is out: nothing that was done outdoors is lost by it. */
class ChangedWhileOutTest extends DemoBrowserTest {
  private static final Path OWN = temporary();
  private static final String ROUND = "Saltings, before the autumn tides";

  /** Whether the server has a newer day book than the one that devices have. */
  private static volatile boolean newer;

  @Autowired Projects projects;
  @Autowired Members members;
  @Autowired Layers layers;
  @Autowired LayerFields fields;

  @DynamicPropertySource
  static void own(DynamicPropertyRegistry r) {
    r.add("whinridge.data", OWN::toString);
  }

  @TestConfiguration
  static class ANewerDayBook {
    /** The same worker under another name of its files, as another build has it. */
    @Bean
    Filter newerWorker() {
      return (request, response, chain) -> {
        if (!newer || !((HttpServletRequest) request).getRequestURI().equals("/sw.js")) {
          chain.doFilter(request, response);
          return;
        }
        String worker =
            new ClassPathResource("static/sw.js").getContentAsString(StandardCharsets.UTF_8);
        response.setContentType("text/javascript");
        response.getWriter().write(worker.replace("\"whinridge-", "\"whinridge-newer-"));
      };
    }
  }

  @AfterEach
  void asBefore() {
    newer = false;
  }

  private static Page.LocatorOptions holding(String text) {
    return new Page.LocatorOptions().setHasText(text);
  }

  private UUID project() {
    return projects.byKey("ostrey").id();
  }

  /** A phone at the list of stops, without a link. */
  private Page out() {
    Page day = stage.phone(temporary(), -10.29, 57.8835);
    day.navigate(stage.base() + "/day");
    day.click("a.button.main");
    day.click("button[value=inspector1]");
    day.locator("[data-round]", holding(ROUND)).locator("text=Take this round offline").click();
    assertThat(day.locator(".done")).containsText("You can go offline");
    day.locator("[data-round]", holding(ROUND)).locator("text=Go to the stops").click();
    day.waitForSelector(".stop");
    return day;
  }

  /** Begins the nth stop and gives it a photo; gives its caption. */
  private static String begin(Page day, int n) {
    day.locator(".stop").nth(n).click();
    day.waitForSelector("#save");
    // another one than the asset has
    day.locator("[data-question=condition] [aria-pressed=false]").first().click();
    while (day.locator("input[type=file]").count() == 0) day.click("#next-page");
    day.setInputFiles(
        "input[type=file]",
        new FilePayload("p.jpg", "image/jpeg", DemoPhoto.jpeg("OS-1", "tide_flap", "2026-11-24")));
    assertThat(day.locator(".photos img, .photo img, figure img").first()).isVisible();
    return day.locator(".day-head h1").innerText();
  }

  private static void finish(Page day) {
    while (day.locator("#next-page").count() > 0 || day.locator(".point.soft button").count() > 0) {
      while (day.locator(".point.soft button").count() > 0)
        day.locator(".point.soft button").first().click();
      if (day.locator("#next-page").count() > 0) day.click("#next-page");
    }
    day.click("#save");
    assertThat(day.locator(".done")).containsText("saved");
  }

  private static void backToTheList(Page day) {
    day.click(".day-head button");
    day.waitForSelector(".stop");
  }

  private static void linkedAgain(Page day) {
    day.context().setOffline(false);
    day.reload();
    day.waitForSelector("nav");
  }

  private static void handIn(Page day, String told) {
    day.click("nav >> text=Carried");
    day.click("#hand-in");
    assertThat(day.locator(".done")).containsText(told);
  }

  @Test
  void aFieldThatIsRemovedMeanwhileTakesNoAnswerWithIt() {
    Page day = out();
    day.context().setOffline(true);
    String caption = begin(day, 0);
    finish(day);
    Layer structures =
        layers.list(project()).stream()
            .filter(l -> l.name().equals("Control structures"))
            .findFirst()
            .orElseThrow();
    Schema s = structures.schema();
    List<Field> left = s.fields().stream().filter(f -> !f.name().equals("condition")).toList();
    fields.change(
        structures, new Schema(s.kind(), left, s.tagField(), s.captionFields()), "coordinator");
    linkedAgain(day);
    handIn(day, "Handed in: 1 visit, 1 photo");
    // the form is the edition that it was: other stops are still visited with it
    day.click("nav >> text=Stops");
    day.locator(".stop", holding("to do")).first().click();
    assertThat(day.locator("[data-question=condition]")).isVisible();
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/hand-ins");
    desk.locator("a", holding(caption)).first().click();
    assertThat(desk.locator("main"))
        .containsText("no field “condition” any more; “1” stays on the visit");
    desk.click("#accept");
    assertThat(desk.locator(".done")).containsText("Accepted");
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void aRoundThatIsClosedMeanwhileIsToldAndWhatWasBegunInItGoesOn() {
    Page day = out();
    day.context().setOffline(true);
    begin(day, 1);
    finish(day);
    String begun = begin(day, 2);
    backToTheList(day);
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/rounds");
    desk.locator("h2 a", holding(ROUND)).click();
    desk.click("#close-round");
    assertThat(desk.locator("main")).containsText("is closed");
    try {
      linkedAgain(day);
      assertThat(day.locator("#news")).containsText(ROUND);
      handIn(day, "Handed in: 1 visit, 1 photo");
      day.locator("#begun li", holding(begun)).locator("[data-go-on]").click();
      assertThat(day.locator(".day-head h1")).hasText(begun);
      finish(day);
      handIn(day, "Handed in: 1 visit, 1 photo");
      // what is over leaves the device when it is asked and said so
      day.click("nav >> text=Kit");
      day.onDialog(d -> d.accept());
      day.click("#make-room");
      assertThat(day.locator(".done")).containsText("There is more room");
      assertThat(day.locator("#kept-rounds")).hasCount(0);
      day.click("nav >> text=Carried");
      assertThat(day.locator("[data-visit]")).hasCount(2);
      org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
    } finally {
      desk.click("#close-round");
    }
  }

  @Test
  void whoIsTakenOutOfTheProjectMeanwhileLosesNothing() {
    Page day = out();
    day.context().setOffline(true);
    String caption = begin(day, 3);
    finish(day);
    members.set(project(), "inspector1", Set.of());
    try {
      linkedAgain(day);
      assertThat(day.locator("#news")).containsText(ROUND);
      day.click("nav >> text=Carried");
      day.click("#hand-in");
      assertThat(day.locator("[data-visit]", holding(caption))).containsText("set aside");
      Page desk = stage.desk("coordinator");
      desk.navigate(stage.base() + "/p/ostrey/hand-ins/set-aside");
      assertThat(desk.locator("main")).containsText("inspector1");
      org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
    } finally {
      members.give(project(), "inspector1", Role.INSPECTOR);
    }
  }

  private static boolean waits(Page day) {
    return (Boolean)
        day.evaluate(
            "() => navigator.serviceWorker.getRegistration('/day').then((r) => Boolean(r.waiting))");
  }

  @Test
  void aNewerDayBookTakesOverBetweenStopsAndNotInOne() {
    Page day = out();
    String caption = begin(day, 5);
    newer = true;
    day.evaluate("() => { window.asItWas = true; }");
    day.evaluate("() => navigator.serviceWorker.getRegistration('/day').then((r) => r.update())");
    for (int i = 0; i < 100 && !waits(day); i++) day.waitForTimeout(100);
    day.evaluate("() => document.dispatchEvent(new Event('visibilitychange'))");
    day.waitForTimeout(500);
    org.assertj.core.api.Assertions.assertThat(waits(day)).isTrue();
    org.assertj.core.api.Assertions.assertThat(day.evaluate("() => window.asItWas"))
        .isEqualTo(true);
    backToTheList(day);
    // contacts rest a while before they look again
    day.waitForFunction(
        "() => { document.dispatchEvent(new Event('visibilitychange')); return !window.asItWas; }",
        null,
        new Page.WaitForFunctionOptions().setPollingInterval(1000).setTimeout(60_000));
    day.waitForSelector("nav");
    org.assertj.core.api.Assertions.assertThat(waits(day)).isFalse();
    day.context().setOffline(true);
    day.reload();
    day.click("nav >> text=Carried");
    day.locator("#begun li", holding(caption)).locator("[data-go-on]").click();
    finish(day);
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }
}
