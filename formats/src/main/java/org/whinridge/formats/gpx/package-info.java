/** GPX 1.0 and 1.1, in only. */
package org.whinridge.formats.gpx;
