/**
 * What every writer is given and does: an {@link org.whinridge.formats.out.OutLayer} with its
 * {@link org.whinridge.formats.out.OutColumns}, written by a {@link
 * org.whinridge.formats.out.LayerWriter}, so that all formats agree on the columns.
 */
package org.whinridge.formats.out;
