/** GeoPackage (OGC 12-128) with related photos (OGC 18-000), in and out. */
package org.whinridge.formats.geopackage;
