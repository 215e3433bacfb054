package org.whinridge.app.browser;

import com.microsoft.playwright.Page;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Consumer;

/** All pages of the desk as the demo has them, and all views of the day book, each opened ready. */
final class EveryPage {
  private EveryPage() {}

  /** Pages of the desk by name; to open one needs a coordinator's window. */
  static Map<String, Consumer<Page>> ofTheDesk(String base) {
    Map<String, Consumer<Page>> all = new LinkedHashMap<>();
    String home = base + "/p/ostrey/";
    for (String path :
        new String[] {
          "layers",
          "layers/bring-in",
          "forms",
          "rounds",
          "hand-ins",
          "hand-ins/set-aside",
          "people",
          "about",
          "devices",
          "desk",
          "outputs"
        }) all.put(path, p -> p.navigate(home + path));
    all.put("layer", p -> layer(p, home, "", "#layer-page[data-ready]"));
    all.put("card", EveryPage::card);
    all.put("fields", p -> layer(p, home, "/fields", "#fields-page[data-ready]"));
    all.put("values", p -> layer(p, home, "/values", "nav.leaves"));
    all.put("value", p -> layer(p, home, "/values?field=material", "#profile"));
    all.put("numbers", p -> layer(p, home, "/values?field=width_mm", "#profile"));
    all.put("history", p -> layer(p, home, "/history", "nav.leaves"));
    all.put("look", p -> layer(p, home, "/look", "#look-page[data-ready]"));
    all.put("draw", p -> layer(p, home, "/draw", "#draw-page[data-ready]"));
    all.put("make", p -> ready(p, home + "layers/make", "#make-page[data-ready]"));
    all.put("map", p -> ready(p, home + "map", "#project-map[data-ready]"));
    all.put("new form", p -> p.navigate(home + "forms/new"));
    for (String leaf : new String[] {"editions", "hand-over", "blank"})
      all.put("form " + leaf, p -> p.navigate(structureVisit(p, home) + "/" + leaf));
    all.put("about", p -> ready(p, home + "about", "#project-about[data-ready]"));
    all.put("form", p -> form(p, home));
    all.put("form's kinds", p -> workshop(p, home, "#choose-kind", "#kinds"));
    all.put("form as text", p -> workshop(p, home, "#as-text", "#form-text"));
    all.put("form in languages", p -> workshop(p, home, "#as-languages", "#languages"));
    all.put("what a form shares", p -> workshop(p, home, "#as-shared", "#shared"));
    all.put("form on the map", p -> workshop(p, home, "#proof-map-turn", "#proof-map canvas"));
    all.put("form's settings", p -> workshop(p, home, "#as-about", "#about"));
    all.put("plan", EveryPage::plan);
    all.put(
        "round",
        p -> {
          first(p, home + "rounds", "li.card h2 a");
          p.waitForSelector("#round-now[data-ready]");
        });
    all.put("round handed over", p -> handOver(p, home));
    all.put(
        "round on paper",
        p -> {
          handOver(p, home);
          p.click("#print-round");
          p.waitForSelector(".round-lines");
        });
    all.put("projects", p -> p.navigate(base + "/projects"));
    all.put("me", p -> p.navigate(base + "/me"));
    all.put("problem", p -> p.navigate(base + "/p/nowhere/layers"));
    return all;
  }

  private static void handOver(Page p, String home) {
    first(p, home + "rounds", "li.card h2 a");
    p.waitForSelector("#round-now[data-ready]");
    p.click("#hand-over");
    p.waitForSelector("#round-qr");
  }

  private static void ready(Page p, String address, String there) {
    p.navigate(address);
    p.waitForSelector(there);
  }

  private static void first(Page p, String address, String link) {
    p.navigate(address);
    String href = p.locator(link).first().getAttribute("href");
    p.navigate(address.replaceAll("/p/.*", "") + href);
  }

  private static void layer(Page p, String home, String leaf, String there) {
    p.navigate(home + "layers");
    String href =
        p.locator("h2 a", new Page.LocatorOptions().setHasText("Control structures"))
            .getAttribute("href");
    ready(p, home.replaceAll("/p/.*", "") + href + leaf, there);
  }

  private static void card(Page p) {
    p.locator("#feature-list button").first().click();
    p.waitForSelector("#card");
  }

  private static String structureVisit(Page p, String home) {
    first(p, home + "forms", "tbody a:text-is('Structure visit')");
    return p.url().replaceAll("[?#].*", "");
  }

  private static void form(Page p, String home) {
    workshop(p, home, "[data-line=silt_depth_mm] button[data-name]", "#editor");
  }

  private static void workshop(Page p, String home, String pressed, String there) {
    structureVisit(p, home);
    p.waitForSelector("#form-page[data-ready]");
    p.click(pressed);
    p.waitForSelector(there);
    // at the end the foot lies below what it would hide in part
    p.evaluate("() => scrollTo(0, document.documentElement.scrollHeight)");
  }

  private static void plan(Page p) {
    p.navigate(p.locator("a[href*='rounds/new']").first().evaluate("a => a.href").toString());
    p.waitForSelector("#round-planner[data-ready]");
  }
}
