/**
 * Coordinate systems of files: by code, by name, or out of well-known text. Start at {@link
 * org.whinridge.formats.crs.CoordinateSystems}.
 *
 * <p>Comes in: codes and the text of .prj files. Goes out: core's {@link
 * org.whinridge.core.place.CoordinateSystem}. Definitions and datum shifts are those of the
 * proj4j-epsg library, never written here.
 */
package org.whinridge.formats.crs;
