package org.whinridge.core.round;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.text.Numbers;

/**
 * How the people of a round get from stop to stop.
 *
 * @param ends where they begin and end
 * @param kmh how fast they travel on the whole, kilometres an hour, {@value #SLOWEST} to {@value
 *     #FASTEST}
 */
public record Travel(VisitOrder.Ends ends, double kmh) {
  /** Slower than anybody walks. */
  public static final double SLOWEST = 0.1;

  /** As fast as a helicopter. */
  public static final double FASTEST = 300;

  /** A car on lanes and tracks, gates included: common practice, no source. */
  public static final Travel USUAL = new Travel(VisitOrder.Ends.ANY, 20);

  private static final double METRES = 1000;

  public Travel {
    if (!(kmh >= SLOWEST && kmh <= FASTEST))
      throw new Unfit("round.speed", "least", SLOWEST, "most", FASTEST);
  }

  /** The same for the order of visit and for splitting. */
  public RoundSplit.How how(int people) {
    return new RoundSplit.How(people, kmh * METRES, ends);
  }

  /** The JSON form: {@code {"kmh": 20, "start": [lon, lat], "end": [lon, lat]}}. */
  public JsonObject json() {
    JsonObject o = new JsonObject().add("kmh", Numbers.json(kmh));
    ends.start().ifPresent(c -> o.add("start", place(c)));
    ends.end().ifPresent(c -> o.add("end", place(c)));
    return o;
  }

  private static JsonArray place(Coordinate c) {
    return new JsonArray().add(Numbers.json(c.x)).add(Numbers.json(c.y));
  }

  /**
   * Reads the JSON form; what is missing is as usual.
   *
   * @throws IllegalArgumentException with a sentence for people
   */
  public static Travel read(JsonObject o) {
    JsonValue kmh = o.get("kmh");
    return new Travel(
        new VisitOrder.Ends(position(o.get("start")), position(o.get("end"))),
        kmh == null ? USUAL.kmh : kmh.isNumber() ? kmh.asDouble() : Double.NaN);
  }

  private static Optional<Coordinate> position(JsonValue v) {
    if (v == null || v.isNull()) return Optional.empty();
    if (!v.isArray() || v.asArray().size() != 2) throw new Unfit("round.noPlace");
    JsonValue lon = v.asArray().get(0);
    JsonValue lat = v.asArray().get(1);
    if (!lon.isNumber() || !lat.isNumber()) throw new Unfit("round.noPlace");
    Coordinate c = new Coordinate(lon.asDouble(), lat.asDouble());
    if (!(Math.abs(c.x) <= 180 && Math.abs(c.y) <= 90)) throw new Unfit("round.noPlace");
    return Optional.of(c);
  }
}
