/**
 * What any file needs: limits, problems with their place, names that never become paths, archives
 * unpacked within bounds, encodings, XML that fetches nothing, SQLite that is stopped when it does
 * not end. The lowest package: it knows no format.
 */
package org.whinridge.formats.file;
