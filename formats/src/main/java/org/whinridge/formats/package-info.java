/**
 * Files in and out: GeoJSON, GeoPackage, Shapefile, KML and KMZ, GPX (in only), CSV, XLSX, photos
 * (in only), and in packages of their own coordinate systems ({@code crs}), looks ({@code look}),
 * tiles ({@code tiles}) and forms ({@code xlsform}).
 *
 * <p>Start at {@link org.whinridge.formats.Sources}: it tells by content what a file is and opens
 * it. Each format is a package with its reader, its writer and what only it needs; what a reader
 * gives is a {@link org.whinridge.formats.source.Source}, what a writer is given an {@link
 * org.whinridge.formats.out.OutLayer}; what any file needs stands in {@code file}.
 *
 * <p>Comes in: streams and paths, bounded. Goes out: core's values, or a {@link
 * org.whinridge.formats.file.FileProblem} that names the place in the file. Never: the database.
 */
package org.whinridge.formats;
