package org.whinridge.app.overview;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygon;
import org.springframework.jdbc.core.namedparam.NamedParameterJdbcTemplate;
import org.springframework.stereotype.Component;

/**
 * A small picture of where a project's features are: some of them, evenly over its layers, each as
 * it lies, in degrees squeezed by the cosine of the middle's latitude.
 */
@Component
class ProjectPicture {
  /** The picture's size in its own units. */
  static final int WIDTH = 240;

  static final int HEIGHT = 132;

  private static final int MARGIN = 8;
  private static final int MOST = 500;

  /** Around a single place, degrees. */
  private static final double LEAST = 0.002;

  private final NamedParameterJdbcTemplate jdbc;

  ProjectPicture(NamedParameterJdbcTemplate jdbc) {
    this.jdbc = jdbc;
  }

  /** Paths of SVG: what has an area, what is a line, what is a point. */
  record Paths(String areas, String lines, String points) {
    /** Whether nothing has a place yet. */
    public boolean none() {
      return areas.isEmpty() && lines.isEmpty() && points.isEmpty();
    }
  }

  /** The picture of a project. */
  Paths of(UUID project) {
    List<Geometry> some =
        jdbc.query(
            "select f.geom from feature f join layer l on l.id = f.layer_id where l.project_id = :p and not f.removed and f.geom is not null"
                + " and mod(f.place_in_layer, (select greatest(1, sum(feature_count) / :most) from layer where project_id = :p)) = 0 fetch first :limit rows only",
            Map.of("p", project, "most", MOST, "limit", 2 * MOST),
            (r, i) -> (Geometry) r.getObject(1));
    return draw(some);
  }

  static Paths draw(List<Geometry> all) {
    Envelope box = new Envelope();
    all.forEach(g -> box.expandToInclude(g.getEnvelopeInternal()));
    if (box.isNull()) return new Paths("", "", "");
    if (box.getWidth() < LEAST) box.expandBy((LEAST - box.getWidth()) / 2, 0);
    if (box.getHeight() < LEAST) box.expandBy(0, (LEAST - box.getHeight()) / 2);
    double squeeze = Math.cos(Math.toRadians((box.getMinY() + box.getMaxY()) / 2));
    double scale =
        Math.min(
            (WIDTH - 2.0 * MARGIN) / (box.getWidth() * squeeze),
            (HEIGHT - 2.0 * MARGIN) / box.getHeight());
    Pen pen = new Pen(box, scale, squeeze);
    StringBuilder areas = new StringBuilder();
    StringBuilder lines = new StringBuilder();
    StringBuilder points = new StringBuilder();
    for (Geometry g : all)
      for (Geometry part : parts(g)) {
        if (part instanceof Polygon p) {
          pen.line(areas, p.getExteriorRing());
          areas.append('z');
        } else if (part instanceof LineString l) pen.line(lines, l);
        else if (part instanceof Point p && !p.isEmpty()) pen.point(points, p.getCoordinate());
      }
    return new Paths(areas.toString(), lines.toString(), points.toString());
  }

  private static List<Geometry> parts(Geometry g) {
    List<Geometry> out = new ArrayList<>();
    for (int i = 0; i < g.getNumGeometries(); i++) out.add(g.getGeometryN(i));
    return out;
  }

  private record Pen(Envelope box, double scale, double squeeze) {
    private String at(Coordinate c) {
      double x = WIDTH / 2.0 + (c.x - box.centre().x) * scale * squeeze;
      double y = HEIGHT / 2.0 - (c.y - box.centre().y) * scale;
      return String.format(Locale.ROOT, "%.1f %.1f", x, y);
    }

    /** Corners that fall on the one before are left out. */
    void line(StringBuilder out, LineString l) {
      String last = "";
      for (Coordinate c : l.getCoordinates()) {
        String at = at(c);
        if (!at.equals(last)) out.append(last.isEmpty() ? "M" : "L").append(at);
        last = at;
      }
    }

    /** A line of no length, which a round cap makes a dot. */
    void point(StringBuilder out, Coordinate c) {
      out.append('M').append(at(c)).append("h0");
    }
  }
}
