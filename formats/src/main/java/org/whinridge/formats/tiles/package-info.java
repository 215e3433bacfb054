/**
 * Map tiles: vector tiles out of a layer's read model ({@link
 * org.whinridge.formats.tiles.TileWriter}), and basemaps of pictures in files ({@link
 * org.whinridge.formats.tiles.TilePictures}).
 */
package org.whinridge.formats.tiles;
