package org.whinridge.app.browser;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.List;
import org.whinridge.core.place.Mercator;

/** What tests do with the desk's maps and the addresses behind them. */
final class OnTheMap {
  private OnTheMap() {}

  static JsonObject json(Page desk, String path) {
    return Json.parse((String) desk.evaluate("async path => (await fetch(path)).text()", path))
        .asObject();
  }

  static String api(String address) {
    return address.replace("/p/", "/api/p/");
  }

  /** A place of the map in the window, in CSS pixels. */
  static double[] pixel(Page desk, double lon, double lat) {
    @SuppressWarnings("unchecked")
    List<Number> p =
        (List<Number>)
            desk.evaluate(
                "([x, y]) => { const t = document.querySelector('.map'); const p = t.olMap.getPixelFromCoordinate([x, y]); const b = t.getBoundingClientRect(); return [p[0] + b.left, p[1] + b.top]; }",
                List.of(
                    (Mercator.x(lon) - 0.5) * Mercator.WORLD_M,
                    (0.5 - Mercator.y(lat)) * Mercator.WORLD_M));
    return new double[] {p.get(0).doubleValue(), p.get(1).doubleValue()};
  }

  static void click(Page desk, double lon, double lat) {
    double[] p = pixel(desk, lon, lat);
    desk.mouse().click(p[0], p[1]);
  }

  static void near(Page desk, double lon, double lat, double zoom) {
    desk.evaluate(
        "([x, y, z]) => { const v = document.querySelector('.map').olMap.getView(); v.setCenter([x, y]); v.setZoom(z); }",
        List.of(
            (Mercator.x(lon) - 0.5) * Mercator.WORLD_M,
            (0.5 - Mercator.y(lat)) * Mercator.WORLD_M,
            zoom));
    drawn(desk);
  }

  /** Waits until the map has all that it asked for and has drawn it. */
  static void drawn(Page desk) {
    Stage.quiet(desk);
    desk.evaluate(
        "() => new Promise((done) => { const m = document.querySelector('.map').olMap; m.once('rendercomplete', () => done(true)); m.render(); })");
  }

  static Locator value(Page desk, String field) {
    return desk.locator("[data-value-of=" + field + "] :is(input, select)").first();
  }
}
