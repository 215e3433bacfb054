/**
 * Files in and out: GeoJSON (RFC 7946), GeoPackage (OGC 12-128) with related photos (OGC 18-000),
 * EXIF read back from photos.
 *
 * <p>Comes in: streams and paths, bounded. Goes out: core's values, or a {@link
 * org.whinridge.formats.FileProblem} that names the place in the file. Never: the database.
 */
package org.whinridge.formats;
