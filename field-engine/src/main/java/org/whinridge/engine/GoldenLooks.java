package org.whinridge.engine;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Envelope;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.look.Drawing;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.Picture;
import org.whinridge.core.look.ReadyLook;
import org.whinridge.core.read.Clock;

/** Golden vectors of looks: {look, schema, features}. */
final class GoldenLooks {
  private static final Clock CLOCK =
      new Clock(LocalDate.of(2026, 3, 1), Instant.parse("2026-03-01T12:00:00Z"));

  private GoldenLooks() {}

  /** How features are drawn, what is wrong, and the size of plan and picture. */
  static String draw(JsonObject o) {
    Schema schema = Schema.read(o.get("schema").asObject());
    ReadyLook ready;
    try {
      ready = ReadyLook.of(Look.read(o.get("look").toString()), schema);
    } catch (IllegalArgumentException e) {
      return e.getMessage();
    }
    JsonArray drawn = new JsonArray();
    List<Feature> features = new ArrayList<>();
    Envelope extent = new Envelope();
    for (JsonValue v : o.get("features").asArray()) {
      Feature f = Feature.read(v.asObject(), schema);
      features.add(f);
      f.geometry().ifPresent(g -> extent.expandToInclude(g.getEnvelopeInternal()));
      drawn.add(ready.draw(f, CLOCK).json());
    }
    JsonArray problems = new JsonArray();
    ready.problems().forEach(p -> problems.add(p.json()));
    String plan = Drawing.plan(ready).toString();
    String picture = new Picture(ready, extent, 200, 100, 1).svg(features, CLOCK, "");
    return drawn + " " + problems + " " + sum(plan) + " " + sum(picture);
  }

  /** A text's length and a sum of its characters, so that lines stay short. */
  private static String sum(String s) {
    long n = 0;
    for (int i = 0; i < s.length(); i++) n = (n * 31 + s.charAt(i)) % 1_000_000_007L;
    return s.length() + ":" + n;
  }
}
