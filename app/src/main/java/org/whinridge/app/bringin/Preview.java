package org.whinridge.app.bringin;

import com.eclipsesource.json.JsonObject;
import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygonal;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.DateLine;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.Repair;
import org.whinridge.core.profile.PlaceColumns;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;
import org.whinridge.formats.source.RawFeature;

/** Some features of a part as they would lie on the map, before and after a repair. */
final class Preview {
  /** What is asked for: the system, the columns with places, the way of repair, "" for none. */
  record Asked(String system, String x, String y, String wkt, String repair) {}

  private final Found.Part part;
  private final Optional<CoordinateSystem> system;
  private final Optional<PlaceColumns> places;
  private final Optional<Repair> repair;
  private final List<Sample> features = new ArrayList<>();
  private Said problem = Said.NONE;
  private int wrapped;

  private Preview(Found.Part part, Asked a) {
    this.part = part;
    this.places = Choice.places(a.x, a.y, a.wkt).or(part::places);
    this.system = Choice.system(part, a.system, places);
    this.repair = a.repair.isEmpty() ? Optional.empty() : Optional.of(Repair.of(a.repair));
  }

  /**
   * GeoJSON with what is to be told.
   *
   * @param accuracy how far positions may be off
   * @param unsure whether nobody knows how far
   */
  record Shown(
      String type,
      List<Sample> features,
      String system,
      Said problem,
      Said accuracy,
      boolean unsure) {}

  /** A feature of the file where it would lie. */
  record Sample(String type, String id, JsonObject geometry, State properties) {}

  /**
   * Whether a polygon crosses itself; what a repair makes of it follows as a feature of its own,
   * with the share of the area that changes.
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record State(Boolean broken, Boolean repaired, Double changed) {}

  static Shown of(Found.Part part, Asked asked) {
    Preview p = new Preview(part, asked);
    if (p.system.isEmpty()) p.problem = Said.of("told.chooseCoordinateSystem");
    else part.sample().forEach(p::feature);
    OptionalDouble m = p.system.map(CoordinateSystem::accuracyM).orElse(OptionalDouble.of(0));
    return new Shown(
        "FeatureCollection",
        p.features,
        p.system.map(CoordinateSystem::name).orElse(""),
        p.problem,
        p.system.isEmpty() ? Said.NONE : p.accuracy(m),
        m.isEmpty());
  }

  private Said accuracy(OptionalDouble m) {
    Said said =
        m.isEmpty()
            ? Said.of("told.unknownAccuracy")
            : m.getAsDouble() == 0
                ? Said.of("told.exact")
                : Said.of("told.rightTo", "m", Numbers.round(m.getAsDouble(), 1));
    return wrapped == 0
        ? said
        : Said.of("list.sentences", "a", said, "b", Said.of("told.beyond180"));
  }

  private void feature(RawFeature f) {
    try {
      Optional<Geometry> own =
          part.layer().table() ? places.flatMap(c -> c.place(f.properties())) : f.geometry();
      if (own.isEmpty()) return;
      if (system.get().isInDegrees() && DateLine.isBeyond(own.get())) {
        own = own.map(DateLine::wrapped);
        wrapped++;
      }
      Geometry g = system.get().toWgs84(own.get());
      boolean broken = g instanceof Polygonal && !g.isValid();
      add(f, "", g, new State(broken, null, null));
      if (!broken || repair.isEmpty()) return;
      Repair.Result r = repair.get().of(g);
      if (!r.after().isEmpty()) add(f, "-after", r.after(), new State(null, true, r.changed()));
    } catch (IllegalArgumentException e) {
      if (problem.isEmpty())
        problem = Said.of("told.row", "number", f.number(), "why", Refusal.said(e));
    }
  }

  private void add(RawFeature f, String after, Geometry g, State state) {
    features.add(
        new Sample(
            "Feature",
            f.number() + after,
            GeometryJson.write(g.getNumGeometries() == 1 ? g.getGeometryN(0) : g),
            state));
  }
}
