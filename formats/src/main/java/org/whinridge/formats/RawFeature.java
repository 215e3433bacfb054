package org.whinridge.formats;

import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.value.Value;

/**
 * One feature as a file has it: its number in the file from 1, its geometry in WGS 84, its
 * properties under their own names.
 */
public record RawFeature(int number, Optional<Geometry> geometry, Map<String, Value> properties) {}
