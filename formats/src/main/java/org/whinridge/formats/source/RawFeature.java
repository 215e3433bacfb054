package org.whinridge.formats.source;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * One feature as a file has it.
 *
 * @param number its number in the file, from 1
 * @param geometry in the file's own coordinates, x before y; empty when it has none or one that
 *     can't be read
 * @param properties under the file's own names
 * @param problem what is wrong with it, with its place in the file; nothing when all is well
 * @param pictures files of its pictures
 */
public record RawFeature(
    int number,
    Optional<Geometry> geometry,
    Map<String, Value> properties,
    Said problem,
    List<Path> pictures) {
  /** A feature without a problem and without pictures. */
  public RawFeature(int number, Optional<Geometry> geometry, Map<String, Value> properties) {
    this(number, geometry, properties, Said.NONE, List.of());
  }

  /** The feature with a problem told. */
  public RawFeature with(Said newProblem) {
    return new RawFeature(number, geometry, properties, newProblem, pictures);
  }
}
