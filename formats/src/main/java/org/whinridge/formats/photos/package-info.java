/** Photos: what they say of themselves (EXIF), whether they are whole, and photos as a layer. */
package org.whinridge.formats.photos;
