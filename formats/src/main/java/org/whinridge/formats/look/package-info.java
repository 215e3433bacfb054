/**
 * Looks in and out of other formats: SLD 1.1 out ({@link org.whinridge.formats.look.SldWriter}),
 * icons in from SVG, cleaned ({@link org.whinridge.formats.look.IconReader}).
 */
package org.whinridge.formats.look;
