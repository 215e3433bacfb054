/** GeoJSON (RFC 7946, and what is found of its older form), in and out, streamed. */
package org.whinridge.formats.geojson;
