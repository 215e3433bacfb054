/**
 * The frame that every page shares: the band with the work's path, errors in words. Knows no other
 * module; they add to the band through {@link org.whinridge.app.shell.BandStation}.
 */
package org.whinridge.app.shell;
