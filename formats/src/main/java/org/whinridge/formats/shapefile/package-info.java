/**
 * Shapefiles (ESRI Shapefile Technical Description, 1998), in and out, with their companions:
 * tables of the whole names and of texts that do not fit.
 */
package org.whinridge.formats.shapefile;
