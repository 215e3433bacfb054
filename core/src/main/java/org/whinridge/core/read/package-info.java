/**
 * The reading side of a layer in memory: one column per field, compact geometries, an index over
 * envelopes, and filters that run over columns. Start at {@link
 * org.whinridge.core.read.LayerColumns}.
 *
 * <p>Comes in: features, one after the other. Goes out: rows, values, features. Never: the store;
 * whoever builds a read model keys it by the layer's revision and guards it against use by several
 * threads while it is patched.
 */
package org.whinridge.core.read;
