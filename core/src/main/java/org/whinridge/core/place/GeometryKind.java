package org.whinridge.core.place;

import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Lineal;
import org.locationtech.jts.geom.Polygonal;
import org.locationtech.jts.geom.Puntal;
import org.whinridge.core.text.Word;

/** The kind of geometry of a layer; multi-part allowed in each. */
public enum GeometryKind implements Word {
  POINT("point"),
  LINE("line"),
  POLYGON("polygon"),
  TABLE("table");
  private final String id;

  GeometryKind(String id) {
    this.id = id;
  }

  /** The word for it, in data and on screens. */
  @Override
  public String id() {
    return id;
  }

  /** The kind with that word. */
  public static Optional<GeometryKind> of(String id) {
    return Word.of(values(), id);
  }

  /** The kind that a geometry belongs to; empty for mixed collections. */
  public static Optional<GeometryKind> of(Geometry g) {
    if (g instanceof Puntal) return Optional.of(POINT);
    if (g instanceof Lineal) return Optional.of(LINE);
    return g instanceof Polygonal ? Optional.of(POLYGON) : Optional.empty();
  }

  /** Whether a feature of such a layer can have this geometry; nothing fits a table. */
  public boolean fits(Geometry g) {
    return !g.isEmpty() && of(g).filter(k -> k == this).isPresent();
  }
}
