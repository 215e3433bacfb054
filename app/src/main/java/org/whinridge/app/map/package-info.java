/**
 * Maps: basemaps, and the project's map, which says which layers are drawn over which basemap, for
 * everybody and for the day book. Other modules ask {@link org.whinridge.app.map.ProjectMaps} and
 * {@link org.whinridge.app.map.Basemaps}.
 */
package org.whinridge.app.map;
