/**
 * The geotag of a photo, written into its JPEG bytes without touching the picture.
 *
 * <p>Start at {@link org.whinridge.core.photo.ExifWriter}. Source of the tags: CIPA DC-008 (Exif
 * 2.32).
 */
package org.whinridge.core.photo;
