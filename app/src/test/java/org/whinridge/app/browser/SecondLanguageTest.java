package org.whinridge.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Consumer;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/**
 * A second language is one more file: an invented one with longer words, accents, from right to
 * left. What stands on a page without its marks did not come out of the catalogue.
 */
class SecondLanguageTest extends DemoBrowserTest {
  /** What is seen or spoken of a page, in pieces. */
  private static final String SAID =
      "() => { const out = new Set(); const seen = (e) => e.checkVisibility?.({ visibilityProperty: true }) ?? true;"
          + " const w = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);"
          + " while (w.nextNode()) { const e = w.currentNode.parentElement; if (!e.closest('script, style, template, time, .code, .ol-control, .ol-scale-line') && seen(e)) out.add(w.currentNode.data.trim()); }"
          + " for (const e of document.querySelectorAll('[aria-label], [placeholder], [title], [alt]'))"
          + " if (!e.closest('time')) for (const a of ['aria-label', 'placeholder', 'title', 'alt']) if (e.getAttribute(a)) out.add(e.getAttribute(a));"
          + " return [...out].filter(Boolean); }";

  private static final Pattern MARKED = Pattern.compile("⟦[^⟦⟧]*⟧");
  private static final Pattern WORD = Pattern.compile("[\\p{L}]{2,}");

  private static final Path OWN = temporary();

  @DynamicPropertySource
  static void language(DynamicPropertyRegistry r) {
    r.add("whinridge.messages", () -> folder().toString());
    // a store of its own: what other stories make there has names that are nobody's texts
    r.add("whinridge.data", OWN::toString);
  }

