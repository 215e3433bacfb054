/** KML 2.2 (OGC 07-147) and KMZ, in and out. */
package org.whinridge.formats.kml;