  private static Path folder() {
    try {
      Path folder = Files.createTempDirectory("whinridge-languages");
      Files.writeString(folder.resolve("qps.json"), PseudoLanguage.file());
      return folder;
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }

  /** The words of the data: names of layers and fields, codes, captions, people. */
  private Set<String> words(Page desk) {
    StringBuilder all = new StringBuilder();
    for (String path : List.of("map", "layer-names", "basemaps", "systems?q=32629"))
      all.append(fetched(desk, "/api/p/ostrey/" + path)).append(' ');
    for (Object id :
        (List<?>)
            desk.evaluate(
                "async () => (await (await fetch('/api/p/ostrey/layer-names')).json()).map((l) => l.id)"))
      for (String what : List.of("schema", "features", "look"))
        all.append(fetched(desk, "/api/p/ostrey/layers/" + id + "/" + what)).append(' ');
    desk.navigate(stage.base() + "/p/ostrey/rounds");
    desk.locator("li.card").allInnerTexts().forEach(t -> all.append(t).append(' '));
    all.append(fetched(desk, "/api/p/ostrey/rounds/planning")).append(' ');
    desk.navigate(stage.base() + "/p/ostrey/forms");
    for (Object form :
        (List<?>)
            desk.evaluate(
                "() => [...document.querySelectorAll('tbody a[href]')].map((a) => a.getAttribute('href'))"))
      all.append(fetched(desk, "/api" + form)).append(' ');
    all.append(" German"); // the browser's own name for a language
    all.append(" coordinator reviewer inspector reader Whinridge Ostrey EPSG WGS Isle of");
    return WORD.matcher(all).results().map(m -> m.group()).collect(Collectors.toSet());
  }

  private static String fetched(Page desk, String address) {
    return String.valueOf(desk.evaluate("async (a) => (await fetch(a)).text()", address));
  }

  private static String unmarked(String said) {
    String s = said;
    for (String before = ""; !before.equals(s); ) {
      before = s;
      s = MARKED.matcher(s).replaceAll(" ");
    }
    return s;
  }

  @SuppressWarnings("unchecked")
  private static Set<String> own(Page page, Set<String> data) {
    Set<String> out = new TreeSet<>();
    for (String said : (List<String>) page.evaluate(SAID))
      if (WORD.matcher(unmarked(said)).results().anyMatch(m -> !data.contains(m.group())))
        out.add(said.replaceAll("\\s+", " "));
    return out;
  }

  @Test
  void everyTextOfTheDesksPagesIsInTheCatalogue() throws Exception {
    Set<String> data = words(stage.desk("coordinator"));
    Page desk = stage.desk("coordinator", "qps");
    List<String> own = new ArrayList<>();
    List<String> cut = new ArrayList<>();
    for (Map.Entry<String, Consumer<Page>> e : EveryPage.ofTheDesk(stage.base()).entrySet()) {
      e.getValue().accept(desk);
      Stage.quiet(desk);
      own(desk, data).forEach(s -> own.add(e.getKey() + ": " + s));
      EveryPageTest.cut(desk).forEach(s -> cut.add(e.getKey() + ": " + s));
      assertThat(desk.locator("html").getAttribute("dir")).as(e.getKey()).isEqualTo("rtl");
      desk.setViewportSize(640, 400);
      Stage.quiet(desk);
      int beyond = EveryPageTest.beyond(desk);
      if (beyond > 0) cut.add(e.getKey() + " reaches " + beyond + " px beyond its window");
      desk.setViewportSize(1280, 800);
    }
    assertThat(cut).isEmpty();
    assertThat(own).as("outside the catalogue: " + own).isEmpty();
    assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void everyTextOfTheDayBookIsInTheCatalogue() throws Exception {
    Set<String> data = words(stage.desk("coordinator"));
    Page day = stage.dayBook(temporary(), -10.29, 57.8835, "qps");
    List<String> own = new ArrayList<>();
    List<String> cut = new ArrayList<>();
    day.locator("[data-round] button").first().click();
    day.waitForSelector(".done");
    look(day, "today", data, own, cut);
    String[] tabs = {"today", "stops", "map", "carried", "kit"};
    for (int i = 1; i < tabs.length; i++) {
      day.locator(".day-tabs button").nth(i).click();
      assertThat(day.locator(".day-tabs [aria-current=true]").count()).isEqualTo(1);
      Stage.quiet(day);
      look(day, tabs[i], data, own, cut);
    }
    day.locator(".day-tabs button").nth(1).click();
    day.locator(".stop").first().click();
    day.waitForSelector("#save");
    day.click("#trail");
    look(day, "stop", data, own, cut);
    assertThat(cut).isEmpty();
    assertThat(own).as("outside the catalogue: " + own).isEmpty();
    assertThat(stage.scriptErrors()).isEmpty();
  }

  /** A file with faults of many kinds, a form that can't be published, a shape that can't be. */
  @Test
  void whatIsToldOfFilesAndFormsIsInTheCatalogue() throws Exception {
    Set<String> data = words(stage.desk("coordinator"));
    String table =
        "Inventory of gates\n\ntag,kind,east,north,built\nA1,weir,here,57.9,2020-01-01\n"
            + "A2,pump,-10.2,57.9,31.12.2020\nA1,Weir,-10.3,57.9,2021-02-30,stray\n";
    WORD.matcher(table).results().forEach(m -> data.add(m.group()));
    data.addAll(List.of("gates", "csv", "broken", "geojson", "png", "CSV", "UTF", "GeoJSON"));
    Page desk = stage.desk("coordinator", "qps");
    List<String> own = new ArrayList<>();
    List<String> cut = new ArrayList<>();
    Path folder = temporary();
    desk.navigate(stage.base() + "/p/ostrey/layers/bring-in");
    desk.setInputFiles(
        "#file",
        new Path[] {
          Files.writeString(folder.resolve("gates.csv"), table),
          Files.writeString(folder.resolve("broken.geojson"), "{\"type\": \"Feature\", x"),
          Files.writeString(
              folder.resolve("bowtie.geojson"),
              "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{},\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[-10.2,57.9],[-10.1,57.8],[-10.1,57.9],[-10.2,57.8],[-10.2,57.9]]]}}]}"),
          Files.writeString(folder.resolve("none.png"), "no picture")
        });
    data.addAll(List.of("bowtie", "none"));
    desk.click("#bring-in button[type=submit]");
    desk.waitForSelector("#report[data-ready]");
    look(desk, "report", data, own, cut);
    desk.navigate(stage.base() + "/p/ostrey/forms");
    desk.navigate(stage.base() + desk.locator("tbody a").first().getAttribute("href"));
    desk.waitForSelector("#form-page[data-ready]");
    desk.click("[data-line=silt_depth_mm] button[data-name]");
    desk.waitForSelector("#editor");
    FormStories.write(desk, "#e-ask", "kind = 'slouce' AND count(nothing) > 1");
    data.addAll(List.of("slouce", "nothing")); // its words, each in its colour
    desk.waitForSelector("#form-problems");
    Stage.quiet(desk);
    look(desk, "problems", data, own, cut);
    assertThat(cut).isEmpty();
    assertThat(own).as("outside the catalogue: " + own).isEmpty();
  }

  private static void look(
      Page page, String name, Set<String> data, List<String> own, List<String> cut) {
    own(page, data).forEach(s -> own.add(name + ": " + s));
    EveryPageTest.cut(page).forEach(s -> cut.add(name + ": " + s));
    assertThat(page.locator("html").getAttribute("dir")).as(name).isEqualTo("rtl");
  }
}
